/** GestureSoFar a statement in the views, place after place, with what it comes to shown at every move. */
import {
  entriesRead,
  formatAngle,
  formatLength,
  nearestOnLine,
  NO_TURN,
  verbNamed,
  type Pose,
  type Reading,
  type Vec3,
} from '@kadrel/core';
import {
  entryInHand,
  gestureOf,
  hasSize,
  isComplete,
  withPlace,
  type Aim,
  type GestureBase,
} from '../session/gesture.ts';
import { live } from '../session/live.ts';
import { entryOf, entryText, exactNumber, isTriple, type Statement } from '../session/statement.ts';
import { ghostShape } from './ghostShape.ts';
import { carryOut, showCaught } from './telling.ts';
import { pointOf, type Hand } from './hand.ts';

/** What has been drawn so far. */
export interface GestureSoFar {
  readonly base: GestureBase;
  /** The place that was given last: heights are pulled up from there. */
  readonly last: Vec3;
}

const stepsOf = (statement: Statement) => gestureOf(statement)!.steps;
const readOf = (hand: Hand) => (text: string) => hand.session.readLength(text);

/** Gives the place under the pointer to a step. Null where there is none, or where it would leave the step flat. */
export function give(hand: Hand, drawing: GestureSoFar | null, step: number): GestureSoFar | null {
  const statement = hand.openStatement();
  const now = statement && aimed(hand, statement, { drawing, step });
  if (!statement || !now || !hasSize(now.candidate, stepsOf(statement)[step]!, readOf(hand))) return null;
  const next: GestureSoFar = { base: now.base, last: now.aim.point };
  hand.session.update(() => ({ ...now.candidate, isFocusGiven: false }));
  return next;
}

/** Puts the focus on what a number that is typed now would be for. */
export function focusOn(hand: Hand, step: number): void {
  const statement = hand.openStatement();
  const entry = statement && entryInHand(statement, stepsOf(statement)[step]!);
  if (entry) hand.session.focus(entry);
}

/** Shows what a step would come to. */
export function follow(hand: Hand, drawing: GestureSoFar, step: number): void {
  const statement = hand.openStatement();
  const now = statement && aimed(hand, statement, { drawing, step });
  if (!statement || !now) return;
  tellEntries(hand, statement, now.candidate);
  showDrawn(hand, now.candidate);
}

/** Carries the statement out, or leaves it to the one who works to fill in what is still missing. */
export function finish(hand: Hand): void {
  const statement = hand.openStatement();
  if (!statement) return;
  showCaught(hand, null);
  if (!isComplete(statement)) return hand.session.sayWaiting();
  carryOut(hand);
}

/** Takes what is shown off the picture. */
export function clearDrawn(hand: Hand): void {
  if (hand.stage.picture.extras.ghost.show(null)) hand.stage.panes.invalidate();
}

interface Aimed {
  readonly candidate: Statement;
  readonly aim: Aim;
  readonly base: GestureBase;
}

function aimed(
  hand: Hand,
  statement: Statement,
  { drawing, step }: { drawing: GestureSoFar | null; step: number },
): Aimed | null {
  const readings = stepsOf(statement)[step];
  const begun = drawing ?? placed(hand, statement);
  const aim = readings && aimAt(hand, readings[0]!, begun);
  if (!aim) return null;
  const base = begun?.base ?? baseAt(hand, aim.point);
  const candidate = withPlace(statement, readings, { aim, base, read: readOf(hand) });
  return { candidate, aim, base };
}

/** Where the first place was typed, it is drawn from there. */
function placed(hand: Hand, statement: Statement): GestureSoFar | null {
  const [first] = stepsOf(statement)[0]!;
  const at = first?.reads === 'place' ? pointOf(hand, statement.typed[first.into]) : null;
  const isTyped = first && [0, 1, 2].every((axis) => statement.held.has(`${String(first.into)}.${axis}`));
  return at && isTyped ? { base: baseAt(hand, at), last: at } : null;
}

/** The plane that is drawn on, or a level one through the place. */
function baseAt(hand: Hand, first: Vec3): GestureBase {
  const plane: Pose = hand.session.drawingPlane() ?? { turn: NO_TURN, shift: [0, 0, first[2]] };
  return { plane, first };
}

function aimAt(hand: Hand, reading: Reading, drawing: GestureSoFar | null): Aim | null {
  if (reading.reads === 'place') {
    const caught = hand.aim.catchPoint();
    showCaught(hand, caught);
    return caught && { point: caught.point, steps: null };
  }
  if (!drawing) return null;
  const snap = hand.aim.pointSnap();
  showCaught(hand, snap && { point: snap.point, snap });
  if (snap) return { point: snap.point, steps: null };
  const isUp = reading.reads === 'height' || (reading.reads === 'row' && reading.column === 'height');
  return isUp ? pulled(hand, drawing) : onBase(hand, drawing, reading);
}

const stepsNow = (hand: Hand): Aim['steps'] => {
  const { grid, angleStep } = hand.state().document.scene;
  return hand.last.ctrl ? null : { length: grid, angle: angleStep };
};

/** A place on the line out of the plane. */
function pulled(hand: Hand, { base, last }: GestureSoFar): Aim | null {
  const { turn } = base.plane;
  const up: Vec3 = [turn[2], turn[5], turn[8]];
  const along = nearestOnLine(last, up, hand.aim.ray());
  if (along === undefined) return null;
  return { point: [0, 1, 2].map((i) => last[i]! + along * up[i]!) as unknown as Vec3, steps: stepsNow(hand) };
}

/** Where the pointer meets the plane; corners go to whole steps of its grid. */
function onBase(hand: Hand, { base }: GestureSoFar, { reads }: Reading): Aim | null {
  const point = hand.aim.onPlane(base.plane, base.first);
  if (!point) return null;
  const isCorner = reads === 'corner' && !hand.last.ctrl;
  return {
    point: isCorner ? hand.aim.toGridOf(base.plane, point) : point,
    steps: isCorner ? null : stepsNow(hand),
  };
}

/** The fields of the bar show what the pointer makes of them. */
function tellEntries(hand: Hand, statement: Statement, candidate: Statement): void {
  const { scene } = hand.state().document;
  for (const key of stepsOf(statement).flat().flatMap(entriesRead))
    for (const one of keysOf(candidate, key)) {
      const text = entryText(candidate, entryOf(one));
      if (text === entryText(statement, entryOf(one)) && !hand.filled.has(one)) continue;
      if (statement.held.has(one)) continue;
      const mm = exactNumber(text);
      hand.filled.add(one);
      live.tell(one, mm === undefined ? shownAngle(text) : formatLength(mm, scene));
    }
}

const shownAngle = (text: string) => (/^-?\d/.test(text) ? formatAngle(Number(text)) : text);

/** The entries that a key stands for: three of a point. */
function keysOf({ verb, typed }: Statement, key: string): string[] {
  const blank = verbNamed(verb)!.blanks[key];
  return blank && isTriple(blank) && Array.isArray(typed[key])
    ? [0, 1, 2].map((axis) => `${key}.${axis}`)
    : [key];
}

function showDrawn(hand: Hand, candidate: Statement): void {
  const { stage, session } = hand;
  const made = session.madeBy(candidate);
  if (made && stage.picture.extras.ghost.show(ghostShape(made.base) ?? null, made.pose))
    stage.panes.invalidate();
  stage.previews.sketch(candidate);
}
