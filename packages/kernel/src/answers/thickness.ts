/** How thick the material is below a face. */
import {
  FACE_PLANE,
  areaOf,
  carry,
  facetCorners,
  distance,
  middleOf,
  nameFit,
  normalOf,
  soundingAt,
  type KadrelDocument,
  type Place,
  type SnapShape,
  type Target,
} from '@kadrel/core';
import { placedContent } from '../content/content.ts';
import type { Thing, Around } from './things.ts';

/** Through the material from a face, square to it: at the point that was picked, or in the middle of the face. */
export function thicknessOf({ shapes, document }: Around, { solids: [solid] }: Thing, target: Target) {
  if (!solid || !('part' in target) || target.at === undefined) return {};
  const shape = shapes.snapsOf(placedContent(document, solid));
  const place = placeOn(shape, target, document);
  const found = place && soundingAt(shape, place, 'in');
  if (!found) return {};
  return { thickness: found.size, from: carry(solid.pose, found.from), to: carry(solid.pose, found.to) };
}

/** On a face where it is nearest to what was picked, or in the middle of its largest facet; in the frame of the solid. */
function placeOn(
  shape: SnapShape,
  target: Extract<Target, { part: string }>,
  document: KadrelDocument,
): Place | undefined {
  let best: Place | undefined;
  let min = Infinity;
  shape.faceOfTriangle.forEach((face, t) => {
    if (nameFit(target.at!, shape.names[shape.faceName[face]!]!, document) === 0) return;
    const corners = facetCorners(shape, t);
    const middle = middleOf(corners);
    const off = target.near ? distance(middle, target.near) : -areaOf(corners);
    const normal = normalOf(corners);
    if (off < min && normal) [min, best] = [off, { face, middle, normal }];
  });
  // A point that was picked on a flat face stays where it is.
  const isFlat = best && shape.faceKind[best.face] === FACE_PLANE;
  return best && { ...best, ...(isFlat && target.near ? { exact: target.near } : {}) };
}
