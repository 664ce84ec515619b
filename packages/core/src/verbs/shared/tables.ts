/** Tables of what stands: the points of a curve, the openings of a wall, the levels of tiers. What follows from them follows. */
import type { Opening, Tier } from '../../recipes/bodies/index.ts';
import { definitionOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../../document/schema.ts';
import type { FigureOf } from '../../recipes/figures/index.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';
import { typedLength, typedNumber } from '../../statement/typing.ts';

export type Base = Part['recipe']['base'];

/** The recipe that a table changes; of another kind, or of a locked part, it is refused. */
export function baseOf(
  draft: KadrelDocument,
  part: ItemId,
  { kind, words, blank }: { kind: Base['kind']; words: string; blank: string },
): Base | Refusal {
  const item = draft.items[part]!;
  const { base } = definitionOf(draft, item).recipe;
  if (item.locked) return refuse('locked', { name: item.name }, blank);
  return base.kind === kind ? base : refuse('other-kind', { name: item.name, words }, blank);
}

/** The rows that say a figure or a recipe, as they would be typed. */
export type Rows = Record<string, string>[];

export const rowsOfCurve = ({ points }: FigureOf<'curve'>): Rows =>
  points.map(([x, y]) => ({ x: typedLength(x), y: typedLength(y) }));

export const rowsOfOpenings = (of: readonly Opening[]): Rows =>
  of.map(({ leg, from, sill, width, height }) => ({
    leg: typedNumber(leg),
    from: typedLength(from),
    sill: typedLength(sill),
    width: typedLength(width),
    height: typedLength(height),
  }));

export const rowsOfTiers = (of: readonly Tier[]): Rows =>
  of.map(({ below, above, height, outline, flank, sides }) => ({
    below: typedLength(below),
    above: typedLength(above),
    height: typedLength(height),
    outline,
    flank,
    sides: typedNumber(sides),
  }));
