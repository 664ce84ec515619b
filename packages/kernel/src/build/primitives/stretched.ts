/**
 * Plain solids under a linear map, exactly: a box becomes a parallelepiped, a cylinder an elliptic one (upright or
 * slanting), a ball an ellipsoid of rational splines, whose poles are simply mapped.
 */
import {
  ORIGIN,
  add,
  applyMatrix,
  column,
  cross,
  dot,
  length,
  scale,
  unit,
  type Matrix,
  type Vec3,
} from '@kadrel/core';
import type { SolidContent } from '../../content/content.ts';
import { occurrences, progressRange, scope, type Occt, type Scoped } from '../../occt/occt.ts';
import { buildSphere } from './sphere.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';
import { pulledPrism } from './prism.ts';
import { polygon, pulledUp } from './pulled.ts';
import { buildTorus } from './torus.ts';

/** Where a map takes two square radii of a round solid's bottom, and its height. */
interface ConjugateAxes {
  readonly u: Vec3;
  readonly v: Vec3;
  readonly up: Vec3;
}

/** @param by a map with a positive determinant */
export function buildStretched(occt: Occt, of: SolidContent, by: Matrix): NamedShape {
  const [x, y, z] = [column(by, 0), column(by, 1), column(by, 2)];
  const round = ({ diameter, height }: { diameter: number; height: number }): ConjugateAxes => ({
    u: scale(x, diameter / 2),
    v: scale(y, diameter / 2),
    up: scale(z, height),
  });
  switch (of.kind) {
    case 'box':
      return slantedBox(occt, scale(x, of.size[0]), scale(y, of.size[1]), scale(z, of.size[2]));
    case 'cylinder':
      return ellipticCylinder(occt, round(of));
    case 'sphere':
      return splined(occt, buildSphere(occt, of.diameter), by);
    case 'torus':
      return splined(occt, buildTorus(occt, of.diameter, of.thickness), by);
    case 'cone':
      return ellipticCone(occt, round(of), of.top / of.diameter);
    case 'tube':
      return ellipticTube(occt, round(of), of.bore / of.diameter);
    case 'prism':
      return pulledPrism(
        occt,
        of.corners.map(([u, v]) => add(scale(x, u), scale(y, v))),
        scale(z, of.height),
      );
  }
}

function slantedBox(occt: Occt, a: Vec3, b: Vec3, up: Vec3): NamedShape {
  return scope((keep) => {
    const corners: readonly Vec3[] = [[0, 0, 0], a, add(a, b), b];
    return pulledUp(
      { occt, keep },
      { rims: [polygon({ occt, keep }, corners)], sides: [['front', 'right', 'back', 'left']] },
      up,
    );
  });
}

/** Half axes of an ellipse given by two conjugate half diameters. Source: Rytz's construction, as a formula. */
function halfAxes(u: Vec3, v: Vec3): { major: Vec3; minor: Vec3 } {
  const angle = Math.atan2(2 * dot(u, v), dot(u, u) - dot(v, v)) / 2;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const major: Vec3 = [c * u[0] + s * v[0], c * u[1] + s * v[1], c * u[2] + s * v[2]];
  const minor: Vec3 = [c * v[0] - s * u[0], c * v[1] - s * u[1], c * v[2] - s * u[2]];
  return { major, minor };
}

/** Half axes whose relative difference is below this are a circle's. */
const ROUND = 1e-12;

/** An ellipse by two conjugate half diameters, counter-clockwise seen from where their cross product points. */
function ellipse({ occt, keep }: Scoped, centre: Vec3, u: Vec3, v: Vec3) {
  const { major, minor } = halfAxes(u, v);
  const [long, short] = [length(major), length(minor)];
  const axes = keep(
    new occt.gp_Ax2(
      keep(new occt.gp_Pnt(...centre)),
      keep(new occt.gp_Dir(...unit(cross(u, v)))),
      keep(new occt.gp_Dir(...unit(major))),
    ),
  );
  return keep(
    keep(
      long - short < ROUND * long
        ? new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Circ(axes, long)))
        : new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Elips(axes, long, short))),
    ).Edge(),
  );
}

function ellipticCylinder(occt: Occt, { u, v, up }: ConjugateAxes): NamedShape {
  return scope((keep) =>
    pulledUp({ occt, keep }, { rims: [[ellipse({ occt, keep }, ORIGIN, u, v)]], sides: [['side']] }, up),
  );
}

/** @param inner the bore, as a part of the outer diameter */
function ellipticTube(occt: Occt, { u, v, up }: ConjugateAxes, inner: number): NamedShape {
  return scope((keep) => {
    const rims = [
      [ellipse({ occt, keep }, ORIGIN, u, v)],
      [ellipse({ occt, keep }, ORIGIN, scale(u, inner), scale(v, inner))],
    ];
    return pulledUp({ occt, keep }, { rims, sides: [['side'], ['bore']] }, up);
  });
}

/** Straight lines from one ellipse to another, or to a point. @param top as a part of the bottom */
function ellipticCone(occt: Occt, { u, v, up }: ConjugateAxes, top: number): NamedShape {
  return scope((keep) => {
    const wire = (edge: ReturnType<typeof ellipse>) =>
      keep(keep(new occt.BRepBuilderAPI_MakeWire(edge)).Wire());
    const loft = keep(new occt.BRepOffsetAPI_ThruSections(true, true, LOFT_TOLERANCE_MM));
    loft.AddWire(wire(ellipse({ occt, keep }, ORIGIN, u, v)));
    if (top > 0) loft.AddWire(wire(ellipse({ occt, keep }, up, scale(u, top), scale(v, top))));
    else {
      const tip = keep(new occt.gp_Pnt(...up));
      loft.AddVertex(keep(keep(new occt.BRepBuilderAPI_MakeVertex(tip)).Vertex()));
    }
    loft.Build(progressRange({ occt, keep }));
    const ends = [
      { face: keep(occt.TopoDS.Face(keep(loft.FirstShape()))), name: 'bottom' },
      ...(top > 0 ? [{ face: keep(occt.TopoDS.Face(keep(loft.LastShape()))), name: 'top' }] : []),
    ];
    const { shape, faceNames } = nameFaces(occt, loft.Shape(), ends);
    return { shape, faceNames: faceNames.map((name) => (name === 'face' ? 'side' : name)) };
  });
}
const LOFT_TOLERANCE_MM = 1e-6;

/** A solid with one closed face, as rational splines whose poles are mapped. */
function splined(occt: Occt, ball: NamedShape, by: Matrix): NamedShape {
  return scope((keep) => {
    keep(ball.shape);
    const [face] = occurrences({ occt, keep }, ball.shape, 'TopAbs_FACE');
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
