/** What lies on one side of a plane. */
import { chain, type Pose, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { integralsOf } from '../../facts/integrals.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  isSound,
  moved,
  scope,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';

type Cut = Extract<Content, { readonly kind: 'cut' }>;

/** Both sides together are the whole, to this part of it. */
const SAME_VOLUME = 1e-9;

/** The new face is called cut. Throws BuildError. */
export function buildCut(occt: Occt, of: NamedShape, { frame, keep: side }: Cut): NamedShape {
  return scope((keep) => {
    const [front, behind] = halves(occt, of, frame, keep);
    const kept = side === 'front' ? front : behind;
    const other = side === 'front' ? behind : front;
    keep(other.shape);
    const [whole, a, b] = [of, kept, other].map(({ shape }) => integralsOf(occt, shape).volume) as [
      number,
      number,
      number,
    ];
    if (Math.abs(a + b - whole) <= SAME_VOLUME * whole && isSound(occt, kept.shape)) return kept;
    keep(kept.shape);
    throw new BuildError(
      'The solid could not be cut cleanly here: the halves do not add up to the whole.',
      'Move the plane a little.',
      [frame.shift],
    );
  });
}

function halves(occt: Occt, of: NamedShape, frame: Pose, keep: Keep): [NamedShape, NamedShape] {
  const reach = reachOf(occt, of.shape, frame.shift);
  const front = keep(blockBefore(occt, frame, reach));
  try {
    return [
      combineShapes(occt, 'intersect', [{ ...of, tag: '' }, cutting(front)]),
      combineShapes(occt, 'subtract', [{ ...of, tag: '' }, cutting(front)]),
    ];
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    throw new BuildError(
      'The plane does not go through the solid.',
      'Move the plane, or choose another.',
      [frame.shift],
      error.reason,
    );
  }
}

const cutting = (shape: TopoDS_Shape) => ({ shape, faceNames: Array<string>(6).fill('cut'), tag: '' });

/** A block on the front of the plane, larger than all that could lie there. */
function blockBefore(occt: Occt, frame: Pose, reach: number): TopoDS_Shape {
  return scope((keep) => {
    const box = keep(keep(new occt.BRepPrimAPI_MakeBox(2 * reach, 2 * reach, reach)).Shape());
    return moved(occt, box, chain(frame, { turn: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [-reach, -reach, 0] }));
  });
}

/** Farther than the solid is from a point, mm. */
function reachOf(occt: Occt, shape: TopoDS_Shape, [x, y, z]: Vec3): number {
  return scope((keep) => {
    const box = keep(new occt.Bnd_Box());
    occt.BRepBndLib.Add(shape, box, false);
    const corners = [keep(box.CornerMin()), keep(box.CornerMax())];
    return (
      2 * (1 + Math.max(...corners.map((at) => Math.hypot(at.X() - x, at.Y() - y, at.Z() - z)))) * Math.SQRT2
    );
  });
}
