import { boundFault } from '../../recipes/fields.ts';
import { numberOfStep, stepKind, type RecipeStep } from '../../recipes/steps/index.ts';
import { definitionOf, valueOf } from '../../document/items.ts';
import { drawnOf } from '../../document/drawn.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { readOne } from '../../statement/reading.ts';

/** Changes a step of a part, or takes it out. */
export const step = declareVerb({
  id: 'step',
  name: 'Change step',
  group: 'edit',
  about: 'Sets the number of one of a part’s steps (a depth, a thickness, a radius), or takes the step out.',
  words: ['steps', 'emboss', 'engrave', 'depth', 'remove', 'thickness', 'fillet'],
  blanks: {
    part: needed('part', 'part', 'Whose step.'),
    step: needed('count', 'step', 'Which one, counted from 1.', { default: '1' }),
    depth: optional(
      'quantity',
      'number',
      'Its depth out of the surface, its thickness, radius or tolerance.',
      {
        kind: 'length',
      },
    ),
    out: needed('choice', 'kept', 'Whether the step stays.', {
      default: 'no',
      choices: { no: 'kept', yes: 'taken out' },
    }),
  },
  sentence: 'Change step {step} of {part}[ to {depth}][, {out}]',
  apply(draft, { part, step: index, depth, out }, context) {
    const item = draft.items[part]!;
    const { steps } = definitionOf(draft, item).recipe;
    const found = steps[index - 1];
    if (!found) return refuse('no-step', `${item.name} has ${steps.length} steps.`, 'step');
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
    if (out === 'yes') steps.splice(index - 1, 1);
    else if (depth !== undefined) {
      const changed = withNumber(found, depth, context);
      if (isRefusal(changed)) return changed;
      steps[index - 1] = changed;
    }
    const { fault } = drawnOf(draft, part);
    if (fault) return refuse('edit', fault.message, 'depth');
    return { select: [part] };
  },
});

/** The step with its number as typed. */
function withNumber(step: RecipeStep, text: string, context: VerbContext): RecipeStep | Refusal {
  const number = numberOfStep(step);
  if (!number) return refuse('no-number', 'This step has no number.', 'depth');
  const { kind, value: now, label } = number;
  const read = readOne(text, { kind, now, context, blank: 'depth' });
  if (isRefusal(read)) return read;
  const fault = boundFault(number, valueOf(read));
  if (fault) return refuse('out-of-bounds', `${label} ${fault}.`, 'depth');
  const changed = number.with(read);
  const together = stepKind(changed).fault?.(changed);
  return together ? refuse('recipe', together.message, 'depth') : changed;
}
