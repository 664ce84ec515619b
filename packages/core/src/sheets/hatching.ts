/** Hatches within closed outlines. */
import type { Curve } from '../curves/curve.ts';
import { flattened } from '../curves/flattened.ts';
import { radians } from '../space/angle.ts';
import { dot2, type Vec2 } from '../space/vector2.ts';

/** Parts beside one another can be distinguished by these, degrees. Source: ISO 128-50 begins with 45°; the others are common practice. */
const ANGLES = [45, 135, 30, 120, 60, 150] as const;

/** The angle of a hatch by the rank of its part, degrees. */
export const hatchAngle = (rank: number): number => ANGLES[rank % ANGLES.length]!;

/** More lines than this are not drawn one by one: the lines are then set wider apart. */
const MAX_LINES = 2000;

/** How something cut is hatched. */
export interface Hatch {
  readonly angle: number;
  /** Between lines, mm. */
  readonly spacing: number;
}

/** Pieces of parallel lines that lie within loops, by the even-odd rule: both ends of each. */
export function hatched(loops: readonly (readonly Curve[])[], { angle, spacing }: Hatch): [Vec2, Vec2][] {
  const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
  const [along, across]: [Vec2, Vec2] = [
    [c, s],
    [-s, c],
  ];
  const edges = loops.flatMap((loop) => edgesOf(loop, along, across));
  if (edges.length === 0) return [];
  const heights = edges.flatMap(([a, b]) => [a[1], b[1]]);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const step = Math.max(spacing, (high - low) / MAX_LINES);
  const found: [Vec2, Vec2][] = [];
  for (let i = Math.ceil(low / step); i * step <= high; i++) {
    const height = i * step;
    const cuts = crossings(edges, height);
    for (let k = 0; k + 1 < cuts.length; k += 2) {
      const at = (u: number): Vec2 => [u * c - height * s, u * s + height * c];
      found.push([at(cuts[k]!), at(cuts[k + 1]!)]);
    }
  }
  return found;
}

type Edge = readonly [Vec2, Vec2];

/** Chords of a loop, given along and across the hatch. */
function edgesOf(loop: readonly Curve[], along: Vec2, across: Vec2): Edge[] {
  const points = loop.flatMap((curve) => flattened(curve).slice(0, -1));
  const turned = points.map((point): Vec2 => [dot2(point, along), dot2(point, across)]);
  return turned.map((point, i): Edge => [point, turned[(i + 1) % turned.length]!]);
}

/** Where edges cross a height, from the left; each edge has its lower end and not its upper one. */
function crossings(edges: readonly Edge[], height: number): number[] {
  const found: number[] = [];
  for (const [a, b] of edges) {
    if (a[1] <= height === b[1] <= height) continue;
    found.push(a[0] + ((b[0] - a[0]) * (height - a[1])) / (b[1] - a[1]));
  }
  return found.sort((x, y) => x - y);
}
