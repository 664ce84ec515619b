/** Places, directions, frames and features of parts, read from what stands in a blank. */
import { partNamed, pinNamed, vectorOf } from '../document/items.ts';
import type { WayCurve } from '../recipes/layouts/index.ts';
import { type ItemId, type KadrelDocument, type NumVector } from '../document/schema.ts';
import type { Target } from '../document/fit.ts';
import type { TieRead } from '../document/sheet.ts';
import type { Variant } from '../patterns/placed.ts';
import { carry, type Pose } from '../space/pose.ts';
import { cleanDirection, column } from '../space/matrix.ts';
import { length, unit, type Vec3 } from '../space/vector.ts';
import {
  carryGeometry,
  directionOf,
  locateFeature,
  type Feature,
  type Geometry,
} from '../snapping/feature.ts';
import { locatePoint, type NamedPoint } from '../snapping/locate.ts';
import { carryWay, locateWay } from '../snapping/locateWay.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import { solidNamed } from '../snapping/solidNamed.ts';
import { isRefusal, refuse, type Asked, type Direction, type Refusal } from './declare.ts';
import { VIEW_FRAMES, WORLD_FRAME, featureFrame, threePointFrame, viewFrame, type Frame } from './frames.ts';
import { readPlaces, type Naming } from './chosen.ts';
import { readDock } from './docks.ts';
import { readEntry, readSheet, readTies } from './onSheets.ts';
import { readTarget } from './targets.ts';
import { type Resolving, asText, readVector, withBlank, POINT_BLANK, findPart } from './resolving.ts';

export function readPoint(given: unknown, { blank, id }: Asked, around: Resolving): NumVector | Refusal {
  if (Array.isArray(given)) return readVector(given, { blank, id }, around);
  const pin = pinOf(given, around.document);
  if (pin) return isRefusal(pin) ? { ...pin, blank: id } : [...pin.at];
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : [...dock.shift];
  const found = readNamed(given, { id, locate: locatePoint }, around);
  if (isRefusal(found)) return found;
  return [...carry(found.pose, found.found)];
}

/** `{ "pin": name }`; undefined for anything else. */
function pinOf(given: unknown, document: KadrelDocument) {
  const name = typeof given === 'object' && given !== null ? (given as { pin?: unknown }).pin : undefined;
  if (typeof name !== 'string') return undefined;
  return pinNamed(document, name) ?? refuse('unknown-pin', { name });
}

/** `{ "on": part, "dock": name }`: where that stands in the world; undefined for anything else. */
function dockOf(given: unknown, id: string, around: Resolving): Pose | Refusal | undefined {
  if (typeof given !== 'object' || given === null || !('dock' in given)) return undefined;
  const said = readDock(given, dockReaders(id, around));
  if (isRefusal(said)) return { ...said, blank: id };
  return said.place?.pose ?? refuse('dock.meant', {}, id);
}

/** Looks up what `{ on, at }` names on a built part. */
function readNamed<T extends object>(
  given: unknown,
  {
    id,
    locate,
  }: {
    readonly id: string;
    readonly locate: (features: ShapeFeatures, named: NamedPoint, document: KadrelDocument) => T | Refusal;
  },
  { document, world }: Resolving,
): { part: ItemId; pose: Pose; found: T; features: ShapeFeatures } | Refusal {
  const named = (typeof given === 'object' && given !== null ? given : {}) as Partial<NamedPoint>;
  if (typeof named.on !== 'string' || typeof named.at !== 'string')
    return refuse('type.three-numbers', {}, id);
  const part = findPart(named.on, id, document);
  if (typeof part !== 'string') return part;
  const solid = solidNamed(document, part, named);
  if (isRefusal(solid)) return { ...solid, blank: id };
  const shape = world.shapeOf(solid.leaf, solid);
  if (isRefusal(shape)) return { ...shape, blank: id };
  const found = locate(shape.snaps, { ...(named as NamedPoint), on: document.items[part]!.name }, document);
  return isRefusal(found)
    ? { ...found, blank: id }
    : { part, pose: solid.pose, found, features: shape.snaps };
}

