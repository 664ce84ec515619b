import { definitionOf } from '../document/items.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from './declare.ts';
import { readOne } from './reading.ts';

/** Changes a step of a part, or takes it out. */
export const step = declareVerb({
  id: 'step',
  name: 'Change step',
  group: 'edit',
  about: 'Sets the depth of one of a part’s steps, or takes the step out.',
  words: ['steps', 'emboss', 'engrave', 'depth', 'remove'],
  blanks: {
    part: needed('part', 'part', 'Whose step.'),
    step: needed('count', 'step', 'Which one, counted from 1.', { default: '1' }),
    depth: optional('quantity', 'depth', 'Out of the surface; less than zero is into it.', {
      kind: 'length',
    }),
    out: needed('choice', 'kept', 'Whether the step stays.', {
      default: 'no',
      choices: { no: 'kept', yes: 'taken out' },
    }),
  },
  sentence: 'Change step {step} of {part}[ to a depth of {depth}][, {out}]',
  apply(draft, { part, step: index, depth, out }, context) {
    const item = draft.items[part]!;
    const { steps } = definitionOf(draft, item).recipe;
    const found = steps[index - 1];
    if (!found) return refuse('no-step', `${item.name} has ${steps.length} steps.`, 'step');
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
    if (out === 'yes') steps.splice(index - 1, 1);
    else if (depth !== undefined) {
      const read = readOne(depth, 'length', found.depth, context, 'depth', false);
      if (isRefusal(read)) return read;
      found.depth = read;
    }
    return { select: [part] };
  },
});
