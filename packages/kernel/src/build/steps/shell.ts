/** A solid hollowed out to a wall. */
import { MERGED, add, scale as times, sharesName, faultOf, type ChosenFace, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import { facesChosen } from './chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  ShapeMap,
  compoundOf,
  distanceTo,
  fromList,
  progressRange,
  read,
  release,
  roughBox,
  scope,
  translated,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { requireBodies } from '../compound.ts';
import { astray, missing } from './clearance.ts';
import { buildOrTellLargest } from './largest.ts';
import { offsetBy } from './offset.ts';
import { buildPushed } from './push.ts';

type Shell = Extract<Content, { readonly kind: 'shell' }>;

const TOLERANCE_MM = 1e-6;
/** A point farther from a solid than this (mm) is outside it. */
const OUTSIDE_MM = 1e-6;
const MAX_PLACES = 6;

/** Outer faces keep their names, each inner one is called after the face that it stands behind. Throws BuildError. */
export function buildShell(occt: Occt, of: NamedShape, content: Shell): NamedShape {
  const even = evenShell(occt, of, content);
  const { thickness, side, other = [], thicknesses = [] } = content;
  // What is moved last stays, and what it was made from goes.
  return other.reduce((wall, face, i) => {
    const own = thicknesses[i] ?? thicknesses.at(-1) ?? thickness;
    const made =
      own === thickness ? wall : withWallBehind(occt, { of, wall, face, by: own - thickness, side });
    if (made !== wall) release(occt, wall.shape);
    return made;
  }, even);
}

interface OtherWall {
  readonly of: NamedShape;
  readonly wall: NamedShape;
  readonly face: ChosenFace;
  /** How much thicker, mm. */
  readonly by: number;
  readonly side: Shell['side'];
}

/** The faces that stand behind a face are moved by themselves, as Offset face does it. */
function withWallBehind(occt: Occt, { of, wall, face, by, side }: OtherWall): NamedShape {
  return scope((keep) => {
    const behind = facesChosen(occt, of, { chosen: [face], keep }).map(({ name }) => innerName(name));
    const chosen = [...new Set(behind)].map((name): ChosenFace => ({ ...face, face: name }));
    try {
      const made = buildPushed(occt, wall, { faces: chosen, by, sides: 'follow' });
      const stray = strayCorners(occt, { of, made, chosen, keep });
      if (stray && (side === 'out' || stray.length === 0)) return made;
      keep(made.shape);
      throw doesNotFitBehind(stray ?? [], '');
    } catch (error) {
      release(occt, wall.shape);
      if (!(error instanceof BuildError)) throw error;
      throw doesNotFitBehind(error.places, error.reason);
    }
  });
}

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

function evenShell(occt: Occt, of: NamedShape, { open, thickness, side }: Shell): NamedShape {
  return scope((keep) => {
    const opened = facesChosen(occt, of, { chosen: open, keep }).map(({ face }) => face);
    return buildOrTellLargest(
      thickness,
      (size) =>
        opened.length === 0
          ? hollow(occt, of, size)
          : walled(occt, of, { opened, by: side === 'in' ? -size : size }),
      { what: 'thickness', giveBack: ({ shape }) => release(occt, shape) },
    );
  });
}

const innerName = (name: string): string =>
  name
    .split(MERGED)
    .map((one) => `inner ${one}`)
    .join(MERGED);

/** What is left when the same solid, moved in on all sides, is taken out. */
function hollow(occt: Occt, of: NamedShape, thickness: number): NamedShape {
  return scope((keep) => {
    const core = coreOf(occt, of, thickness);
    keep(core.shape);
    return combineShapes(occt, 'subtract', [
      { ...of, tag: '' },
      { shape: core.shape, faceNames: core.faceNames.map(innerName), tag: '' },
    ]);
  });
}

function coreOf(occt: Occt, of: NamedShape, thickness: number): NamedShape {
  try {
    return offsetBy(occt, of, { by: -thickness, corners: 'round' });
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    throw tooThick(error.places);
  }
}

interface Walling {
  readonly opened: readonly TopoDS_Face[];
  readonly by: number;
}

function walled(occt: Occt, of: NamedShape, { opened, by }: Walling): NamedShape {
  return scope((keep) => {
    const operation = keep(new occt.BRepOffsetAPI_MakeThickSolid());
    const shape = requireBodies(occt, thickened(occt, operation, { of, opened, by, keep }), 'The shell');
    const named = namedWall(occt, shape, { of, operation, keep });
    const wrong = wrongPlaces(occt, { of, opened, by, named, keep });
    if (wrong.length > 0) throw tooThick(wrong);
    return named;
  });
}

interface Thickening extends Walling {
  readonly of: NamedShape;
  readonly keep: Keep;
}
type ThickSolid = InstanceType<Occt['BRepOffsetAPI_MakeThickSolid']>;

function thickened(occt: Occt, operation: ThickSolid, { of, opened, by, keep }: Thickening): TopoDS_Shape {
  const list = keep(new occt.NCollection_List_TopoDS_Shape(opened as never));
  try {
    operation.MakeThickSolidByJoin(
      of.shape,
      list,
      by,
      TOLERANCE_MM,
      'BRepOffset_Skin',
      false,
      false,
      by < 0 ? 'GeomAbs_Arc' : 'GeomAbs_Intersection',
      false,
      progressRange({ occt, keep }),
    );
    operation.Build(progressRange({ occt, keep }));
    if (operation.IsDone()) return operation.Shape();
  } catch (error) {
    const failure = translated(occt, error);
    if (!(failure instanceof BuildError)) throw failure;
  }
  throw tooThick([]);
}

const tooThick = (places: readonly Vec3[]) =>
  new BuildError(faultOf('shell.too-thick', {}), places.slice(0, MAX_PLACES));

interface Wall {
  readonly of: NamedShape;
  readonly operation: ThickSolid;
  readonly keep: Keep;
}

function namedWall(occt: Occt, shape: TopoDS_Shape, { of, operation, keep }: Wall): NamedShape {
  const names = new ShapeMap<string>(occt);
  uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE').forEach((face, i) => {
    const name = of.faceNames[i]!;
    names.ensure(face, () => name);
    for (const made of fromList({ occt, keep }, keep(operation.Generated(face))))
      names.ensure(made, () => innerName(name));
  });
  const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map(
    (face) => names.get(face) ?? 'rim',
  );
  return { shape, faceNames };
}

