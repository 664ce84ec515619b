/** What can be measured of one thing, or between two: points, parts, faces, edges by their names. */
import {
  cross,
  definitionOf,
  degrees,
  directionOf,
  isWithinSolid,
  length,
  dot,
  withChangedItems,
  type Geometry,
  type KadrelDocument,
  type MeasuredFacts,
  type Measuring,
  type Target,
  type Vec3,
} from '@kadrel/core';
import { placedContent } from '../content/content.ts';
import { nearestBetween, nearestFaces, type Nearest, type PlacedSolid } from '../facts/apart.ts';
import { borderOf } from '../facts/faces.ts';
import { reachesOf } from '../facts/extent.ts';
import { integralsOf } from '../facts/integrals.ts';
import { scope, uniqueShapes, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { placedSolid, pointOn, type FitShapes } from './bodies.ts';
import { distanceAlong } from './alongPath.ts';
import { thicknessOf } from './thickness.ts';
import { runsOfEdge, thingOf, type Thing, type Around } from './things.ts';

/** Throws BuildError where there is no such thing. */
export function measuredFacts(
  { occt, shapes }: { readonly occt: Occt; readonly shapes: FitShapes },
  document: KadrelDocument,
  { from, to, direction, path, items }: Measuring,
): MeasuredFacts {
  return scope((keep) => {
    const around = { occt, shapes, document: items ? withChangedItems(document, items) : document, keep };
    const first = thingOf(around, from);
    if (!to) return ofOne(around, first, from);
    const second = thingOf(around, to);
    const facts = path ? ofPath(around, path, [first, second]) : ofTwo(around, first, second);
    return direction ? { ...facts, directed: gapAlong(around, [first, second], direction) } : facts;
  });
}

/** With the feet on the path for the places. */
function ofPath(around: Around, path: Target, [a, b]: readonly [Thing, Thing]): MeasuredFacts {
  const { occt, keep } = around;
  const { distance, feet } = distanceAlong({ occt, keep }, pathsMeant(around, path), [a.shape, b.shape]);
  return { ...ofTwo(around, a, b), alongPath: distance, from: feet[0], to: feet[1] };
}

/** Best first: an edge of a solid means those too that run on from it, where they do not branch; of what is drawn it means all of it. */
function pathsMeant(around: Around, path: Target): readonly TopoDS_Shape[] {
  const item = 'part' in path ? around.document.items[path.part] : undefined;
  const isDrawn = item && 'figure' in definitionOf(around.document, item).recipe.base;
  if (isDrawn && 'part' in path) return [thingOf(around, { part: path.part }).shape];
  return runsOfEdge(around, path) ?? [thingOf(around, path).shape];
}

/** Between how far both reach along a direction of length 1; less than 0 where they overlap along it. */
function gapAlong({ occt }: Around, [a, b]: readonly [Thing, Thing], direction: Vec3): number {
  const reachOf = ({ kind, shape, box }: Thing) =>
    kind === 'point'
      ? ([dot(box.min, direction), dot(box.min, direction)] as const)
      : reachesOf(occt, shape, [direction])[0]!;
  const [p, q] = [reachOf(a), reachOf(b)];
  return Math.max(q[0] - p[1], p[0] - q[1]);
}

function ofTwo(around: Around, a: Thing, b: Thing): MeasuredFacts {
  const nearest = nearestOf(around, a, b);
  const along = [0, 1, 2].map((i) =>
    Math.max(b.box.min[i]! - a.box.max[i]!, a.box.min[i]! - b.box.max[i]!),
  ) as unknown as Vec3;
  const angle = angleOf(a.geometry, b.geometry);
  return {
    distance: nearest.distance,
    from: nearest.points[0],
    to: nearest.points[1],
    along,
    ...(angle === undefined ? {} : { angle }),
    geometries: [a.geometry, b.geometry],
  };
}

/** Between solids and faces: of those that come nearest. Edges and points are left to the kernel. */
function nearestOf(around: Around, a: Thing, b: Thing): Nearest {
  const [own, others] = [sidesOf(around, a), sidesOf(around, b)];
  let best: Nearest | undefined;
  for (const p of own)
    for (const q of others) {
      const found = nearestOfTwo(around.occt, [p, q], best?.distance);
      if (found && (!best || found.distance < best.distance)) best = found;
    }
  return best ?? nearestBetween(around.occt, a.shape, b.shape);
}

/** The solids of a part, or the one whose face it is; none for edges and points. */
function sidesOf({ occt, shapes, document }: Around, { kind, solids, faces }: Thing): PlacedSolid[] {
  if (kind !== 'part' && kind !== 'face') return [];
  return solids.map((one) => {
    const content = placedContent(document, one);
    const solid = placedSolid(occt, shapes, { content, named: shapes.shapeOf(content), pose: one.pose });
    // The neighbours of a face are not looked at, so that its border must be.
    return faces ? { ...solid, isBetweenFlat: undefined, only: new Set(faces) } : solid;
  });
}

/** 0 where one solid lies within the other. @param reach mm; undefined where they are farther apart */
function nearestOfTwo(
  occt: Occt,
  [p, q]: readonly [PlacedSolid, PlacedSolid],
  reach: number | undefined,
): Nearest | undefined {
  const [first] = nearestFaces(occt, [p, q], reach)?.found ?? [];
  if (!first) return undefined;
  const points = [first.onA, first.onB] as const;
  const isInside = !p.only && !q.only && (isWithinSolid(q, pointOn(p)) || isWithinSolid(p, pointOn(q)));
  return { distance: isInside || first.distance <= TOUCH_MM ? 0 : first.distance, points };
}

/** Surfaces nearer than this, mm, touch. */
const TOUCH_MM = 1e-7;

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
      const faces = uniqueShapes({ occt, keep: around.keep }, thing.shape, 'TopAbs_FACE');
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
