/** Heights that stand beside profiles: contours as on a map. */
import { flattened } from '../curves/flattened.ts';
import { pathsOf } from '../document/drawn.ts';
import { itemsIn } from '../document/itemIndex.ts';
import { definitionOf, standingWithin, topParts, worldFromPart } from '../document/items.ts';
import type { KadrelDocument, Part } from '../document/schema.ts';
import { column } from '../space/matrix.ts';
import { carry, type Pose } from '../space/pose.ts';
import { dot, subtract, type Vec3 } from '../space/vector.ts';

/** A height beside a contour. */
export interface ContourHeight {
  /** Over the plane, mm. */
  readonly height: number;
  /** On the contour, in the world: where it lies farthest along X of the plane, so that heights stand beside one another. */
  readonly at: Vec3;
}

/** More cannot be read. */
const MAX_HEIGHTS = 400;

/** One for each outline that can be seen. */
export function contourHeightsIn(document: KadrelDocument): ContourHeight[] {
  const found: ContourHeight[] = [];
  for (const { profile, plane } of told(document)) {
    const pose = worldFromPart(document, profile.id);
    const [across, out] = [column(plane.turn, 0), column(plane.turn, 2)];
    for (const { curves } of pathsOf(document, profile.id)) {
      const points = curves.flatMap((one) => flattened(one.curve)).map(([x, y]) => carry(pose, [x, y, 0]));
      if (points.length === 0) continue;
      const at = points.reduce((best, point) => (dot(across, point) > dot(across, best) ? point : best));
      found.push({ at, height: dot(out, subtract(pose.shift, plane.shift)) });
      if (found.length >= MAX_HEIGHTS) return found;
    }
  }
  return found;
}

interface Told {
  readonly profile: Part;
  readonly plane: Pose;
}

/** Visible profiles, each with the plane of the nearest item above it that has one. */
function told(document: KadrelDocument): Told[] {
  if (!itemsIn(document).some(({ heights }) => heights)) return [];
  const seen = topParts(document).flatMap((part) => standingWithin(document, part, ({ visible }) => visible));
  return seen.flatMap((profile) => {
    if (definitionOf(document, profile).recipe.base.kind !== 'profile') return [];
    let at: Part | undefined = profile;
    while (at && !at.heights) at = at.parent === null ? undefined : document.items[at.parent];
    return at?.heights ? [{ profile, plane: at.heights as unknown as Pose }] : [];
  });
}
