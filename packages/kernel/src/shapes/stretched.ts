/**
 * Plain solids under a linear map, exactly: a box becomes a parallelepiped, a cylinder an elliptic one (upright or
 * slanting), a ball an ellipsoid of rational splines, whose poles are simply mapped.
 */
import { applyMatrix, column, cross, dot, length, scale, unit, type Matrix, type Vec3 } from '@kadrel/core';
import type { SolidContent } from '../content.ts';
import {
  occurrences,
  scope,
  type Keep,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { buildSphere } from './sphere.ts';
import { nameFaces, type NamedShape } from './named.ts';

/** @param by a map with a positive determinant */
export function buildStretched(occt: Occt, of: SolidContent, by: Matrix): NamedShape {
  const [x, y, z] = [column(by, 0), column(by, 1), column(by, 2)];
  switch (of.kind) {
    case 'box':
      return slantedBox(occt, scale(x, of.size[0]), scale(y, of.size[1]), scale(z, of.size[2]));
    case 'cylinder':
      return ellipticCylinder(
        occt,
        scale(x, of.diameter / 2),
        scale(y, of.diameter / 2),
        scale(z, of.height),
      );
    case 'sphere':
      return ellipsoid(occt, of.diameter, by);
  }
}

function slantedBox(occt: Occt, a: Vec3, b: Vec3, up: Vec3): NamedShape {
  return scope((keep) => {
    const corners = [[0, 0, 0], a, [a[0] + b[0], a[1] + b[1], a[2] + b[2]], b].map((p) =>
      keep(new occt.gp_Pnt(p[0], p[1], p[2])),
    );
    const edges = corners.map((from, i) =>
      keep(keep(new occt.BRepBuilderAPI_MakeEdge(from, corners[(i + 1) % 4]!)).Edge()),
    );
    return pulledUp(occt, edges, ['front', 'right', 'back', 'left'], up, keep);
  });
}

/** Half axes of an ellipse told by two conjugate half diameters. Source: Rytz's construction, as a formula. */
function halfAxes(u: Vec3, v: Vec3): { major: Vec3; minor: Vec3 } {
  const angle = Math.atan2(2 * dot(u, v), dot(u, u) - dot(v, v)) / 2;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const major: Vec3 = [c * u[0] + s * v[0], c * u[1] + s * v[1], c * u[2] + s * v[2]];
  const minor: Vec3 = [c * v[0] - s * u[0], c * v[1] - s * u[1], c * v[2] - s * u[2]];
  return { major, minor };
}

/** Half axes whose relative difference is below this are a circle's. */
const ROUND = 1e-12;

function ellipticCylinder(occt: Occt, u: Vec3, v: Vec3, up: Vec3): NamedShape {
  return scope((keep) => {
    const { major, minor } = halfAxes(u, v);
    const [long, short] = [length(major), length(minor)];
    const axes = keep(
      new occt.gp_Ax2(
        keep(new occt.gp_Pnt(0, 0, 0)),
        keep(new occt.gp_Dir(...unit(cross(u, v)))),
        keep(new occt.gp_Dir(...unit(major))),
      ),
    );
    const edge = keep(
      keep(
        long - short < ROUND * long
          ? new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Circ(axes, long)))
          : new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Elips(axes, long, short))),
      ).Edge(),
    );
    return pulledUp(occt, [edge], ['side'], up, keep);
  });
}

/** A flat face bounded by edges in order, pulled along a vector; `sides` names what each edge becomes. */
function pulledUp(
  occt: Occt,
  edges: readonly ReturnType<Occt['TopoDS']['Edge']>[],
  sides: readonly string[],
  up: Vec3,
  keep: Keep,
): NamedShape {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  // Edges that are joined become copies which share their ends.
  const joined = edges.map((edge) => {
    builder.Add(edge);
    return keep(builder.Edge());
  });
  const face = keep(new occt.BRepBuilderAPI_MakeFace(keep(builder.Wire()), true));
  const prism = keep(
    new occt.BRepPrimAPI_MakePrism(keep(face.Face()), keep(new occt.gp_Vec(...up)), false, true),
  );
  const swept = (edge: TopoDS_Shape): TopoDS_Face => {
    const list = keep(prism.Generated(edge));
    return keep(occt.TopoDS.Face(keep(list.First())));
  };
  return nameFaces(occt, prism.Shape(), [
    { face: keep(occt.TopoDS.Face(keep(prism.FirstShape()))), name: 'bottom' },
    { face: keep(occt.TopoDS.Face(keep(prism.LastShape()))), name: 'top' },
    ...joined.map((edge, i) => ({ face: swept(edge), name: sides[i]! })),
  ]);
}

function ellipsoid(occt: Occt, diameter: number, by: Matrix): NamedShape {
  return scope((keep) => {
    const ball = buildSphere(occt, diameter);
    keep(ball.shape);
    const [face] = occurrences(occt, ball.shape, 'TopAbs_FACE', keep);
    const round = keep(occt.BRep_Tool.Surface(keep(occt.TopoDS.Face(face!))));
    const splines = keep(occt.GeomConvert.SurfaceToBSplineSurface(round));
    for (let u = 1; u <= splines.NbUPoles(); u++)
      for (let v = 1; v <= splines.NbVPoles(); v++) {
        const pole = keep(splines.Pole(u, v));
        const [x, y, z] = applyMatrix(by, [pole.X(), pole.Y(), pole.Z()]);
        splines.SetPole(u, v, keep(new occt.gp_Pnt(x, y, z)));
      }
    const made = keep(new occt.BRepBuilderAPI_MakeFace(splines, SURFACE_TOLERANCE_MM));
    const build = keep(new occt.TopoDS_Builder());
    const shell = keep(new occt.TopoDS_Shell());
    build.MakeShell(shell);
    build.Add(shell, keep(made.Face()));
    const solid = keep(keep(new occt.BRepBuilderAPI_MakeSolid(shell)).Solid());
    occt.BRepLib.OrientClosedSolid(solid);
    return { shape: occt.TopoDS.Solid(solid), faceNames: ['surface'] };
  });
}

/** The kernel's own confusion distance. */
const SURFACE_TOLERANCE_MM = 1e-7;
