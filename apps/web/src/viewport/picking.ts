/** Picking what a blank asks for: points, corners, edges, faces, axes and directions. */
import {
  MEETING,
  MERGED,
  POINT_KINDS,
  SNAP_KINDS,
  instanceUnder,
  isChosenType,
  landingNormal,
  standingOf,
  carryBack,
  subtract,
  turnBack,
  verbNamed,
  worldFromPart,
  type BlankType,
  type Snap,
  type SnapKind,
  type Vec3,
} from '@kadrel/core';
import { hasBuiltPreview } from '../session/builtPreview.ts';
import {
  isHandled,
  exactMm,
  lockedAxis,
  withPick,
  type Statement,
  type Typed,
} from '../session/statement.ts';
import { pickedBlank } from '../session/waiting.ts';
import { listIn, toggled, type PickedPlace } from '../session/chosen.ts';
import { gathersPoints, withPoint } from '../session/drawing.ts';
import { pointIn, shiftOf } from './gripping.ts';
import { coordinates, labelOf, showCaught, showPreviewOf, snapWords, tellNumbers } from './telling.ts';
import { othersThan, othersThanOwner } from './othersThan.ts';
import type { Caught } from './aim.ts';
import { frameAxes } from './gripSet.ts';
import type { Hand } from './hand.ts';

/** For distances: a face is meant rather than the point in its middle. */
const FEATURES: ReadonlySet<SnapKind> = new Set(
  SNAP_KINDS.filter(
    (kind) => !['grid', 'face centre', 'on plane', 'half-way', 'guide', 'parallel'].includes(kind),
  ),
);
const DIRECTIONS: ReadonlySet<SnapKind> = new Set<SnapKind>(['on edge', 'on face']);
const DOCKS: ReadonlySet<SnapKind> = new Set<SnapKind>(['dock']);
const EDGES: ReadonlySet<SnapKind> = new Set<SnapKind>(['on edge']);
const FACES: ReadonlySet<SnapKind> = new Set<SnapKind>(['on face']);
/** Corners, edges and faces. */
export const PLACES: ReadonlySet<SnapKind> = new Set<SnapKind>(['endpoint', 'on edge', 'on face']);
const BY_WORD = { faces: FACES, edges: EDGES, features: FEATURES } as const;
/** For blanks of these types, whatever they say. */
const BY_TYPE: Readonly<Partial<Record<BlankType, ReadonlySet<SnapKind>>>> = {
  edges: EDGES,
  faces: FACES,
  places: PLACES,
  plane: FACES,
  dock: FACES,
};

function kindsFor({ verb }: Statement, blank: string): ReadonlySet<SnapKind> {
  const { type, catches } = verbNamed(verb)!.blanks[blank]!;
  return catches ? BY_WORD[catches] : (BY_TYPE[type] ?? DIRECTIONS);
}

/** What the pointer catches for a blank. */
export function catchFor(hand: Hand, statement: Statement, blank: string): Caught | null {
  const type = verbNamed(statement.verb)!.blanks[blank]!.type;
  const without = leftOut(hand, statement, blank);
  if (gathersPoints(statement, blank)) return hand.aim.catchPoint(without);
  if (type === 'point' || (type === 'frame' && statement.picking?.how === 'points'))
    return hand.aim.catchPoint(without);
  if (type === 'spot') return hand.aim.catchPoint(without);
  // Away from docks a part is meant, and of it the best one.
  const snap =
    (type === 'dock' ? hand.aim.snap(without, DOCKS) : null) ??
    hand.aim.snap(without, kindsFor(statement, blank));
  return snap && { point: snap.point, snap };
}

