/**
 * What snaps can catch on a shape: corners, middles, centres, quadrants, curves and faces, with their names.
 * Long, since points, curves and faces are packed in one format.
 */
import {
  CURVE_CIRCLE,
  CURVE_ELLIPSE,
  CURVE_LINE,
  CURVE_POLYLINE,
  FACE_CYLINDER,
  FACE_OTHER,
  FACE_PLANE,
  FACE_SPHERE,
  MEETING,
  POINT_KINDS,
  degrees,
  distance2,
  endOf,
  pointAt,
  startOf,
  type Curve,
  type ShapeFeatures,
  type SnapKind,
  type Vec3,
} from '@kadrel/core';
import {
  ShapeMap,
  hashOf,
  occurrences,
  scope,
  uniqueShapes,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { UNNAMED, type NamedShape } from '../naming/named.ts';
import { flatMiddleOf } from './flatShare.ts';
import { outlineShape, type Mesh } from './mesh.ts';

/** Points along a curve that is neither a line nor a circle: enough that a chord departs from it by 0.1 % of its size. */
const POLYLINE_POINTS = 49;
/** All free curves of a shape have at most about so many points together: where there are thousands, each is short. */
const MAX_POLYLINE_POINTS = 12_000;
const MIN_POLYLINE_POINTS = 7;
/** Corners are named with the faces in this order, as people say them; any other names follow by alphabet. */
const ROLE_ORDER = ['top', 'bottom', 'front', 'back', 'left', 'right', 'side'];

export interface Features extends ShapeFeatures {
  /** 6·L: ends of the pieces of all outlines, mm. */
  readonly outline: Float32Array;
}

interface EdgeEntry {
  readonly edge: TopoDS_Shape;
  readonly faces: Set<number>;
  uses: number;
  /** Of a loose edge, which has no faces to be named by. */
  readonly name?: string;
  /** What a loose edge was made from. */
  readonly curve?: Curve;
}

interface CornerEntry {
  readonly vertex: TopoDS_Shape;
  readonly faces: Set<number>;
  /** Of loose edges that end here. */
  readonly names: Set<string>;
  isEnd: boolean;
}

interface Listing {
  readonly faceNames: readonly string[];
  readonly lists: FeatureLists;
  readonly keep: Keep;
}

interface ListedEdges {
  /** Where edges end, in the order in which they were met. */
  readonly corners: readonly CornerEntry[];
  /** Edges that are shown, by their hashes. */
  readonly drawn: ReadonlySet<number>;
}

/** Lists edges, and gathers the corners where they end. */
function addEdges(occt: Occt, edges: readonly EdgeEntry[], { faceNames, lists, keep }: Listing): ListedEdges {
  const met = new ShapeMap<CornerEntry>(occt);
  const corners: CornerEntry[] = [];
  const drawn = new Set<number>();
  for (const entry of edges) {
    const seam = (entry.faces.size === 1 && entry.uses > 1) || isWithinOne(entry.faces, faceNames, lists);
    if (entry.curve?.kind === 'bezier') {
      addDrawn(entry.curve, entry.name!, lists);
      drawn.add(hashOf(occt, entry.edge));
      continue;
    }
    const closed = addEdge(
      occt,
      entry,
      { seam, name: entry.name ?? meetingName(entry.faces, faceNames) },
      lists,
    );
    if (!seam) drawn.add(hashOf(occt, entry.edge));
    for (const vertex of occurrences({ occt, keep }, entry.edge, 'TopAbs_VERTEX')) {
      const corner = met.ensure(vertex, () => {
        const made = { vertex, faces: new Set<number>(), names: new Set<string>(), isEnd: false };
        corners.push(made);
        return made;
      });
      for (const face of entry.faces) corner.faces.add(face);
      if (entry.name !== undefined) corner.names.add(entry.name);
      corner.isEnd ||= !seam && !closed;
    }
  }
  return { corners, drawn };
}

/** Lists the corners where edges end; seams and closed edges have none. */
function addCorners(occt: Occt, corners: readonly CornerEntry[], { faceNames, lists, keep }: Listing): void {
  for (const { vertex, faces: around, names, isEnd } of corners)
    if (isEnd) {
      const point = keep(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(vertex))));
      const name = names.size > 0 ? [...names].join(MEETING) : meetingName(around, faceNames);
      lists.point('endpoint', [point.X(), point.Y(), point.Z()], name);
    }
}

