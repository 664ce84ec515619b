/** What the snaps know of one built shape, packed in typed arrays, in the shape's own frame (mm). */
import { buildBvh, type Bvh } from '../space/bvh.ts';
import { radians } from '../space/angle.ts';

/** Point features, by the number that stands in `pointKind`. */
export const POINT_KINDS = ['endpoint', 'midpoint', 'centre', 'quadrant', 'face centre'] as const;
/** Everything that the pointer can catch, points of shapes first. */
export const SNAP_KINDS = [
  ...POINT_KINDS,
  'intersection',
  'apparent',
  'divide',
  'part centre',
  'mass centre',
  'datum',
  'box point',
  'pin',
  'dock',
  'origin',
  'perpendicular',
  'tangent',
  'parallel',
  'guide',
  'half-way',
  'on edge',
  'on face',
  'on plane',
  'grid',
] as const;
/** One of the things that the pointer can catch. */
export type SnapKind = (typeof SNAP_KINDS)[number];

/** In `curveKind`: a straight line. */
export const CURVE_LINE = 0;
/** In `curveKind`: a circle, or an arc of one. */
export const CURVE_CIRCLE = 1;
/** In `curveKind`: any other curve, by points on it. */
export const CURVE_POLYLINE = 2;
/** In `curveKind`: an ellipse, or an arc of one. */
export const CURVE_ELLIPSE = 3;
/** Numbers in `curves` for each curve. */
export const CURVE_STRIDE = 12;
/** In `faceKind`: a plane, by a point and its normal. */
export const FACE_PLANE = 0;
/** In `faceKind`: a cylinder, by a point of its axis, its direction and its radius. */
export const FACE_CYLINDER = 1;
/** In `faceKind`: any other surface. */
export const FACE_OTHER = 2;
/** In `faceKind`: a ball, by its centre. */
export const FACE_SPHERE = 3;
/** Numbers in `faces` for each face. */
export const FACE_STRIDE = 7;

/** P points, C curves, F faces, Q polyline points, V vertices, T triangles. */
export interface ShapeFeatures {
  /** 3·P. */
  readonly points: Float64Array;
  /** P: index into POINT_KINDS. */
  readonly pointKind: Uint8Array;
  /** P: index into `names`. */
  readonly pointName: Uint32Array;
  /** C: CURVE_LINE, CURVE_CIRCLE, CURVE_ELLIPSE or CURVE_POLYLINE. */
  readonly curveKind: Uint8Array;
  /**
   * 12·C. Line: both ends. Circle and ellipse: centre, X axis times its radius, Y axis times its radius, first and last
   * angle in degrees. Polyline: index of its first point in `polyline`, and how many.
   */
  readonly curves: Float64Array;
  readonly curveName: Uint32Array;
  /** 3·Q: points on curves that are neither lines nor circles. */
  readonly polyline: Float64Array;
  /** F: FACE_PLANE, FACE_CYLINDER, FACE_SPHERE or FACE_OTHER. */
  readonly faceKind: Uint8Array;
  /** 7·F. Plane: point and outward normal. Cylinder: point of the axis, direction, radius. Sphere: centre, three zeros, radius. */
  readonly faces: Float64Array;
  readonly faceName: Uint32Array;
  readonly names: readonly string[];
  /** 3·V. */
  readonly positions: Float32Array;
  /** 3·T: corners counter-clockwise seen from outside, each < V. */
  readonly triangles: Uint32Array;
  /** T: index of the face. */
  readonly faceOfTriangle: Uint32Array;
  /** Greatest distance between a facet and the true surface, mm. */
  readonly chordMm: number;
}

/** Features of a shape, with trees to search them by. */
export interface SnapShape extends ShapeFeatures {
  readonly triangleTree: Bvh;
  readonly pointTree: Bvh;
  readonly curveTree: Bvh;
}

/** Builds the trees over the features of a shape. */
export function snapShape(features: ShapeFeatures): SnapShape {
  const { points, positions, triangles } = features;
  const pointBoxes = new Float64Array(points.length * 2);
  for (let i = 0; i < points.length / 3; i++) {
    pointBoxes.set(points.subarray(3 * i, 3 * i + 3), 6 * i);
    pointBoxes.set(points.subarray(3 * i, 3 * i + 3), 6 * i + 3);
  }
  const triangleBoxes = new Float64Array(triangles.length * 2);
  for (let t = 0; t < triangles.length / 3; t++) {
    const at = 6 * t;
    triangleBoxes.fill(Infinity, at, at + 3);
    triangleBoxes.fill(-Infinity, at + 3, at + 6);
    for (let corner = 0; corner < 3; corner++)
      growBox(triangleBoxes, at, positions, 3 * triangles[3 * t + corner]!);
  }
  return {
    ...features,
    triangleTree: buildBvh(triangleBoxes),
    pointTree: buildBvh(pointBoxes),
    curveTree: buildBvh(curveBoxes(features)),
  };
}

function growBox(boxes: Float64Array, at: number, points: ArrayLike<number>, from: number): void {
  for (let axis = 0; axis < 3; axis++) {
    const n = points[from + axis]!;
    if (n < boxes[at + axis]!) boxes[at + axis] = n;
    if (n > boxes[at + 3 + axis]!) boxes[at + 3 + axis] = n;
  }
}

function curveBoxes({ curveKind, curves, polyline }: ShapeFeatures): Float64Array {
  const boxes = new Float64Array(6 * curveKind.length);
  for (let c = 0; c < curveKind.length; c++) {
    const at = 6 * c;
    const data = CURVE_STRIDE * c;
    boxes.fill(Infinity, at, at + 3);
    boxes.fill(-Infinity, at + 3, at + 6);
    if (curveKind[c] === CURVE_LINE) {
      growBox(boxes, at, curves, data);
      growBox(boxes, at, curves, data + 3);
    } else if (curveKind[c] === CURVE_CIRCLE || curveKind[c] === CURVE_ELLIPSE) {
      for (let axis = 0; axis < 3; axis++) {
        const half = Math.hypot(curves[data + 3 + axis]!, curves[data + 6 + axis]!);
        boxes[at + axis] = curves[data + axis]! - half;
        boxes[at + 3 + axis] = curves[data + axis]! + half;
      }
    } else {
      const first = curves[data]!;
      for (let i = first; i < first + curves[data + 1]!; i++) growBox(boxes, at, polyline, 3 * i);
    }
  }
  return boxes;
}

/** The point at an angle (degrees) of a circle, or of an ellipse in its own axes. */
export function circlePoint(curves: Float64Array, data: number, angle: number): [number, number, number] {
  const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
  const at = (axis: number) =>
    curves[data + axis]! + c * curves[data + 3 + axis]! + s * curves[data + 6 + axis]!;
  return [at(0), at(1), at(2)];
}
