/** Units of length and angle, and how many millimetres or degrees each is. */

/** Scene units: what bare numbers mean and what lengths are shown in. `ft-in` shows feet, inches and fractions. */
export const LENGTH_UNITS = ['mm', 'cm', 'm', 'in', 'ft', 'ft-in'] as const;
/** One of the units of a scene. */
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** Units of a scene in words. */
export const LENGTH_UNIT_WORDS: Readonly<Record<LengthUnit, string>> = {
  mm: 'millimetres',
  cm: 'centimetres',
  m: 'metres',
  in: 'inches',
  ft: 'feet',
  'ft-in': 'feet and inches',
};

/**
 * Millimetres in one of each unit that may be typed.
 * Source: International yard and pound agreement 1959 (1 yd = 0.9144 m); NIST SP 811, appendix B.
 */
const MM_PER_UNIT: Readonly<Record<string, number>> = {
  um: 0.001,
  µm: 0.001,
  mm: 1,
  cm: 10,
  dm: 100,
  m: 1000,
  km: 1e6,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  '″': 25.4,
  ft: 304.8,
  foot: 304.8,
  feet: 304.8,
  "'": 304.8,
  '′': 304.8,
  yd: 914.4,
};

const DEGREES_PER_UNIT: Readonly<Record<string, number>> = {
  deg: 1,
  '°': 1,
  rad: 180 / Math.PI,
  turn: 360,
  arcmin: 1 / 60,
  arcsec: 1 / 3600,
};

/** Powers of length and angle that a value carries: a length is `{ length: 1, angle: 0 }`, a plain number all zero. */
export interface Dimension {
  readonly length: number;
  readonly angle: number;
}

/** A number without a unit. */
export const PLAIN: Dimension = { length: 0, angle: 0 };
/** A length. */
export const LENGTH: Dimension = { length: 1, angle: 0 };
/** An area. */
export const AREA: Dimension = { length: 2, angle: 0 };
/** A volume. */
export const VOLUME: Dimension = { length: 3, angle: 0 };
/** An angle. */
export const ANGLE: Dimension = { length: 0, angle: 1 };

/** What a field expects: an area in mm², a volume in mm³. */
export type QuantityKind = SizeKind | 'area' | 'volume';
/** What the number of a recipe is. */
export type SizeKind = 'length' | 'angle' | 'number' | 'count';

/** How much one of a unit is, mm or degrees, and what it measures. */
export interface Unit {
  readonly factor: number;
  readonly dimension: Dimension;
}

/**
 * The unit written as `text`, or undefined. In an angle field `'` and `"` are minutes and seconds of arc,
 * everywhere else feet and inches.
 */
export function unitNamed(text: string, kind: QuantityKind): Unit | undefined {
  if (kind === 'angle' && /^['′]$/.test(text)) return { factor: 1 / 60, dimension: ANGLE };
  if (kind === 'angle' && /^["″]$/.test(text)) return { factor: 1 / 3600, dimension: ANGLE };
  if (Object.hasOwn(MM_PER_UNIT, text)) return { factor: MM_PER_UNIT[text]!, dimension: LENGTH };
  if (Object.hasOwn(DEGREES_PER_UNIT, text)) return { factor: DEGREES_PER_UNIT[text]!, dimension: ANGLE };
  return undefined;
}

/** Millimetres in one scene unit; a bare number in a `ft-in` scene means inches. */
export function mmPerSceneUnit(unit: LengthUnit): number {
  return unit === 'ft-in' ? 25.4 : MM_PER_UNIT[unit]!;
}

/** How the field's kind is spoken of in a sentence. */
export function dimensionWord({ length, angle }: Dimension): string {
  if (length === 0 && angle === 0) return 'a plain number';
  if (angle === 0 && length === 1) return 'a length';
  if (angle === 0 && length === 2) return 'an area';
  if (angle === 0 && length === 3) return 'a volume';
  if (length === 0 && angle === 1) return 'an angle';
  const power = (word: string, n: number) =>
    n === 0 ? '' : n === 1 ? word : `${word}^${Number(n.toFixed(3))}`;
  return `a quantity in ${[power('length', length), power('angle', angle)].filter(Boolean).join(' · ')}`;
}
