/**
 * What a part that is dragged lines up with: sides and middles of the parts in view, and equal gaps between neighbours.
 * Boxes and points in the world, along its axes; mm.
 */
import { boxPoint, type Box, type BoxPoint } from '../space/box.ts';
import { add, type Vec3 } from '../space/vector.ts';

/** What is dragged, and what it may line up with. */
export interface Dragged {
  /** Round what is dragged, where the pointer would have it. */
  readonly box: Box;
  /** Points of it that line up too: its datum, and where it was taken hold of. */
  readonly points: readonly Vec3[];
  readonly others: readonly Box[];
  /** The axes that the drag is free along. */
  readonly axes: readonly (0 | 1 | 2)[];
  /** How near counts, mm. */
  readonly reach: number;
}

/** A line between what lines up. */
export interface AlignmentLine {
  readonly axis: 0 | 1 | 2;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** The free way between neighbours. */
export interface Gap {
  readonly axis: 0 | 1 | 2;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly distance: number;
  /** As wide as another gap in the row. */
  readonly isEqual: boolean;
}

/** What something dragged lines up with on each axis, and how far that is. */
export interface Alignment {
  /** What the drag is corrected by. */
  readonly shift: Vec3;
  readonly lines: readonly AlignmentLine[];
  readonly gaps: readonly Gap[];
}

/** Gaps that differ by less than this (mm) are equal. */
const EQUAL_MM = 1e-9;
/** The nearest of the others are looked at. */
const MAX_OTHERS = 200;
const STEPS = [-1, 0, 1] as const;

/** What something dragged is nearly in line with. */
export function alignmentOf({ box, points, others, axes, reach }: Dragged): Alignment {
  const middle = boxPoint(box, [0, 0, 0]);
  const off = (other: Box) => Math.hypot(...boxPoint(other, [0, 0, 0]).map((n, i) => n - middle[i]!));
  const near =
    others.length > MAX_OTHERS ? [...others].sort((a, b) => off(a) - off(b)).slice(0, MAX_OTHERS) : others;
  const shift: [number, number, number] = [0, 0, 0];
  for (const axis of axes) shift[axis] = correction({ box, points }, near, axis, reach);
  const moved = shifted(box, shift);
  const carried = { box: moved, points: points.map((point) => add(point, shift)) };
  return {
    shift,
    lines: axes.flatMap((axis) => lineAlong(carried, near, axis) ?? []),
    gaps: ([0, 1, 2] as const).flatMap((axis) => gapsAlong(moved, near, axis)),
  };
}

const shifted = ({ min, max }: Box, by: Vec3): Box => ({
  min: [min[0] + by[0], min[1] + by[1], min[2] + by[2]],
  max: [max[0] + by[0], max[1] + by[1], max[2] + by[2]],
});

const sidesOf = ({ min, max }: Box, axis: number) => [min[axis]!, (min[axis]! + max[axis]!) / 2, max[axis]!];

/** What is lined up: by the sides and the middle of its box, and by points of its own. */
interface Lined {
  readonly box: Box;
  readonly points: readonly Vec3[];
}

/** The smallest correction that lines something up or makes gaps equal; 0 where nothing is near. */
function correction({ box, points }: Lined, others: readonly Box[], axis: 0 | 1 | 2, reach: number) {
  const own = [...sidesOf(box, axis), ...points.map((point) => point[axis])];
  let best = 0;
  let min = reach;
  const attempt = (by: number) => {
    if (Math.abs(by) >= min) return;
    min = Math.abs(by);
    best = by;
  };
  for (const other of others)
    for (const target of sidesOf(other, axis)) for (const side of own) attempt(target - side);
  for (const by of equalGapCorrections(box, others, axis)) attempt(by);
  return best;
}

interface Neighbours {
  /** Those whose shadow along the axis the box stands in, that end before it begins, the nearest first. */
  readonly before: readonly Box[];
  readonly after: readonly Box[];
}

function neighbours(box: Box, others: readonly Box[], axis: 0 | 1 | 2): Neighbours {
  const inRow = others.filter((other) =>
    [0, 1, 2].every((i) => i === axis || (other.min[i]! < box.max[i]! && other.max[i]! > box.min[i]!)),
  );
  const middle = (box.min[axis] + box.max[axis]) / 2;
  return {
    before: inRow.filter(({ max }) => max[axis] <= middle).sort((a, b) => b.max[axis] - a.max[axis]),
    after: inRow.filter(({ min }) => min[axis] >= middle).sort((a, b) => a.min[axis] - b.min[axis]),
  };
}

function equalGapCorrections(box: Box, others: readonly Box[], axis: 0 | 1 | 2): number[] {
  const { before, after } = neighbours(box, others, axis);
  const [b, bb] = before;
  const [a, aa] = after;
  const found: number[] = [];
  if (b && a) found.push((b.max[axis] + a.min[axis] - box.min[axis] - box.max[axis]) / 2);
  if (b && bb && b.min[axis] > bb.max[axis])
    found.push(b.max[axis] + (b.min[axis] - bb.max[axis]) - box.min[axis]);
  if (a && aa && aa.min[axis] > a.max[axis])
    found.push(a.min[axis] - (aa.min[axis] - a.max[axis]) - box.max[axis]);
  return found;
}

/** From the point of the box that lines up to what it lines up with. */
function lineAlong(
  { box, points }: Lined,
  others: readonly Box[],
  axis: 0 | 1 | 2,
): AlignmentLine | undefined {
  const own = [...STEPS.map((step) => boxPoint(box, sideAt(axis, step))), ...points];
  for (const from of own)
    for (const other of others)
      for (const step of STEPS) {
        const to = boxPoint(other, sideAt(axis, step));
        if (Math.abs(from[axis] - to[axis]) < EQUAL_MM) return { axis, from, to };
      }
  return undefined;
}

const sideAt = (axis: number, step: -1 | 0 | 1): BoxPoint =>
  [0, 1, 2].map((i) => (i === axis ? step : 0)) as unknown as BoxPoint;

/** The gaps to the neighbours on both sides, and those of the row that they equal. */
function gapsAlong(box: Box, others: readonly Box[], axis: 0 | 1 | 2): Gap[] {
  const { before, after } = neighbours(box, others, axis);
  const middle = boxPoint(box, [0, 0, 0]);
  const between = (low: Box, high: Box): Gap | undefined => {
    const distance = high.min[axis] - low.max[axis];
    if (distance <= EQUAL_MM) return undefined;
    const at = (n: number) => [0, 1, 2].map((i) => (i === axis ? n : middle[i]!)) as unknown as Vec3;
    return { axis, from: at(low.max[axis]), to: at(high.min[axis]), distance, isEqual: false };
  };
  const own = [before[0] && between(before[0], box), after[0] && between(box, after[0])].filter(
    (gap) => gap !== undefined,
  );
  const rest = [
    before[0] && before[1] && between(before[1], before[0]),
    after[0] && after[1] && between(after[0], after[1]),
  ].filter((gap) => gap !== undefined);
  const all = [...own, ...rest];
  const marked = all.map((gap, i) => ({
    ...gap,
    isEqual: all.some((other, k) => k !== i && Math.abs(other.distance - gap.distance) < EQUAL_MM),
  }));
  // A gap of the row without the part is shown only beside one that equals it.
  return marked.filter((gap, i) => i < own.length || gap.isEqual);
}
