/** Lengths as fits are reported: with more decimals than the scene has, where they say something. */
import type { Scene } from '../document/schema.ts';
import { formatLengthWithUnit, formatNumber } from '../quantity/format.ts';

/** Lengths below this (mm) are given to a tenth of a nanometre, all others to a tenth of a micrometre. */
const FINE_MM = 0.01;

/** A length as reports tell it, in scene units. */
export const lengthWords = (mm: number, scene: Scene): string =>
  formatLengthWithUnit(mm, {
    ...scene,
    decimals: Math.max(scene.decimals, Math.abs(mm) < FINE_MM ? 7 : 4),
    trailingZeros: false,
  });

/** A mass, in g or kg. */
export const massWords = (grams: number): string =>
  grams < 1000 ? `${numberWords(grams, 2)} g` : `${numberWords(grams / 1000, 3)} kg`;

const numberWords = (value: number, decimals: number) =>
  formatNumber(value, { decimals, trailingZeros: false });
