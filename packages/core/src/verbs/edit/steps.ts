import { boundFault } from '../../recipes/fields.ts';
import { numberOfStep, stepKind, type RecipeStep } from '../../recipes/steps/index.ts';
import { builtRecipe, stepList } from '../../document/halves.ts';
import { valueOf } from '../../document/items.ts';
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

/** Changes a step of a part, switches it on or off, moves it in their order, or takes it out. */
export const step = declareVerb({
  id: 'step',
  name: 'Change step',
  group: 'edit',
  about:
    'Sets the number of one of a part’s steps (a depth, a thickness, a radius), switches it on or off, moves it, or takes it out.',
  words: ['steps', 'emboss', 'engrave', 'depth', 'remove', 'thickness', 'fillet', 'order', 'switch', 'off'],
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
    state: optional('choice', 'state', 'A step that is off is kept, and not done.', {
      choices: { on: 'on', off: 'off' },
      unsaid: 'as it is',
    }),
    to: optional('count', 'place', 'Which one it becomes, counted from 1.'),
    out: needed('choice', 'kept', 'Whether the step stays.', {
      default: 'no',
      choices: { no: 'kept', yes: 'taken out' },
    }),
  },
  sentence: 'Change step {step} of {part}[ to {depth}][, {state}][, done as number {to}][, {out}]',
  apply(draft, { part, step: index, depth, state, to, out }, context) {
    const item = draft.items[part]!;
    const count = builtRecipe(draft, item).steps.length;
    if (index > count) return refuse('no-step', `${item.name} has ${count} steps.`, 'step');
    const { steps, at } = stepList(draft, item, index - 1);
    const found = steps[at]!;
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
    const place = to === undefined ? at : at + to - index;
    if (!steps[place]) return refuse('no-step', `This step cannot become number ${to}.`, 'to');
    const changed = depth === undefined ? found : withNumber(found, depth, context);
    if (isRefusal(changed)) return changed;
    steps.splice(at, 1);
    if (out !== 'yes') steps.splice(place, 0, switched(changed, state));
    const { fault } = drawnOf(draft, part);
    if (fault) return refuse('edit', fault.message, 'depth');
    return { select: [part] };
  },
});

function switched(step: RecipeStep, state: string | undefined): RecipeStep {
  if (state === undefined) return step;
  const { off: _, ...on } = step;
  return state === 'off' ? { ...on, off: true } : on;
}

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