/** What moves is not what it goes to; and what is to become parallel belongs to what is turned. */
function leftOut(hand: Hand, statement: Statement, blank: string): ReadonlySet<string> | undefined {
  const key = `${statement.verb}.${blank}`;
  const moving = movedParts(hand, statement);
  // Where something stays behind, that may be gone to.
  if (key === 'move.to' && (statement.typed.leaving ?? 'nothing') !== 'nothing') return undefined;
  if (key === 'move.to' || key === 'turn.parallel') return moving;
  const { of } = verbNamed(statement.verb)!.blanks[blank]!;
  const owner = of === undefined ? undefined : statement.typed[of];
  // Edges and faces are gathered of one part, which the first of them tells.
  if (typeof owner === 'string' && listIn(statement.typed[blank]).length > 0)
    return othersThanOwner(hand, owner);
  if (key !== 'turn.line') return undefined;
  return othersThan(hand, moving);
}

const movedParts = (hand: Hand, { typed }: Statement) =>
  standingOf(hand.state().document, (typed.parts as string[] | undefined) ?? []);

/** What follows the pointer during a pick. */
export function hoverPick(hand: Hand, statement: Statement, blank: string): void {
  const caught = catchFor(hand, statement, blank);
  showCaught(hand, caught);
  tellLanding(hand, statement, caught);
  hand.stage.hover(caught?.snap?.part ?? null);
  if (caught && isHandled(statement, 'moves') && blank === 'to') previewMove(hand, statement, caught);
  if (caught && verbNamed(statement.verb)!.blanks[blank]!.type === 'dock')
    showPreviewOf(hand, {
      ...statement,
      typed: { ...statement.typed, [blank]: valueFor(hand, 'dock', caught) },
    });
  if (caught && hasBuiltPreview(statement.verb)) tryOut(hand, statement, { blank, caught });
}

/** The form that solids would get by a point under the pointer. */
function tryOut(
  hand: Hand,
  statement: Statement,
  { blank, caught }: { blank: string; caught: Caught },
): void {
  if (verbNamed(statement.verb)!.blanks[blank]!.type !== 'point') return;
  const into = dockBlank(statement, blank, caught);
  const picked = into === undefined ? { [blank]: pointValue(caught) } : { [into]: dockValue(caught.snap!) };
  hand.session.tryOut({ ...statement, typed: { ...statement.typed, ...picked } });
}

/** What a part would turn to face is said where it lands. */
function tellLanding(hand: Hand, { typed, verb }: Statement, caught: Caught | null): void {
  if (
    !isHandled({ verb }, 'moves') ||
    typed.facing === undefined ||
    typed.facing === 'as-is' ||
    !caught?.snap
  )
    return;
  const landing = landingOf(hand, caught.snap);
  const { title, detail } = snapWords(hand, caught.snap);
  const words = landing ? `faces the ${landing.words}` : 'no surface to face here';
  hand.overlay.reticle.show(caught.snap.point, {
    title,
    detail,
    numbers: `${coordinates(hand, caught.point)} · ${words}`,
  });
}

function previewMove(hand: Hand, statement: Statement, caught: Caught): void {
  const from = pointIn(hand, statement.typed.from);
  if (!from) return;
  const { by, isHeld } = moveOf(hand, statement, from, caught.point);
  const typed = isHeld
    ? { from: undefined, to: undefined, by: by.map(exactMm) }
    : {
        to: caught.point.map((n) => exactMm(n)),
        ...lockedAlong(statement),
        ...outwardAt(hand, statement, caught),
      };
  showPreviewOf(hand, { ...statement, typed: { ...statement.typed, ...typed } });
  for (const pane of hand.stage.panes.all) pane.overlay.grips.show(null, 1);
  hand.overlay.reticle.showRubber(from, caught.point);
  tellNumbers(hand, { statement, blank: 'by' }, by);
}

/** A move by its numbers in the frame, with those typed by hand in their place. */
function moveOf(hand: Hand, statement: Statement, from: Vec3, to: Vec3): { by: Vec3; isHeld: boolean } {
  const inFrame = turnBack(frameAxes(hand.stage.session), subtract(to, from));
  const isHeld = [0, 1, 2].some((axis) => statement.held.has(`by.${axis}`));
  if (!hand.last.shift) return { by: shiftOf(hand, statement, inFrame), isHeld };
  // Shift keeps to the main direction: the move is then given by its number.
  const main = [0, 1, 2].reduce((a, b) => (Math.abs(inFrame[b]!) > Math.abs(inFrame[a]!) ? b : a));
  return { by: shiftOf(hand, statement, inFrame, [main]), isHeld: true };
}