/** What the snaps know of a built shape. */
export function featuresOf(
  occt: Occt,
  { shape, faceNames, edgeNames, edgeCurves, ruled }: NamedShape,
  mesh: Mesh,
): Features {
  return scope((keep) => {
    const lists = new FeatureLists();
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    faces.forEach((face, i) => addFace(occt, face, { name: faceNames[i]!, lists }));
    const loose = edgeNames ? uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE') : [];
    const edges = [
      ...edgesOf({ occt, keep }, faces),
      ...loose.map((edge, i): EdgeEntry => {
        const curve = edgeCurves?.[i];
        return { edge, faces: new Set(), uses: 0, name: edgeNames![i]!, ...(curve && { curve }) };
      }),
    ];
    lists.setCurves(edges.length);
    const { corners, drawn } = addEdges(occt, edges, { faceNames, lists, keep });
    addCorners(occt, corners, { faceNames, lists, keep });
    const edgesDrawn = outlineShape(occt, shape, {
      chordMm: mesh.chordMm,
      isDrawn: (hash) => drawn.has(hash),
    });
    const outline = ruled ? Float32Array.from([...edgesDrawn, ...ruled]) : edgesDrawn;
    return {
      ...lists.packed(),
      positions: mesh.positions,
      triangles: mesh.triangles,
      faceOfTriangle: mesh.faceOfTriangle,
      chordMm: mesh.chordMm,
      outline,
    };
  });
}

/** Whether an edge lies between pieces of what one free curve made: it goes on smoothly there. */
function isWithinOne(faces: ReadonlySet<number>, names: readonly string[], lists: FeatureLists) {
  const [a, b] = [...faces];
  if (a === undefined || b === undefined || faces.size > 2) return false;
  return names[a] === names[b] && names[a] !== UNNAMED && lists.isFreeFace(a) && lists.isFreeFace(b);
}

/** Growing lists that become the packed arrays. */
class FeatureLists {
  private readonly points: number[] = [];
  private readonly pointKind: number[] = [];
  private readonly pointName: number[] = [];
  private readonly curveKind: number[] = [];
  private readonly curves: number[] = [];
  private readonly curveName: number[] = [];
  private readonly polyline: number[] = [];
  private readonly faceKind: number[] = [];
  private readonly faces: number[] = [];
  private readonly faceName: number[] = [];
  private readonly names: string[] = [];
  private readonly nameIndex = new Map<string, number>();
  /** Points for each curve that is neither straight nor round. */
  private freePoints = POLYLINE_POINTS;

  /** Fewer points a curve where there are many curves. */
  setCurves(count: number): void {
    const points = MAX_POLYLINE_POINTS / Math.max(1, count);
    this.freePoints = Math.round(Math.min(POLYLINE_POINTS, Math.max(MIN_POLYLINE_POINTS, points)));
  }

  private name(text: string): number {
    const known = this.nameIndex.get(text);
    if (known !== undefined) return known;
    this.names.push(text);
    this.nameIndex.set(text, this.names.length - 1);
    return this.names.length - 1;
  }

  point(kind: SnapKind, at: Vec3, name: string): void {
    this.points.push(...at);
    this.pointKind.push((POINT_KINDS as readonly string[]).indexOf(kind));
    this.pointName.push(this.name(name));
  }

  curve(kind: number, data: readonly number[], name: string): void {
    this.curveKind.push(kind);
    this.curves.push(...data, ...Array<number>(12 - data.length).fill(0));
    this.curveName.push(this.name(name));
  }

  /** A curve that is neither straight nor round. @param at point at a share of its length, 0 to 1 */
  freeCurve(at: (share: number) => Vec3, name: string): void {
    const from = this.polyline.length / 3;
    for (let i = 0; i < this.freePoints; i++) this.polyline.push(...at(i / (this.freePoints - 1)));
    this.curve(CURVE_POLYLINE, [from, this.freePoints], name);
  }

