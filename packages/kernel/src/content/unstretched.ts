/**
 * Volumes under a linear map, exactly: where all of a solid's plain solids are stretched by one map, the solid is the
 * image of an unstretched one, whose volume times the map's determinant is the volume. The kernel's own integration is
 * 4e-7 off where ellipses bound a face.
 */
import {
  NO_TURN,
  applyMatrix,
  column,
  inverseMatrix,
  length,
  multiply,
  transposed,
  turnWithin,
  type Matrix,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import { isBodyContent } from './bodies.ts';
import { isStep, type Content, type SolidContent } from './content.ts';

/** A stretched solid as a plain one and a map. */
export interface Unstretched {
  readonly content: Content;
  /** Carries the unstretched solid to the stretched one. */
  readonly map: Matrix;
}

/** A map whose entries are off by less than this is none. */
const SAME = 1e-12;

/** The unstretched solid, or undefined where nothing is stretched, or not everything by one map. */
export function unstretched(content: Content): Unstretched | undefined {
  const map = firstMap(content, NO_TURN);
  if (!map) return undefined;
  const plain = without(content, inverseMatrix(map));
  return plain && plain.pose.shift.every((n) => n === 0) && isIdentity(plain.pose.turn)
    ? { content: plain.content, map }
    : undefined;
}

const isIdentity = (m: Matrix) => m.every((n, i) => Math.abs(n - NO_TURN[i]!) < SAME);

/** The linear part of the first stretched solid, in the frame of the whole. */
function firstMap(content: Content, outer: Matrix): Matrix | undefined {
  if (content.kind === 'stretched') return multiply(outer, multiply(content.by, transposed(outer)));
  if (content.kind !== 'combine') return undefined;
  for (const { pose, content: inner } of content.operands) {
    const found = firstMap(inner, multiply(outer, pose.turn));
    if (found) return found;
  }
  return undefined;
}

interface Plain {
  readonly content: Content;
  readonly pose: Pose;
}

/** The content under a map about its origin, where every solid in it stays, or becomes, plain. */
function without(content: Content, map: Matrix): Plain | undefined {
  // A mirror image within what is stretched is left to the kernel's own integration.
  if (isStep(content) || isBodyContent(content)) return undefined;
  if (content.kind === 'section' || content.kind === 'sectioned') return undefined;
  if (content.kind === 'combine') {
    const operands = content.operands.map(({ tag, pose, content: inner }) => {
      const local = multiply(transposed(pose.turn), multiply(map, pose.turn));
      const plain = without(inner, local);
      if (!plain) return undefined;
      const turn = multiply(pose.turn, plain.pose.turn);
      return { tag, content: plain.content, pose: { turn, shift: applyMatrix(map, pose.shift) } };
    });
    if (operands.some((operand) => operand === undefined)) return undefined;
    const all = operands.map((operand) => operand!);
    return { content: { ...content, operands: all }, pose: { turn: NO_TURN, shift: [0, 0, 0] } };
  }
  const solid = content.kind === 'stretched' ? content.of : content;
  const whole = content.kind === 'stretched' ? multiply(map, content.by) : map;
  const turn = turnWithin(solid.kind, whole);
  if (!turn) return undefined;
  const sizes = [0, 1, 2].map((i) => length(column(whole, i))) as unknown as Vec3;
  return { content: resized(solid, sizes), pose: { turn, shift: [0, 0, 0] } };
}

function resized(solid: SolidContent, [x, y, z]: Vec3): SolidContent {
  switch (solid.kind) {
    case 'box':
      return { ...solid, size: [solid.size[0] * x, solid.size[1] * y, solid.size[2] * z] };
    case 'sphere':
      return { ...solid, diameter: solid.diameter * x };
    case 'cylinder':
      return { ...solid, diameter: solid.diameter * x, height: solid.height * z };
    case 'cone':
      return { ...solid, diameter: solid.diameter * x, top: solid.top * x, height: solid.height * z };
    case 'tube':
      return { ...solid, diameter: solid.diameter * x, bore: solid.bore * x, height: solid.height * z };
    case 'torus':
      return { ...solid, diameter: solid.diameter * x, thickness: solid.thickness * x };
    case 'prism':
      return {
        ...solid,
        corners: solid.corners.map(([u, v]) => [u * x, v * x] as const),
        height: solid.height * z,
      };
  }
}
