/** Work planes: the ways of telling one, and points in it. */
import { definitionOf, partNamed, vectorOf, worldFromPart } from '../document/items.ts';
import { isFlat } from '../recipes/bodies/index.ts';
import type { ItemId, KadrelDocument, NumVector } from '../document/schema.ts';
import { fromColumns } from '../space/matrix.ts';
import { AT_ORIGIN, carryBack, chain, degreesOfTurn, inverse, roundPoint, type Pose } from '../space/pose.ts';
import { cleanLength, roundAngle } from '../space/rounding.ts';
import { type Vec2 } from '../space/vector2.ts';
import type { Vec3 } from '../space/vector.ts';
import { featureFrame, threePointFrame } from './frames.ts';
import { isRefusal, refuse, type Refusal } from '../refusals/refusal.ts';
import type { Feature } from '../snapping/feature.ts';

/** The planes that are always there: X to the right and Y up on the drawing, Z towards the one who looks. */
export const PLANES: Readonly<Record<string, Pose>> = {
  plan: AT_ORIGIN,
  front: { turn: fromColumns([1, 0, 0], [0, 0, 1], [0, -1, 0]), shift: [0, 0, 0] },
  side: { turn: fromColumns([0, 1, 0], [0, 0, 1], [1, 0, 0]), shift: [0, 0, 0] },
};

/** Carries its frame to the world. */
export interface GivenPlane extends Pose {
  /** The name of the flat face that it was given by. */
  readonly face?: string;
}

/** What a plane may be given by, read by whoever reads blanks. */
interface PlaneReaders {
  readonly document: KadrelDocument;
  point(given: unknown): NumVector | Refusal;
  feature(given: unknown): Feature | Refusal;
}

/**
 * `plan`, `front` or `side`; the name of a plane or of a profile; a flat face, `{ on, at }`; or three points,
 * `{ points }`: origin, a point on X, a point beside it.
 */
export function readPlane(given: unknown, id: string, readers: PlaneReaders): GivenPlane | Refusal {
  const { document } = readers;
  const text = typeof given === 'string' ? given.trim() : undefined;
  if (text !== undefined) {
    const known = PLANES[text.toLowerCase()];
    if (known) return known;
    const item = partNamed(document, text);
    if (item && isFlat(definitionOf(document, item).recipe.base)) return worldFromPart(document, item.id);
    return item ? refuse('plane.name', { name: item.name }, id) : refuse('plane.named', { text }, id);
  }
  const points = typeof given === 'object' && given !== null && 'points' in given ? given.points : undefined;
  if (Array.isArray(points)) return throughThree(points, id, readers);
  const feature = readers.feature(given);
  if (isRefusal(feature)) return feature;
  const frame = feature.kind === 'plane' ? featureFrame(feature) : undefined;
  if (feature.kind !== 'plane' || !frame || frame.own) return refuse('plane.flat', {}, id);
  const { at } = given as { at?: string };
  return { turn: frame.turn, shift: feature.at, ...(at === undefined ? {} : { face: at }) };
}

function throughThree(points: readonly unknown[], id: string, readers: PlaneReaders): Pose | Refusal {
  if (points.length !== 3) return refuse('plane.goes', {}, id);
  const read = points.map((point) => readers.point(point));
  const fault = read.find(isRefusal);
  if (fault) return fault;
  const [a, b, c] = (read as NumVector[]).map(vectorOf);
  const frame = threePointFrame(a!, b!, c!);
  return frame && !frame.own ? { turn: frame.turn, shift: a! } : refuse('plane.these', {}, id);
}

/** The foot of a world point in a plane, in the plane's frame. */
export function inPlane(plane: Pose, point: Vec3): Vec2 {
  const [x, y] = carryBack(plane, point);
  const size = Math.abs(point[0]) + Math.abs(point[1]) + Math.abs(point[2]);
  return [cleanLength(x, size), cleanLength(y, size)];
}

/** A plane in the world as a step keeps it, in the frame of its part. */
export function frameInPart(document: KadrelDocument, part: ItemId, plane: Pose) {
  const frame = chain(inverse(worldFromPart(document, part)), plane);
  return {
    frame,
    kept: { origin: [...roundPoint(frame.shift)] as [number, number, number], turn: degreesOf(frame) },
  };
}

export const degreesOf = (plane: Pose): [number, number, number] =>
  degreesOfTurn(plane.turn).map(roundAngle) as [number, number, number];