export function readPath(given: unknown, id: string, around: Resolving): WayCurve | Refusal {
  // Typed into one field: 0, 0, 0; 100, 0, 0.
  const points = typeof given === 'string' ? given.split(';').map((point) => point.split(',')) : given;
  if (Array.isArray(points)) {
    const read = points.map((point) => readPoint(point, { blank: POINT_BLANK, id }, around));
    const fault = read.find(isRefusal);
    if (fault) return fault;
    if (read.length < 2) return refuse('too-few.path', {}, id);
    return {
      kind: 'points',
      points: (read as NumVector[]).map((p) => [...vectorOf(p)] as [number, number, number]),
    };
  }
  const found = readNamed(given, { id, locate: locateWay }, around);
  return isRefusal(found) ? found : carryWay(found.pose, found.found);
}

export function readFeature(given: unknown, id: string, around: Resolving): Feature | Refusal {
  if (Array.isArray(given) || pinOf(given, around.document)) {
    const point = readPoint(given, { blank: POINT_BLANK, id }, around);
    return isRefusal(point) ? point : { kind: 'point', at: vectorOf(point) };
  }
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : { kind: 'plane', at: dock.shift, normal: column(dock.turn, 2) };
  const found = readNamed(given, { id, locate: locateFeature }, around);
  if (isRefusal(found)) return found;
  return { ...carryGeometry(found.pose, found.found), part: found.part };
}

export function dockReaders(id: string, around: Resolving) {
  const { document, world } = around;
  return {
    document,
    shapeOf: (part: ItemId, variant?: Variant) => world.shapeOf(part, variant),
    point: (one: unknown) => readPoint(one, { blank: POINT_BLANK, id }, around),
  };
}

/** Sheets, and what stands on them. */
export function readOnSheet(given: unknown, { blank, id }: Asked, around: Resolving) {
  const { document, typed } = around;
  if (blank.type === 'sheet') return readSheet(given, document);
  if (blank.type === 'ties') return readTiesOf(given, id, around);
  return readEntry(given, { sheet: typed[blank.of!], among: blank.among, document });
}

export const readTargetOf = (given: unknown, id: string, around: Resolving): Target | Refusal =>
  withBlank(
    readTarget(given, {
      document: around.document,
      point(one) {
        const point = readPoint(one, { blank: POINT_BLANK, id }, around);
        return isRefusal(point) ? point : vectorOf(point);
      },
      named: (one) => readNamedTie(one, id, around),
      features(one) {
        const found = readNamed(one, { id, locate: (features) => features }, around);
        return isRefusal(found) ? undefined : found.features;
      },
    }),
    id,
  );

/** What dimensions are tied to: names, and where these are now. */
const readTiesOf = (given: unknown, id: string, around: Resolving): TieRead[] | Refusal =>
  readTies(given, {
    point(one) {
      const point = readPoint(one, { blank: POINT_BLANK, id }, around);
      return isRefusal(point) ? point : vectorOf(point);
    },
    named: (one) => readNamedTie(one as NamedPoint & { readonly point?: unknown }, id, around),
  });

