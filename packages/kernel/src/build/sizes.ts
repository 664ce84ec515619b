/** What the kernel can build of plain solids. */
import { faultOf } from '@kadrel/core';
import { BuildError } from '../occt/occt.ts';
import type { SolidContent } from '../content/content.ts';

/** Sizes below the kernel's tolerance, and those that a double can no longer tell apart, are refused before they get there. */
const MIN_SIZE_MM = 1e-6;
const MAX_SIZE_MM = 1e8;

function requireSize(size: number, what: string): void {
  if (!(size >= MIN_SIZE_MM && size <= MAX_SIZE_MM))
    throw new BuildError(faultOf('size.out-of-range', { what, size }));
}

/** Throws BuildError. */
export function requireSizes(content: SolidContent): void {
  if (content.kind === 'box')
    return content.size.forEach((size, i) => requireSize(size, ['length', 'width', 'height'][i]!));
  if (content.kind !== 'prism') requireSize(content.diameter, 'diameter');
  if ('height' in content) requireSize(content.height, 'height');
  // A point at the top is no size; what is smaller than the kernel can tell from one is refused.
  if (content.kind === 'cone' && content.top !== 0) requireSize(content.top, 'top diameter');
  if (content.kind === 'tube') {
    requireSize(content.bore, 'bore');
    if (content.bore >= content.diameter) throw new BuildError(faultOf('tube.bore', {}));
  }
  if (content.kind === 'torus') {
    requireSize(content.thickness, 'thickness');
    if (content.thickness >= content.diameter) throw new BuildError(faultOf('torus.thick', {}));
  }
}
