/**
 * Joins edges that go straight on, or round the same circle, between the same two faces. The kernel's own joining damages one
 * result in thirty where rings and balls cross (kernel notes, 18), so that its work is taken only if nothing else has changed.
 */
import {
  ShapeMap,
  copied,
  occurrences,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { isSound } from '../occt/sound.ts';
import { AT_ORIGIN } from '@kadrel/core';
import type { NamedShape } from '../naming/named.ts';

/** Volumes and areas may differ by this, relative, when edges are joined: the noise of their integration. */
const SAME = 1e-9;

/** The shape with its edges joined; undefined where there is nothing to join, or joining would change it. */
export function joinedEdges(occt: Occt, { shape, faceNames }: NamedShape): NamedShape | undefined {
  return scope((keep) => {
    if (!hasJoint({ occt, keep }, shape)) return undefined;
    const copy = keep(copied(occt, shape, AT_ORIGIN));
    const unify = keep(new occt.ShapeUpgrade_UnifySameDomain(copy, true, false, false));
    unify.Build();
    const joined = unify.Shape();
    const names = isSameSize({ occt, keep }, copy, joined)
      ? namesAfter({ occt, keep }, { before: copy, names: faceNames }, joined)
      : undefined;
    if (names && isSound(occt, joined)) return { shape: joined, faceNames: names, isSound: true };
    keep(joined);
    return undefined;
  });
}

/** Whether somewhere two edges of one line or circle meet end to end, with nothing else there. */
function hasJoint({ occt, keep }: Scoped, shape: TopoDS_Shape): boolean {
  const byVertex = new ShapeMap<Set<number>>(occt);
  const edges = uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE');
  const corners: Set<number>[] = [];
  edges.forEach((edge, i) => {
    for (const vertex of occurrences({ occt, keep }, edge, 'TopAbs_VERTEX')) {
      const before = byVertex.get(vertex);
      const met = before ?? byVertex.ensure(vertex, () => new Set<number>());
      if (!before) corners.push(met);
      met.add(i);
    }
  });
  return corners.some((met) => {
    if (met.size !== 2) return false;
    const [a, b] = [...met].map((i) => kindOf(occt, edges[i]!));
    return a !== undefined && a === b;
  });
}

function kindOf(occt: Occt, shape: TopoDS_Shape): string | undefined {
  return scope((keep) => {
    const edge = keep(occt.TopoDS.Edge(shape));
    if (occt.BRep_Tool.Degenerated(edge)) return undefined;
    return keep(new occt.BRepAdaptor_Curve(edge)).GetType();
  });
}

/** What every object of the kernel can do, and its types do not tell. */
interface Handle {
  isAliasOf(other: Handle): boolean;
}

/** The names of the same faces in another order: each is known by its surface, and by its area where pieces share one. */
function namesAfter(
  { occt, keep }: Scoped,
  { before, names }: { readonly before: TopoDS_Shape; readonly names: readonly string[] },
  after: TopoDS_Shape,
): string[] | undefined {
  const describe = (shape: TopoDS_Shape) =>
    uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => ({
      face,
      surface: keep(occt.BRep_Tool.Surface(keep(occt.TopoDS.Face(face)))) as unknown as Handle,
    }));
  const left = describe(before).map((one, i) => ({ ...one, name: names[i]! }));
  const now = describe(after);
  if (left.length !== now.length) return undefined;
  const found = now.map(({ face, surface }) => {
    const alike = left.filter((one) => one.surface.isAliasOf(surface));
    const isAlike = (one: (typeof left)[number]) =>
      Math.abs(areaOf(occt, one.face) / areaOf(occt, face) - 1) < SAME;
    const one = alike.length > 1 ? alike.find(isAlike) : alike[0];
    if (one) left.splice(left.indexOf(one), 1);
    return one?.name;
  });
  return found.includes(undefined) ? undefined : found.map((name) => name!);
}

function areaOf(occt: Occt, face: TopoDS_Shape): number {
  return scope((keep) => {
    const area = keep(new occt.GProp_GProps());
    occt.BRepGProp.SurfaceProperties(face, area, false, false);
    return area.Mass();
  });
}

function isSameSize({ occt, keep }: Scoped, before: TopoDS_Shape, after: TopoDS_Shape): boolean {
  const [was, is] = [before, after].map((shape) => sizesOf({ occt, keep }, shape));
  return was!.every((n, i) => Math.abs(n - is![i]!) <= SAME * Math.abs(n));
}

/** Volume and area. */
function sizesOf({ occt, keep }: Scoped, shape: TopoDS_Shape): readonly number[] {
  const [volume, area] = [keep(new occt.GProp_GProps()), keep(new occt.GProp_GProps())];
  occt.BRepGProp.VolumeProperties(shape, volume, false, false, false);
  occt.BRepGProp.SurfaceProperties(shape, area, false, false);
  return [volume.Mass(), area.Mass()];
}
