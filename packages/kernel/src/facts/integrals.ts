/**
 * Volume, area and centre of solids, face by face: of many flat and cylindrical ones in closed form, by the kernel's plain integration
 * where that is exact, by Gauss's rule where ellipses bound flat or ruled faces (the kernel is 4e-7 off there), and by its adaptive
 * integration elsewhere. The volume of a face is that of the cone from the origin to it. Source: the divergence theorem.
 * Long, since each kind of surface has formulas of its own.
 */
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import {
  occurrences,
  scope,
  read,
  uniqueShapes,
  type Coordinates,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { nodesAlong, nodesIn, twoNodes } from './alongEdge.ts';
import { borderOf, type BorderPoint } from './border.ts';
import { cylinderFaces } from './cylinder.ts';
import { cylinderShare } from './cylinderShare.ts';
import { flatShare } from './flatShare.ts';
import type { Share } from './share.ts';
import { firstDerivatives, isFlatFace } from './surface.ts';
import { mannersOf, type Manner } from './manners.ts';
import { ringOf } from './ring.ts';

export interface Integrals {
  /** mm³ */
  readonly volume: number;
  /** mm² */
  readonly area: number;
  readonly centroid: Vec3;
}

/** Relative error that the kernel's adaptive integration aims at; it reaches some 1e-9 on most faces (measured). */
const ADAPTIVE = 1e-9;
/** Of shapes as they were built: a step asks for what was measured of the solid before it. */
const known = new WeakMap<TopoDS_Shape, Integrals>();

type Space = Pick<Integrals, 'volume' | 'centroid'>;
/** By the kernel's plain rule: a step asks whether it made a solid smaller or larger, before that solid is measured. */
const plainSpaces = new WeakMap<TopoDS_Shape, Space>();

/** Volume, area and centroid from the borders of faces. */
export function integralsOf(occt: Occt, shape: TopoDS_Shape): Integrals {
  const found = known.get(shape) ?? integrated(occt, shape);
  known.set(shape, found);
  return found;
}

function integrated(occt: Occt, shape: TopoDS_Shape): Integrals {
  return scope((keep) => {
    const formulas = sharesByFormula({ occt, keep }, shape);
    if (formulas) return sumOf(formulas);
    const { faces, kinds, whole } = mannersOf({ occt, keep }, shape);
    if (whole === 'plain') return fromKernel({ occt, keep }, shape);
    if (whole === 'patch') return ofPatches({ occt, keep }, shape);
    return sumOf(faces.map((face, i) => scope((inner) => shareOf({ occt, keep: inner }, face, kinds[i]!))));
  });
}

function sumOf(shares: readonly Share[]): Integrals {
  const volume = shares.reduce((sum, one) => sum + one.volume, 0);
  const area = shares.reduce((sum, one) => sum + one.area, 0);
  const moment = shares.reduce<Vec3>((sum, one) => add(sum, one.moment), ZERO);
  return { volume, area, centroid: scale(moment, 1 / volume) };
}

/** From so many faces on, formulas take a fifth of the time of the kernel's plain rule. */
const MANY_FACES = 60;

/** Shares of faces that are flat or of cylinders; undefined where there are few of them, or others. */
function sharesByFormula({ occt, keep }: Scoped, shape: TopoDS_Shape): Share[] | undefined {
  const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) =>
    keep(occt.TopoDS.Face(face)),
  );
  if (faces.length < MANY_FACES) return undefined;
  const round = cylinderFaces({ occt, keep }, shape);
  if (!faces.every((face, i) => round[i] ?? isFlatFace(occt, face))) return undefined;
  return faces.map((face, i) => {
    const cylinder = round[i];
    return cylinder ? cylinderShare(cylinder) : scope((inner) => flatShare({ occt, keep: inner }, face));
  });
}

/** The middle of its surface: of what encloses nothing that is its middle. */
export const areaCentroidOf = (occt: Occt, shape: TopoDS_Shape): Vec3 =>
  scope((keep) => {
    const { whole } = mannersOf({ occt, keep }, shape);
    return surfaceOf({ occt, keep }, shape, whole === 'plain' ? undefined : ADAPTIVE).areaCentroid;
  });

