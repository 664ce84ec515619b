/**
 * Pulling the grips: each comes to the blanks of its verb, and shows what they come to.
 * Long, since each kind of grip is dragged in its own way.
 */
import {
  along,
  alignmentOf,
  angleAbout,
  boxPoint,
  boxSize,
  cleanLength,
  column,
  dot,
  formatAngle,
  isIdentity,
  mmPerPixelAt,
  nearestOnLine,
  pointOnRay,
  project,
  rayToPlane,
  subtract,
  toStep,
  turnBack,
  unit,
  worldFromPart,
  type BoxPoint,
  type ItemId,
  type Vec3,
  standingOf,
} from '@kadrel/core';
import { live } from '../session/live.ts';
import { exactMm, lockedAxis, withPointer, type Statement, type Typed } from '../session/statement.ts';
import { knobPoint, turnAxis, type Grip, type GripSet } from './grips.ts';
import { carryOut, showCaught, showPreviewOf, tellNumbers } from './telling.ts';
import { gripSetOf, selectionBox } from './gripSet.ts';
import { boxesInView } from './underPixel.ts';
import { pointOf, type Hand } from './hand.ts';

/** A grip that is held. */
export interface Gripping {
  readonly grip: Grip;
  readonly set: GripSet;
  readonly parts: readonly ItemId[];
  /** Where the pointer took hold, so that nothing jumps when the drag begins: along a line, or a point. */
  readonly hold: number | Vec3;
  /** The statement that was open before, with what was typed into it. */
  readonly before: Statement | null;
}

/** Takes hold of a grip; null where the view shows it too flat. */
export function takeHold(hand: Hand, grip: Grip): Gripping | null {
  const shown = gripSetOf(hand.stage.session, hand.stage.model.scene.instances);
  if (!shown) return null;
  // The way counts from where the faces stand.
  const pulledMm = shown.pulledMm ?? 0;
  const set = { ...shown, anchor: along(shown.anchor, column(shown.axes, 0), -pulledMm) };
  const { selection, statement } = hand.state();
  const before = hand.openStatement();
  if (statement?.verb !== grip.how || statement.phase !== 'open') hand.session.start(grip.how);
  const hold = holdOf(hand, grip, set);
  if (hold === undefined) return null;
  if (grip.how === 'move') {
    const [only] = grip.axes;
    hand.session.focus({ blank: 'by', axis: grip.axes.length === 1 ? only! : null });
    clearBlanks(hand, { from: undefined, to: undefined, ...(hand.last.alt ? { leaving: 'copy' } : {}) });
  } else if (grip.how === 'turn') {
    hand.session.focus({ blank: 'angle', axis: null });
    const axis = turnAxis(set, grip.axis, hand.pane.camera);
    clearBlanks(hand, {
      from: undefined,
      to: undefined,
      line: undefined,
      parallel: undefined,
      about: grip.axis === 'screen' ? [...axis] : 'xyz'[grip.axis],
      ...(hand.last.alt ? { leaving: 'copy' } : {}),
    });
  } else if (grip.how === 'offset-face') {
    hand.session.focus({ blank: 'by', axis: null });
    clearBlanks(hand, { to: undefined });
  } else {
    const axis = grip.side.filter((n) => n !== 0).length === 1 ? grip.side.findIndex((n) => n !== 0) : null;
    hand.session.focus(axis === null ? null : { blank: 'to', axis: axis as 0 });
  }
  hand.overlay.grips.show(set, hand.state().gripScale, grip);
  return { grip, set, parts: selection, hold, before };
}

const clearBlanks = (hand: Hand, typed: Typed) =>
  hand.session.update((s) => ({ ...s, typed: { ...s.typed, ...typed }, labels: {} }));

function holdOf(hand: Hand, grip: Grip, set: GripSet): number | Vec3 | undefined {
  if (grip.how === 'move' && grip.axes.length === 1)
    return nearestOnLine(set.anchor, column(set.axes, grip.axes[0]!), hand.aim.ray());
  if (grip.how === 'offset-face') {
    const now = nearestOnLine(set.anchor, column(set.axes, 0), hand.aim.ray());
    return now === undefined ? undefined : now - (set.pulledMm ?? 0);
  }
  if (grip.how === 'resize') return alongKnob(hand, set, grip.side, fixedPoint(hand, set, grip.side));
  const normal =
    grip.how === 'turn' ? turnAxis(set, grip.axis, hand.pane.camera) : column(set.axes, freeAxis(grip.axes));
  const far = rayToPlane(hand.aim.ray(), { point: set.anchor, normal });
  return far === undefined ? undefined : subtract(pointOnRay(hand.aim.ray(), far), set.anchor);
}

