/** Whether faces that moved out, or in, stand as far from the old ones as was said, and none is missing. */
import { add, scale as times, type Vec3 } from '@kadrel/core';
import { meshShape } from '../../facts/mesh.ts';
import { samplesOf } from '../../facts/samples.ts';
import { distanceTo, occurrences, scope, type Occt, type TopoDS_Shape } from '../../occt/occt.ts';

/** How far points of the new faces may be from where they belong, mm: what the kernel's own approximations are off. */
const SLACK_MM = 1e-4;
const MAX_ON_A_FACE = 6;
const LOOK_CHORD_MM = 0.5;

/** What was made of old faces. */
export interface Moved {
  readonly shape: TopoDS_Shape;
  /** A solid, or a compound of faces. */
  readonly of: TopoDS_Shape;
  /** mm, less than zero is inward. */
  readonly by: number;
}

/** Points of the new faces that are nearer to the old ones than was said; where corners are round, also those that are farther. */
export function astray(
  occt: Occt,
  { shape, of, by, isRound }: Moved & { readonly isRound: boolean },
): Vec3[] {
  const wanted = Math.abs(by);
  return pointsOn(occt, shape, by)
    .map(({ point }) => point)
    .filter((point) => {
      const found = distanceToFaces(occt, of, point);
      return found < wanted - SLACK_MM || (isRound && found > wanted + SLACK_MM);
    });
}

/** Points where a new face must be and is none: the old surface can move there without coming nearer to another part of itself. */
export function missing(occt: Occt, { shape, of, by }: Moved): Vec3[] {
  const wanted = Math.abs(by);
  return pointsOn(occt, of, by)
    .map(({ point, outward }) => add(point, times(outward, by)))
    .filter(
      (moved) =>
        distanceToFaces(occt, of, moved) > wanted - SLACK_MM &&
        distanceToFaces(occt, shape, moved) > SLACK_MM,
    );
}

const pointsOn = (occt: Occt, shape: TopoDS_Shape, by: number) => {
  const chord = Math.max(LOOK_CHORD_MM, Math.abs(by) / 2);
  return samplesOf(occt, shape, meshShape(occt, shape, chord), MAX_ON_A_FACE);
};

/** From the surface, also from inside: a point within a solid has no distance to it, but one to its shells. */
function distanceToFaces(occt: Occt, shape: TopoDS_Shape, at: Vec3): number {
  return scope((keep) => {
    const shells = occurrences({ occt, keep }, shape, 'TopAbs_SHELL');
    return Math.min(...(shells.length > 0 ? shells : [shape]).map((one) => distanceTo(occt, one, at)));
  });
}
