/** Drawing a statement by the pointer: what each place of a gesture writes into its blanks. Pure functions on plain data. */
import {
  angleAbout,
  carry,
  carryBack,
  cleanDegrees,
  cleanLength,
  entriesRead,
  roundPoint,
  sinDegrees,
  toStep,
  verbNamed,
  type Gesture,
  type Pose,
  type Reading,
  type Vec3,
} from '@kadrel/core';
import {
  entryOf,
  entryText,
  exactMm,
  isTriple,
  withPointer,
  withText,
  type Entry,
  type Statement,
} from './statement.ts';
import { emptyBlank } from './waiting.ts';

/** Where the pointer is, in the world. */
export interface Aim {
  readonly point: Vec3;
  /** Free of what can be caught, numbers go by these steps: mm, degrees. */
  readonly steps: { readonly length: number; readonly angle: number } | null;
}

/** What a gesture stands on: its plane, whose Z is the way up, and its first place, in the world. */
export interface GestureBase {
  readonly plane: Pose;
  readonly first: Vec3;
}

/** Reads a text of the number language, mm. */
export type ReadLength = (text: string) => number | undefined;

/** The gesture of a verb by which a statement that is open is drawn. */
export const gestureOf = (statement: Statement | null): Gesture | undefined =>
  statement?.phase === 'open' ? verbNamed(statement.verb)?.gesture : undefined;

const textOf = (statement: Statement, key: string) => entryText(statement, entryOf(key));

/** Whether an entry was typed by hand, or one that stands for it. */
function isHeld(statement: Statement, key: string): boolean {
  const blank = verbNamed(statement.verb)!.blanks[key]!;
  if (statement.held.has(key) && textOf(statement, key) !== '') return true;
  if (blank && isTriple(blank)) return [0, 1, 2].every((axis) => isHeld(statement, `${key}.${axis}`));
  const other = blank?.excludes;
  return other !== undefined && statement.held.has(other) && textOf(statement, other) !== '';
}

/** Whether all numbers of a step were typed. */
export const isSettled = (statement: Statement, step: readonly Reading[]): boolean =>
  step.every((reading) => entriesRead(reading).every((key) => isHeld(statement, key)));

/** The step after `from` (−1 for the first one) that the pointer decides; null after the last. */
export function nextStep(statement: Statement, from: number): number | null {
  const { steps, repeatsFrom } = gestureOf(statement)!;
  for (let i = from + 1; i < steps.length; i++) if (!isSettled(statement, steps[i]!)) return i;
  return repeatsFrom ?? null;
}

/** The statement that a place leads to at one step of its gesture. Entries that were typed by hand stay. */
export function withPlace(
  statement: Statement,
  step: readonly Reading[],
  where: { readonly aim: Aim; readonly base: GestureBase; readonly read: ReadLength },
): Statement {
  return step.reduce((s, reading) => READERS[reading.reads](s, reading as never, where), statement);
}
type Where = Parameters<typeof withPlace>[2];
type Reader<K extends Reading['reads']> = (
  statement: Statement,
  reading: Extract<Reading, { reads: K }>,
  where: Where,
) => Statement;

/** From the first place, in the axes of the plane. */
function offsetOf({ aim, base }: Where): Vec3 {
  const [a, b] = [carryBack(base.plane, base.first), carryBack(base.plane, aim.point)];
  return [cleanLength(b[0] - a[0]), cleanLength(b[1] - a[1]), cleanLength(b[2] - a[2])];
}
const stepped = (n: number, step: number | undefined) => (step === undefined ? n : toStep(n, step));
const distanceOf = (where: Where) =>
  stepped(cleanLength(Math.hypot(...offsetOf(where).slice(0, 2))), where.aim.steps?.length);
const directionOf = (where: Where) => {
  const [x, y] = offsetOf(where);
  return stepped(cleanDegrees(angleAbout([0, 0, 1], [1, 0, 0], [x, y, 0])), where.aim.steps?.angle);
};