const freeAxis = (axes: readonly number[]) => ([0, 1, 2] as const).find((axis) => !axes.includes(axis))!;

/** How far along its own line a knob is pulled, from the point that stays. */
function alongKnob(hand: Hand, set: GripSet, side: BoxPoint, fixed: Vec3): number | undefined {
  const knob = knobPoint(set, side);
  return nearestOnLine(fixed, knobDirection(set, side, knob, fixed), hand.aim.ray());
}

/** A side is pulled along its axis, a corner away from the point that stays. */
function knobDirection(set: GripSet, side: BoxPoint, knob: Vec3, fixed: Vec3): Vec3 {
  const isSide = side.filter((n) => n !== 0).length === 1;
  if (!isSide) return unit(subtract(knob, fixed));
  const axis = side.findIndex((n) => n !== 0) as 0 | 1 | 2;
  return column(set.axes, axis).map((n) => n * side[axis] + 0) as unknown as Vec3;
}

/** A centre that was chosen stays; otherwise the side opposite the knob does. */
function fixedPoint(hand: Hand, set: GripSet, side: BoxPoint): Vec3 {
  const statement = hand.openStatement();
  const centre = statement && chosenCentre(statement);
  if (centre === 'point') return pointIn(hand, statement!.typed.at) ?? set.anchor;
  if (centre === 'own') return set.anchor;
  const box = centre === 'shared' ? selectionBox(hand.stage.session.store.getState()) : undefined;
  return box ? boxPoint(box, [0, 0, 0]) : knobPoint(set, side.map((n) => -n + 0) as unknown as BoxPoint);
}

/** The centre of a resize, where the one who works has chosen it. */
const chosenCentre = ({ typed, held }: Statement): string | null =>
  held.has('about') || typed.about === 'point' ? String(typed.about) : null;

/** The point that stands in a blank. */
export const pointIn = (hand: Hand, value: unknown): Vec3 | null => pointOf(hand, value);

/** The statement that the drag comes to; null while it comes to nothing. */
function dragged(hand: Hand, gripping: Gripping, statement: Statement): Statement | null {
  const { grip } = gripping;
  if (grip.how === 'move') return movedBy(hand, gripping, statement, grip.axes);
  if (grip.how === 'turn') return turnedBy(hand, gripping, statement, grip.axis);
  return grip.how === 'resize'
    ? resizedBy(hand, gripping, statement, grip.side)
    : pulledBy(hand, gripping, statement);
}

/** Faces go to the level of what is caught, or by whole steps. */
function pulledBy(hand: Hand, { set, hold }: Gripping, statement: Statement): Statement | null {
  const normal = column(set.axes, 0);
  const part = statement.typed.part as ItemId;
  // The part itself changes while its face is pulled.
  const snap = hand.aim.pointSnap(standingOf(hand.state().document, [part]));
  showCaught(hand, snap && { point: snap.point, snap });
  const now = nearestOnLine(set.anchor, normal, hand.aim.ray());
  if (now === undefined) return null;
  const { grid } = hand.state().document.scene;
  const raw = now - (hold as number);
  const start = hand.state().stepsFrom === 'grid' ? levelOf(set.anchor, normal) : 0;
  const stepped = hand.last.ctrl ? raw : toStep(start + raw, grid) - start;
  const by = snap ? dot(subtract(snap.point, set.anchor), normal) : stepped;
  return withPointer(statement, 'by', [cleanLength(by, BOARD_MM)]);
}

/** How high a face stands along the axis that it is square to; 0 where it is aslant. */
const levelOf = (at: Vec3, normal: Vec3): number =>
  normal.some((n) => Math.abs(n) === 1) ? dot(at, normal) : 0;

