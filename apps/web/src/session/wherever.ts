import {
  carryPlaced,
  standingPlacesOf,
  type ItemId,
  type KadrelDocument,
  type Placed,
  type Vec3,
} from '@kadrel/core';

/** So many numbers are drawn at the most of what is marked on the members of a pattern. */
const MAX_NUMBERS = 600_000;

/** Points of a part, from its own frame into the world, wherever it stands: what is done to a source is done to all members. */
export function wherever(
  document: KadrelDocument,
  part: ItemId,
  points: readonly number[] | Float32Array,
): Float32Array {
  if (points.length === 0) return new Float32Array();
  const most = Math.max(1, Math.floor(MAX_NUMBERS / points.length));
  const places = placesOf(document, part).slice(0, most);
  const found = new Float32Array(places.length * points.length);
  places.forEach((place, i) => {
    for (let at = 0; at < points.length; at += 3) {
      const point: Vec3 = [points[at]!, points[at + 1]!, points[at + 2]!];
      found.set(carryPlaced(place, point), i * points.length + at);
    }
  });
  return found;
}

type Place = Pick<Placed, 'pose' | 'mirrored'>;

/** Of each document, since a statement in hand asks at every key. */
const known = new WeakMap<KadrelDocument, Map<ItemId, readonly Place[]>>();

function placesOf(document: KadrelDocument, part: ItemId): readonly Place[] {
  const ofDocument = known.get(document) ?? new Map<ItemId, readonly Place[]>();
  known.set(document, ofDocument);
  const found = ofDocument.get(part) ?? standingPlacesOf(document, part);
  ofDocument.set(part, found);
  return found;
}
