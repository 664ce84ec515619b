/** Ways that may fail. */
import { BuildError, translated, type Occt } from '../../occt/occt.ts';

/** What a way comes to; undefined where it does not go. What makes the kernel unusable is thrown on. */
export function orNothing<T>(occt: Occt, work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    const failure = translated(occt, error);
    if (failure instanceof BuildError) return undefined;
    throw failure;
  }
}
