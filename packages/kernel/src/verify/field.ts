/**
 * Where a solid is, told by formulas alone: no kernel is asked, so that its answer can be held against the kernel's. Distances to
 * plain solids are the usual signed ones; combinations take the least or the greatest of them. Source: A. Ricci, *A constructive
 * geometry for computer graphics*, The Computer Journal 16(2), 1973; the distances are plane geometry.
 */
import {
  applyMatrix,
  carry,
  carryBack,
  column,
  length,
  scale,
  inverseMatrix,
  type CombineHow,
  type Matrix,
  type Pose,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import type { Content, OperandContent, SolidContent } from '../content.ts';

/**
 * A point (mm, in the solid's own frame) → below 0 inside, above 0 outside; NaN where it is not known. Where a single surface is
 * near, and nothing was stretched, the size is the distance from it.
 */
export type Distance = (point: Vec3) => number;

/** A distance, and a ball that holds the whole solid. */
export interface Field {
  readonly at: Distance;
  readonly centre: Vec3;
  readonly radius: number;
}

/** What stands for solids that no formula is known of, such as lofts; undefined where there is nothing. */
export type OtherField = (content: Content) => Field | undefined;

export function fieldOf(content: Content, other: OtherField): Field | undefined {
  switch (content.kind) {
    case 'combine':
      return combined(content.how, content.operands, other);
    case 'mirrored': {
      const of = fieldOf(content.of, other);
      return (
        of && {
          ...of,
          at: ([x, y, z]) => of.at([-x, y, z]),
          centre: [-of.centre[0], of.centre[1], of.centre[2]],
        }
      );
    }
    case 'scaled': {
      const of = fieldOf(content.of, other);
      const { by } = content;
      return (
        of && {
          at: (point) => by * of.at(scale(point, 1 / by)),
          centre: scale(of.centre, by),
          radius: of.radius * by,
        }
      );
    }
    case 'stretched':
      return stretched(plainField(content.of), content.by);
    case 'box':
    case 'cylinder':
    case 'sphere':
    case 'cone':
    case 'tube':
    case 'torus':
    case 'prism':
      return plainField(content);
    default:
      return other(content);
  }
}

function combined(
  how: CombineHow,
  operands: readonly OperandContent[],
  other: OtherField,
): Field | undefined {
  const fields: Field[] = [];
  for (const { pose, content } of operands) {
    const inner = fieldOf(content, other);
    if (!inner) return undefined;
    fields.push(placedField(inner, pose));
  }
  return combinedField(how, fields);
}

/** A field as it is seen from the frame that a pose leads to. */
export const placedField = ({ at, centre, radius }: Field, pose: Pose): Field => ({
  at: (point) => at(carryBack(pose, point)),
  centre: carry(pose, centre),
  radius,
});

/** All in one frame. */
export function combinedField(how: CombineHow, fields: readonly Field[]): Field {
  const [first, ...others] = fields;
  if (how === 'intersect') return { ...first!, at: (point) => most(fields.map((field) => field.at(point))) };
  if (how === 'union') return { ...ballRound(fields), at: (point) => nearest(fields, point) };
  return {
    ...first!,
    at: (point) => {
      const own = first!.at(point);
      return own > 0 ? own : most([own, -nearest(others, point)]);
    },
  };
}

/** The greatest; not known where one that is not known could change its sign. */
function most(values: readonly number[]): number {
  const known = values.filter((value) => !Number.isNaN(value));
  const greatest = Math.max(-Infinity, ...known);
  return greatest > 0 || known.length === values.length ? greatest : NaN;
}

/** The least of the distances; those whose ball is far away are not asked. */
function nearest(fields: readonly Field[], point: Vec3): number {
  let least = Infinity;
  let isKnown = true;
  for (const { at, centre, radius } of fields) {
    const apart = Math.hypot(point[0] - centre[0], point[1] - centre[1], point[2] - centre[2]) - radius;
    const value = apart > radius * 1e-3 + 1e-3 ? apart : at(point);
    if (Number.isNaN(value)) isKnown = false;
    else if (value < least) least = value;
  }
  return least < 0 || isKnown ? least : NaN;
}

/** A ball that holds those of all fields, about the middle of their boxes. */
export function ballRound(fields: readonly { readonly centre: Vec3; readonly radius: number }[]): {
  centre: Vec3;
  radius: number;
} {
  const centre = [0, 1, 2].map((axis) => {
    const least = Math.min(...fields.map((one) => one.centre[axis]! - one.radius));
    return (least + Math.max(...fields.map((one) => one.centre[axis]! + one.radius))) / 2;
  }) as unknown as Vec3;
  const radius = Math.max(
    ...fields.map(
      (one) =>
        Math.hypot(one.centre[0] - centre[0], one.centre[1] - centre[1], one.centre[2] - centre[2]) +
        one.radius,
    ),
  );
  return { centre, radius };
}

/** The sign is exact; the size is at most the distance. @param by with a positive determinant */
function stretched(of: Field, by: Matrix): Field {
  const back = inverseMatrix(by);
  // A map shortens by no more than the sum of its inverse's columns.
  const most = Math.max(...[0, 1, 2].map((i) => length(column(by, i)))) * Math.sqrt(3);
  const shortest = 1 / [0, 1, 2].reduce((sum, i) => sum + length(column(back, i)) ** 2, 0) ** 0.5;
  return {
    at: (point) => shortest * of.at(applyMatrix(back, point)),
    centre: applyMatrix(by, of.centre),
    radius: of.radius * most,
  };
}

/** The distance from a plain solid in its own frame. */
export function plainField(solid: SolidContent): Field {
  switch (solid.kind) {
    case 'box': {
      const half = scale(solid.size, 0.5);
      return { at: (p) => boxDistance(p, half), centre: half, radius: length(half) };
    }
    case 'sphere': {
      const radius = solid.diameter / 2;
      return { at: (p) => length(p) - radius, centre: [0, 0, 0], radius };
    }
    case 'torus': {
      const [ring, thin] = [solid.diameter / 2, solid.thickness / 2];
      const at: Distance = ([x, y, z]) => Math.hypot(Math.hypot(x, y) - ring, z) - thin;
      return { at, centre: [0, 0, 0], radius: ring + thin };
    }
    case 'prism': {
      const { corners, height } = solid;
      const at: Distance = ([x, y, z]) =>
        bothOf(polygonDistance(corners, [x, y]), Math.abs(z - height / 2) - height / 2);
      const radius = Math.max(...corners.map(([x, y]) => Math.hypot(x, y, height / 2)));
      return { at, centre: [0, 0, height / 2], radius };
    }
    default: {
      const outline = halfOutline(solid);
      const { height } = solid;
      const at: Distance = ([x, y, z]) => polygonDistance(outline, [Math.hypot(x, y), z]);
      const widest = Math.max(...outline.map(([r]) => r));
      return { at, centre: [0, 0, height / 2], radius: Math.hypot(widest, height / 2) };
    }
  }
}

/** The outline beside the axis that a round solid is turned from, counter-clockwise; solid ones reach across the axis. */
function halfOutline(solid: Extract<SolidContent, { kind: 'cylinder' | 'cone' | 'tube' }>): readonly Vec2[] {
  const { height } = solid;
  const radius = solid.diameter / 2;
  const top = solid.kind === 'cone' ? solid.top / 2 : radius;
  const inner = solid.kind === 'tube' ? solid.bore / 2 : -radius;
  const innerTop = solid.kind === 'tube' ? inner : -top;
  const corners: Vec2[] = [
    [inner, 0],
    [radius, 0],
    [top, height],
    [innerTop, height],
  ];
  // A pointed cone has one corner at its tip.
  return top === 0 ? corners.slice(0, 3) : corners;
}

function boxDistance(point: Vec3, half: Vec3): number {
  const [x, y, z] = [0, 1, 2].map((i) => Math.abs(point[i]! - half[i]!) - half[i]!) as [
    number,
    number,
    number,
  ];
  return Math.hypot(Math.max(x, 0), Math.max(y, 0), Math.max(z, 0)) + Math.min(Math.max(x, y, z), 0);
}

/** The distance from what two square regions have in common. */
const bothOf = (a: number, b: number) =>
  Math.min(Math.max(a, b), 0) + Math.hypot(Math.max(a, 0), Math.max(b, 0));

/** Signed distance from a polygon. The side is told by how often a ray to the right crosses it. */
export function polygonDistance(corners: readonly (readonly [number, number])[], [x, y]: Vec2): number {
  let least = Infinity;
  let isInside = false;
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const [ax, ay] = corners[j]!;
    const [bx, by] = corners[i]!;
    const [ux, uy] = [bx - ax, by - ay];
    const size = ux * ux + uy * uy;
    const part = size === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / size));
    least = Math.min(least, Math.hypot(x - ax - part * ux, y - ay - part * uy));
    if (ay > y !== by > y && x < ax + ((y - ay) / uy) * ux) isInside = !isInside;
  }
  return isInside ? -least : least;
}
