/** Surfaces that become one where their rims meet, or nearly do. */
import { faultOf, type Pose } from '@kadrel/core';
import { taggedNames } from '../../booleans/operation.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  compoundOf,
  copied,
  distanceBetween,
  scope,
  uniqueShapes,
  type Keep,
  type Scoped,
  type Occt,
} from '../../occt/occt.ts';
import { rimsOf } from '../bodies/rims.ts';
import { sewnSurface, type NamedFace } from '../surfaces.ts';

interface Joining {
  readonly other: NamedShape;
  /** Of the other surface, in the frame of the first. */
  readonly pose: Pose;
  /** Put before the names of its faces. */
  readonly tag: string;
  /** mm */
  readonly gap: number;
}

/** Throws BuildError where the rims do not come so near to one another that an edge is shared. */
export function buildJoined(occt: Occt, of: NamedShape, { other, pose, tag, gap }: Joining): NamedShape {
  return scope((keep) => {
    const placed = {
      shape: keep(copied(occt, other.shape, pose)),
      faceNames: taggedNames({ ...other, tag }),
    };
    const faces = [of, placed].flatMap((one) => facesOf({ occt, keep }, one));
    const made = joinedWithin(occt, faces, { gap, keep });
    if (made) return made;
    const rims = [of, placed].map(({ shape }) => rimsOf({ occt, keep }, shape));
    const [own, others] = rims.map((edges) => keep(compoundOf(occt, edges)));
    const apart = rims.every((edges) => edges.length > 0) ? distanceBetween(occt, own!, others!) : Infinity;
    throw new BuildError(
      Number.isFinite(apart)
        ? faultOf('surface.rims-apart', { apart: Number(apart.toPrecision(3)) })
        : faultOf('surface.no-rim', {}),
    );
  });
}

const facesOf = ({ occt, keep }: Scoped, { shape, faceNames }: NamedShape): NamedFace[] =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face, i) => ({ face, name: faceNames[i]! }));

interface Within {
  readonly gap: number;
  readonly keep: Keep;
}

/** All faces in one shell; undefined where they stay apart. */
function joinedWithin(occt: Occt, faces: readonly NamedFace[], within: Within): NamedShape | undefined {
  try {
    return sewnSurface(occt, faces, within);
  } catch (error) {
    if (error instanceof BuildError) return undefined;
    throw error;
  }
}