interface Claim extends Walling {
  readonly of: NamedShape;
  readonly named: NamedShape;
  readonly keep: Keep;
}

/** The kernel passes off what is too thick as sound: where the new faces are not a wall’s thickness from the old ones. */
function wrongPlaces(occt: Occt, { of, opened, by, named, keep }: Claim): Vec3[] {
  const faces = uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE');
  const kept = keep(
    compoundOf(
      occt,
      faces.filter((face) => !opened.some((other) => other.IsSame(face))),
    ),
  );
  const inner = uniqueShapes({ occt, keep }, named.shape, 'TopAbs_FACE').filter((_, i) =>
    named.faceNames[i]!.startsWith('inner '),
  );
  if (inner.length === 0) return opened.length > 0 ? [middleOf(occt, of.shape)] : [];
  const [was, is] = [plainVolumeOf(occt, of.shape), plainVolumeOf(occt, named.shape)];
  if (by < 0 && !(is < was)) return [middleOf(occt, of.shape)];
  const moved = keep(compoundOf(occt, inner));
  return [
    ...astray(occt, { shape: moved, of: kept, by, isRound: by < 0 }),
    // Where the solid ends before, at an open face, no wall is due.
    ...missing(occt, { shape: named.shape, of: kept, by }).filter(
      (point) => by > 0 || isWithin(occt, of.shape, point),
    ),
  ];
}

/** A solid has no distance to what is within it. */
const isWithin = (occt: Occt, solid: TopoDS_Shape, at: Vec3): boolean =>
  distanceTo(occt, solid, at) < OUTSIDE_MM;

const middleOf = (occt: Occt, shape: TopoDS_Shape): Vec3 => {
  const { min, max } = roughBox(occt, shape);
  return times(add(min, max), 0.5);
};