  /** Whether a face is of no kind that a formula describes. @param index in the order in which faces were added */
  isFreeFace(index: number): boolean {
    return this.faceKind[index] === FACE_OTHER;
  }

  face(kind: number, data: readonly number[], name: string): void {
    this.faceKind.push(kind);
    this.faces.push(...data, ...Array<number>(7 - data.length).fill(0));
    this.faceName.push(this.name(name));
  }

  packed(): Omit<ShapeFeatures, 'positions' | 'triangles' | 'faceOfTriangle' | 'chordMm'> {
    return {
      points: Float64Array.from(this.points),
      pointKind: Uint8Array.from(this.pointKind),
      pointName: Uint32Array.from(this.pointName),
      curveKind: Uint8Array.from(this.curveKind),
      curves: Float64Array.from(this.curves),
      curveName: Uint32Array.from(this.curveName),
      polyline: Float64Array.from(this.polyline),
      faceKind: Uint8Array.from(this.faceKind),
      faces: Float64Array.from(this.faces),
      faceName: Uint32Array.from(this.faceName),
      names: this.names,
    };
  }
}

function meetingName(faces: ReadonlySet<number>, faceNames: readonly string[]): string {
  const rank = (name: string) => {
    const at = ROLE_ORDER.indexOf(name);
    return at < 0 ? ROLE_ORDER.length : at;
  };
  const names = [...faces].map((face) => faceNames[face]!);
  return names.sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1)).join(MEETING);
}

function edgesOf({ occt, keep }: Scoped, faces: readonly TopoDS_Shape[]): EdgeEntry[] {
  const entries: EdgeEntry[] = [];
  const known = new ShapeMap<EdgeEntry>(occt);
  faces.forEach((face, index) => {
    for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
      const entry = known.ensure(edge, () => {
        const made: EdgeEntry = { edge, faces: new Set(), uses: 0 };
        entries.push(made);
        return made;
      });
      entry.faces.add(index);
      entry.uses += 1;
    }
  });
  return entries.filter(({ edge }) => !occt.BRep_Tool.Degenerated(keep(occt.TopoDS.Edge(edge))));
}

/** Adds what an edge offers, unless it is the seam of a round face. Returns whether it closes on itself. */
function addEdge(
  occt: Occt,
  { edge }: EdgeEntry,
  { seam, name }: { readonly seam: boolean; readonly name: string },
  lists: FeatureLists,
): boolean {
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))));
    const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
    const at = (parameter: number): Vec3 => {
      const point = keep(curve.EvalD0(parameter));
      return [point.X(), point.Y(), point.Z()];
    };
    const [start, end] = [at(first), at(last)];
    const closed =
      Math.hypot(start[0] - end[0], start[1] - end[1], start[2] - end[2]) < CLOSED_MM &&
      curve.GetType() !== ('GeomAbs_Line' as never);
    if (seam) return closed;
    const type = curve.GetType() as unknown as string;
    if (type === 'GeomAbs_Line') {
      lists.curve(CURVE_LINE, [...start, ...end], name);
      lists.point('midpoint', [0, 1, 2].map((i) => (start[i]! + end[i]!) / 2) as unknown as Vec3, name);
    } else if (type === 'GeomAbs_Circle' || type === 'GeomAbs_Ellipse')
      addRound(
        curve,
        { isCircle: type === 'GeomAbs_Circle', range: { first, last, closed, at } },
        { name, lists },
      );
    else lists.freeCurve((share) => at(first + (last - first) * share), name);
    return closed;
  });
}

/** A free curve as it was drawn: the kernel, asked for each of thousands of points, would be the slower way. */
function addDrawn(curve: Curve, name: string, lists: FeatureLists): void {
  lists.freeCurve((share) => [...pointAt(curve, share), 0], name);
  const [start, end] = [startOf(curve), endOf(curve)];
  if (distance2(start, end) < CLOSED_MM) return;
  for (const [x, y] of [start, end]) lists.point('endpoint', [x, y, 0], name);
}

