/** Regions turned about a line of their plane. */
import {
  AT_ORIGIN,
  add2,
  boxOfCurves,
  cosDegrees,
  distance2,
  meetings,
  pointAt,
  scale2,
  sinDegrees,
  subtract2,
  faultOf,
  type Vec3,
} from '@kadrel/core';
import {
  addressOf,
  BuildError,
  fromList,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import type { BodyContent } from '../../content/bodies.ts';
import { exactBox } from '../../facts/extent.ts';
import { requireBodies, together } from '../compound.ts';
import { UNNAMED, nameFaces, type NamedShape } from '../../naming/named.ts';
import { placedWire } from '../../occt/edges.ts';
import { planarFaces, type Planar } from './regions.ts';
import { bandBeside } from './wall.ts';

type Revolve = Extract<BodyContent, { kind: 'revolve' }>;

/** A profile may reach over its axis by this (mm): what is left of typed numbers, ten times the kernel's tolerance. */
const OVER_AXIS_MM = 1e-6;

/** Faces: one for each curve, by its name; of a part of a turn also start and end. Throws BuildError. */
export function buildRevolve(occt: Occt, content: Revolve): NamedShape {
  if (content.ends === 'open') return turnedSurface(occt, content);
  return scope((keep) => {
    const whole = planarFaces({ occt, keep }, content.paths, content.regions);
    const planar = content.half === 'whole' ? whole : oneHalf({ occt, keep }, whole, content);
    return turnedRegions({ occt, keep }, planar, content);
  });
}

function turnedRegions({ occt, keep }: Scoped, planar: Planar, content: Revolve): NamedShape {
  const { angle } = content;
  const axis = axisOf({ occt, keep }, content);
  return together(
    occt,
    planar.faces.map((face) => {
      requireBeside({ occt, keep }, { shape: face, nameOf: planar.nameOf }, content);
      const isWhole = Math.abs(angle) >= 360;
      const operation = turned({ occt, keep }, face, { axis, angle });
      const shape = requireBodies(occt, operation.Shape(), 'The turned region');
      const sides = occurrences({ occt, keep }, face, 'TopAbs_EDGE').flatMap((edge) =>
        fromList({ occt, keep }, keep(operation.Generated(edge)))
          .filter((made) => (made.ShapeType() as unknown as string) === 'TopAbs_FACE')
          .map((made) => ({ face: keep(occt.TopoDS.Face(made)), name: planar.nameOf(edge) })),
      );
      const ends = isWhole
        ? []
        : [
            { face: keep(occt.TopoDS.Face(keep(operation.FirstShape()))), name: 'start' },
            { face: keep(occt.TopoDS.Face(keep(operation.LastShape()))), name: 'end' },
          ];
      const named = nameFaces(occt, shape, [...ends, ...sides]);
      return { ...named, faceNames: nameRest({ occt, keep }, named, { planar, face, about: content }) };
    }),
  );
}

/** A turned surface as a body: what lies between parallels of its curve, turned; before it is where its faces look. */
export function buildTurnedBand(
  occt: Occt,
  content: Revolve,
  { before, behind }: { readonly before: number; readonly behind: number },
): NamedShape {
  return scope((keep) => {
    const [path, ...others] = content.paths;
    if (!path || others.length > 0) throw new BuildError(faultOf('revolve.thickened-pieces', {}));
    const { wire } = placedWire({ occt, keep }, path, AT_ORIGIN);
    const [least, most] = reachBeside({ occt, keep }, wire, content);
    // To the right of the axis faces look to the right of the way, to the left of it to the left; turned back, the other way.
    const looksRight = -least > most === content.angle > 0;
    const band = looksRight ? { right: -before, left: behind } : { right: -behind, left: before };
    return turnedRegions({ occt, keep }, bandBeside({ occt, keep }, path, band), content);
  });
}

type Axis = InstanceType<Occt['gp_Ax1']>;

function axisOf({ occt, keep }: Scoped, { point, direction }: Revolve): Axis {
  const way = keep(new occt.gp_Dir(cosDegrees(direction), sinDegrees(direction), 0));
  return keep(new occt.gp_Ax1(keep(new occt.gp_Pnt(point[0], point[1], 0)), way));
}

const turned = (
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  { axis, angle }: { readonly axis: Axis; readonly angle: number },
) =>
  keep(
    Math.abs(angle) >= 360
      ? new occt.BRepPrimAPI_MakeRevol(shape, axis, false)
      : new occt.BRepPrimAPI_MakeRevol(shape, axis, (angle * Math.PI) / 180, false),
  );

/** What the curves themselves sweep, open where they end. Faces: one for each curve, by its name. */
function turnedSurface(occt: Occt, content: Revolve): NamedShape {
  return scope((keep) => {
    const axis = axisOf({ occt, keep }, content);
    return together(
      occt,
      content.paths.map((path) => {
        const { wire, edges } = placedWire({ occt, keep }, path, AT_ORIGIN);
        const nameOf = (edge: TopoDS_Shape) => edges.find((one) => one.edge.IsSame(edge))?.name ?? UNNAMED;
        requireBeside({ occt, keep }, { shape: wire, nameOf }, content);
        const operation = turned({ occt, keep }, wire, { axis, angle: content.angle });
        const sides = edges.flatMap(({ edge, name }) =>
          fromList({ occt, keep }, keep(operation.Generated(edge)))
            .filter((made) => (made.ShapeType() as unknown as string) === 'TopAbs_FACE')
            .map((made) => ({ face: keep(occt.TopoDS.Face(made)), name })),
        );
        if (sides.length === 0) throw new BuildError(faultOf('revolve.on-axis', {}));
        return nameFaces(occt, operation.Shape(), sides);
      }),
    );
  });
}

/** Distances of a shape from the axis, mm: negative to the right of its direction. */
function reachBeside(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  { point, direction }: Revolve,
): [number, number] {
  const [c, s] = [cosDegrees(direction), sinDegrees(direction)];
  const flat = keep(new occt.gp_Trsf());
  // The axis becomes X; what lies to its left has a positive Y.
  flat.SetValues(c, s, 0, -(c * point[0] + s * point[1]), -s, c, 0, s * point[0] - c * point[1], 0, 0, 1, 0);
  const { min, max } = exactBox(occt, keep(shape.Moved(keep(new occt.TopLoc_Location(flat)), false)));
  return [min[1], max[1]];
}

function requireBeside(
  { occt, keep }: Scoped,
  { shape, nameOf }: { shape: TopoDS_Shape; nameOf: Planar['nameOf'] },
  content: Revolve,
): void {
  const [least, most] = reachBeside({ occt, keep }, shape, content);
  if (least >= -OVER_AXIS_MM || most <= OVER_AXIS_MM) return;
  const text = (n: number) => String(Number(n.toFixed(6)));
  throw new BuildError(
    faultOf('revolve.crosses-axis', { left: text(most), right: text(-least) }),
    crossingsOf(content, new Set(occurrences({ occt, keep }, shape, 'TopAbs_EDGE').map(nameOf))),
  );
}

/** Where curves of these names cross the axis. */
function crossingsOf({ paths, point, direction }: Revolve, names: ReadonlySet<string>): Vec3[] {
  const curves = paths.flatMap((path) => path.curves).filter(({ name }) => names.has(name));
  const box = boxOfCurves(curves.map(({ curve }) => curve));
  if (!box) return [];
  const reach = distance2(box.min, box.max) + distance2(box.min, point);
  const way = scale2([cosDegrees(direction), sinDegrees(direction)], reach);
  const axis = { kind: 'line' as const, from: subtract2(point, way), to: add2(point, way) };
  return curves.flatMap(({ curve }) => meetings(axis, curve).map(({ b }): Vec3 => [...pointAt(curve, b), 0]));
}

/** What lies on one side of the axis. */
function oneHalf({ occt, keep }: Scoped, planar: Planar, content: Revolve): Planar {
  const half = halfPlane({ occt, keep }, planar, content);
  const names = new Map<TopoDS_Shape, string>();
  const faces: TopoDS_Face[] = [];
  for (const face of planar.faces) {
    const common = keep(new occt.BRepAlgoAPI_Common(face, half, progressRange({ occt, keep })));
    faces.push(
      ...uniqueShapes({ occt, keep }, keep(common.Shape()), 'TopAbs_FACE').map((one) =>
        keep(occt.TopoDS.Face(one)),
      ),
    );
    for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE'))
      for (const image of fromList({ occt, keep }, keep(common.Modified(edge))))
        names.set(image, planar.nameOf(edge));
    common.Clear();
  }
  if (faces.length === 0) throw new BuildError(faultOf('revolve.half-empty', { half: content.half }));
  const nameOf = (edge: TopoDS_Shape) => {
    for (const [image, name] of names) if (image.IsSame(edge)) return name;
    return planar.nameOf(edge);
  };
  return { faces, nameOf };
}

/** All that lies on one side of the axis, as far as anything reaches. */
function halfPlane({ occt, keep }: Scoped, planar: Planar, content: Revolve): TopoDS_Face {
  const { point, direction, half } = content;
  const [c, s] = [cosDegrees(direction), sinDegrees(direction)];
  const reach = planar.faces.reduce(
    (maximum, face) => {
      const { min, max } = exactBox(occt, face);
      return Math.max(maximum, ...[...min, ...max].map(Math.abs));
    },
    Math.hypot(...point),
  );
  const side = half === 'left' ? 1 : -1;
  const far = 4 * reach + 1;
  const at = (along: number, across: number) =>
    keep(new occt.gp_Pnt(point[0] + c * along - s * across, point[1] + s * along + c * across, 0));
  const corners = [at(-far, 0), at(far, 0), at(far, side * far), at(-far, side * far)];
  const wire = keep(new occt.BRepBuilderAPI_MakeWire());
  corners.forEach((from, i) =>
    wire.Add(keep(keep(new occt.BRepBuilderAPI_MakeEdge(from, corners[(i + 1) % 4]!)).Edge())),
  );
  return keep(keep(new occt.BRepBuilderAPI_MakeFace(keep(wire.Wire()), true)).Face());
}

/** The kernel's history does not know flat rings: they are determined by where a point of theirs stood before the turn. */
function nameRest(
  { occt, keep }: Scoped,
  named: NamedShape,
  { planar, face, about }: { readonly planar: Planar; readonly face: TopoDS_Face; readonly about: Revolve },
): readonly string[] {
  const { point, direction } = about;
  if (!named.faceNames.includes('face')) return named.faceNames;
  const [c, s] = [cosDegrees(direction), sinDegrees(direction)];
  const edges = uniqueShapes({ occt, keep }, face, 'TopAbs_EDGE');
  const [least, most] = reachBeside({ occt, keep }, face, about);
  const side = most > -least ? 1 : -1;
  const faces = uniqueShapes({ occt, keep }, named.shape, 'TopAbs_FACE');
  return named.faceNames.map((name, i) => {
    if (name !== 'face') return name;
    const [x, y, z] = pointOn({ occt, keep }, faces[i]!);
    const along = c * (x - point[0]) + s * (y - point[1]);
    const beside = Math.hypot(-s * (x - point[0]) + c * (y - point[1]), z) * side;
    const before = keep(
      new occt.gp_Pnt(point[0] + c * along - s * beside, point[1] + s * along + c * beside, 0),
    );
    const vertex = keep(keep(new occt.BRepBuilderAPI_MakeVertex(before)).Vertex());
    const offs = edges.map((edge) => {
      const measure = keep(new occt.BRepExtrema_DistShapeShape());
      measure.LoadS1(vertex);
      measure.LoadS2(edge);
      measure.Perform(progressRange({ occt, keep }));
      return measure.Value();
    });
    const nearest = offs.indexOf(Math.min(...offs));
    return planar.nameOf(edges[nearest]!);
  });
}

/** A point of a face, from its facets. */
function pointOn({ occt, keep }: Scoped, face: TopoDS_Shape): [number, number, number] {
  const data = keep(occt.ReplicadMeshExtractor.extract(face, 1, 0.5, true));
  const memory = occt.wasmMemory.buffer;
  const at = new Float32Array(memory, addressOf(data.getVerticesPtr()), data.getVerticesSize());
  const corners = new Uint32Array(memory, addressOf(data.getTrianglesPtr()), data.getTrianglesSize());
  return [0, 1, 2].map(
    (axis) => (at[3 * corners[0]! + axis]! + at[3 * corners[1]! + axis]! + at[3 * corners[2]! + axis]!) / 3,
  ) as [number, number, number];
}
