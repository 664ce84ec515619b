/** Faces and edges that a step names, or means by a rule, on the solid as it is before the step. */
import {
  MEETING,
  MERGED,
  cross,
  dot,
  length,
  ownersOf,
  scale,
  sharesName,
  unit,
  faultOf,
  type ChosenEdge,
  type ChosenFace,
  type EdgeRule,
  type Vec3,
} from '@kadrel/core';
import { isFlatFace, isLine, outwardAt, outwardOf } from '../../facts/surface.ts';
import type { Edge } from '../../occt/edges.ts';
import {
  BuildError,
  ShapeMap,
  distanceBetween,
  occurrences,
  pointShape,
  read,
  scope,
  uniqueShapes,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';
import { edgesRunningOn } from './runningOn.ts';

/** An edge between two faces. */
export interface MeetingEdge {
  readonly edge: Edge;
  /** Of its two faces, in alphabetical order. */
  readonly names: readonly [string, string];
  /** In the order of their names. */
  readonly faces: readonly [TopoDS_Face, TopoDS_Face];
  /** Smooth where its faces go on into each other. */
  readonly bend: 'outward' | 'inward' | 'smooth';
  /** Of the angle between the normals of its faces, at the middle. */
  readonly cosine: number;
  /** From its middle into each of its faces, along the face and square to the edge. */
  readonly into: readonly [Vec3, Vec3];
  /** A point on it, mm, and which way it runs there. */
  readonly middle: Vec3;
  readonly direction: Vec3;
  readonly isStraight: boolean;
}

/** Faces whose normals differ by less than this (sine) go on into each other: a hundred times the kernel’s own angle. */
const SMOOTH_SINE = 1e-4;
/** A direction this near to an axis (sine) runs along it. */
const ALONG_SINE = 1e-9;

interface Side {
  readonly face: TopoDS_Face;
  /** The way out of it, where that is the same all over. */
  readonly out: Vec3 | undefined;
  readonly name: string;
  /** With the orientation that it has in the face: what is left of it, seen from outside, is the face. */
  readonly edge: Edge;
}

/** All edges between two different faces: seams and borders of open surfaces are none. */
export function meetingEdges({ occt, keep }: Scoped, { shape, faceNames }: NamedShape): MeetingEdge[] {
  const known = new ShapeMap<Side[]>(occt);
  const all: Side[][] = [];
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').forEach((one, i) => {
    const face = keep(occt.TopoDS.Face(one));
    const out = isFlatFace(occt, face) ? outwardOf(occt, face) : undefined;
    for (const sub of occurrences({ occt, keep }, one, 'TopAbs_EDGE')) {
      const edge = keep(occt.TopoDS.Edge(sub));
      if (occt.BRep_Tool.Degenerated(edge)) continue;
      const sides = known.ensure(sub, () => {
        all.push([]);
        return all.at(-1)!;
      });
      sides.push({ face, out, name: faceNames[i]!, edge });
    }
  });
  return all.flatMap((sides) => {
    const [a, b] = [...sides].sort((one, other) => (one.name < other.name ? -1 : 1));
    if (sides.length !== 2 || !a || !b || a.face.IsSame(b.face)) return [];
    const run = runOf(occt, a.edge);
    const names = [a.name, b.name] as const;
    return [{ ...run, ...bendOf(occt, run, [a, b]), edge: a.edge, names, faces: [a.face, b.face] as const }];
  });
}

type Run = Pick<MeetingEdge, 'middle' | 'direction' | 'isStraight'> & { readonly parameter: number };

function runOf(occt: Occt, edge: Edge): Run {
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    const parameter = (curve.FirstParameter() + curve.LastParameter()) / 2;
    const { Point, D1 } = curve.EvalD1(parameter);
    return {
      parameter,
      middle: read(Point, keep),
      direction: unit(read(D1, keep)),
      isStraight: isLine(curve),
    };
  });
}

/** By the way from the edge into one face, and the way out of the other. */
function bendOf(
  occt: Occt,
  { parameter, direction }: Run,
  sides: readonly [Side, Side],
): Pick<MeetingEdge, 'bend' | 'cosine' | 'into'> {
  const [out, beyond] = [outwardBeside(occt, sides[0], parameter), outwardBeside(occt, sides[1], parameter)];
  const into = [intoFace(sides[0], out, direction), intoFace(sides[1], beyond, direction)] as const;
  const cosine = dot(out, beyond);
  if (length(cross(out, beyond)) < SMOOTH_SINE && cosine > 0) return { bend: 'smooth', cosine, into };
  return { bend: dot(into[0], beyond) < 0 ? 'outward' : 'inward', cosine, into };
}

function intoFace({ edge }: Side, outward: Vec3, direction: Vec3): Vec3 {
  const isReversed = (edge.Orientation() as unknown as string) === 'TopAbs_REVERSED';
  return cross(outward, scale(direction, isReversed ? -1 : 1));
}

function outwardBeside(occt: Occt, { face, out, edge }: Side, parameter: number): Vec3 {
  if (out) return out;
  return scope((keep) => {
    const flat = keep(new occt.BRepAdaptor_Curve2d(edge, face));
    const { Point, D1 } = flat.EvalD1(parameter) as unknown as Record<'Point' | 'D1', FlatVector>;
    keep(Point);
    keep(D1);
    return outwardAt(occt, face, [Point.X(), Point.Y()]);
  });
}
interface FlatVector {
  X(): number;
  Y(): number;
  delete(): void;
}

