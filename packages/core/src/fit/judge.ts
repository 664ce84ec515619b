/** Whether kept measures keep their limits, and wanted fits are met: from what the kernel has measured. */
import type { Fit, Measure, MeasuredKind } from '../document/fit.ts';
import type { Scene } from '../document/schema.ts';
import { massOf } from '../document/materials.ts';
import { formatAngle, formatMeasure } from '../quantity/format.ts';
import type { MeasuredFacts } from '../questions/fitFacts.ts';
import type { Geometry } from '../space/geometry.ts';
import { degrees } from '../space/angle.ts';
import { cross, dot, length, scale, subtract, type Vec3 } from '../space/vector.ts';
import { lengthWords, massWords } from './words.ts';
import { isoFit, MAX_NOMINAL_MM } from './iso286.ts';

/** What a thing comes to, and whether that is as it should be. */
export interface Verdict {
  /** mm, degrees, mm² or mm³; undefined where it cannot be determined. */
  readonly value: number | undefined;
  /** `met` where nothing is asked. */
  readonly state: 'met' | 'missed' | 'unknown';
  /** In a sentence, without what it is called. */
  readonly words: string;
}

/** Limits are kept but for this (mm, degrees): what lengths are rounded to as they are typed. */
const SAME = 1e-9;

/** What is measured, and of a mass the material. */
type Wanted = Pick<Measure, 'what' | 'material'>;

/** What a measure comes to, mm, mm², mm³, degrees or g; undefined where there is no such value. */
export function measuredValue({ what, material }: Wanted, facts: MeasuredFacts): number | undefined {
  switch (what) {
    case 'x':
    case 'y':
    case 'z':
      return facts.along?.[AXES.indexOf(what)];
    case 'along':
      return facts.directed;
    case 'path':
      return facts.alongPath;
    case 'mass':
      return facts.volume === undefined || material === undefined
        ? undefined
        : massOf(facts.volume, material);
    default:
      return facts[what];
  }
}

const AXES = ['x', 'y', 'z'];

/** With its unit. */
export function measureWords(kind: MeasuredKind, value: number, scene: Scene): string {
  if (kind === 'angle') return formatAngle(value);
  if (kind === 'mass') return massWords(value);
  if (kind === 'area') return formatMeasure(value, 2, scene);
  return kind === 'volume' ? formatMeasure(value, 3, scene) : lengthWords(value, scene);
}

/** Holds a measure against its limits. */
export function judgeMeasure(
  { what, material, least, greatest }: Measure,
  facts: MeasuredFacts | null,
  scene: Scene,
): Verdict {
  const value = facts ? measuredValue({ what, material }, facts) : undefined;
  if (value === undefined) return unknown('What it measured is not there any more, or has no such measure.');
  const sizeWords = (n: number) => measureWords(what, n, scene);
  if (least !== undefined && value < least - SAME)
    return { value, state: 'missed', words: `${sizeWords(value)}: less than ${sizeWords(least)}.` };
  if (greatest !== undefined && value > greatest + SAME)
    return { value, state: 'missed', words: `${sizeWords(value)}: more than ${sizeWords(greatest)}.` };
  return { value, state: 'met', words: `${sizeWords(value)}${limitWords([least, greatest], sizeWords)}.` };
}

const unknown = (words: string): Verdict => ({ value: undefined, state: 'unknown', words });

function limitWords(
  [least, greatest]: readonly [number | undefined, number | undefined],
  wordsOf: (n: number) => string,
): string {
  if (least === undefined && greatest === undefined) return '';
  if (greatest === undefined) return `, at least ${wordsOf(least!)}`;
  return least === undefined
    ? `, at most ${wordsOf(greatest)}`
    : `, between ${wordsOf(least)} and ${wordsOf(greatest)}`;
}

/** mm and degrees within which axes are one, and faces flush or parallel. */
const ALIGNED_MM = 1e-6;
const ALIGNED_DEGREES = 1e-6;

/** What a fit comes to. @param facts of both sides, measured together */
export function judgeFit(fit: Fit, facts: MeasuredFacts | null, scene: Scene): Verdict {
  if (!facts) return unknown('What it is between is not there any more.');
  switch (fit.kind) {
    case 'clearance':
      return clearance(fit, facts, scene);
    case 'contact':
    case 'apart':
      return contact(fit, facts, scene);
    case 'coaxial':
      return coaxial(facts, scene);
    case 'flush':
    case 'parallel':
      return aligned(fit, facts, scene);
    case 'iso':
      return iso(fit, facts, scene);
  }
}

