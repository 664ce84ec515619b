/** What dimensions of all kinds are made from: what they stand on, and their number as text. */
import type { KadrelDocument } from '../document/schema.ts';
import type { Dimension, SheetView } from '../document/sheet.ts';
import { formatAngle, formatLength, type NumberStyle } from '../quantity/format.ts';
import type { Geometry } from '../space/geometry.ts';
import type { Pose } from '../space/pose.ts';
import type { Mark } from './marks.ts';

/** A dimension as marks, with the number that it tells. */
export interface Measured {
  /** mm, or degrees of an angle. */
  readonly value: number;
  readonly marks: readonly Mark[];
}

/** Why a dimension cannot be drawn, in a sentence. */
export interface NotMeasured {
  readonly words: string;
}

/** A dimension with what it stands on. */
export interface TiedDimension {
  readonly document: KadrelDocument;
  readonly dimension: Dimension;
  readonly view: SheetView;
  /** Of the view. */
  readonly frame: Pose;
  /** What it is tied to, in the world. */
  readonly places: readonly Geometry[];
}

/** From what is measured to where its extension lines begin, and how far these go beyond the dimension line, mm. Common practice, no source. */
export const EXTENSION = { gap: 1, beyond: 2 } as const;
/** Between a dimension line and its number, mm. */
export const TEXT_GAP = 1;
/** How far a direction may be off a square view of it. */
export const SQUARE = 1e-9;

/** Whether a dimension could be drawn. */
export const isMeasured = (found: Measured | NotMeasured): found is Measured => 'marks' in found;

/** The number in scene units, or the words that stand for it, and what follows. */
export function numberText({ document, dimension }: TiedDimension, value: number, before = ''): string {
  const { words, suffix, kind } = dimension;
  const style: NumberStyle = document.scene;
  const number = kind === 'angle' ? formatAngle(value, style.decimals) : formatLength(value, style);
  // Words in place of a number are distinguished from one by their brackets.
  const text = words === '' ? `${before}${number}` : `[${words}]`;
  return suffix === '' ? text : `${text} ${suffix}`;
}
