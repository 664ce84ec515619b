/** What a plane and a solid have in common, as flat faces, and what all solids of a model leave on a section plane. */
import {
  AT_ORIGIN,
  MERGED,
  acrossTo,
  cross,
  dot,
  fromColumns,
  isSamePose,
  scale,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import type { NamedShape } from '../naming/named.ts';
import {
  compoundOf,
  copied,
  moved,
  progressRange,
  release,
  roughBox,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { buildDrawn } from './bodies/drawn.ts';
import { enclosedFaces } from './sectionLoops.ts';

/** normal · p = offset, mm; the normal has length 1 and points to who looks at the cut. */
export interface CutPlane {
  readonly normal: Vec3;
  readonly offset: number;
}

/** What a cut face is called. */
export const CUT_FACE = 'cut';
/** How far the sheet that is laid through a solid reaches beyond it, as a part of its size. */
const MARGIN = 0.1;

/** @param across a direction in the plane, of length 1: where the sheet’s own X goes */
export function commonFaces(
  occt: Occt,
  shape: TopoDS_Shape,
  { normal, offset, across }: CutPlane & { readonly across: Vec3 },
): TopoDS_Shape {
  return scope((keep) => {
    const own = copied(occt, shape, AT_ORIGIN);
    try {
      const sheet = sheetThrough({ occt, keep }, own, { normal, offset, across });
      const common = keep(new occt.BRepAlgoAPI_Common(sheet, own, progressRange({ occt, keep })));
      const faces = uniqueShapes({ occt, keep }, keep(common.Shape()), 'TopAbs_FACE');
      const found = compoundOf(occt, faces);
      common.Clear();
      return found;
    } finally {
      release(occt, own);
    }
  });
}

/** The same by the lines in which they meet; undefined where these do not tell. */
export function enclosedOn(
  occt: Occt,
  shape: TopoDS_Shape,
  plane: CutPlane & { readonly across: Vec3 },
): TopoDS_Shape | undefined {
  return scope((keep) => {
    const sheet = sheetThrough({ occt, keep }, shape, plane);
    return enclosedFaces(occt, shape, { sheet, normal: plane.normal, across: plane.across });
  });
}

function sheetThrough(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  { normal, offset, across }: CutPlane & { readonly across: Vec3 },
): TopoDS_Face {
  const upward = cross(normal, across);
  const origin = scale(normal, offset);
  const point = keep(new occt.gp_Pnt(...origin));
  const [z, x] = [keep(new occt.gp_Dir(...normal)), keep(new occt.gp_Dir(...across))];
  const plane = keep(new occt.gp_Pln(keep(new occt.gp_Ax3(point, z, x))));
  const { min, max } = roughBox(occt, shape);
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i): Vec3 => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ]);
  const reach = (direction: Vec3) => {
    const along = corners.map((corner) => dot(corner, direction));
    const [least, most] = [Math.min(...along), Math.max(...along)];
    const more = MARGIN * (most - least) + 1;
    return [least - more, most + more] as const;
  };
  return keep(keep(new occt.BRepBuilderAPI_MakeFace(plane, ...reach(across), ...reach(upward))).Face());
}

/** Faces of a solid that was cut by its own steps, where the plane cut it. */
export const facesCalled = (occt: Occt, { shape, faceNames }: NamedShape, name: string): TopoDS_Shape =>
  scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const isMeant = (_: TopoDS_Shape, i: number) => faceNames[i]!.split(MERGED).includes(name);
    const chosen = faces.filter(isMeant).map((face) => keep(moved(occt, face, AT_ORIGIN)));
    return compoundOf(occt, chosen);
  });

export const namedCut = (occt: Occt, shape: TopoDS_Shape): NamedShape => ({
  shape,
  faceNames: scope((keep) => uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map(() => CUT_FACE)),
});

/** The cut faces of one solid, and where it stands. */
export interface Piece {
  readonly tag: string;
  readonly pose: Pose;
  readonly named: NamedShape;
}

/** The cut faces of all solids in the XY plane, with a border round them; that alone, as wide as the sheet, where nothing is cut. Faces: cut, after what each is of. */
export function buildSection(occt: Occt, size: number, pieces: readonly Piece[]): NamedShape {
  const cut = pieces.filter(({ named }) => named.faceNames.length > 0);
  if (cut.length === 0) {
    const border = borderOf([-size / 2, -size / 2], [size / 2, size / 2]);
    const curves = border.map(([from, to], i) => ({
      name: `border.${i}`,
      curve: { kind: 'line' as const, from, to },
    }));
    return { ...buildDrawn(occt, [{ closed: true, curves }]), drawn: [{ closed: false, curves }] };
  }
  return scope((keep) => {
    const placed = cut.map((piece, i) => {
      // The same shape in the same place would count once: parts that lie on one another are reported.
      const lay = cut.slice(0, i).some((other) => isSamePiece(other, piece)) ? copied : moved;
      return keep(lay(occt, piece.named.shape, piece.pose));
    });
    const names = cut.flatMap(({ tag, named }) => named.faceNames.map((name) => `${tag}.${name}`));
    const shape = compoundOf(occt, placed);
    const ruled = borderRound(occt, shape).flatMap(([from, to]) => [...from, 0, ...to, 0]);
    return { shape, faceNames: names, ruled };
  });
}

const isSamePiece = (a: Piece, b: Piece): boolean => a.named === b.named && isSamePose(a.pose, b.pose);

type Corner2 = readonly [number, number];
type Side = readonly [from: Corner2, to: Corner2];
function borderOf([left, low]: Corner2, [right, high]: Corner2): readonly Side[] {
  const corners: readonly Corner2[] = [
    [left, low],
    [right, low],
    [right, high],
    [left, high],
  ];
  return corners.map((corner, i) => [corner, corners[(i + 1) % 4]!]);
}

/** So much of what is cut is left free round it. */
const RIM = 0.06;

function borderRound(occt: Occt, shape: TopoDS_Shape): readonly Side[] {
  const { min, max } = roughBox(occt, shape);
  const rim = RIM * Math.hypot(max[0] - min[0], max[1] - min[1]);
  return borderOf([min[0] - rim, min[1] - rim], [max[0] + rim, max[1] + rim]);
}

/** The XY plane of a frame, in the frame of a solid that a pose carries into it. */
export function planeUnder({ turn, shift }: Pose): CutPlane {
  return { normal: [turn[6], turn[7], turn[8]], offset: -shift[2] };
}

/** The frame’s plane in the world of the solid: from where a cut step has it. */
export function frameOf({ normal, offset }: CutPlane): Pose {
  const x = acrossTo(normal);
  return { turn: fromColumns(x, cross(normal, x), normal), shift: scale(normal, offset) };
}
