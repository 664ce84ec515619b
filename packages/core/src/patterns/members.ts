/** Where the members of a layout stand, in the frame of the pattern. Exact at multiples of 90°. */
import { valueOf } from '../document/items.ts';
import type { Layout, LayoutOf, MemberKey, Spacing } from '../recipes/layouts/index.ts';
import { MAX_MEMBERS } from '../recipes/numbers.ts';
import { turnAbout } from '../space/matrix.ts';
import { AT_ORIGIN, NO_TURN, turnVector, type Turn } from '../space/pose.ts';
import { cleanLength } from '../space/rounding.ts';
import { add, scale, subtract, type Vec3 } from '../space/vector.ts';
import type { Placement } from './placement.ts';
import { reflectionIn } from './placement.ts';
import { wayAt, wayLength, isClosed } from './way.ts';

/** A count that divides to a whole number but for noise is that number. */
const COUNT_SLACK = 1e-9;

/** How many members a row has: as stored, or as many as fit. */
export function countAlong({ count, spacing, fit }: LayoutOf<'along'>): number {
  if (!fit || !('span' in spacing)) return valueOf(count);
  const max = Math.abs(valueOf(spacing.span)) / (fit.size + valueOf(fit.gap));
  const spaces = fit.rule === 'least' ? Math.floor(max + COUNT_SLACK) : Math.ceil(max - COUNT_SLACK);
  return Math.min(MAX_MEMBERS, Math.max(1, spaces + 1));
}

/** How many members there are in columns, rows and levels; the others have one of each. */
export function countsOf(layout: Layout): readonly [number, number, number] {
  switch (layout.kind) {
    case 'along':
      return [countAlong(layout), 1, 1];
    case 'grid':
      return layout.rows.map(({ count }) => valueOf(count)) as [number, number, number];
    case 'reflection':
      return [2, 1, 1];
    default:
      return [valueOf(layout.count), 1, 1];
  }
}

/** How many members a pattern has, those that are left out included. */
export const countOf = (layout: Layout): number => {
  const [columns, rows, levels] = countsOf(layout);
  return columns * rows * levels;
};

/** Every member, left out or not, column by column, row by row, level by level. */
export function memberKeys(layout: Layout): MemberKey[] {
  const [columns, rows, levels] = countsOf(layout);
  const keys: MemberKey[] = [];
  for (let level = 0; level < levels; level++)
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) keys.push([column, row, level]);
  return keys;
}

/** What people call a member: `7`, or `2x3` in a grid, or `2x3x1` where it has levels. Counted from 1. */
export function memberLabel(layout: Layout, [column, row, level]: MemberKey): string {
  if (layout.kind !== 'grid') return String(column + 1);
  const flat = `${column + 1}x${row + 1}`;
  return valueOf(layout.rows[2].count) > 1 ? `${flat}x${level + 1}` : flat;
}

/** The member that a label means; undefined where there is none of that name. */
export function memberNamed(layout: Layout, label: string): MemberKey | undefined {
  const numbers = label
    .trim()
    .split(/\s*[x×]\s*/i)
    .map(Number);
  if (!numbers.every((n) => Number.isInteger(n) && n >= 1) || numbers.length > 3) return undefined;
  const counts = countsOf(layout);
  const key = [0, 1, 2].map((i) => (numbers[i] ?? 1) - 1) as MemberKey;
  return key.every((n, i) => n < counts[i]!) && (layout.kind === 'grid' || numbers.length === 1)
    ? key
    : undefined;
}

/** Whether two keys are of one member. */
export const sameMember = (a: MemberKey, b: MemberKey): boolean =>
  a[0] === b[0] && a[1] === b[1] && a[2] === b[2];

/** From the first member to the one at `index`: pitch × index, or its share of the span. */
function offsetAt(spacing: Spacing, count: number, index: number): number {
  if ('pitch' in spacing) return valueOf(spacing.pitch) * index;
  return count > 1 ? (valueOf(spacing.span) * index) / (count - 1) : 0;
}

/** The distance from one member to the next; of a row that grows, from the first to the second. */
export function pitchOf(spacing: Spacing, count: number): number {
  return 'pitch' in spacing ? valueOf(spacing.pitch) : count > 1 ? valueOf(spacing.span) / (count - 1) : 0;
}

/** From the first member to the last, mm or degrees. */
export const spanOf = (spacing: Spacing, count: number): number =>
  'span' in spacing ? valueOf(spacing.span) : valueOf(spacing.pitch) * (count - 1);

/**
 * From the source to a member, in the frame of the pattern.
 * @param hold the point of the source that keeps its attitude or turns in place: its datum, in the frame of the pattern
 */
export const memberPlacement = (layout: Layout, key: MemberKey, hold: Vec3): Placement =>
  memberPlacer(layout, hold)(key);

