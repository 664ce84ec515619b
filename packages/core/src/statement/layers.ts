/** Heights at which parts are cut into layers. */
import type { ItemId, LayerPlace } from '../document/schema.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
import { dot } from '../space/vector.ts';
import { refuse, type Refusal, type VerbContext } from './declare.ts';

/** More slices than this are more than a model is built of by hand. */
const MAX_SLICES = 500;
/** Slices nearer to an end than this (mm) are at it. */
const AT_END_MM = 1e-9;

/** What is cut, and how: by a pitch or a count. */
export interface Layers {
  readonly items: readonly ItemId[];
  readonly plane: Pose;
  readonly pitch: number | undefined;
  readonly count: number | undefined;
  readonly at: LayerPlace;
}

/** The share of a layer that lies below its cut. */
const WITHIN: Readonly<Record<LayerPlace, number>> = { bottom: 0, middle: 0.5, top: 1 };

/** Heights of the cuts over the plane, mm, from the lowest point of the parts to the highest. */
export function layersOf(
  { items, plane, pitch, count, at }: Layers,
  context: Pick<VerbContext, 'ask'>,
): readonly number[] | Refusal {
  const up = column(plane.turn, 2);
  const base = dot(up, plane.shift);
  const reach = items.map((part) => context.ask<'extent'>({ ask: 'extent', part, direction: up }));
  const [low, high] = [
    Math.min(...reach.map(([least]) => least)) - base,
    Math.max(...reach.map(([, most]) => most)) - base,
  ];
  const step = pitch ?? (count === undefined ? undefined : (high - low) / count);
  if (step === undefined) return refuse('missing.pitch', {}, 'pitch');
  // Counted from the plane where a pitch is given, so that neighbours made apart still go together.
  const first = pitch === undefined ? low : Math.floor((low + AT_END_MM) / step) * step;
  const number = Math.ceil((high - first - AT_END_MM) / step);
  if (number > MAX_SLICES)
    return refuse(
      'too-many.would-slices',
      { number, mostSlices: MAX_SLICES },
      pitch === undefined ? 'count' : 'pitch',
    );
  return Array.from({ length: number }, (_, i) => first + (i + WITHIN[at]) * step);
}