function clearance({ least = 0, greatest }: Fit, { distance }: MeasuredFacts, scene: Scene): Verdict {
  if (distance === undefined) return unknown('It cannot be measured.');
  const wordsOf = (n: number) => lengthWords(n, scene);
  const wanted = limitWords([least, greatest], wordsOf).slice(2);
  if (distance < least - SAME || distance > (greatest ?? Infinity) + SAME)
    return { value: distance, state: 'missed', words: `${wordsOf(distance)}; wanted is ${wanted}.` };
  return { value: distance, state: 'met', words: `${wordsOf(distance)}, ${wanted}.` };
}

function contact({ kind }: Fit, { distance }: MeasuredFacts, scene: Scene): Verdict {
  if (distance === undefined) return unknown('It cannot be measured.');
  const doTouch = distance <= ALIGNED_MM;
  const words = doTouch ? 'They touch.' : `${lengthWords(distance, scene)} apart.`;
  return { value: distance, state: doTouch === (kind === 'contact') ? 'met' : 'missed', words };
}

type Axis = Extract<Geometry, { direction: Vec3 }>;
/** What has an axis, as round faces and straight edges. */
export const isAxis = (one: Geometry | null | undefined): one is Axis => !!one && 'direction' in one;

/** Degrees between two directions, either way. */
const tiltOf = (a: Vec3, b: Vec3): number => degrees(Math.atan2(length(cross(a, b)), Math.abs(dot(a, b))));

/** Whether directions are not parallel. */
export const isTilted = (a: Vec3, b: Vec3): boolean => tiltOf(a, b) > ALIGNED_DEGREES;

function coaxial({ geometries: [a, b] }: MeasuredFacts, scene: Scene): Verdict {
  if (!isAxis(a) || !isAxis(b)) return unknown('One of them has no axis: name round faces.');
  const tilt = tiltOf(a.direction, b.direction);
  const off = subtract(b.at, a.at);
  const aside = length(subtract(off, scale(a.direction, dot(off, a.direction))));
  const isMet = tilt <= ALIGNED_DEGREES && aside <= ALIGNED_MM;
  const words = isMet ? 'One axis.' : `${lengthWords(aside, scene)} aside, ${formatAngle(tilt)} apart.`;
  return { value: aside, state: isMet ? 'met' : 'missed', words };
}

function aligned({ kind }: Fit, { geometries: [a, b] }: MeasuredFacts, scene: Scene): Verdict {
  if (a?.kind !== 'plane' || b?.kind !== 'plane') return unknown('One of them is not flat: name flat faces.');
  const tilt = tiltOf(a.normal, b.normal);
  if (tilt > ALIGNED_DEGREES) return { value: tilt, state: 'missed', words: `${formatAngle(tilt)} apart.` };
  if (kind === 'parallel') return { value: tilt, state: 'met', words: 'Parallel.' };
  const off = Math.abs(dot(subtract(b.at, a.at), a.normal));
  return off > ALIGNED_MM
    ? { value: off, state: 'missed', words: `${lengthWords(off, scene)} apart.` }
    : { value: off, state: 'met', words: 'Flush.' };
}

/** Nominal sizes are given to this, mm. */
const NOMINAL_STEP_MM = 0.1;

/** The nominal size of a hole: its diameter, but for what limits are. */
export const nominalOf = (diameter: number): number =>
  Math.round(diameter / NOMINAL_STEP_MM) / Math.round(1 / NOMINAL_STEP_MM);

function iso({ grades = '' }: Fit, { geometries: [a, b] }: MeasuredFacts, scene: Scene): Verdict {
  if (a?.kind !== 'axis' || b?.kind !== 'axis')
    return unknown('One of them is not round: name the bore and the shaft.');
  const nominal = nominalOf(2 * a.radius);
  const found = isoFit(nominal, grades);
  if (!found)
    return unknown(
      `There is no fit ${grades} at ${lengthWords(nominal, scene)}: known are up to ${MAX_NOMINAL_MM} mm.`,
    );
  const mm = (n: number) => `${n.toFixed(3)} mm`;
  const faults = (
    [
      ['The bore', 2 * a.radius, found.hole],
      ['The shaft', 2 * b.radius, found.shaft],
    ] as const
  ).flatMap(([what, diameter, { lower, upper }]) =>
    diameter < nominal + lower - SAME || diameter > nominal + upper + SAME
      ? [`${what} is ${mm(diameter)}; ${mm(nominal + lower)} to ${mm(nominal + upper)} would fit.`]
      : [],
  );
  const range = `${found.kind}, ${mm(found.leastClearance)} to ${mm(found.greatestClearance)}`;
  return {
    value: 2 * (a.radius - b.radius),
    state: faults.length === 0 ? 'met' : 'missed',
    words: `${grades} at ${nominal}: ${range}. ${faults.join(' ')}`.trim(),
  };
}
