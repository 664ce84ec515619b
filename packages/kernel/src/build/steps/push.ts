/** Faces that move out of themselves, or in. */
import { cross, dot, faultOf, length, scale, subtract, type ChosenFace, type Vec3 } from '@kadrel/core';
import { combineShapes } from '../../booleans/operation.ts';
import type { Content } from '../../content/content.ts';
import { firstDerivatives, isFlatFace, outwardOf } from '../../facts/surface.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import { facesChosen, meetingEdges, type FoundFace, type MeetingEdge } from './chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  distanceTo,
  progressRange,
  read,
  release,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { withArcsOfSides } from './arcsOfSides.ts';
import { buildOrTellLargest } from './largest.ts';
import { copiedOut, movedPlanes } from './planes.ts';

type Push = Extract<Content, { readonly kind: 'push' }>;

/** Neighbours whose normals differ from square by less than this (cosine) stand square to the face. */
const SQUARE_COSINE = 1e-9;
/** Points nearer than this (mm) to an edge are on it. */
const ON_EDGE_MM = 1e-6;
/** Relative slack of volumes that are compared. */
const SAME_VOLUME = 1e-9;

/** All faces keep their names. Throws BuildError, with the largest distance that fits. */
export function buildPushed(
  occt: Occt,
  of: NamedShape,
  { faces: chosen, by: distance, to, sides }: Pick<Push, 'faces' | 'by' | 'to' | 'sides'>,
): NamedShape {
  return scope((keep) => {
    const faces = facesChosen(occt, of, { chosen, keep });
    const move = moverOf(occt, of, { chosen, faces, sides, keep });
    const by = to ? distance + wayTo(occt, faces, to) : distance;
    if (by === 0) throw new BuildError(faultOf('push.there-already', {}), [to!]);
    return buildOrTellLargest(Math.abs(by), (size) => move(Math.sign(by) * size), {
      what: 'distance',
      giveBack: ({ shape }) => release(occt, shape),
    });
  });
}

/** The same, without looking for the largest distance. Throws BuildError. */
export const pushedBy = (
  occt: Occt,
  of: NamedShape,
  { faces: chosen, by, sides }: Pick<Push, 'faces' | 'by' | 'sides'>,
): NamedShape =>
  scope((keep) => {
    const faces = facesChosen(occt, of, { chosen, keep });
    return moverOf(occt, of, { chosen, faces, sides, keep })(by);
  });

interface Mover extends Pick<Push, 'sides'> {
  readonly chosen: readonly ChosenFace[];
  readonly faces: readonly FoundFace[];
  readonly keep: Keep;
}

/** Moves faces, as often as it is called, by a distance, mm. */
function moverOf(
  occt: Occt,
  of: NamedShape,
  { chosen, faces, sides, keep }: Mover,
): (by: number) => NamedShape {
  const edges = meetingEdges({ occt, keep }, of);
  const moving = faces.map(({ face }) => face);
  if (sides === 'copy') return (by) => copiedOut(occt, of, { faces: moving, by });
  const isStraight = sides === 'straight' || moving.every((face) => standsSquare(face, { edges, moving }));
  return (by) =>
    isStraight
      ? oneByOne(occt, of, { chosen: onceEach(chosen), by })
      : movedPlanes(occt, of, { faces: moving, by });
}

/** How far faces are from a point, out of them: a flat one along its normal, a round one by its radius. Throws BuildError. */
function wayTo(occt: Occt, faces: readonly FoundFace[], to: Vec3): number {
  const found = faces.map(({ face }) => gapOf(occt, face, to));
  if (found.some((one) => Math.abs(one - found[0]!) > ON_EDGE_MM))
    throw new BuildError(faultOf('push.not-equally-far', {}), [to]);
  return found[0]!;
}

function gapOf(occt: Occt, face: TopoDS_Face, to: Vec3): number {
  return scope((keep) => {
    const surface = keep(new occt.BRepAdaptor_Surface(face, true));
    const type = surface.GetType() as unknown as string;
    if (type === 'GeomAbs_Plane') {
      const { point } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
      return dot(subtract(to, point), outwardOf(occt, face));
    }
    if (type !== 'GeomAbs_Cylinder') throw new BuildError(faultOf('push.other-face', {}), [to]);
    const cylinder = keep(surface.Cylinder());
    const axis = keep(cylinder.Axis());
    const direction = read(keep(axis.Direction()), keep);
    const origin = read(keep(axis.Location()), keep);
    const spoke = (at: Vec3) => {
      const arm = subtract(at, origin);
      return subtract(arm, scale(direction, dot(arm, direction)));
    };
    const radius = length(spoke(to));
    const { point, along, across } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
    const isTurned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED';
    const isBore = dot(cross(along, across), spoke(point)) > 0 === isTurned;
    return isBore ? cylinder.Radius() - radius : radius - cylinder.Radius();
  });
}

const onceEach = (chosen: readonly ChosenFace[]): ChosenFace[] => [
  ...new Map(chosen.map((one) => [JSON.stringify(one), one])).values(),
];

