import { valueOf } from '../../document/items.ts';
import { NO_TURN } from '../../space/pose.ts';
import { scale, type Vec3 } from '../../space/vector.ts';
import { declareVerb, needed, optional, refuse, type VerbContext } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { lockedRefusal, shiftPart, withoutNested } from '../shared/placing.ts';

/** Spreads parts along a direction, in the order in which they stand. */
export const distribute = declareVerb({
  id: 'distribute',
  name: 'Distribute',
  group: 'place',
  about: 'Equal gaps, equal centres or a stated gap, along an axis or a picked direction.',
  words: ['space', 'spread', 'even', 'gap', 'equal', 'spacing'],
  blanks: {
    parts: needed('parts', 'parts', 'What is spread.', { least: 2 }),
    along: needed('direction', 'along', 'X, Y or Z, or a picked edge or face.', { default: 'x' }),
    by: needed('choice', 'by', 'What becomes equal.', {
      default: 'gaps',
      choices: { gaps: 'equal gaps', centres: 'equal centres', gap: 'a stated gap' },
    }),
    gap: optional('length', 'gap', 'Between one part and the next; less than zero overlaps them.', {
      askedBy: ['by', 'gap'],
    }),
    keeping: needed('choice', 'keeping', 'Which parts stay where they are.', {
      default: 'ends',
      choices: { ends: 'both ends', first: 'the first' },
    }),
  },
  sentence: 'Distribute {parts} along {along} by {by}[ of {gap}], keeping {keeping}',
  apply(draft, { parts, along, by, gap, keeping }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    if (by === 'gap' && gap === undefined) return refuse('missing.how-wide', {}, 'gap');
    const chosen = withoutNested(draft, parts);
    const min = by === 'gap' ? 2 : 3;
    if (chosen.length < min) return refuse('too-few.parts', { least: min }, 'parts');
    const direction = worldDirection(along, NO_TURN);
    const middle = (r: readonly [number, number]) => (r[0] + r[1]) / 2;
    const rows = chosen
      .map((id) => ({ id, range: rangeAlong(id, direction, context) }))
      .sort((a, b) => middle(a.range) - middle(b.range));
    const ranges = rows.map(({ range }) => range);
    const starts =
      by === 'centres' ? spreadCentres(ranges) : spreadGaps(ranges, by === 'gap' ? valueOf(gap!) : undefined);
    const total = ranges.at(-1)![0] - starts.at(-1)!;
    // A stated gap cannot keep both ends: then the middle of the row stays.
    const ease = by === 'gap' && keeping === 'ends' ? total / 2 : 0;
    rows.forEach(({ id, range }, i) => {
      const isEnd = keeping === 'ends' && by !== 'gap' && i === rows.length - 1;
      shiftPart(draft, draft.items[id]!, scaled(direction, isEnd ? 0 : starts[i]! - range[0] + ease));
    });
    return { select: parts };
  },
});

const scaled = (direction: Vec3, by: number): Vec3 =>
  scale(direction, by).map((n) => n + 0) as unknown as Vec3;

/** Least and greatest coordinate of a part along a direction. */
export function rangeAlong(
  part: string,
  direction: Vec3,
  context: Pick<VerbContext, 'worldBox' | 'ask'>,
): readonly [number, number] {
  const axis = direction.findIndex((n) => Math.abs(n) === 1);
  if (axis < 0) return context.ask<'extent'>({ ask: 'extent', part, direction });
  const { min, max } = context.worldBox(part);
  return direction[axis]! > 0 ? [min[axis]!, max[axis]!] : [-max[axis]!, -min[axis]!];
}

type Ranges = readonly (readonly [number, number])[];

/** Where each begins, so that what lies between them is equal: the stated gap, or what keeps the ends in place. */
function spreadGaps(ranges: Ranges, stated: number | undefined): number[] {
  const sizes = ranges.map(([least, most]) => most - least);
  const whole = ranges.at(-1)![1] - ranges[0]![0];
  const gap = stated ?? (whole - sizes.reduce((a, b) => a + b, 0)) / (ranges.length - 1);
  let next = ranges[0]![0];
  return sizes.map((size) => {
    const start = next;
    next += size + gap;
    return start;
  });
}

function spreadCentres(ranges: Ranges): number[] {
  const centres = ranges.map(([least, most]) => (least + most) / 2);
  const step = (centres.at(-1)! - centres[0]!) / (ranges.length - 1);
  return ranges.map(([least, most], i) => centres[0]! + i * step - (most - least) / 2);
}