/** mm³, by the kernel's plain rule: exact for plain solids. */
export const plainVolumeOf = (occt: Occt, shape: TopoDS_Shape): number =>
  scope((keep) => spaceOf({ occt, keep }, shape).volume);

/** What is known of a shape is known of its copy too. */
export function knownOfCopy(shape: TopoDS_Shape, copy: TopoDS_Shape): void {
  const space = plainSpaces.get(shape);
  if (space) plainSpaces.set(copy, space);
}

/** @param within relative error that is aimed at; the plain rule without one */
function fromKernel({ occt, keep }: Scoped, shape: TopoDS_Shape, within?: number): Integrals {
  return { ...spaceOf({ occt, keep }, shape, within), ...surfaceOf({ occt, keep }, shape, within) };
}

/** Volumes by the plain rule, areas by the adaptive one: those are no polynomials. */
const ofPatches = ({ occt, keep }: Scoped, shape: TopoDS_Shape): Integrals => ({
  ...spaceOf({ occt, keep }, shape),
  ...surfaceOf({ occt, keep }, shape, ADAPTIVE),
});

function spaceOf(site: Scoped, shape: TopoDS_Shape, within?: number): Space {
  if (within !== undefined) return integratedSpace(site, shape, within);
  const found = plainSpaces.get(shape) ?? integratedSpace(site, shape);
  plainSpaces.set(shape, found);
  return found;
}

function integratedSpace({ occt, keep }: Scoped, shape: TopoDS_Shape, within?: number): Space {
  const properties = keep(new occt.GProp_GProps());
  if (within === undefined) occt.BRepGProp.VolumeProperties(shape, properties, false, false, false);
  else occt.BRepGProp.VolumeProperties(shape, properties, within, false, false);
  return { volume: properties.Mass(), centroid: centreOf(properties, keep) };
}

function surfaceOf({ occt, keep }: Scoped, shape: TopoDS_Shape, within?: number) {
  const properties = keep(new occt.GProp_GProps());
  if (within === undefined) occt.BRepGProp.SurfaceProperties(shape, properties, false, false);
  else occt.BRepGProp.SurfaceProperties(shape, properties, within, false);
  return { area: properties.Mass(), areaCentroid: centreOf(properties, keep) };
}

function centreOf(properties: InstanceType<Occt['GProp_GProps']>, keep: Keep): Vec3 {
  const centre = keep(properties.CentreOfMass());
  return [centre.X(), centre.Y(), centre.Z()];
}

function shareOf({ occt, keep }: Scoped, face: TopoDS_Face, manner: Manner): Share {
  if (manner === 'flat') return flatShare({ occt, keep }, face);
  if (manner === 'ruled') return ofRuled({ occt, keep }, face);
  const integrated =
    manner === 'patch'
      ? ofPatches({ occt, keep }, face)
      : fromKernel({ occt, keep }, face, manner === 'plain' ? undefined : ADAPTIVE);
  const border = borderOf({ occt, keep }, face, manner === 'rounded' ? 'smooth' : 'polynomial');
  // The kernel reckons from the mean of the vertices; the difference is the cone between that and the origin.
  const vertices = occurrences({ occt, keep }, face, 'TopAbs_VERTEX').map((vertex) =>
    read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(vertex))) as unknown as Coordinates, keep),
  );
  const apex = scale(vertices.reduce<Vec3>(add, [0, 0, 0]), 1 / Math.max(1, vertices.length));
  let volume = integrated.volume;
  let moment = integrated.volume === 0 ? ZERO : scale(integrated.centroid, integrated.volume);
  for (const { point, way } of border) {
    const slice = dot(apex, cross(point, way)) / 6;
    volume += slice;
    moment = add(moment, scale(add(apex, scale(point, 2)), slice / 4));
  }
  const exact =
    manner === 'rounded' ? byBorder({ occt, keep }, face, border) : { area: integrated.area, volume };
  return { ...exact, moment };
}
const ZERO: Vec3 = [0, 0, 0];

/** ½∮ p × dp: whatever surface the border has, its normals add up to this. */
const vectorArea = (border: readonly BorderPoint[]): Vec3 =>
  border.reduce<Vec3>((sum, { point, way }) => add(sum, scale(cross(point, way), 0.5)), [0, 0, 0]);

