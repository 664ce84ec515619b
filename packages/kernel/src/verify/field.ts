/**
 * Where a solid is, by formulas alone: no kernel is asked, so that its answer can be held against the kernel's. Distances to
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
  type Vec3,
} from '@kadrel/core';
import type { Content, OperandContent } from '../content/content.ts';
import { bodyField } from './bodyField.ts';
import type { Distance, Field } from './distance.ts';
import { plainField } from './plainField.ts';

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
      return bodyField(content) ?? other(content);
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
  if (how === 'intersect') return { ...first!, at: (point) => max(fields.map((field) => field.at(point))) };
  if (how === 'union') return { ...ballRound(fields), at: nearestOf(fields) };
  const taken = nearestOf(others);
  return {
    ...first!,
    at: (point) => {
      const own = first!.at(point);
      return own > 0 ? own : max([own, -taken(point)]);
    },
  };
}

/** The greatest; not known where one that is not known could change its sign. */
function max(values: readonly number[]): number {
  const known = values.filter((value) => !Number.isNaN(value));
  const greatest = Math.max(-Infinity, ...known);
  return greatest > 0 || known.length === values.length ? greatest : NaN;
}

/**
 * The least of the distances; those whose ball is far away, or farther than another solid, are not asked. Hundreds of solids are asked of
 * thousands of points, so that their balls are packed: centre and radius of each.
 */
function nearestOf(fields: readonly Field[]): Distance {
  const balls = Float64Array.from(fields.flatMap(({ centre, radius }) => [...centre, radius]));
  return (point) => {
    let min = Infinity;
    let isKnown = true;
    for (let i = 0; i < fields.length; i++) {
      const apart = fromBall(balls, 4 * i, point);
      if (apart >= min) continue;
      const value = apart > balls[4 * i + 3]! * 1e-3 + 1e-3 ? apart : fields[i]!.at(point);
      if (Number.isNaN(value)) isKnown = false;
      else if (value < min) min = value;
    }
    return min < 0 || isKnown ? min : NaN;
  };
}

/** The distance from the ball that begins at a place of the list, less than 0 inside. */
function fromBall(balls: Float64Array, at: number, point: Vec3): number {
  const x = point[0] - balls[at]!;
  const y = point[1] - balls[at + 1]!;
  const z = point[2] - balls[at + 2]!;
  return Math.sqrt(x * x + y * y + z * z) - balls[at + 3]!;
}

/** A ball that holds those of all fields, about the middle of their boxes. */
export function ballRound(fields: readonly { readonly centre: Vec3; readonly radius: number }[]): {
  centre: Vec3;
  radius: number;
} {
  const centre = [0, 1, 2].map((axis) => {
    const min = Math.min(...fields.map((one) => one.centre[axis]! - one.radius));
    return (min + Math.max(...fields.map((one) => one.centre[axis]! + one.radius))) / 2;
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
  const max = Math.max(...[0, 1, 2].map((i) => length(column(by, i)))) * Math.sqrt(3);
  const shortest = 1 / [0, 1, 2].reduce((sum, i) => sum + length(column(back, i)) ** 2, 0) ** 0.5;
  return {
    at: (point) => shortest * of.at(applyMatrix(back, point)),
    centre: applyMatrix(by, of.centre),
    radius: of.radius * max,
  };
}
