/** One side of a solid that another one goes through: what lies within the other, or outside it. */
import { AT_ORIGIN, faultOf } from '@kadrel/core';
import type { CombineContent, StepContent } from '../content/content.ts';
import type { Measures } from '../facts/measure.ts';
import { BuildError, release } from '../occt/occt.ts';
import { NothingLeft } from '../booleans/operation.ts';
import { buildCombined, type Combined, type Site } from './combination.ts';

type CutBy = Extract<StepContent, { readonly kind: 'cutBy' }>;

/** Checked like any combination. Throws BuildError. @param whole of what is cut */
export function buildCutBy(site: Site, { of, tool, keep }: CutBy, whole: Measures): Combined {
  const made = combined(site, {
    kind: 'combine',
    how: keep === 'front' ? 'intersect' : 'subtract',
    operands: [{ tag: '', pose: AT_ORIGIN, content: of }, tool],
  });
  if (made.measures.volume < whole.volume * (1 - ALL)) {
    // Nothing of the tool stays idle: what it does not touch is determined by the volume.
    return { ...made, notices: made.notices.filter(({ what }) => what !== 'without effect') };
  }
  release(site.occt, made.named.shape);
  throw doesNotGoThrough();
}
/** Relative: what is nearer to the whole than this is all of it. */
const ALL = 1e-12;

function combined(site: Site, content: CombineContent): Combined {
  try {
    return buildCombined(site, content);
  } catch (error) {
    throw error instanceof NothingLeft ? doesNotGoThrough() : error;
  }
}

const doesNotGoThrough = () => new BuildError(faultOf('combine.cut-misses', {}));