/**
 * Area and volume of a round face by its borders alone, in space: with S = ½∮ p × dp (its vector area), a face of a ball or of a
 * cylinder with centre c and radius R has the volume (c·S ± R·A) / 3, one of a cone with the tip t has t·S / 3. Areas: of a ball and
 * a cylinder as they are unrolled round an axis (Archimedes), of a cone by its constant slope. The kernel integrates over
 * parameters, and is 1e-3 off where a border passes near a pole.
 */
function byBorder(
  { occt, keep }: Scoped,
  face: TopoDS_Face,
  border: readonly BorderPoint[],
): Omit<Share, 'moment'> {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const kind = surface.GetType() as unknown as string;
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  const vector = vectorArea(border);
  if (kind === 'GeomAbs_Cone') return coneByBorder(surface, { vector, turned }, keep);
  if (kind === 'GeomAbs_Torus') return ringByBorder({ occt, keep }, face, vector);
  const isBall = kind === 'GeomAbs_Sphere';
  const round = isBall ? keep(surface.Sphere()) : keep(surface.Cylinder());
  const centre = read(round.Location(), keep);
  const radius = round.Radius();
  const axis = isBall
    ? clearAxis(border, centre)
    : read(keep(surface.Cylinder()).Position().Direction(), keep);
  // A surface given left-handed looks inward by its parameters.
  const outward = outwardSign(surface, { centre, axis: isBall ? undefined : axis }, keep) * turned;
  const unrolled = radius * unroll(border, { centre, axis, top: isBall ? radius : 0 });
  const ball = 4 * Math.PI * radius ** 2;
  // A ball without a border is whole; a small patch of a large one is not.
  const area = !isBall
    ? Math.abs(unrolled)
    : border.length === 0
      ? ball
      : withinBall(outward * unrolled, ball);
  return { area, volume: (dot(centre, vector) + outward * radius * area) / 3 };
}

/** Areas of parts of a ball are known up to the whole of it. */
const withinBall = (area: number, whole: number): number => ((area % whole) + whole) % whole;

/** The axis through a centre that stays farthest from a border. */
function clearAxis(border: readonly BorderPoint[], centre: Vec3): Vec3 {
  const clearance = (axis: Vec3) =>
    Math.min(Infinity, ...border.map(({ point }) => Math.hypot(...cross(axis, subtract(point, centre)))));
  return AXES.reduce((best, axis) => (clearance(axis) > clearance(best) ? axis : best));
}
const AXES: readonly Vec3[] = [
  [0, 0, 1],
  [1, 0, 0],
  [0, 1, 0],
  [1, 1, 1],
  [-1, 1, 1],
  [1, -1, 1],
  [1, 1, -1],
].map((axis) => unit(axis as unknown as Vec3));

/** ∮ (top − z) dφ round an axis. */
function unroll(
  border: readonly BorderPoint[],
  { centre, axis, top }: { centre: Vec3; axis: Vec3; top: number },
): number {
  return border.reduce((sum, { point, way }) => {
    const arm = subtract(point, centre);
    const z = dot(arm, axis);
    const flat = subtract(arm, scale(axis, z));
    return sum + ((top - z) * dot(axis, cross(flat, way))) / dot(flat, flat);
  }, 0);
}

/** 1 where the parameters' normal leads away from a centre, or from an axis; else −1. */
function outwardSign(
  surface: Surface,
  { centre, axis }: { centre: Vec3; axis: Vec3 | undefined },
  keep: Keep,
): 1 | -1 {
  const [u, v] = [
    (surface.FirstUParameter() + surface.LastUParameter()) / 2,
    (surface.FirstVParameter() + surface.LastVParameter()) / 2,
  ];
  const { point, along, across } = firstDerivatives(surface, { u, v }, keep);
  const arm = subtract(point, centre);
  const out = axis ? subtract(arm, scale(axis, dot(arm, axis))) : arm;
  return dot(cross(along, across), out) > 0 ? 1 : -1;
}

type Surface = InstanceType<Occt['BRepAdaptor_Surface']>;

/**
 * A ring's face by its border in parameters, u round the axis and v round the tube: with dA = r (R + r·cos v) du dv, its area is
 * −∮ r (R·v + r·sin v) du, and its volume (c·S ± (R·∫cos v dA + r·A)) / 3.
 */
