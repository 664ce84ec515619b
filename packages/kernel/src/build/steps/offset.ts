/** A solid whose faces have all moved out, or in, by one distance. */
import { add, scale as times, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { meshShape } from '../../facts/mesh.ts';
import {
  BuildError,
  ShapeMap,
  distanceBetween,
  fromList,
  occurrences,
  pointShape,
  progressRange,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { samplesOf } from '../../facts/samples.ts';
import { requireBodies } from '../compound.ts';
import type { NamedShape } from '../../naming/named.ts';

type Offset = Extract<Content, { readonly kind: 'offset' }>;

const TOLERANCE_MM = 1e-6;
/** How far points of the new faces may be from where they belong, mm: what the kernel's own approximations are off. */
const SLACK_MM = 1e-4;
const MOST_ON_A_FACE = 6;
const LOOK_CHORD_MM = 0.5;

/** Faces keep their names; those that edges and corners become are called corner1, corner2 and so on. Throws BuildError. */
export function buildOffset(occt: Occt, of: NamedShape, { by, corners }: Offset): NamedShape {
  return scope((keep) => {
    const operation = keep(new occt.BRepOffsetAPI_MakeOffsetShape());
    operation.PerformByJoin(
      of.shape,
      by,
      TOLERANCE_MM,
      'BRepOffset_Skin',
      false,
      false,
      corners === 'round' ? 'GeomAbs_Arc' : 'GeomAbs_Intersection',
      false,
      progressRange(occt, keep),
    );
    if (!operation.IsDone()) throw cannotFollow(by);
    const shape = requireBodies(occt, operation.Shape(), 'The offset solid');
    requireClearance(occt, { shape, of: of.shape, by, isRound: corners === 'round' });
    return named(occt, shape, { of, operation, keep });
  });
}

const cannotFollow = (by: number) =>
  new BuildError(
    `The faces cannot all move by ${by} mm.`,
    by < 0
      ? 'Move them in by less than half of what is thinnest.'
      : 'Move them out by less, or choose other corners.',
  );

interface Made {
  readonly of: NamedShape;
  readonly operation: InstanceType<Occt['BRepOffsetAPI_MakeOffsetShape']>;
  readonly keep: Keep;
}

function named(occt: Occt, shape: TopoDS_Shape, { of, operation, keep }: Made): NamedShape {
  const names = new ShapeMap<string>(occt);
  uniqueShapes(occt, of.shape, 'TopAbs_FACE', keep).forEach((face, i) => {
    for (const image of fromList(occt, keep(operation.Generated(face)), keep))
      names.ensure(image, () => of.faceNames[i]!);
  });
  let corners = 0;
  const faceNames = uniqueShapes(occt, shape, 'TopAbs_FACE', keep).map(
    (face) => names.get(face) ?? `corner${++corners}`,
  );
  return { shape, faceNames };
}

interface Claim {
  readonly shape: TopoDS_Shape;
  readonly of: TopoDS_Shape;
  readonly by: number;
  readonly isRound: boolean;
}

/**
 * Every face lies as far from the old surface as was said (square corners may stand out farther), and wherever the old surface can move
 * as far without coming nearer to another part of itself, there is a face: none is missing. Throws BuildError.
 */
function requireClearance(occt: Occt, claim: Claim): void {
  const wrong = [...astray(occt, claim), ...missing(occt, claim)];
  if (wrong.length === 0) return;
  const { reason, remedy } = cannotFollow(claim.by);
  throw new BuildError(reason, remedy, wrong.slice(0, MOST_ON_A_FACE));
}

function astray(occt: Occt, { shape, of, by, isRound }: Claim): Vec3[] {
  const wanted = Math.abs(by);
  return pointsOn(occt, shape, by)
    .map(({ point }) => point)
    .filter((point) => {
      const found = distanceToFaces(occt, of, point);
      return found < wanted - SLACK_MM || (isRound && found > wanted + SLACK_MM);
    });
}

function missing(occt: Occt, { shape, of, by }: Claim): Vec3[] {
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
  return samplesOf(occt, shape, meshShape(occt, shape, chord), MOST_ON_A_FACE);
};

/** From the surface, also from inside: a point within a solid has no distance to it, but one to its shells. */
function distanceToFaces(occt: Occt, solid: TopoDS_Shape, at: Vec3): number {
  return scope((keep) => {
    const point = pointShape(occt, at, keep);
    const shells = occurrences(occt, solid, 'TopAbs_SHELL', keep);
    return Math.min(...shells.map((shell) => distanceBetween(occt, shell, point)));
  });
}
