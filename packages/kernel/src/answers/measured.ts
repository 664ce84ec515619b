/** What can be measured of one thing, or between two: points, parts, faces, edges by their names. */
import {
  cross,
  degrees,
  directionOf,
  length,
  dot,
  type Geometry,
  type KadrelDocument,
  type MeasuredFacts,
  type Placed,
  type Target,
  type Vec3,
} from '@kadrel/core';
import { leastBetween, nearestFaces } from '../facts/apart.ts';
import { borderOf } from '../facts/faces.ts';
import { integralsOf } from '../facts/integrals.ts';
import { distanceTo, scope, uniqueShapes, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { placedSolid, type FitShapes } from './bodies.ts';
import { thicknessOf } from './thickness.ts';
import { thingOf, type Thing, type Around } from './things.ts';

/** Throws BuildError where there is no such thing. */
export function measuredFacts(
  occt: Occt,
  shapes: FitShapes,
  { document, from, to }: { document: KadrelDocument; from: Target; to?: Target | undefined },
): MeasuredFacts {
  return scope((keep) => {
    const around = { occt, shapes, document, keep };
    const first = thingOf(around, from);
    if (!to) return ofOne(around, first, from);
    return ofTwo(around, first, thingOf(around, to));
  });
}

function ofTwo(around: Around, a: Thing, b: Thing): MeasuredFacts {
  const least = leastOf(around, a, b);
  const along = [0, 1, 2].map((i) =>
    Math.max(b.box.min[i]! - a.box.max[i]!, a.box.min[i]! - b.box.max[i]!),
  ) as unknown as Vec3;
  const angle = angleOf(a.geometry, b.geometry);
  return {
    distance: least.distance,
    from: least.points[0],
    to: least.points[1],
    along,
    ...(angle === undefined ? {} : { angle }),
    geometries: [a.geometry, b.geometry],
  };
}

/** Solids by the faces that come nearest; all else by the kernel at once. */
function leastOf({ occt, shapes, document }: Around, a: Thing, b: Thing) {
  const [p] = a.solids;
  const [q] = b.solids;
  if (a.kind === 'part' && b.kind === 'part' && a.solids.length === 1 && b.solids.length === 1) {
    const two = [placedSolid(occt, shapes, bodyOf(p!)), placedSolid(occt, shapes, bodyOf(q!))] as const;
    const [first] = nearestFaces(occt, two)?.found ?? [];
    if (first && first.distance > INSIDE_MM)
      return {
        distance: leastBetweenSolids(occt, a, b) ?? first.distance,
        points: [first.onA, first.onB] as const,
      };
  }
  return leastBetween(occt, a.shape, b.shape);

  function bodyOf(one: Placed) {
    const content = shapes.contentOf(document, one);
    return { content, named: shapes.shapeOf(content), pose: one.pose };
  }
}

/** Farther apart than this, mm, surfaces of solids do not touch. */
const INSIDE_MM = 1e-7;

/** 0 where one is within the other; undefined where it is not. */
function leastBetweenSolids(occt: Occt, a: Thing, b: Thing): 0 | undefined {
  const isWithin = (inner: Thing, outer: Thing) =>
    [0, 1, 2].every(
      (i) => inner.box.min[i]! >= outer.box.min[i]! && inner.box.max[i]! <= outer.box.max[i]!,
    ) && distanceTo(occt, outer.shape, cornerOf(occt, inner.shape)) === 0;
  return isWithin(a, b) || isWithin(b, a) ? 0 : undefined;
}

function cornerOf(occt: Occt, shape: TopoDS_Shape): Vec3 {
  return scope((keep) => {
    const [corner] = uniqueShapes(occt, shape, 'TopAbs_VERTEX', keep);
    const point = keep(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner!))));
    return [point.X(), point.Y(), point.Z()];
  });
}

/** The acute angle between directions, or between a direction and a plane, degrees. */
function angleOf(a: Geometry | null, b: Geometry | null): number | undefined {
  const [p, q] = [a && directionOf(a), b && directionOf(b)];
  if (!p || !q) return undefined;
  const between = degrees(Math.atan2(length(cross(p, q)), Math.abs(dot(p, q))));
  const isMixed = 'normal' in a! !== 'normal' in b!;
  return isMixed ? 90 - between : between;
}

function ofOne(around: Around, thing: Thing, target: Target): MeasuredFacts {
  const { occt } = around;
  const facts: MeasuredFacts = { geometries: [thing.geometry], at: middleOf(thing) };
  switch (thing.kind) {
    case 'point':
      return facts;
    case 'edge':
      return { ...facts, length: lengthOf(around, thing.shape), ...radiusOf(thing) };
    case 'part': {
      const { area, volume } = integralsOf(occt, thing.shape);
      return { ...facts, area, volume };
    }
    case 'face': {
      const faces = uniqueShapes(occt, thing.shape, 'TopAbs_FACE', around.keep);
      const { area } = integralsOf(occt, thing.shape);
      const length = borderOf(occt, faces);
      return { ...facts, area, length, ...radiusOf(thing), ...thicknessOf(around, thing, target) };
    }
  }
}

const middleOf = ({ geometry, box: { min, max } }: Thing): Vec3 =>
  geometry?.at ?? ([0, 1, 2].map((i) => (min[i]! + max[i]!) / 2) as unknown as Vec3);

const radiusOf = ({ geometry }: Thing) => (geometry?.kind === 'axis' ? { radius: geometry.radius } : {});

function lengthOf({ occt, keep }: Around, shape: TopoDS_Shape): number {
  const properties = keep(new occt.GProp_GProps());
  occt.BRepGProp.LinearProperties(shape, properties, false, false);
  return properties.Mass();
}