/** The same for many members: what they share is computed once. */
export function memberPlacer(layout: Layout, hold: Vec3): (key: MemberKey) => Placement {
  switch (layout.kind) {
    case 'along':
      return ([index]) => alongPlacement(layout, index, hold);
    case 'around':
      return ([index]) => aroundPlacement(layout, index, hold);
    case 'grid':
      return gridPlacer(layout);
    case 'path':
      return ([index]) => pathPlacement(layout, index);
    case 'reflection':
      return ([index]) => (index === 0 ? HERE : reflectionIn(layout.point, layout.normal));
  }
}

const HERE: Placement = { pose: AT_ORIGIN, mirrored: false };
const shifted = (shift: Vec3): Placement => ({ pose: { turn: NO_TURN, shift }, mirrored: false });
const times = (direction: Vec3, by: number): Vec3 => scale(direction, cleanLength(by));

/** A turn about a point. */
function about(point: Vec3, turn: Turn, shift: Vec3): Placement {
  return {
    pose: { turn, shift: add(add(point, turnVector(turn, scale(point, -1))), shift) },
    mirrored: false,
  };
}

function alongPlacement(layout: LayoutOf<'along'>, index: number, hold: Vec3): Placement {
  const { direction, spacing, centred, growth } = layout;
  const count = countAlong(layout);
  const more = growth && 'gap' in growth ? valueOf(growth.gap) : 0;
  // Gaps that grow by g: the i-th member stands i·pitch + g·i(i − 1)/2 away; a span is shared out so that the last fits.
  const grown = (i: number) => (more * i * (i - 1)) / 2;
  const last = count - 1;
  const even: Spacing =
    'span' in spacing && more !== 0 ? { span: valueOf(spacing.span) - grown(last) } : spacing;
  const at = (i: number) => offsetAt(even, count, i) + grown(i);
  const shift = times(direction, at(index) - (centred ? at(last) / 2 : 0));
  if (!growth || !('turn' in growth)) return shifted(shift);
  return about(hold, turnAbout(direction, valueOf(growth.turn) * index), shift);
}

/** Sizes that a member has more than the source, mm; undefined where all are alike. */
export function memberExtra(layout: Layout, [index]: MemberKey): Vec3 | undefined {
  const growth = layout.kind === 'along' ? layout.growth : undefined;
  if (!growth || !('size' in growth) || index === 0) return undefined;
  return growth.size.map((n) => cleanLength(valueOf(n) * index)) as unknown as Vec3;
}

/** A span of whole turns on one level: the last member would stand on the first. */
export const isRing = ({ spacing, rise }: Pick<LayoutOf<'around'>, 'spacing' | 'rise'>): boolean =>
  'span' in spacing &&
  valueOf(spacing.span) !== 0 &&
  valueOf(spacing.span) % 360 === 0 &&
  valueOf(rise) === 0;

/** Degrees from the source to a member of a ring. */
export function angleAt(layout: Omit<LayoutOf<'around'>, 'kind'>, index: number): number {
  const { spacing } = layout;
  const count = valueOf(layout.count);
  return isRing(layout) && 'span' in spacing
    ? (valueOf(spacing.span) * index) / count
    : offsetAt(spacing, count, index);
}

function aroundPlacement(layout: LayoutOf<'around'>, index: number, hold: Vec3): Placement {
  const { centre, axis, attitude, rise } = layout;
  const turn = turnAbout(axis, angleAt(layout, index));
  const up = times(axis, valueOf(rise) * index);
  if (attitude === 'turning') return about(centre, turn, up);
  const arm = subtract(hold, centre);
  return shifted(add(subtract(turnVector(turn, arm), arm), up));
}

function gridPlacer({ rows, stagger }: LayoutOf<'grid'>): (key: MemberKey) => Placement {
  const [columns, ...others] = rows;
  const shifts = (row: LayoutOf<'grid'>['rows'][number], aside: number) =>
    Array.from({ length: valueOf(row.count) }, (_, i) =>
      times(row.direction, offsetAt(row.spacing, valueOf(row.count), i) + aside),
    );
  const even = shifts(columns, 0);
  const odd =
    stagger === 0 ? even : shifts(columns, stagger * pitchOf(columns.spacing, valueOf(columns.count)));
  const [ups, levels] = others.map((row) => shifts(row, 0)) as [Vec3[], Vec3[]];
  return ([column, row, level]) =>
    shifted(add(add((row % 2 === 1 ? odd : even)[column]!, ups[row]!), levels[level]!));
}

function pathPlacement(layout: LayoutOf<'path'>, index: number): Placement {
  const { curve, spacing, attitude } = layout;
  const count = valueOf(layout.count);
  const length = wayLength(curve);
  const whole = count > 1 ? (length * index) / (isClosed(curve) ? count : count - 1) : 0;
  const from = wayAt(curve, 0);
  const to = wayAt(curve, spacing ? offsetAt(spacing, count, index) : whole);
  const shift = subtract(to.point, from.point);
  if (attitude === 'keeping') return shifted(shift);
  return about(from.point, to.turn, shift);
}