function movedBy(
  hand: Hand,
  { set, hold, parts }: Gripping,
  statement: Statement,
  axes: readonly (0 | 1 | 2)[],
): Statement | null {
  const { last } = hand;
  const snap = hand.aim.pointSnap(standingOf(hand.state().document, parts));
  const { grid } = hand.state().document.scene;
  let local: Vec3;
  showCaught(hand, snap && { point: snap.point, snap });
  hand.overlay.guides.showAlignment(null);
  if (snap) local = turnBack(set.axes, subtract(snap.point, set.anchor));
  else {
    const raw = rawMove(hand, set, hold, axes);
    if (!raw) return null;
    const start = hand.state().stepsFrom === 'grid' ? turnBack(set.axes, set.anchor) : ([0, 0, 0] as const);
    const stepped = raw.map((n, axis) =>
      last.ctrl ? n : toStep(start[axis]! + n, grid) - start[axis]!,
    ) as unknown as Vec3;
    local = last.ctrl ? stepped : linedUp(hand, { set, parts, axes }, raw, stepped);
  }
  const main = last.shift && axes.length > 1 ? mainAxis(local, axes) : null;
  return withPointer(statement, 'by', shiftOf(hand, statement, local, main === null ? axes : [main]));
}

/** How near a side must come to what it lines up with, pixels. */
const LINING_UP_PX = 6;

/** Where the dragged parts line up with others, that; along other axes whole steps. World axes only. */
function linedUp(
  hand: Hand,
  { set, parts, axes }: { set: GripSet; parts: readonly ItemId[]; axes: readonly (0 | 1 | 2)[] },
  raw: Vec3,
  stepped: Vec3,
): Vec3 {
  const { snapKinds, document, manner } = hand.state();
  const box = selectionBox(hand.stage.session.store.getState());
  if (!snapKinds.has('guide') || !manner.serves.move || !box || !isIdentity(set.axes)) return stepped;
  const { camera } = hand.pane;
  const moved = standingOf(hand.state().document, parts);
  const others = boxesInView(hand.pane, (id) => !moved.has(id) && document.items[id]!.snappable);
  const [, , depth] = project(camera, set.anchor);
  const shifted = (p: Vec3): Vec3 => [p[0] + raw[0], p[1] + raw[1], p[2] + raw[2]];
  const found = alignmentOf({
    box: { min: shifted(box.min), max: shifted(box.max) },
    points: [shifted(set.anchor)],
    others,
    axes,
    reach: LINING_UP_PX * mmPerPixelAt(camera, depth),
  });
  const isLined = (axis: number) => found.lines.some((line) => line.axis === axis) || found.shift[axis] !== 0;
  const at = [0, 1, 2].map((axis) =>
    axes.includes(axis as 0) && isLined(axis)
      ? cleanLength(raw[axis]! + found.shift[axis]!, BOARD_MM)
      : stepped[axis]!,
  ) as unknown as Vec3;
  // What is shown is said of where the parts come to.
  const ended = alignmentOf({
    box: { min: plus(box.min, at), max: plus(box.max, at) },
    points: [plus(set.anchor, at)],
    others,
    axes,
    reach: 0,
  });
  hand.overlay.guides.showAlignment({ found: ended, scene: document.scene });
  return at;
}
/** Lined-up numbers are sums of numbers of about this size, mm: what is below their noise is taken off. */
const BOARD_MM = 1e4;
const plus = (p: Vec3, by: Vec3): Vec3 => [p[0] + by[0], p[1] + by[1], p[2] + by[2]];

function rawMove(hand: Hand, set: GripSet, hold: number | Vec3, axes: readonly (0 | 1 | 2)[]): Vec3 | null {
  if (typeof hold === 'number') {
    const s = nearestOnLine(set.anchor, column(set.axes, axes[0]!), hand.aim.ray());
    return s === undefined ? null : ([0, 1, 2].map((i) => (i === axes[0] ? s - hold : 0)) as unknown as Vec3);
  }
  const far = rayToPlane(hand.aim.ray(), { point: set.anchor, normal: column(set.axes, freeAxis(axes)) });
  if (far === undefined) return null;
  return turnBack(set.axes, subtract(subtract(pointOnRay(hand.aim.ray(), far), set.anchor), hold));
}

const mainAxis = (local: Vec3, axes: readonly (0 | 1 | 2)[]) =>
  axes.reduce((a, b) => (Math.abs(local[b]) > Math.abs(local[a]) ? b : a));