function ringByBorder({ occt, keep }: Scoped, face: TopoDS_Face, vector: Vec3): Omit<Share, 'moment'> {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const { centre, axis, ring, thin } = ringOf(surface, keep);
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  let [area, cosines] = [0, 0];
  for (const shape of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
    const side = shape.Orientation() as unknown as string;
    if (side !== 'TopAbs_FORWARD' && side !== 'TopAbs_REVERSED') continue;
    const sign = side === 'TopAbs_FORWARD' ? -1 : 1;
    const curve = keep(new occt.BRepAdaptor_Curve2d(keep(occt.TopoDS.Edge(shape)), face));
    for (const [parameter, weight] of nodesAlong(curve, keep)) {
      const { v, du } = scope((inner) => parametersAt(curve, parameter, inner));
      area += sign * weight * thin * (ring * v + thin * Math.sin(v)) * du;
      cosines += sign * weight * thin * (ring * Math.sin(v) + thin * (v / 2 + Math.sin(2 * v) / 4)) * du;
    }
  }
  // The way out of the tube, where it is widest.
  const { point, along, across } = firstDerivatives(surface, { u: surface.FirstUParameter(), v: 0 }, keep);
  const arm = subtract(point, centre);
  const outward =
    dot(cross(along, across), subtract(arm, scale(axis, dot(arm, axis)))) > 0 ? turned : -turned;
  const [size, share] = [turned * area, turned * cosines];
  return { area: size, volume: (dot(centre, vector) + outward * (ring * share + thin * size)) / 3 };
}

function parametersAt(curve: InstanceType<Occt['BRepAdaptor_Curve2d']>, parameter: number, keep: Keep) {
  const { Point, D1 } = curve.EvalD1(parameter) as unknown as Record<'Point' | 'D1', Flat>;
  keep(Point);
  keep(D1);
  return { v: Point.Y(), du: D1.X() };
}
interface Flat {
  X(): number;
  Y(): number;
  delete(): void;
}

function coneByBorder(
  surface: Surface,
  { vector, turned }: { readonly vector: Vec3; readonly turned: number },
  keep: Keep,
): Omit<Share, 'moment'> {
  const u = surface.FirstUParameter();
  const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
  const [near, far] = [
    firstDerivatives(surface, { u, v: v0 }, keep),
    firstDerivatives(surface, { u, v: v1 }, keep),
  ];
  // The length of the derivative round the axis is the radius there, which grows evenly along a straight side.
  const side = near.across;
  const radiusAt = (one: typeof near) => dot(one.along, unit(far.along)) || dot(one.along, unit(near.along));
  const [r0, r1] = [radiusAt(near), radiusAt(far)];
  const tip = add(near.point, scale(side, (-r0 * (v1 - v0)) / (r1 - r0)));
  const middle = firstDerivatives(surface, { u, v: (v0 + v1) / 2 }, keep);
  const opposite = firstDerivatives(surface, { u: u + Math.PI, v: (v0 + v1) / 2 }, keep);
  const axis = unit(add(middle.across, opposite.across));
  const slope = dot(scale(unit(cross(middle.along, middle.across)), turned), axis);
  return { area: dot(vector, axis) / slope, volume: dot(tip, vector) / 3 };
}

/** A face whose borders run along its parameters: Gauss's rule both ways; straight along the second. */
function ofRuled({ occt, keep }: Scoped, face: TopoDS_Face): Share {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  const straight = twoNodes(surface.FirstVParameter(), surface.LastVParameter());
  let [area, volume] = [0, 0];
  let moment = ZERO;
  for (const [u, wide] of nodesIn(surface.FirstUParameter(), surface.LastUParameter()))
    scope((inner) => {
      for (const [v, tall] of straight) {
        const { point, along, across } = firstDerivatives(surface, { u, v }, inner);
        const normal = scale(cross(along, across), turned * wide * tall);
        area += Math.hypot(...normal);
        const share = dot(point, normal) / 3;
        volume += share;
        moment = add(moment, scale(point, (3 / 4) * share));
      }
    });
  return { area, volume, moment };
}