/** Where there is no kernel to tell it, names are taken as they are, and to be where `point` says. */
function readNamedTie(
  given: NamedPoint & { readonly point?: unknown },
  id: string,
  around: Resolving,
): TieRead | Refusal {
  const { on, at, snap, near, member, of, point } = given;
  const part = findPart(on, id, around.document);
  if (isRefusal(part)) return part;
  const leaf = of === undefined ? undefined : partNamed(around.document, of)?.id;
  const place = {
    part,
    ...(snap === undefined ? {} : { snap }),
    ...(member === undefined || member === '' ? {} : { member: String(member) }),
    ...(leaf === undefined ? {} : { of: leaf }),
  };
  if (around.world.isBlind && point !== undefined) {
    const there = readPoint(point, { blank: POINT_BLANK, id }, around);
    if (isRefusal(there)) return there;
    return {
      tie: { point: vectorOf(there), named: { ...place, at } },
      geometry: { kind: 'point', at: vectorOf(there) },
    };
  }
  const found = readNamed(given, { id, locate: locateFeature }, around);
  if (isRefusal(found)) return found;
  const geometry = carryGeometry(found.pose, found.found);
  const kept = near ?? nearOf(found.found);
  const named = { ...place, at: nameKept(given, found.features, around), ...(kept ? { near: kept } : {}) };
  return { tie: { point: geometry.at, named }, geometry };
}

/** The name as the kernel gives it, which outlives that an operand is renamed. */
function nameKept({ on, at, near }: NamedPoint, features: ShapeFeatures, { document }: Resolving): string {
  const naming: Naming = { name: on, document, features: () => features };
  const read = readPlaces({ at, ...(near ? { near } : {}) }, naming);
  return isRefusal(read) ? at : read[0]!.at;
}

/** Of several of one name this one is meant from now on; the rim of a circle is not identified by its centre. */
const nearOf = ({ kind, at }: Geometry): Vec3 | undefined =>
  kind === 'point' || kind === 'line' ? at : undefined;

export function readDirection(given: unknown, id: string, around: Resolving): Direction | Refusal {
  const text = asText(given)?.trim().toLowerCase();
  const named = text === undefined ? null : /^([+-]?)([xyz])$/.exec(text);
  if (named) return { axis: 'xyz'.indexOf(named[2]!) as 0 | 1 | 2, sign: named[1] === '-' ? -1 : 1 };
  if (Array.isArray(given)) {
    const numbers = given.map(Number);
    if (numbers.length !== 3 || !numbers.every(Number.isFinite) || length(numbers as unknown as Vec3) === 0)
      return refuse('direction.three', {}, id);
    return { vector: cleanDirection(unit(numbers as unknown as Vec3)) };
  }
  if (text !== undefined || typeof given !== 'object') return refuse('direction.minus', {}, id);
  const feature = readFeature(given, id, around);
  if (isRefusal(feature)) return feature;
  const direction = directionOf(feature);
  return direction ? { vector: cleanDirection(direction) } : refuse('direction.point-edge', {}, id);
}

/** World, own, a view by name or by bearing and altitude, a feature, or three points. */
export function readFrame(given: unknown, id: string, around: Resolving): Frame | Refusal {
  const text = asText(given)?.trim().toLowerCase();
  if (text === 'world') return WORLD_FRAME;
  if (text === 'own') return { own: true };
  if (text !== undefined && Object.hasOwn(VIEW_FRAMES, text)) return viewFrame(VIEW_FRAMES[text]!);
  const wrong = refuse('frame.world', { viewFrames: Object.keys(VIEW_FRAMES).join(', ') }, id);
  if (typeof given !== 'object' || given === null) return wrong;
  const { bearing, altitude, points } = given as { bearing?: unknown; altitude?: unknown; points?: unknown };
  if (typeof bearing === 'number' && typeof altitude === 'number') return viewFrame({ bearing, altitude });
  if (Array.isArray(points) && points.length === 3) {
    const read = points.map((point) => readPoint(point, { blank: POINT_BLANK, id }, around));
    const fault = read.find(isRefusal);
    if (fault) return fault;
    const [a, b, c] = (read as NumVector[]).map(vectorOf);
    return threePointFrame(a!, b!, c!) ?? refuse('frame.these', {}, id);
  }
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : { own: false, turn: dock.turn };
  const feature = readFeature(given, id, around);
  if (isRefusal(feature)) return feature;
  return featureFrame(feature) ?? refuse('frame.point', {}, id);
}