interface Meeting {
  readonly edges: readonly MeetingEdge[];
  /** All faces that move. */
  readonly moving: readonly TopoDS_Face[];
}

/** Whether all that a face meets goes straight out of it, or on with it, so that moving it is adding a layer, or taking one off. */
const standsSquare = (face: TopoDS_Face, { edges, moving }: Meeting): boolean =>
  edges
    .filter(({ faces }) => faces.some((one) => one.IsSame(face)))
    .every(
      ({ cosine, faces }) =>
        Math.abs(cosine) < SQUARE_COSINE ||
        (cosine > 1 - SQUARE_COSINE && faces.every((one) => moving.some((other) => other.IsSame(one)))),
    );

interface Pushing {
  readonly chosen: readonly ChosenFace[];
  readonly by: number;
}

/** One face after another, so that what a second one covers includes what the first has added. */
function oneByOne(occt: Occt, of: NamedShape, { chosen, by }: Pushing): NamedShape {
  return scope((keep) => {
    let now = of;
    for (const one of chosen) {
      if (now !== of) keep(now.shape);
      const faces = facesChosen(occt, now, { chosen: [one], keep });
      now = withFacesMoved(occt, now, { faces, by, keep });
    }
    return now;
  });
}

interface Moving {
  readonly faces: readonly FoundFace[];
  readonly by: number;
  readonly keep: Keep;
}

/** With sides that run as those that they continue, so that they merge; else as the kernel makes them. */
function withFacesMoved(occt: Occt, of: NamedShape, { faces, by, keep }: Moving): NamedShape {
  const edges = meetingEdges({ occt, keep }, of);
  const layered = (swept: readonly TopoDS_Face[]) =>
    withLayers(occt, of, {
      layers: faces.map((face, i) => layerOn(occt, { face, swept: swept[i]!, edges, by, keep })),
      by,
    });
  const plain = faces.map(({ face }) => face);
  const turned = plain.map((face) =>
    isFlatFace(occt, face) ? withArcsOfSides({ occt, keep }, face, edges) : face,
  );
  if (turned.every((face, i) => face === plain[i])) return layered(plain);
  try {
    return layered(turned);
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    return layered(plain);
  }
}

interface Layering {
  readonly face: FoundFace;
  /** The face, or one like it. */
  readonly swept: TopoDS_Face;
  /** All of the solid. */
  readonly edges: readonly MeetingEdge[];
  readonly by: number;
  readonly keep: Keep;
}

/** What a face sweeps over when it moves. Its far side is called like the face, the others like what they continue. */
function layerOn(occt: Occt, { face: { face, name }, swept, edges, by, keep }: Layering): NamedShape {
  const shape = keep(isFlatFace(occt, face) ? prism(occt, swept, by) : thick(occt, face, by));
  const own = edges.filter(({ faces }) => faces.some((one) => one.IsSame(face)));
  const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((side) => {
    const touched = own.filter(({ middle }) => distanceTo(occt, side, middle) < ON_EDGE_MM);
    const [first, second] = touched;
    if (!first || second) return name;
    return first.names[first.faces[0].IsSame(face) ? 1 : 0];
  });
  return { shape, faceNames };
}

function prism(occt: Occt, face: TopoDS_Face, by: number): TopoDS_Shape {
  return scope((keep) => {
    const way: Vec3 = scale(outwardOf(occt, face), by);
    return keep(new occt.BRepPrimAPI_MakePrism(face, keep(new occt.gp_Vec(...way)), true, true)).Shape();
  });
}

function thick(occt: Occt, face: TopoDS_Face, by: number): TopoDS_Shape {
  return scope((keep) => {
    const operation = keep(new occt.BRepOffsetAPI_MakeThickSolid());
    operation.MakeThickSolidBySimple(face, by);
    operation.Build(progressRange({ occt, keep }));
    if (!operation.IsDone()) throw new BuildError(faultOf('push.face-too-far', {}));
    const made = keep(operation.Shape());
    const solid = occt.TopoDS.Solid(made);
    occt.BRepLib.OrientClosedSolid(solid);
    return solid;
  });
}

interface Layers {
  readonly layers: readonly NamedShape[];
  readonly by: number;
}

/** Added, or taken off; within the volumes that any such combination keeps to. */
function withLayers(occt: Occt, of: NamedShape, { layers, by }: Layers): NamedShape {
  const tools = layers.map((layer) => ({ ...layer, tag: '' }));
  const made = combineShapes(occt, by > 0 ? 'union' : 'subtract', [{ ...of, tag: '' }, ...tools]);
  const [was, is] = [plainVolumeOf(occt, of.shape), plainVolumeOf(occt, made.shape)];
  const moved = layers.reduce((sum, { shape }) => sum + Math.abs(plainVolumeOf(occt, shape)), 0);
  const slack = SAME_VOLUME * (was + moved);
  const isWithin = by > 0 ? is > was && is <= was + moved + slack : is < was && is >= was - moved - slack;
  if (isWithin && isSound(occt, made.shape)) return made;
  release(occt, made.shape);
  throw new BuildError(faultOf('push.too-far', {}));
}