/** Ends nearer than the kernel's own tolerance close the curve. */
const CLOSED_MM = 1e-7;

type CurveAdaptor = InstanceType<Occt['BRepAdaptor_Curve']>;

/** A circle or an ellipse, with its centre and its quadrants in its own axes. */
function addRound(
  curve: CurveAdaptor,
  {
    isCircle,
    range,
  }: {
    readonly isCircle: boolean;
    readonly range: { first: number; last: number; closed: boolean; at: (p: number) => Vec3 };
  },
  { name, lists }: { readonly name: string; readonly lists: FeatureLists },
): void {
  scope((keep) => {
    const round = isCircle ? keep(curve.Circle()) : keep(curve.Ellipse());
    const position = keep(round.Position());
    const [major, minor] =
      'Radius' in round ? [round.Radius(), round.Radius()] : [round.MajorRadius(), round.MinorRadius()];
    const triple = (v: { X(): number; Y(): number; Z(): number }): Vec3 => [v.X(), v.Y(), v.Z()];
    const centre = triple(keep(position.Location()));
    const [x, y] = [triple(keep(position.XDirection())), triple(keep(position.YDirection()))];
    const axes: readonly Vec3[] = [
      x.map((n) => n * major) as unknown as Vec3,
      y.map((n) => n * minor) as unknown as Vec3,
    ];
    const data = [...centre, ...axes.flat(), degrees(range.first), degrees(range.last)];
    lists.curve(isCircle ? CURVE_CIRCLE : CURVE_ELLIPSE, data, name);
    lists.point('centre', centre, name);
    [0, 1, 2, 3].forEach((quarter) => {
      const sign = quarter < 2 ? 1 : -1;
      const angle = (quarter * Math.PI) / 2;
      const turns = Math.ceil((range.first - angle - ANGLE_SLACK) / (2 * Math.PI));
      if (angle + turns * 2 * Math.PI <= range.last + ANGLE_SLACK)
        lists.point(
          'quadrant',
          [0, 1, 2].map((i) => centre[i]! + sign * axes[quarter % 2]![i]!) as unknown as Vec3,
          name,
        );
    });
    if (!range.closed) lists.point('midpoint', range.at((range.first + range.last) / 2), name);
  });
}

/** Angles (radians) this near to the end of an arc are on it. */
const ANGLE_SLACK = 1e-9;

function addFace(
  occt: Occt,
  shape: TopoDS_Shape,
  { name, lists }: { readonly name: string; readonly lists: FeatureLists },
): void {
  scope((keep) => {
    const face = keep(occt.TopoDS.Face(shape));
    const surface = keep(new occt.BRepAdaptor_Surface(face, true));
    const type = surface.GetType() as unknown as string;
    if (type === 'GeomAbs_Plane') {
      const plane = keep(surface.Plane());
      const direction = keep(keep(plane.Axis()).Direction());
      const outward =
        ((face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1) *
        (plane.Direct() ? 1 : -1);
      const point = keep(plane.Location());
      const normal = [direction.X(), direction.Y(), direction.Z()].map((n) => n * outward + 0);
      lists.face(FACE_PLANE, [point.X(), point.Y(), point.Z(), ...normal], name);
      lists.point('face centre', flatMiddleOf({ occt, keep }, face), name);
    } else if (type === 'GeomAbs_Cylinder') {
      const cylinder = keep(surface.Cylinder());
      const axis = keep(cylinder.Axis());
      const [point, direction] = [keep(axis.Location()), keep(axis.Direction())];
      lists.face(
        FACE_CYLINDER,
        [point.X(), point.Y(), point.Z(), direction.X(), direction.Y(), direction.Z(), cylinder.Radius()],
        name,
      );
    } else if (type === 'GeomAbs_Sphere') {
      const ball = keep(surface.Sphere());
      const centre = keep(ball.Location());
      const at: Vec3 = [centre.X(), centre.Y(), centre.Z()];
      lists.face(FACE_SPHERE, [...at, 0, 0, 0, ball.Radius()], name);
      lists.point('centre', at, name);
    } else lists.face(FACE_OTHER, [], name);
  });
}
