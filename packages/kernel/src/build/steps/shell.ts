/** A solid hollowed out to a wall. */
import { add, scale as times, faultOf, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import { facesChosen } from './chosen.ts';
import { convexShell, convexSolid } from './convexShell.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  ShapeMap,
  compoundOf,
  distanceTo,
  fromList,
  occurrences,
  progressRange,
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
import { onCopy } from '../onCopy.ts';
import { astray, missing } from './clearance.ts';
import { ROUND_JOINS, SHARP_JOINS, byJoins, type Join } from './joins.ts';
import { buildOrTellLargest } from './largest.ts';
import { offsetBy } from './offset.ts';
import { openHollow } from './openHollow.ts';
import { orNothing } from './orNothing.ts';
import { RIM, innerName, isWithin, withWallBehind } from './wallBehind.ts';

type Shell = Extract<Content, { readonly kind: 'shell' }>;

const TOLERANCE_MM = 1e-6;
const MAX_PLACES = 6;

/** Outer faces keep their names, each inner one is called after the face that it stands behind. Throws BuildError. */
export function buildShell(occt: Occt, of: NamedShape, content: Shell): NamedShape {
  const even = evenShell(occt, of, content);
  const { thickness, side, other = [], thicknesses = [] } = content;
  // What is moved last stays, and what it was made from goes.
  return other.reduce((wall, face, i) => {
    const own = thicknesses[i] ?? thicknesses.at(-1) ?? thickness;
    if (own === thickness) return wall;
    try {
      return withWallBehind(occt, { of, wall, face, thickness, own, side });
    } finally {
      release(occt, wall.shape);
    }
  }, even);
}

function evenShell(occt: Occt, of: NamedShape, content: Shell): NamedShape {
  const { open, thickness, side } = content;
  return scope((keep) => {
    const opened = facesChosen(occt, of, { chosen: open, keep }).map(({ face }) => face);
    const convex = convexSolid(occt, of, opened);
    return buildOrTellLargest(
      thickness,
      (size) => {
        const by = side === 'in' || opened.length === 0 ? -size : size;
        if (convex) return convexShell(occt, convex, by);
        return opened.length === 0 ? hollow(occt, of, size) : walled(occt, of, { open, by });
      },
      { what: 'thickness', giveBack: ({ shape }) => release(occt, shape) },
    );
  });
}

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
  readonly open: Shell['open'];
  readonly by: number;
}

function walled(occt: Occt, of: NamedShape, { open, by }: Walling): NamedShape {
  try {
    return byJoins(occt, by < 0 ? ROUND_JOINS : SHARP_JOINS, (join) =>
      onCopy(occt, of, (own) => wallJoined(occt, own, { open, by, join })),
    );
  } catch (error) {
    const failure = translated(occt, error);
    const made = by < 0 && failure instanceof BuildError ? besideInward(occt, of, { open, by }) : undefined;
    if (!made) throw failure;
    return made;
  }
}

/** Open faces beside inward edges are beyond the kernel's own operation. Undefined where there are none, or it is no wall. */
const besideInward = (occt: Occt, of: NamedShape, { open, by }: Walling): NamedShape | undefined =>
  scope((keep) => {
    const faces = facesChosen(occt, of, { chosen: open, keep });
    const made = orNothing(occt, () => openHollow(occt, of, { open: faces, thickness: -by, keep }));
    if (!made) return undefined;
    const { wall: named, ends } = made;
    const opened = faces.map(({ face }) => face);
    const isWall = wrongPlaces(occt, { of, opened, by, named, ends, keep }).length === 0;
    if (isWall && bodiesIn(occt, named) === bodiesIn(occt, of)) return named;
    keep(named.shape);
    if (!isWall) return undefined;
    throw new BuildError(faultOf('shell.apart', {}), [middleOf(occt, ends)]);
  });

const bodiesIn = (occt: Occt, { shape }: NamedShape): number =>
  scope((keep) => occurrences({ occt, keep }, shape, 'TopAbs_SOLID').length);

function wallJoined(
  occt: Occt,
  of: NamedShape,
  { open, by, join }: Walling & { readonly join: Join },
): NamedShape {
  return scope((keep) => {
    const opened = facesChosen(occt, of, { chosen: open, keep }).map(({ face }) => face);
    const operation = keep(new occt.BRepOffsetAPI_MakeThickSolid());
    const made = thickened(occt, operation, { of, opened, by, join, keep });
    const shape = requireBodies(occt, made, 'The shell');
    const named = namedWall(occt, shape, { of, operation, keep });
    const wrong = wrongPlaces(occt, { of, opened, by, named, keep });
    if (wrong.length > 0) throw tooThick(wrong);
    return named;
  });
}

interface Moving {
  readonly opened: readonly TopoDS_Face[];
  readonly by: number;
}

interface Thickening extends Moving {
  readonly of: NamedShape;
  readonly join: Join;
  readonly keep: Keep;
}
type ThickSolid = InstanceType<Occt['BRepOffsetAPI_MakeThickSolid']>;

function thickened(
  occt: Occt,
  operation: ThickSolid,
  { of, opened, by, join, keep }: Thickening,
): TopoDS_Shape {
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
      join,
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
  const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => names.get(face) ?? RIM);
  return { shape, faceNames };
}

interface Claim extends Moving {
  readonly of: NamedShape;
  readonly named: NamedShape;
  /** Edges over which a wall ends, so that what is below them may be nearer to them than a wall is thick. */
  readonly ends?: TopoDS_Shape;
  readonly keep: Keep;
}

/** The kernel passes off what is too thick as sound: where the new faces are not a wall’s thickness from the old ones. */
function wrongPlaces(occt: Occt, { of, opened, by, named, ends, keep }: Claim): Vec3[] {
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
    ...astray(occt, { shape: moved, of: kept, by, isRound: by < 0 }).filter(
      (point) => !ends || distanceTo(occt, ends, point) > distanceTo(occt, kept, point) + TOLERANCE_MM,
    ),
    // Where the solid ends before, at an open face, no wall is due.
    ...missing(occt, { shape: named.shape, of: kept, by }).filter(
      (point) => by > 0 || isWithin(occt, of.shape, point),
    ),
  ];
}

const middleOf = (occt: Occt, shape: TopoDS_Shape): Vec3 => {
  const { min, max } = roughBox(occt, shape);
  return times(add(min, max), 0.5);
};
