/** A wall of another thickness behind single faces of a shell. */
import {
  MERGED,
  add,
  distance,
  dot,
  faultOf,
  scale,
  sharesName,
  turnBetween,
  type ChosenFace,
  type Vec3,
} from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import { displayChord, meshShape } from '../../facts/mesh.ts';
import { samplesOf } from '../../facts/samples.ts';
import { isFlatFace, outwardOf } from '../../facts/surface.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  ShapeMap,
  distanceBetween,
  distanceTo,
  occurrences,
  read,
  release,
  roughBox,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { Sets } from '../../occt/sets.ts';
import { isSound } from '../../occt/sound.ts';
import { blockBefore } from './cut.ts';
import { reachFrom } from './halves.ts';
import { facesChosen, meetingEdges, type FoundFace } from './chosen.ts';
import { orNothing } from './orNothing.ts';
import { buildPushed } from './push.ts';

type Shell = Extract<Content, { readonly kind: 'shell' }>;

/** A point farther from a solid than this (mm) is outside it. */
const OUTSIDE_MM = 1e-6;
/** What is added to a wall adds its volume, to this part of the whole. */
const SAME_VOLUME = 1e-9;

/** The ends of walls at open faces. */
export const RIM = 'rim';

/** Of what stands behind a face. */
export const innerName = (name: string): string =>
  name
    .split(MERGED)
    .map((one) => `inner ${one}`)
    .join(MERGED);

interface OtherWall {
  readonly of: NamedShape;
  readonly wall: NamedShape;
  readonly face: ChosenFace;
  /** Of the wall as it is, and behind the face, mm. */
  readonly thickness: number;
  readonly own: number;
  readonly side: Shell['side'];
}

/**
 * The faces that stand behind a face are moved by themselves, as Offset face does it; where what is round meets them, and the wall
 * grows inward, what is nearer to the face than the wall is to be thick is filled. Throws BuildError.
 */
export function withWallBehind(occt: Occt, other: OtherWall): NamedShape {
  try {
    return movedBehind(occt, other);
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    const isThicker = other.side === 'in' && other.own > other.thickness;
    const made = isThicker ? orNothing(occt, () => filledBehind(occt, other)) : undefined;
    if (!made) throw error;
    return made;
  }
}

function movedBehind(occt: Occt, { of, wall, face, thickness, own, side }: OtherWall): NamedShape {
  return scope((keep) => {
    const behind = facesChosen(occt, of, { chosen: [face], keep }).map(({ name }) => innerName(name));
    const chosen = [...new Set(behind)].map((name): ChosenFace => ({ ...face, face: name }));
    try {
      const made = buildPushed(occt, wall, { faces: chosen, by: own - thickness, sides: 'follow' });
      const stray = strayCorners(occt, { of, made, chosen, keep });
      if (stray && (side === 'out' || stray.length === 0)) return made;
      keep(made.shape);
      throw doesNotFitBehind(stray ?? [], '');
    } catch (error) {
      if (!(error instanceof BuildError)) throw error;
      throw doesNotFitBehind(error.places, error.reason);
    }
  });
}

/** Undefined where a face is not flat, or its wall would fill the hollow. */
function filledBehind(occt: Occt, { of, wall, face, own }: OtherWall): NamedShape | undefined {
  return scope((keep) => {
    const faces = facesChosen(occt, of, { chosen: [face], keep });
    if (!faces.every((one) => isFlatFace(occt, one.face))) return undefined;
    return faces.reduce<NamedShape | undefined>((now, one) => {
      const made = now && thickerBy(occt, { of, wall: now, face: one, own });
      if (now && now !== wall) keep(now.shape);
      return made;
    }, wall);
  });
}

interface Thickening extends Pick<OtherWall, 'of' | 'wall' | 'own'> {
  readonly face: FoundFace;
}

/** A wall with what is left of the hollow before a plane behind a face. */
function thickerBy(occt: Occt, { of, wall, face, own }: Thickening): NamedShape | undefined {
  return scope((keep) => {
    const hollow = hollowOf(occt, { of, wall });
    keep(hollow.shape);
    const layers = layersBefore(occt, hollow, { face, own, keep });
    const behind = innerName(face.name);
    const besides = layers.filter(({ shape }) => isBeside(occt, shape, { wall, behind }));
    if (!besides.every((layer) => isUnder(occt, layer, { behind, out: outwardOf(occt, face.face) })))
      return undefined;
    const sizes = besides.map(({ shape }) => plainVolumeOf(occt, shape));
    const [whole, before] = [hollow, wall].map(({ shape }) => plainVolumeOf(occt, shape)) as [number, number];
    const added = sizes.reduce((sum, one) => sum + one, 0);
    if (besides.length === 0 || added >= (1 - SAME_VOLUME) * whole) return undefined;
    const made = combineShapes(
      occt,
      'union',
      [wall, ...besides].map((one) => ({ ...one, tag: '' })),
    );
    const off = Math.abs(plainVolumeOf(occt, made.shape) - before - added);
    if (off <= SAME_VOLUME * before && isSound(occt, made.shape)) return made;
    release(occt, made.shape);
    return undefined;
  });
}

