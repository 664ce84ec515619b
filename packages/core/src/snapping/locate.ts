/** Points of a built shape by the names of the faces that meet there: what headless ledgers and docks refer to. */
import { MEETING, nameFit } from '../document/naming.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { refuse, type Refusal } from '../refusals/refusal.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { POINT_KINDS, type ShapeFeatures } from './shape.ts';

/** A point given by names: a corner `top&front&right`, an edge `top&front`, or a face `top` of a part. */
export interface NamedPoint {
  readonly on: string;
  readonly at: string;
  readonly snap?: string | undefined;
  /** A point of the part's own frame, mm: of several features with these names, the nearest is meant. */
  readonly near?: Vec3 | undefined;
  /** Of a pattern, which member: `7`, or `2x3` in a grid; without one, the first. */
  readonly member?: string | number | undefined;
  /** Of a pattern with several sources, or a group in it, which part. */
  readonly of?: string | undefined;
}

/** Points nearer to one another than this are one point: a thousand times finer than the kernel's tolerance. */
const SAME_POINT_MM = 1e-10;

const SNAP_WORDS: Readonly<Record<number, readonly string[]>> = {
  1: ['face centre'],
  2: ['midpoint', 'centre'],
};

/**
 * The point, in the shape's own frame. `top&front&right` is a corner, `top&front` the middle of an edge or the centre
 * of a round one, `top` the centre of a face; `snap` says which where there is a choice. Refuses what is not there, and
 * what could mean several points.
 */
export function locatePoint(
  features: ShapeFeatures,
  { on, at, snap, near }: NamedPoint,
  document: KadrelDocument,
): Vec3 | Refusal {
  const written = at.split(MEETING).map((name) => name.trim());
  const wanted =
    snap === undefined ? undefined : snap === 'centre' && written.length === 1 ? 'face centre' : snap;
  if (wanted !== undefined && !(POINT_KINDS as readonly string[]).includes(wanted))
    return refuse('snap', { snap: wanted, pointKinds: POINT_KINDS.join(', ') });
  const kinds = wanted === undefined ? (SNAP_WORDS[written.length] ?? ['endpoint']) : [wanted];
  let found: { point: Vec3; fit: number }[] = [];
  for (let i = 0; i < features.pointKind.length; i++) {
    if (!kinds.includes(POINT_KINDS[features.pointKind[i]!]!)) continue;
    const fit = meetingFit(written, features.names[features.pointName[i]!]!.split(MEETING), document);
    const point: Vec3 = [features.points[3 * i]!, features.points[3 * i + 1]!, features.points[3 * i + 2]!];
    if (fit > 0 && !found.some((other) => distance(other.point, point) < SAME_POINT_MM))
      found.push({ point, fit });
  }
  const best = Math.max(0, ...found.map(({ fit }) => fit));
  found = found.filter(({ fit }) => fit === best);
  if (near) found.sort((a, b) => distance(a.point, near) - distance(b.point, near));
  if (found.length === 1 || (near && found.length > 0)) return found[0]!.point;
  const what = `${kinds.join(' or ')} at ${at} of ${on}`;
  if (found.length === 0) return refuse('no-such-point', { what });
  return refuse('ambiguous.points', { found: found.length, what });
}

/** How well the written names fit the faces that meet at a feature; 0 when one fits none of them. */
export function meetingFit(
  written: readonly string[],
  faces: readonly string[],
  document: KadrelDocument,
): number {
  // A corner may have more faces than were named, an edge and a face may not.
  if (written.length < 3 && faces.length !== written.length) return 0;
  const left = [...faces];
  let sum = 0;
  for (const name of written) {
    const fits = left.map((face) => nameFit(name, face, document));
    const best = Math.max(...fits, 0);
    if (best === 0) return 0;
    left.splice(fits.indexOf(best as 1 | 2), 1);
    sum += best;
  }
  return sum;
}
