/** How faces that were moved are joined at edges. */
import { BuildError, translated, type Occt } from '../../occt/occt.ts';
import { orNothing } from './orNothing.ts';

/** Round about the edge, or where the faces meet when they go on. */
export type Join = 'GeomAbs_Arc' | 'GeomAbs_Intersection';

/** Round joins keep the distance everywhere. With the others the kernel also finds its way at the tips of cones, where there are no inward edges. */
export const ROUND_JOINS: readonly Join[] = ['GeomAbs_Arc', 'GeomAbs_Intersection'];
export const SHARP_JOINS: readonly Join[] = ['GeomAbs_Intersection'];

/** What the first of the joins comes to that does not fail. Throws what the first of them has thrown. */
export function byJoins<T>(occt: Occt, [first, ...others]: readonly Join[], work: (join: Join) => T): T {
  try {
    return work(first!);
  } catch (error) {
    const failure = translated(occt, error);
    if (!(failure instanceof BuildError)) throw failure;
    for (const join of others) {
      const made = orNothing(occt, () => work(join));
      if (made !== undefined) return made;
    }
    throw failure;
  }
}