/** What a wall leaves of a solid. Faces where the wall is open are called like the wall’s rim there. */
function hollowOf(occt: Occt, { of, wall }: Pick<OtherWall, 'of' | 'wall'>): NamedShape {
  const { shape, faceNames } = combineShapes(occt, 'subtract', [
    { ...of, tag: '' },
    { ...wall, tag: '' },
  ]);
  return { shape, faceNames: faceNames.map((name) => (name.startsWith('inner ') ? name : RIM)) };
}

interface Before {
  readonly face: FoundFace;
  readonly own: number;
  readonly keep: Keep;
}

/** The pieces of a hollow that are nearer to the plane of a face than a wall is thick. */
function layersBefore(occt: Occt, hollow: NamedShape, { face, own, keep }: Before): NamedShape[] {
  const out = outwardOf(occt, face.face);
  const [corner] = uniqueShapes({ occt, keep }, face.face, 'TopAbs_VERTEX');
  const on = read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner!))), keep);
  const frame = { turn: turnBetween([0, 0, 1], out), shift: add(on, scale(out, -own)) };
  const block = keep(blockBefore(occt, frame, reachFrom(occt, hollow.shape, frame.shift)));
  const faceNames = Array<string>(6).fill(innerName(face.name));
  const all = combineShapes(occt, 'intersect', [
    { ...hollow, tag: '' },
    { shape: block, faceNames, tag: '' },
  ]);
  keep(all.shape);
  return solidsOf(occt, all, keep);
}

/** Each solid by itself, with the names of its faces. */
function solidsOf(occt: Occt, { shape, faceNames }: NamedShape, keep: Keep): NamedShape[] {
  const names = new ShapeMap<string>(occt);
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').forEach((face, i) =>
    names.ensure(face, () => faceNames[i]!),
  );
  return occurrences({ occt, keep }, shape, 'TopAbs_SOLID').map((solid) => ({
    shape: solid,
    faceNames: uniqueShapes({ occt, keep }, solid, 'TopAbs_FACE').map((face) => names.get(face)!),
  }));
}

interface Beside {
  readonly wall: NamedShape;
  /** What the faces of the wall are called that a layer must lie on. */
  readonly behind: string;
}

const isBeside = (occt: Occt, layer: TopoDS_Shape, { wall, behind }: Beside): boolean =>
  scope((keep) =>
    uniqueShapes({ occt, keep }, wall.shape, 'TopAbs_FACE').some(
      (face, i) => sharesName(behind, wall.faceNames[i]!) && distanceBetween(occt, face, layer) < OUTSIDE_MM,
    ),
  );

interface Under {
  readonly behind: string;
  /** Out of the face that the wall stands behind. */
  readonly out: Vec3;
}

/**
 * Whether nothing lies over a layer but the wall behind a face and what goes on from it smoothly, as round edges do. Else the hollow reaches
 * past the face there, and what is nearer to its plane is not behind it.
 */
function isUnder(occt: Occt, layer: NamedShape, { behind, out }: Under): boolean {
  return scope((keep) => {
    const { min, max } = roughBox(occt, layer.shape);
    const mesh = meshShape(occt, layer.shape, displayChord(distance(min, max)));
    const over = new Set(
      samplesOf(occt, layer.shape, mesh).flatMap(({ outward, face }) =>
        dot(outward, out) > LEVEL_SINE ? [face] : [],
      ),
    );
    const faces = uniqueShapes({ occt, keep }, layer.shape, 'TopAbs_FACE');
    const sets = new Sets(faces.length);
    for (const { bend, faces: sides } of meetingEdges({ occt, keep }, layer)) {
      const [a, b] = sides.map((side) => faces.findIndex((one) => one.IsSame(side))) as [number, number];
      if (bend === 'smooth' && over.has(a) && over.has(b)) sets.join(a, b);
    }
    const reached = sets.all().filter((set) => set.some((i) => sharesName(behind, layer.faceNames[i]!)));
    return [...over].every((face) => reached.some((set) => set.includes(face)));
  });
}
/** A face that leans less than this (sine) stands upright. */
const LEVEL_SINE = 1e-6;

interface Moved {
  readonly of: NamedShape;
  readonly made: NamedShape;
  readonly chosen: readonly ChosenFace[];
  readonly keep: Keep;
}

/** Corners of faces that were moved that lie outside the solid; undefined where such a face is gone: the hollow is filled up there. */
function strayCorners(occt: Occt, { of, made, chosen, keep }: Moved): Vec3[] | undefined {
  const faces = uniqueShapes({ occt, keep }, made.shape, 'TopAbs_FACE');
  const found = chosen.map(({ face }) => faces.filter((_, i) => sharesName(face, made.faceNames[i]!)));
  if (found.some((named) => named.length === 0)) return undefined;
  return found
    .flat()
    .flatMap((face) => uniqueShapes({ occt, keep }, face, 'TopAbs_VERTEX'))
    .map((corner) => read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner))), keep))
    .filter((at) => !isWithin(occt, of.shape, at));
}

const doesNotFitBehind = (places: readonly Vec3[], detail: string) =>
  new BuildError(faultOf('shell.other-thickness', {}), places, detail);

/** A solid has no distance to what is within it; a compound, which fillets come in, has. */
export const isWithin = (occt: Occt, shape: TopoDS_Shape, at: Vec3): boolean =>
  scope((keep) =>
    occurrences({ occt, keep }, shape, 'TopAbs_SOLID').some(
      (solid) => distanceTo(occt, solid, at) < OUTSIDE_MM,
    ),
  );
