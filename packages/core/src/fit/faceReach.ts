/** Which faces look nowhere near another solid, by how far they reach and where their normals go. */
import type { SnapShape } from '../snapping/shape.ts';
import { fill } from './facets.ts';
import { normalOf } from './triangles.ts';

/** Facets of round faces look up to this far (cosine) aside from the true surface. */
export const LOOKING = 0.85;

/** Of facets, axis by axis: how far they reach, and the most that their normals go along it, either way. */
export interface FaceReach {
  readonly min: number[];
  readonly max: number[];
  readonly ahead: number[];
  readonly behind: number[];
}

const noReach = (): FaceReach => ({
  min: [Infinity, Infinity, Infinity],
  max: [-Infinity, -Infinity, -Infinity],
  ahead: [-1, -1, -1],
  behind: [-1, -1, -1],
});

function reachOver(reach: FaceReach, triangle: Float64Array): void {
  const normal = normalOf(triangle);
  for (let k = 0; k < 3; k++) {
    reach.min[k] = Math.min(reach.min[k]!, triangle[k]!, triangle[3 + k]!, triangle[6 + k]!);
    reach.max[k] = Math.max(reach.max[k]!, triangle[k]!, triangle[3 + k]!, triangle[6 + k]!);
    reach.ahead[k] = Math.max(reach.ahead[k]!, normal[k]!);
    reach.behind[k] = Math.max(reach.behind[k]!, -normal[k]!);
  }
}

/** Face by face. */
export function faceReaches(
  { faceKind, faceOfTriangle, triangles }: SnapShape,
  positions: ArrayLike<number>,
): FaceReach[] {
  const reaches = Array.from(faceKind, noReach);
  const triangle = new Float64Array(9);
  for (let t = 0; t < faceOfTriangle.length; t++) {
    fill(triangle, positions, triangles, t);
    reachOver(reaches[faceOfTriangle[t]!]!, triangle);
  }
  return reaches;
}

export const wholeOf = (reaches: readonly FaceReach[]): FaceReach => {
  const whole = noReach();
  for (const { min, max } of reaches)
    for (let k = 0; k < 3; k++) {
      whole.min[k] = Math.min(whole.min[k]!, min[k]!);
      whole.max[k] = Math.max(whole.max[k]!, max[k]!);
    }
  return whole;
};

/** How far the boxes round two of them are apart, mm. */
export const reachGap = (own: FaceReach, other: FaceReach): number =>
  Math.hypot(...own.min.map((min, k) => Math.max(0, other.min[k]! - own.max[k]!, min - other.max[k]!)));

/**
 * Whether no way of at most a length to the other is near any of the normals. A way that is so much longer than the gap along an axis
 * goes along that axis by a share at least; the normals go along it by a slope at most; so the angle between has a least.
 */
export function looksElsewhere(own: FaceReach, other: FaceReach, max: number): boolean {
  for (let k = 0; k < 3; k++) {
    const [ahead, behind] = [other.min[k]! - own.max[k]!, own.min[k]! - other.max[k]!];
    const share = Math.min(1, Math.max(ahead, behind) / max);
    const slope = ahead > behind ? own.ahead[k]! : own.behind[k]!;
    if (
      share > Math.max(0, slope) &&
      slope * share + Math.sqrt((1 - slope ** 2) * (1 - share ** 2)) < LOOKING
    )
      return true;
  }
  return false;
}
