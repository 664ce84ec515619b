/** One builder per recipe base; a new base is a file here and a line below. */
import { BuildError, type Occt } from '../occt/occt.ts';
import type { Content, SolidContent, StepContent } from '../content.ts';
import { isBodyContent } from '../bodies.ts';
import { buildBody } from './body.ts';
import { buildBox } from './box.ts';
import { buildCone } from './cone.ts';
import { buildCylinder } from './cylinder.ts';
import { buildPrism } from './prism.ts';
import { buildSphere } from './sphere.ts';
import { buildStretched } from './stretched.ts';
import { buildTorus } from './torus.ts';
import { buildTube } from './tube.ts';
import type { NamedShape } from './named.ts';

/** Sizes below the kernel's tolerance, and those that a double can no longer tell apart, are refused before they get there. */
const LEAST_SIZE_MM = 1e-6;
const MOST_SIZE_MM = 1e8;

function requireSize(size: number, what: string): void {
  if (!(size >= LEAST_SIZE_MM && size <= MOST_SIZE_MM))
    throw new BuildError(`The ${what} is ${size} mm.`, `Give a ${what} between 0.000001 mm and 100 km.`);
}

export function buildSolid(
  occt: Occt,
  content: Exclude<Content, { kind: 'combine' } | StepContent>,
): NamedShape {
  if (content.kind === 'stretched') {
    requireSizes(content.of);
    return buildStretched(occt, content.of, content.by);
  }
  if (isBodyContent(content)) return buildBody(occt, content);
  requireSizes(content);
  switch (content.kind) {
    case 'box':
      return buildBox(occt, content.size);
    case 'sphere':
      return buildSphere(occt, content.diameter);
    case 'cylinder':
      return buildCylinder(occt, content.diameter, content.height);
    case 'cone':
      return buildCone(occt, content.diameter, content.top, content.height);
    case 'tube':
      return buildTube(occt, content.diameter, content.bore, content.height);
    case 'torus':
      return buildTorus(occt, content.diameter, content.thickness);
    case 'prism':
      return buildPrism(occt, content.corners, content.height);
  }
}

function requireSizes(content: SolidContent): void {
  if (content.kind === 'box')
    return content.size.forEach((size, i) => requireSize(size, ['length', 'width', 'height'][i]!));
  if (content.kind !== 'prism') requireSize(content.diameter, 'diameter');
  if ('height' in content) requireSize(content.height, 'height');
  // A point at the top is no size; what is smaller than the kernel can tell from one is refused.
  if (content.kind === 'cone' && content.top !== 0) requireSize(content.top, 'top diameter');
  if (content.kind === 'tube') {
    requireSize(content.bore, 'bore');
    if (content.bore >= content.diameter)
      throw new BuildError('The bore is as wide as the tube.', 'Make the bore smaller, or the tube wider.');
  }
  if (content.kind === 'torus') {
    requireSize(content.thickness, 'thickness');
    if (content.thickness >= content.diameter)
      throw new BuildError(
        'The ring runs into itself in its middle.',
        'Make its thickness smaller than its diameter.',
      );
  }
}