const READERS: { readonly [K in Reading['reads']]: Reader<K> } = {
  place: (s, { into }, { aim }) => withPointer(s, into, aim.point),
  corner(s, { into, corner, centred }, where) {
    const offset = offsetOf(where);
    const isCentred = centred === true || (centred !== undefined && s.typed[centred[0]] === centred[1]);
    const held = into.map((key) => (isHeld(s, key) ? where.read(textOf(s, key)) : undefined));
    const sizes = [0, 1].map((i) => held[i] ?? cleanLength(Math.abs(offset[i]!) * (isCentred ? 2 : 1)));
    const sized = into.reduce((now, key, i) => withLength(now, key, sizes[i]!), s);
    const min = [0, 1].map((i) => (!isCentred && offset[i]! < 0 ? -sizes[i]! : 0));
    return withPointer(sized, corner, beside(where.base, [min[0]!, min[1]!, 0]));
  },
  distance(s, { into, times, instead }, where) {
    if (instead !== undefined && isHeld(s, instead)) return s;
    return withLength(s, into, times * distanceOf(where));
  },
  width(s, { into }, where) {
    const half = 180 / (Number(s.typed.sides) || 6);
    const isSide = s.typed.across === 'side';
    return withLength(s, into, cleanLength(2 * distanceOf(where) * (isSide ? sinDegrees(half) : 1)));
  },
  thickness(s, { into, from }, where) {
    const radius = (where.read(textOf(s, from)) ?? 0) / 2;
    return withLength(s, into, cleanLength(2 * Math.abs(distanceOf(where) - radius)));
  },
  direction: (s, { into }, where) => withNumber(s, into, String(directionOf(where))),
  sweep(s, { into, from }, where) {
    const start = Number(s.typed[from]) || 0;
    const turn = (((directionOf(where) - start + 180) % 360) + 360) % 360;
    return withNumber(s, into, String(cleanDegrees(turn - 180)));
  },
  height(s, { into, foot }, where) {
    const pulled = stepped(offsetOf(where)[2], where.aim.steps?.length);
    const height = isHeld(s, into) ? (where.read(textOf(s, into)) ?? 0) : pulled;
    const sized = withLength(s, into, Math.abs(height));
    const at = foot === undefined ? undefined : s.typed[foot];
    if (foot === undefined || !Array.isArray(at)) return sized;
    const stands = at.map((text) => where.read(String(text)) ?? 0);
    const lowered = carryBack(where.base.plane, stands as unknown as Vec3);
    const level = carryBack(where.base.plane, where.base.first)[2] + Math.min(0, height);
    return withPointer(sized, foot, roundPoint(carry(where.base.plane, [lowered[0], lowered[1], level])));
  },
  row(s, { into, column }, where) {
    const rows = Array.isArray(s.typed[into]) ? (s.typed[into] as Record<string, unknown>[]) : [];
    const last = rows.at(-1);
    const isOpen = last !== undefined && last.height === undefined;
    const before = isOpen ? rows.slice(0, -1) : rows;
    if (column === 'below')
      return retyped(s, { [into]: [...before, { below: exactMm(2 * distanceOf(where)) }] });
    const stacked = before.reduce((sum, row) => sum + (where.read(String(row.height)) ?? 0), 0);
    const height = stepped(cleanLength(offsetOf(where)[2] - stacked), where.aim.steps?.length);
    return isOpen ? retyped(s, { [into]: [...before, { ...last, height: exactMm(height) }] }) : s;
  },
};

/** A place beside the first one, in the world. */
function beside({ plane, first }: GestureBase, by: Vec3): Vec3 {
  if (by.every((n) => n === 0)) return first;
  const at = carryBack(plane, first);
  return roundPoint(carry(plane, [at[0] + by[0], at[1] + by[1], at[2] + by[2]]));
}

const retyped = (statement: Statement, typed: Statement['typed']): Statement => ({
  ...statement,
  typed: { ...statement.typed, ...typed },
  refusal: null,
});

const withNumber = (statement: Statement, key: string, text: string) =>
  isHeld(statement, key) ? statement : withText(statement, entryOf(key), text, 'pointer');

const withLength = (statement: Statement, key: string, mm: number) => withNumber(statement, key, exactMm(mm));

/** Whether a step leaves nothing flat: every length that it reads is more than zero. */
export function hasSize(statement: Statement, step: readonly Reading[], read: ReadLength): boolean {
  return step.every((reading) => {
    if (reading.reads === 'place' || reading.reads === 'direction') return true;
    if (reading.reads === 'sweep') return Number(textOf(statement, reading.into)) !== 0;
    if (reading.reads === 'row') {
      const row = (statement.typed[reading.into] as Record<string, unknown>[] | undefined)?.at(-1);
      return (read(String(row?.[reading.column])) ?? 0) > 0;
    }
    return entriesRead(reading).every(
      (key) =>
        (read(textOf(statement, key)) ?? 0) > 0 || (reading.reads === 'distance' && isHeld(statement, key)),
    );
  });
}

/** The entry that a number typed during a step goes into. */
export function entryInHand(statement: Statement, step: readonly Reading[]): Entry | null {
  const key = step.flatMap(entriesRead).find((one) => !isHeld(statement, one));
  if (key === undefined || step[0]?.reads === 'row') return null;
  const blank = verbNamed(statement.verb)!.blanks[key];
  return blank && isTriple(blank) ? { blank: key, axis: 0 } : entryOf(key);
}

/** Whether nothing more is asked for once the last step is done. */
export const isComplete = (statement: Statement): boolean => emptyBlank(statement) === null;