/** The shift that a motion comes to: kept to the locked axis, and to the numbers typed by hand. */
export function shiftOf(
  hand: Hand,
  statement: Statement,
  wanted: Vec3,
  axes: readonly number[] = [0, 1, 2],
): Vec3 {
  const locked = lockedAxis(statement);
  return [0, 1, 2].map((axis) => {
    const typed = statement.held.has(`by.${axis}`)
      ? hand.session.readLength(String((statement.typed.by as unknown[])[axis]))
      : undefined;
    if (typed !== undefined) return typed;
    return (locked === null || locked === axis) && axes.includes(axis) ? wanted[axis]! : 0;
  }) as unknown as Vec3;
}

function turnedBy(
  hand: Hand,
  { set, hold, parts }: Gripping,
  statement: Statement,
  axis: 0 | 1 | 2 | 'screen',
): Statement | null {
  const normal = turnAxis(set, axis, hand.pane.camera);
  const snap = hand.aim.pointSnap(standingOf(hand.state().document, parts));
  let now: Vec3;
  showCaught(hand, snap && { point: snap.point, snap });
  if (snap) {
    now = subtract(snap.point, set.anchor);
  } else {
    const far = rayToPlane(hand.aim.ray(), { point: set.anchor, normal });
    if (far === undefined) return null;
    now = subtract(pointOnRay(hand.aim.ray(), far), set.anchor);
  }
  const free = angleAbout(normal, hold as Vec3, now);
  const { angleStep } = hand.state().document.scene;
  // Steps count from where the drag began, or so that the part's own edges come to whole steps of the frame.
  const start = hand.state().stepsFrom === 'grid' ? ownAngle(hand, normal, set, parts) : 0;
  const angle = snap || hand.last.ctrl ? free : toStep(start + free, angleStep) - start;
  const typed = statement.held.has('angle') ? statement.typed.angle : String(angle);
  hand.overlay.grips.showAngle(angleStep, formatAngle(angle));
  return { ...statement, typed: { ...statement.typed, angle: typed }, refusal: null };
}

/** The angle of the first part's own edges against the frame, about an axis. */
function ownAngle(hand: Hand, normal: Vec3, { axes }: GripSet, [first]: readonly ItemId[]): number {
  if (first === undefined) return 0;
  const { turn } = worldFromPart(hand.state().document, first);
  const flat = ([0, 1, 2] as const).find((axis) => Math.abs(dot(column(axes, axis), normal)) < SQUARE_COSINE);
  const own = ([0, 1, 2] as const).find((axis) => Math.abs(dot(column(turn, axis), normal)) < SQUARE_COSINE);
  if (flat === undefined || own === undefined) return 0;
  return angleAbout(normal, column(axes, flat), column(turn, own));
}
/** Axes squarer to one another than this (cosine) are taken for square. */
const SQUARE_COSINE = 0.5;

function resizedBy(hand: Hand, gripping: Gripping, statement: Statement, side: BoxPoint): Statement | null {
  const pulled = pulledKnob(hand, gripping, side);
  if (!pulled) return null;
  const typed =
    side.filter((n) => n !== 0).length === 1
      ? sideTyped(hand, pulled, { statement, size: boxSize(gripping.set.box!), side })
      : cornerTyped(hand, pulled);
  if (!typed) return null;
  const isCentred = chosenCentre(statement) !== null;
  return retyped(statement, {
    ...typed,
    ...(isCentred ? {} : { about: 'point', at: pulled.fixed.map((n) => exactMm(n)) }),
  });
}

interface PulledKnob {
  /** What stays where it is. */
  readonly fixed: Vec3;
  /** How far it is pulled, as a share of the way from what stays to where the knob was. */
  readonly share: number;
  /** Whether it is taken as it is, not in steps. */
  readonly isFree: boolean;
}

/** To where a knob of the box is pulled; undefined where that says nothing. */
function pulledKnob(hand: Hand, { set, hold, parts }: Gripping, side: BoxPoint): PulledKnob | undefined {
  const fixed = fixedPoint(hand, set, side);
  const knob = knobPoint(set, side);
  const direction = knobDirection(set, side, knob, fixed);
  const whole = dot(subtract(knob, fixed), direction);
  if (!(whole > 0)) return undefined;
  const snap = hand.aim.pointSnap(standingOf(hand.state().document, parts));
  showCaught(hand, snap && { point: snap.point, snap });
  const now = alongKnob(hand, set, side, fixed);
  if (now === undefined) return undefined;
  const reach = snap ? dot(subtract(snap.point, fixed), direction) : whole + now - (hold as number);
  return { fixed, share: reach / whole, isFree: snap !== null || hand.last.ctrl };
}