/** Where an axis turns to face out of the surface, the way outward at what is caught. */
function outwardAt(hand: Hand, { typed }: Statement, { snap }: Caught): Typed {
  if (typed.facing === undefined || typed.facing === 'as-is') return {};
  const landing = snap && landingOf(hand, snap);
  return landing ? { normal: [...landing.normal] } : {};
}

function landingOf(hand: Hand, snap: Snap) {
  const instance = instanceUnder(hand.stage.model.scene, snap);
  return instance && landingNormal(instance, snap);
}

const lockedAlong = (statement: Statement) => {
  const locked = lockedAxis(statement);
  return locked === null ? {} : { along: 'xyz'[locked] };
};

/** Puts what is under the pointer into the blank. */
export function pick(hand: Hand, statement: Statement, blank: string): void {
  const caught = catchFor(hand, statement, blank);
  if (caught) take(hand, statement, blank, caught);
}

/** Puts what was caught, or a point given along a guide, into the blank. */
export function take(hand: Hand, statement: Statement, blank: string, caught: Caught): void {
  const { session } = hand;
  // A kind that was forced was forced for this pick.
  if (hand.state().forced) session.set({ forced: null });
  if (statement.picking) return pickFrame(hand, statement, caught);
  if (gathersPoints(statement, blank)) {
    const plane = session.drawingPlane();
    if (plane) session.update((s) => withPoint(s, blank, caught.point, plane));
    return;
  }
  if (caught.snap) hand.stage.catcher.touches.used(caught.snap);
  const type = verbNamed(statement.verb)!.blanks[blank]!.type;
  if (isChosenType(type) && caught.snap?.feature !== undefined) return gather(hand, blank, caught.snap);
  // The plane that one draws on is the next one's too.
  if (type === 'plane' && blank === 'on' && caught.snap)
    return session.setPlane(named(hand, caught.snap), blank);
  const isMoveEnd = isHandled(statement, 'moves') && blank === 'to';
  const from = isMoveEnd ? pointIn(hand, statement.typed.from) : null;
  const moved = from && moveOf(hand, statement, from, caught.point);
  if (moved?.isHeld)
    // A number typed during the pick goes before the point: the move is then given by X, Y and Z.
    session.update((s) => ({
      ...s,
      held: new Set(),
      typed: { ...s.typed, from: undefined, to: undefined, by: moved.by.map(exactMm) },
    }));
  else {
    const into = dockBlank(statement, blank, caught) ?? blank;
    const value = valueFor(hand, verbNamed(statement.verb)!.blanks[into]!.type, caught);
    session.update((s) => ({
      ...session.withMeasure(withPick(s, into, value, into === blank ? labelOf(hand, caught) : undefined)),
    }));
    if (isMoveEnd)
      session.update((s) => ({
        ...s,
        typed: { ...s.typed, ...lockedAlong(s), ...outwardAt(hand, s, caught) },
      }));
  }
  hand.overlay.reticle.showRubber(null, null);
  showCaught(hand, null);
  hand.stage.hover(null);
  if (verbNamed(statement.verb)!.blanks[blank]!.completes) complete(hand, blank);
}

/** One more edge or face, or one less; the part that it belongs to is the one that is meant. */
function gather(hand: Hand, blank: string, snap: Snap): void {
  const picked = named(hand, snap) as PickedPlace;
  const on = snap.leaf ?? picked.on;
  hand.session.update((s) => ({
    ...s,
    typed: {
      ...s.typed,
      part: on,
      [blank]: toggled(s.typed[blank], { on, at: picked.at, near: picked.near! }),
    },
    focus: { blank, axis: null },
    refusal: null,
  }));
  showCaught(hand, null);
}

