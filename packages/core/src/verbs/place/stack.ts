import { valueOf } from '../../document/items.ts';
import type { Box } from '../../space/box.ts';
import { add, type Vec3 } from '../../space/vector.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { lockedRefusal, shiftPart, withoutNested } from '../shared/placing.ts';

const SIDES = {
  top: { words: 'on top of', axis: 2, sign: 1 },
  under: { words: 'under', axis: 2, sign: -1 },
  right: { words: 'to the right of', axis: 0, sign: 1 },
  left: { words: 'to the left of', axis: 0, sign: -1 },
  back: { words: 'behind', axis: 1, sign: 1 },
  front: { words: 'in front of', axis: 1, sign: -1 },
} as const;

/** Puts parts on top of another, or beside it, one after another, touching or a stated gap apart, by their exact boxes. */
export const stack = declareVerb({
  id: 'stack',
  name: 'Stack',
  group: 'place',
  about: 'On top of a part, or beside it, one after another, touching or a gap apart.',
  words: ['on top', 'beside', 'pile', 'next to', 'behind', 'under'],
  blanks: {
    parts: needed('parts', 'parts', 'What is stacked, in this order.', { least: 1 }),
    side: needed('choice', 'side', 'Where it goes.', {
      default: 'top',
      choices: Object.fromEntries(Object.entries(SIDES).map(([key, { words }]) => [key, words])),
    }),
    onto: needed('part', 'part', 'What it is put on or beside.'),
    gap: needed('length', 'gap', 'Between one and the next; 0 touches.', { default: '0' }),
    placed: needed('choice', 'placed', 'Where it stands on the two other axes.', {
      default: 'centred',
      choices: {
        centred: 'centred',
        leave: 'as it is',
        min: 'least sides in line',
        max: 'greatest sides in line',
      },
    }),
  },
  sentence: 'Stack {parts} {side} {onto} with a gap of {gap}[, {placed}]',
  apply(draft, { parts, side, onto, gap, placed }, context) {
    const chosen = withoutNested(draft, parts).filter((id) => id !== onto);
    if (chosen.length === 0) return refuse('too-few.put', {}, 'parts');
    const locked = lockedRefusal(draft, chosen);
    if (locked) return locked;
    const { axis, sign } = SIDES[side as keyof typeof SIDES];
    let under = context.worldBox(onto);
    for (const id of chosen) {
      const box = context.worldBox(id);
      const shift = [0, 1, 2].map((i) => {
        if (i === axis)
          return sign > 0
            ? under.max[i] + valueOf(gap) - box.min[i]
            : under.min[i] - valueOf(gap) - box.max[i];
        if (placed === 'leave') return 0;
        if (placed === 'min') return under.min[i]! - box.min[i]!;
        if (placed === 'max') return under.max[i]! - box.max[i]!;
        return (under.min[i]! + under.max[i]!) / 2 - (box.min[i]! + box.max[i]!) / 2;
      }) as unknown as Vec3;
      shiftPart(draft, draft.items[id]!, shift);
      under = shifted(box, shift);
    }
    return { select: parts };
  },
});

const shifted = ({ min, max }: Box, by: Vec3): Box => ({ min: add(min, by), max: add(max, by) });
