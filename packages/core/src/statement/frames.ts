/** Frames that numbers and grips refer to, and the ways of telling one. */
import { worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { cameraOf } from '../space/camera.ts';
import { NO_TURN, type Turn } from '../space/pose.ts';
import { acrossTo, cleanDirection, fromColumns } from '../space/matrix.ts';
import { cross, length, subtract, unit, type Vec3 } from '../space/vector.ts';
import type { Geometry } from '../snapping/feature.ts';

/** The part's own axes, or axes that are the same for all parts. */
export type Frame = { readonly own: true } | { readonly own: false; readonly turn: Turn };

export const WORLD_FRAME: Frame = { own: false, turn: NO_TURN };

/** The axes of a frame for a part: columns are X, Y and Z in the world. */
export const axesOf = (document: KadrelDocument, frame: Frame, part: ItemId): Turn =>
  frame.own ? worldFromPart(document, part).turn : frame.turn;

/** Named frames of the views: X to the right, Y up, Z towards the viewer. */
export const VIEW_FRAMES: Readonly<Record<string, { bearing: number; altitude: number }>> = {
  plan: { bearing: 0, altitude: 90 },
  front: { bearing: 0, altitude: 0 },
  right: { bearing: 90, altitude: 0 },
  back: { bearing: 180, altitude: 0 },
  left: { bearing: 270, altitude: 0 },
  under: { bearing: 0, altitude: -90 },
};

/** The axes of a view: right, up, and towards the viewer. */
export function viewFrame({ bearing, altitude }: { bearing: number; altitude: number }): Frame {
  const { right, up, toward } = cameraOf(
    { target: [0, 0, 0], bearing, altitude, height: 1, projection: 'parallel' },
    1,
    1,
  );
  return { own: false, turn: fromColumns(right, up, toward) };
}

/** A frame on a picked feature: Z out of a face or along a round one's axis with X level; X along an edge. */
export function featureFrame(geometry: Geometry): Frame | undefined {
  if (geometry.kind === 'point') return undefined;
  if (geometry.kind === 'line') {
    const x = cleanDirection(geometry.direction);
    const z = Math.abs(x[2]) > 1 - 1e-9 ? acrossTo(x) : squareTo(x, [0, 0, 1]);
    return { own: false, turn: fromColumns(x, cleanDirection(cross(z, x)), z) };
  }
  const z = cleanDirection(geometry.kind === 'plane' ? geometry.normal : geometry.direction);
  const level = cross([0, 0, 1], z);
  const x: Vec3 = length(level) < 1e-9 ? [1, 0, 0] : cleanDirection(unit(level));
  return { own: false, turn: fromColumns(x, cleanDirection(cross(z, x)), z) };
}

const squareTo = (direction: Vec3, wanted: Vec3): Vec3 => {
  const deep = direction[0] * wanted[0] + direction[1] * wanted[1] + direction[2] * wanted[2];
  return cleanDirection(
    unit([wanted[0] - deep * direction[0], wanted[1] - deep * direction[1], wanted[2] - deep * direction[2]]),
  );
};

/** X from the first point to the second; the third lies on the side of +Y. Undefined when they stand in a line. */
export function threePointFrame(origin: Vec3, onX: Vec3, onPlane: Vec3): Frame | undefined {
  const x = cleanDirection(unit(subtract(onX, origin)));
  const across = cross(x, subtract(onPlane, origin));
  if (length(across) < 1e-9 * length(subtract(onPlane, origin)) || length(x) === 0) return undefined;
  const z = cleanDirection(unit(across));
  return { own: false, turn: fromColumns(x, cleanDirection(cross(z, x)), z) };
}
