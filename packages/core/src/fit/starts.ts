/** Where a search for the nearest points of two faces begins. */
import { distance, type Vec3 } from '../space/vector.ts';

/** Two points from which the nearest places of two faces are looked for. */
export interface Start {
  readonly gap: number;
  readonly at: Vec3;
}

/** Of a pair with a round face so many places are kept. */
const MAX_STARTS = 6;

/** The one of two with the smaller gap. */
export const nearerStart = (a: Start, b: Start): Start => (b.gap < a.gap ? b : a);

/** Of places that are close together the nearer stays; of too many the nearest. */
export function withStart(starts: readonly Start[], start: Start): Start[] {
  const twin = starts.findIndex(({ at }) => distance(at, start.at) < APART * (start.gap + 1));
  if (twin >= 0) return starts.map((one, i) => (i === twin ? nearerStart(one, start) : one));
  return [...starts, start].sort((a, b) => a.gap - b.gap).slice(0, MAX_STARTS);
}
/** In parts of the gap: what is nearer together comes to the same place. */
const APART = 0.25;

export const startsWithin = (starts: readonly Start[], max: number): Vec3[] =>
  [...starts].sort((a, b) => a.gap - b.gap).flatMap(({ gap, at }, i) => (i === 0 || gap <= max ? [at] : []));
