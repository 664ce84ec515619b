/** Corners, edges, faces and axes as exact geometry: what Set distance, Face to face and picked frames refer to. */
import { MEETING, nameFit } from '../document/naming.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Geometry } from '../space/geometry.ts';
import { carry, turnVector, type Pose } from '../space/pose.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { add, cross, distance, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import { refuse, type Refusal } from '../refusals/refusal.ts';
import { locatePoint, type NamedPoint } from './locate.ts';
import {
  CURVE_CIRCLE,
  CURVE_LINE,
  CURVE_STRIDE,
  FACE_CYLINDER,
  FACE_PLANE,
  FACE_SPHERE,
  FACE_STRIDE,
  type ShapeFeatures,
} from './shape.ts';

/** A geometry in the world, and the part that it belongs to; none for a bare point or a pin. */
export type Feature = Geometry & { readonly part?: string };

export type { Geometry };

/** A geometry of the inner frame in the outer one. */
export const carryGeometry = (pose: Pose, geometry: Geometry): Geometry => ({
  ...geometry,
  at: carry(pose, geometry.at),
  ...('direction' in geometry ? { direction: turnVector(pose.turn, geometry.direction) } : {}),
  ...('normal' in geometry ? { normal: turnVector(pose.turn, geometry.normal) } : {}),
  ...('arc' in geometry && geometry.arc
    ? { arc: { from: carry(pose, geometry.arc.from), sweep: geometry.arc.sweep } }
    : {}),
});

/** Where a feature points: along an edge or an axis, or out of a face; undefined for a point. */
export const directionOf = (geometry: Geometry): Vec3 | undefined =>
  'direction' in geometry ? geometry.direction : 'normal' in geometry ? geometry.normal : undefined;

interface Found {
  readonly geometry: Geometry;
  readonly fit: number;
}

/**
 * The feature that names mean, in the shape's own frame: `top` a face, `top&front` an edge, `top&front&right` a corner;
 * with `snap` a point, as in `locatePoint`. Of several that fit, the one nearest to `near`. Refuses what is not there or
 * could mean several.
 */
export function locateFeature(
  features: ShapeFeatures,
  named: NamedPoint,
  document: KadrelDocument,
): Geometry | Refusal {
  const written = named.at.split(MEETING).map((name) => name.trim());
  if (named.snap !== undefined || written.length > 2) {
    const point = locatePoint(features, named, document);
    return 'refused' in point ? point : { kind: 'point', at: point };
  }
  const found = written.length === 1 ? faces(features, named, document) : edges(features, written, document);
  const best = Math.max(0, ...found.map(({ fit }) => fit));
  const fitting = found.filter(({ fit }) => fit === best).map(({ geometry }) => geometry);
  const what = `${written.length === 1 ? 'face' : 'edge'} ${named.at} of ${named.on}`;
  if (fitting.length === 0) return refuse('no-such-feature', { what });
  const { near } = named;
  if (near) fitting.sort((a, b) => offTo(a, near) - offTo(b, near));
  else if (fitting.length > 1) return refuse('ambiguous.features', { fitting: fitting.length, what });
  return fitting[0]!;
}

/** How far a point is from a feature without its ends: enough to tell features of one name apart. */
function offTo(geometry: Geometry, point: Vec3): number {
  const offset = subtract(point, geometry.at);
  if (geometry.kind === 'point') return distance(geometry.at, point);
  if (geometry.kind === 'plane')
    return Math.abs(
      offset[0] * geometry.normal[0] + offset[1] * geometry.normal[1] + offset[2] * geometry.normal[2],
    );
  const across = cross(offset, geometry.direction);
  const off = Math.hypot(...across);
  return geometry.kind === 'axis' ? Math.abs(off - geometry.radius) : off;
}

function faces(features: ShapeFeatures, { at }: NamedPoint, document: KadrelDocument): Found[] {
  const found: Found[] = [];
  features.faceName.forEach((name, face) => {
    const fit = nameFit(at, features.names[name]!, document);
    const geometry = fit > 0 ? faceGeometry(features, face) : undefined;
    if (geometry) found.push({ geometry, fit });
  });
  return found;
}