/** The edges that are meant, each once. Throws BuildError where a name means none, or a rule finds none. */
export function edgesChosen(
  occt: Occt,
  of: NamedShape,
  { chosen, keep }: { readonly chosen: readonly ChosenEdge[]; readonly keep: Keep },
): MeetingEdge[] {
  return edgesAmong(occt, sharpEdges({ occt, keep }, of), chosen);
}

/** Those along which faces do not go on into each other. */
export const sharpEdges = ({ occt, keep }: Scoped, of: NamedShape): MeetingEdge[] =>
  meetingEdges({ occt, keep }, of).filter(({ bend }) => bend !== 'smooth');

/** Those of some edges that are meant, each once. Throws BuildError where a name means none, or a rule finds none. */
export function edgesAmong(
  occt: Occt,
  all: readonly MeetingEdge[],
  chosen: readonly ChosenEdge[],
): MeetingEdge[] {
  const found = new Set<MeetingEdge>();
  for (const one of chosen) {
    const meant = edgesMeant(occt, all, one);
    if (meant.length === 0) throw noSuchEdge(one);
    for (const edge of meant) found.add(edge);
  }
  return [...found];
}

function edgesMeant(occt: Occt, all: readonly MeetingEdge[], one: ChosenEdge): readonly MeetingEdge[] {
  if ('rule' in one) return all.filter(BY_RULE[one.rule]);
  if ('around' in one) return all.filter(({ names }) => names.some((name) => sharesName(one.around, name)));
  if ('from' in one) {
    const { from, near } = one;
    const first = edgesMeant(occt, all, { edge: from, ...(near ? { near } : {}) });
    return edgesRunningOn(occt, all, first);
  }
  const written = one.edge.split(MEETING);
  const [a, b] = [written[0]!, written[1] ?? ''];
  const named = all.filter(
    ({ names: [x, y] }) => (sharesName(a, x) && sharesName(b, y)) || (sharesName(a, y) && sharesName(b, x)),
  );
  return nearest(occt, named, { near: one.near, shapeOf: ({ edge }) => edge });
}

const isAlong =
  (axis: 0 | 1 | 2) =>
  ({ isStraight, direction }: MeetingEdge): boolean =>
    isStraight && Math.hypot(...direction.filter((_, i) => i !== axis)) < ALONG_SINE;

const BY_RULE: Readonly<Record<EdgeRule, (edge: MeetingEdge) => boolean>> = {
  all: () => true,
  outward: ({ bend }) => bend === 'outward',
  inward: ({ bend }) => bend === 'inward',
  x: isAlong(0),
  y: isAlong(1),
  z: isAlong(2),
  met: ({ names: [a, b] }) => ownersOf(a).every((owner) => !ownersOf(b).includes(owner)),
};

/** Of several the one nearest to a place, where one is given. */
function nearest<T>(
  occt: Occt,
  found: readonly T[],
  { near, shapeOf }: { readonly near: Vec3 | undefined; readonly shapeOf: (one: T) => TopoDS_Shape },
): readonly T[] {
  if (!near || found.length < 2) return found;
  return scope((keep) => {
    const point = pointShape({ occt, keep }, near);
    const gaps = found.map((one) => distanceBetween(occt, shapeOf(one), point));
    return [found[gaps.indexOf(Math.min(...gaps))]!];
  });
}

function noSuchEdge(one: ChosenEdge): BuildError {
  if ('rule' in one) return new BuildError(faultOf(`chosen.no-${one.rule}`, {}));
  if ('around' in one) return new BuildError(faultOf('chosen.no-edge-around', { face: wordsOf(one.around) }));
  const [a, b] = ('from' in one ? one.from : one.edge).split(MEETING);
  const places = one.near ? [one.near] : [];
  return new BuildError(
    faultOf('chosen.no-edge-between', { face: wordsOf(a!), other: wordsOf(b ?? '') }),
    places,
  );
}

/** A name without the ids of operands, which mean nothing to people. */
const wordsOf = (name: string): string => name.split(MERGED)[0]!.split('.').at(-1)!;

/** A face, and its place among the faces of its solid. */
export interface FoundFace {
  readonly face: TopoDS_Face;
  readonly name: string;
}

/** The faces that are meant, each once. Throws BuildError where a name means none. */
export function facesChosen(
  occt: Occt,
  { shape, faceNames }: NamedShape,
  { chosen, keep }: { readonly chosen: readonly ChosenFace[]; readonly keep: Keep },
): FoundFace[] {
  const all = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face, i) => ({
    face: keep(occt.TopoDS.Face(face)),
    name: faceNames[i]!,
  }));
  const found = new Set<FoundFace>();
  for (const { face, near } of chosen) {
    const named = all.filter(({ name }) => sharesName(face, name));
    if (named.length === 0)
      throw new BuildError(faultOf('chosen.no-face', { face: wordsOf(face) }), near ? [near] : []);
    for (const one of nearest(occt, named, { near, shapeOf: (of) => of.face })) found.add(one);
  }
  return [...found];
}