/** A corner or an edge of the box: all sizes by one factor. */
function cornerTyped(hand: Hand, { share, isFree }: PulledKnob): Typed | null {
  const factor = isFree ? share : toStep(share, hand.state().manner.factorStep);
  return factor === 0 ? null : { by: [factor, factor, factor].map(String), to: undefined };
}

/** A side of the box: the size along its axis. */
function sideTyped(
  hand: Hand,
  { share, isFree }: PulledKnob,
  { statement, size, side }: { statement: Statement; size: Vec3; side: BoxPoint },
): Typed | null {
  const axis = side.findIndex((n) => n !== 0);
  const free = share * size[axis]!;
  const wanted = isFree ? free : toStep(free, hand.state().document.scene.grid);
  if (Math.abs(wanted) < 1e-6) return null;
  const typed = statement.held.has(`to.${axis}`)
    ? String((statement.typed.to as unknown[])[axis])
    : exactMm(wanted);
  live.tell(`to.${axis}`, typed.replace(/ mm$/, ''));
  return { to: [0, 1, 2].map((i) => (i === axis ? typed : 'now')), by: undefined, others: 'stay' };
}

const retyped = (statement: Statement, typed: Typed): Statement => ({
  ...statement,
  typed: { ...statement.typed, ...typed },
  refusal: null,
});

/** Shows what the drag comes to so far. */
export function drag(hand: Hand, gripping: Gripping): void {
  const statement = hand.openStatement();
  const candidate = statement && dragged(hand, gripping, statement);
  if (!statement || !candidate) return;
  showPreviewOf(hand, candidate);
  const { grip, set } = gripping;
  if (grip.how === 'move') {
    const by = shownNumbers(hand, candidate);
    tellNumbers(hand, { statement, blank: 'by' }, by);
    const anchor = [0, 1, 2].map(
      (i) => set.anchor[i]! + by.reduce((sum, n, axis) => sum + n * column(set.axes, axis)[i]!, 0),
    ) as unknown as Vec3;
    hand.overlay.grips.show({ ...set, anchor }, hand.state().gripScale, grip);
  } else if (grip.how === 'offset-face') {
    const by = hand.session.readLength(String(candidate.typed.by)) ?? 0;
    tellNumbers(hand, { statement, blank: 'by' }, [by]);
    const anchor = along(set.anchor, column(set.axes, 0), by);
    hand.overlay.grips.show({ ...set, anchor }, hand.state().gripScale, grip);
  } else {
    if (grip.how === 'turn' && !statement.held.has('angle'))
      live.tell('angle', formatAngle(Number(candidate.typed.angle)));
    hand.overlay.grips.show(set, hand.state().gripScale, grip);
  }
}

const shownNumbers = (hand: Hand, { typed }: Statement): Vec3 =>
  (typed.by as string[]).map((text) => hand.session.readLength(text) ?? 0) as unknown as Vec3;

/** Ends the drag, and carries out what it came to. */
export function letGo(hand: Hand, gripping: Gripping): void {
  const statement = hand.openStatement();
  const candidate = statement && dragged(hand, gripping, statement);
  showCaught(hand, null);
  hand.overlay.guides.showAlignment(null);
  if (!candidate || isNothing(hand, gripping, candidate)) {
    const { before } = gripping;
    // A drag that comes to nothing leaves a statement that was open as it was.
    if (before) hand.session.update(() => before);
    else hand.session.leave();
    hand.stage.marks.showGrips();
    return;
  }
  hand.session.update(() => candidate);
  carryOut(hand);
}

function isNothing(hand: Hand, { grip, set }: Gripping, { typed }: Statement): boolean {
  if (grip.how === 'move') return shownNumbers(hand, { typed } as Statement).every((n) => n === 0);
  if (grip.how === 'turn') return Number(typed.angle) === 0;
  if (grip.how === 'offset-face') return !hand.session.readLength(String(typed.by));
  if (Array.isArray(typed.by)) return Number(typed.by[0]) === 1;
  const size = boxSize(set.box!);
  return (typed.to as string[]).every(
    (text, i) => text === 'now' || Math.abs((hand.session.readLength(text) ?? 0) - size[i]!) < 1e-9,
  );
}
