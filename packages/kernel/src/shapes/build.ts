/** One builder per recipe base; a new base is a file here and a line below. */
import { BuildError, type Occt } from '../occt/occt.ts';
import type { Content, SolidContent } from '../content.ts';
import { buildBox } from './box.ts';
import { buildCombination, type Operand } from './combine.ts';
import { buildCylinder } from './cylinder.ts';
import { buildSphere } from './sphere.ts';
import { buildStretched } from './stretched.ts';
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
  content: Exclude<Content, { kind: 'combine' | 'mirrored' }>,
): NamedShape {
  if (content.kind === 'stretched') {
    requireSizes(content.of);
    return buildStretched(occt, content.of, content.by);
  }
  requireSizes(content);
  if (content.kind === 'box') return buildBox(occt, content.size);
  if (content.kind === 'sphere') return buildSphere(occt, content.diameter);
  return buildCylinder(occt, content.diameter, content.height);
}

function requireSizes(content: SolidContent): void {
  if (content.kind === 'box')
    return content.size.forEach((size, i) => requireSize(size, ['length', 'width', 'height'][i]!));
  requireSize(content.diameter, 'diameter');
  if (content.kind === 'cylinder') requireSize(content.height, 'height');
}

export function buildFromOperands(
  occt: Occt,
  content: Extract<Content, { kind: 'combine' }>,
  operands: readonly Operand[],
): NamedShape {
  return buildCombination(occt, content.how, operands);
}