/** Copies that are left again and again go on from the same point until Enter. */
function complete(hand: Hand, blank: string): void {
  const statement = hand.openStatement();
  const goesOn = statement?.typed.leaving === 'each' ? statement : null;
  void hand.session.commit().then((isDone) => {
    if (!isDone) return hand.stage.previews.show(hand.state().statement);
    if (!goesOn) return;
    hand.session.start(goesOn.verb, { ...goesOn.typed, [blank]: undefined });
    hand.session.update((s) => ({ ...s, labels: goesOn.labels, focus: { blank, axis: null } }));
  });
}

function pickFrame(hand: Hand, statement: Statement, caught: Caught): void {
  const { how, points } = statement.picking!;
  if (how === 'feature') {
    if (caught.snap) hand.session.setFrame(named(hand, caught.snap));
    return;
  }
  const all = [...points, pointValue(caught)];
  if (all.length === 3) hand.session.setFrame({ points: all });
  else hand.session.update((s) => ({ ...s, picking: { how, points: all } }));
}

/** Exact millimetres, or the pin's name, so that the statement follows the pin when it is given again. */
const pointValue = ({ point, snap }: Caught): unknown =>
  snap?.pin === undefined ? point.map((n) => exactMm(n)) : { pin: snap.pin };

/** Where a place or a dock may be said, a dock that was caught is meant as one. */
function dockBlank({ verb }: Statement, blank: string, { snap }: Caught): string | undefined {
  const { blanks } = verbNamed(verb)!;
  const other = blanks[blank]!.excludes;
  return snap?.dock !== undefined && other !== undefined && blanks[other]?.type === 'dock'
    ? other
    : undefined;
}

/** What is written into a blank of this type. */
function valueFor(hand: Hand, type: BlankType, caught: Caught): unknown {
  if (type === 'point') return caught.snap?.dock === undefined ? pointValue(caught) : dockValue(caught.snap);
  if (type === 'dock') return dockValue(caught.snap!);
  return type === 'spot' ? spotValue(hand, caught) : named(hand, caught.snap!);
}

/** The dock that was caught, or the part whose best one is meant. */
const dockValue = ({ part, dock, member, leaf }: Snap): unknown => ({
  on: part,
  ...(dock === undefined
    ? {}
    : { dock, ...(member === undefined ? {} : { member }), ...(leaf === undefined ? {} : { of: leaf }) }),
});

/** A place of a part: by its name where it has one, else by its numbers and by what it lies on. */
function spotValue(hand: Hand, caught: Caught): unknown {
  const { snap, point } = caught;
  if (snap?.part === undefined || snap.feature === undefined) return pointValue(caught);
  const value = named(hand, snap) as object;
  const { snap: _, ...place } = value as { readonly snap?: string };
  return (POINT_KINDS as readonly string[]).includes(snap.kind)
    ? value
    : { ...place, point: point.map((n) => exactMm(n)) };
}

/** A feature by its names, with a point of it in the part's own frame that tells it from others of these names. */
export function named(hand: Hand, snap: Snap): unknown {
  if (snap.dock !== undefined) return dockValue(snap);
  if (snap.part === undefined || snap.feature === undefined) return pointValue({ point: snap.point, snap });
  const pose =
    instanceUnder(hand.stage.model.scene, snap)?.pose ?? worldFromPart(hand.state().document, snap.part);
  const near = carryBack(pose, snap.point);
  const at = snap.feature
    .split(MEETING)
    .map((name) => name.split(MERGED)[0])
    .join(MEETING);
  const isPoint = snap.kind !== 'on face' && snap.kind !== 'on edge';
  const which = {
    ...(snap.member === undefined ? {} : { member: snap.member }),
    ...(snap.leaf === undefined ? {} : { of: snap.leaf }),
  };
  return { on: snap.part, at, ...(isPoint ? { snap: snap.kind } : {}), near, ...which };
}

/** The blank that the pointer fills now. */
export const blankInHand = (hand: Hand): { statement: Statement; blank: string } | null => {
  const statement = hand.openStatement();
  const blank = pickedBlank(statement);
  return statement && blank !== null ? { statement, blank } : null;
};
