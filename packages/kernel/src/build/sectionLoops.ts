/** What the lines enclose in which a plane and a solid meet: quicker than a common part of the solid and a sheet, and not always to be had. */
import { AT_ORIGIN, cross, cross2, dot, isInPolygon, type Vec2, type Vec3 } from '@kadrel/core';
import {
  ShapeMap,
  compoundOf,
  copied,
  occurrences,
  progressRange,
  release,
  scope,
  type Occt,
  type Scoped,
  type TopoDS_Edge,
  type TopoDS_Face,
  type TopoDS_Shape,
  type TopoDS_Wire,
} from '../occt/occt.ts';

/** A sheet through a solid, and the axes of its plane, of length 1. */
export interface Laid {
  readonly sheet: TopoDS_Face;
  readonly normal: Vec3;
  readonly across: Vec3;
}

/** Lines end to end, and points along them in the axes of the plane. */
interface Loop {
  readonly wire: TopoDS_Wire;
  readonly points: readonly Vec2[];
  readonly area: number;
}

/** Points along a line that is not straight, for telling which loop lies in which. */
const POINTS = 12;

/** Undefined where the lines do not close into clear loops: where the plane lies in a face, or touches an edge. */
export function enclosedFaces(occt: Occt, shape: TopoDS_Shape, laid: Laid): TopoDS_Shape | undefined {
  return scope((keep) => {
    const own = copied(occt, shape, AT_ORIGIN);
    try {
      const section = keep(new occt.BRepAlgoAPI_Section(own, laid.sheet, false));
      section.Build(progressRange({ occt, keep }));
      const edges = occurrences({ occt, keep }, keep(section.Shape()), 'TopAbs_EDGE').map((edge) =>
        keep(occt.TopoDS.Edge(edge)),
      );
      const loops = edges.length === 0 ? undefined : loopsOf({ occt, keep }, edges, laid);
      const faces = loops && facesOf({ occt, keep }, loops, laid);
      const found = faces && compoundOf(occt, faces);
      section.Clear();
      return found;
    } finally {
      release(occt, own);
    }
  });
}

/** Each corner has two lines, or both ends of one. */
function loopsOf({ occt, keep }: Scoped, edges: readonly TopoDS_Edge[], laid: Laid): Loop[] | undefined {
  const at = new ShapeMap<number[]>(occt);
  const corners = edges.map((edge, i) =>
    occurrences({ occt, keep }, edge, 'TopAbs_VERTEX').map((corner) => {
      const meeting = at.ensure(corner, () => []);
      meeting.push(i);
      return meeting;
    }),
  );
  if (corners.some((own) => own.length !== 2 || own.some((meeting) => meeting.length !== 2)))
    return undefined;
  const left = new Set(edges.keys());
  const loops: Loop[] = [];
  for (const first of left) {
    const chain = [first];
    left.delete(first);
    for (let next = nextOf(first); next !== undefined; next = nextOf(next)) {
      chain.push(next);
      left.delete(next);
    }
    const loop = loopOf(
      { occt, keep },
      chain.map((i) => edges[i]!),
      laid,
    );
    if (!loop) return undefined;
    loops.push(loop);
  }
  return loops;

  function nextOf(i: number): number | undefined {
    return corners[i]!.flat().find((other) => left.has(other));
  }
}

function loopOf({ occt, keep }: Scoped, edges: readonly TopoDS_Edge[], laid: Laid): Loop | undefined {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  const points: Vec2[] = [];
  for (const edge of edges) {
    builder.Add(edge);
    points.push(...inOrder(points.at(-1), pointsOn({ occt, keep }, edge, laid)));
  }
  if (!builder.IsDone()) return undefined;
  const wire = keep(builder.Wire());
  const area = points.reduce((sum, point, i) => sum + cross2(point, points[(i + 1) % points.length]!) / 2, 0);
  return { wire, points, area };
}

/** As they go on from the last one. */
function inOrder(last: Vec2 | undefined, points: Vec2[]): Vec2[] {
  if (!last) return points;
  const off = ([x, y]: Vec2) => (x - last[0]) ** 2 + (y - last[1]) ** 2;
  return off(points[0]!) <= off(points.at(-1)!) ? points : points.reverse();
}

function pointsOn({ occt, keep }: Scoped, edge: TopoDS_Edge, { normal, across }: Laid): Vec2[] {
  const upward = cross(normal, across);
  const adaptor = keep(new occt.BRepAdaptor_Curve(edge));
  const [first, last] = [adaptor.FirstParameter(), adaptor.LastParameter()];
  const count = (adaptor.GetType() as unknown as string) === 'GeomAbs_Line' ? 1 : POINTS;
  return Array.from({ length: count + 1 }, (_, i) => {
    const point = keep(adaptor.EvalD0(first + ((last - first) * i) / count));
    const at: Vec3 = [point.X(), point.Y(), point.Z()];
    return [dot(at, across), dot(at, upward)];
  });
}

/** Loops at an even depth are outlines, those right inside them are holes. */
function facesOf({ occt, keep }: Scoped, loops: readonly Loop[], { sheet }: Laid): TopoDS_Face[] {
  const around = loops.map((loop) =>
    loops.filter((other) => other !== loop && isInPolygon(loop.points[0]!, other.points)),
  );
  const surface = keep(new occt.BRepAdaptor_Surface(sheet, false));
  const plane = keep(surface.Plane());
  const turned = ({ wire, area }: Loop, side: 1 | -1): TopoDS_Wire =>
    area * side > 0 ? wire : keep(occt.TopoDS.Wire(keep(wire.Reversed())));
  return loops.flatMap((outer, i) => {
    if (around[i]!.length % 2 === 1) return [];
    const builder = keep(new occt.BRepBuilderAPI_MakeFace(plane, turned(outer, 1), true));
    loops.forEach((hole, k) => {
      if (around[k]!.length === around[i]!.length + 1 && around[k]!.includes(outer))
        builder.Add(turned(hole, -1));
    });
    const face = keep(builder.Face());
    for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE'))
      occt.BRepLib.BuildPCurveForEdgeOnPlane(keep(occt.TopoDS.Edge(edge)), face);
    return [face];
  });
}