/** A face as a plane through its centre, an axis, or the centre of a ball; undefined for other surfaces. */
export function faceGeometry(features: ShapeFeatures, face: number): Geometry | undefined {
  const data = FACE_STRIDE * face;
  const triple = (from: number): Vec3 => [
    features.faces[data + from]!,
    features.faces[data + from + 1]!,
    features.faces[data + from + 2]!,
  ];
  if (features.faceKind[face] === FACE_PLANE)
    return { kind: 'plane', at: faceCentre(features, face) ?? triple(0), normal: triple(3) };
  if (features.faceKind[face] === FACE_CYLINDER)
    return { kind: 'axis', at: triple(0), direction: triple(3), radius: features.faces[data + 6]! };
  return features.faceKind[face] === FACE_SPHERE ? { kind: 'point', at: triple(0) } : undefined;
}

/** The centre of area of a flat face, which its features carry, put onto its plane to the last digit. */
function faceCentre(features: ShapeFeatures, face: number): Vec3 | undefined {
  const data = FACE_STRIDE * face;
  const [px, py, pz, nx, ny, nz] = features.faces.subarray(data, data + 6);
  let best: Vec3 | undefined;
  let min = Infinity;
  for (let i = 0; i < features.pointKind.length; i++) {
    if (features.pointKind[i] !== FACE_CENTRE_KIND || features.pointName[i] !== features.faceName[face])
      continue;
    const at: Vec3 = [features.points[3 * i]!, features.points[3 * i + 1]!, features.points[3 * i + 2]!];
    const off = (at[0] - px!) * nx! + (at[1] - py!) * ny! + (at[2] - pz!) * nz!;
    if (Math.abs(off) < min) {
      min = Math.abs(off);
      best = [at[0] - off * nx!, at[1] - off * ny!, at[2] - off * nz!];
    }
  }
  return best;
}
const FACE_CENTRE_KIND = 4;

function edges(features: ShapeFeatures, written: readonly string[], document: KadrelDocument): Found[] {
  const found: Found[] = [];
  features.curveName.forEach((name, c) => {
    const names = features.names[name]!.split(MEETING);
    const fit = edgeFit(written, names, document);
    const geometry = fit > 0 ? edgeGeometry(features, c) : undefined;
    if (geometry) found.push({ geometry, fit });
  });
  return found;
}

/** How well two written names fit the two faces beside an edge; 0 when not at all. */
export function edgeFit(
  [a, b]: readonly string[],
  names: readonly string[],
  document: KadrelDocument,
): number {
  if (names.length !== 2) return 0;
  const pairs = [
    [names[0]!, names[1]!],
    [names[1]!, names[0]!],
  ].map(([x, y]) => [nameFit(a!, x!, document), nameFit(b!, y!, document)] as const);
  return Math.max(...pairs.map(([x, y]) => (x > 0 && y > 0 ? x + y : 0)));
}

/** A straight edge as a line through its middle, a circular one as its axis; undefined for other curves. */
export function edgeGeometry(features: ShapeFeatures, c: number): Geometry | undefined {
  const data = CURVE_STRIDE * c;
  const triple = (from: number): Vec3 => [
    features.curves[data + from]!,
    features.curves[data + from + 1]!,
    features.curves[data + from + 2]!,
  ];
  if (features.curveKind[c] === CURVE_LINE) {
    const [from, to] = [triple(0), triple(3)];
    const half = add(from, to);
    return {
      kind: 'line',
      at: [half[0] / 2, half[1] / 2, half[2] / 2],
      direction: unit(subtract(to, from)),
      length: distance(from, to),
    };
  }
  if (features.curveKind[c] !== CURVE_CIRCLE) return undefined;
  const [centre, x, y] = [triple(0), triple(3), triple(6)];
  const [first, last] = [features.curves[data + 9]!, features.curves[data + 10]!];
  const from = add(centre, add(scale(x, cosDegrees(first)), scale(y, sinDegrees(first))));
  const arc = { from, sweep: last - first };
  return { kind: 'axis', at: centre, direction: unit(cross(x, y)), radius: Math.hypot(...x), arc };
}
