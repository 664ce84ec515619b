/** Shells of convex solids with many flat faces: by their planes. What the kernel does with them takes long, or does not end. */
import { faultOf } from '@kadrel/core';
import { combineShapes } from '../../booleans/operation.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, release, scope, type Occt, type TopoDS_Face } from '../../occt/occt.ts';
import { beforeSide, behindAll, sidesOf, type Side } from '../convex.ts';
import { volumeWithin, type FlatFace } from '../flatFaces.ts';
import { orNothing } from './orNothing.ts';
import { flatFacesOf, solidOfFaces } from './polyhedron.ts';
import { RIM, innerName } from './wallBehind.ts';

/** With fewer faces the kernel's own way is short. */
const MANY_FACES = 12;
/** The wall has the volume that its corners say, to this part of the solid’s. */
const SAME_VOLUME = 1e-9;

/** A convex solid whose faces are to be moved. */
export interface ConvexSolid {
  readonly of: NamedShape;
  readonly faces: readonly FlatFace[];
  readonly sides: readonly Side[];
  /** Whether each of the faces is left open. */
  readonly isOpen: readonly boolean[];
}

/** Undefined where the solid is not convex, has round faces, or few of them. */
export function convexSolid(
  occt: Occt,
  of: NamedShape,
  opened: readonly TopoDS_Face[],
): ConvexSolid | undefined {
  if (of.faceNames.length <= MANY_FACES) return undefined;
  return scope((keep) => {
    const faces = orNothing(occt, () => flatFacesOf({ occt, keep }, of));
    const sides = faces && sidesOf(faces);
    if (!sides) return undefined;
    const isOpen = faces.map(({ face }) => opened.some((other) => other.IsSame(face)));
    return { of, faces: faces.map(({ name, loops }) => ({ name, loops })), sides, isOpen };
  });
}

/**
 * The wall between a convex solid and the same with its faces moved by a distance (mm), outward above 0: sharp at its edges, so that
 * it is as thick as was said, measured square to each face. Throws BuildError.
 */
export function convexShell(occt: Occt, solid: ConvexSolid, by: number): NamedShape {
  const { faces, isOpen } = solid;
  // An inner solid stands out of the faces that are left open.
  const other = movedFaces(solid, by, Math.max(0, -by));
  if (by < 0 || other.length === 0) requireHollow(solid, other);
  if (!isOpen.includes(true)) return solidOfFaces(occt, [...faces, ...other.map(turned)], 'The shell');
  const wall = parted(occt, solid, { other, by });
  const wanted = Math.abs(volumeOf(faces) - volumeOf(movedFaces(solid, by, 0)));
  if (Math.abs(plainVolumeOf(occt, wall.shape) - wanted) < SAME_VOLUME * volumeOf(faces)) return wall;
  release(occt, wall.shape);
  throw new BuildError(faultOf('kernel.other-volume', {}));
}

/** Closed faces moved by one distance, and open ones by another. */
function movedFaces({ faces, sides, isOpen }: ConvexSolid, by: number, byOfOpen: number): FlatFace[] {
  const moved = sides.map(({ name, normal, offset }, i): Side =>
    isOpen[i]
      ? { name: RIM, normal, offset: offset + byOfOpen }
      : { name: innerName(name), normal, offset: offset + by },
  );
  return behindAll(
    moved,
    faces.flatMap(({ loops }) => loops.flat()),
  );
}

interface Parting {
  readonly other: readonly FlatFace[];
  readonly by: number;
}

/** The smaller one of the two solids is taken out of the larger one. */
function parted(occt: Occt, { of, faces, isOpen }: ConvexSolid, { other, by }: Parting): NamedShape {
  const old = { shape: of.shape, faceNames: faces.map(({ name }, i) => (isOpen[i] ? RIM : name)), tag: '' };
  const moved = { ...solidOfFaces(occt, other, 'The shell'), tag: '' };
  try {
    return combineShapes(occt, 'subtract', by < 0 ? [old, moved] : [moved, old]);
  } finally {
    release(occt, moved.shape);
  }
}

/** mm³. */
const volumeOf = (faces: readonly FlatFace[]): number =>
  faces.length === 0 ? 0 : volumeWithin(faces.flatMap(({ loops }) => loops)) / 6;

/** Seen from the other side. */
const turned = ({ name, loops }: FlatFace): FlatFace => ({
  name,
  loops: loops.map((loop) => [...loop].reverse()),
});

/** What is moved in reaches out of each open face, and there is something of it. */
function requireHollow({ faces, sides, isOpen }: ConvexSolid, inner: readonly FlatFace[]): void {
  const corners = inner.flatMap(({ loops }) => loops.flat());
  const shut = faces.filter((_, i) => isOpen[i] && !corners.some((at) => beforeSide(sides[i]!, at) > 0));
  if (inner.length > 0 && shut.length === 0) return;
  throw new BuildError(
    faultOf('shell.too-thick', {}),
    (shut.length > 0 ? shut : faces).slice(0, 1).map(({ loops }) => loops[0]![0]!),
  );
}
