import { isChosenType } from '../../recipes/chosen.ts';
import { boundFault, fieldsOf } from '../../recipes/fields.ts';
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
  refuseFor,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { readOne } from '../../statement/reading.ts';
import { readField } from '../shared/recipeBlanks.ts';

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
    field: optional('text', 'what', 'Another of its numbers or choices, by its name, as in “second width”.'),
    value: optional('text', 'becomes', 'What that is from now on.', { of: 'field' }),
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
  sentence:
    'Change step {step} of {part}[ to {depth}][, {field} {value}][, {state}][, done as number {to}][, {out}]',
  apply(draft, { part, step: index, to, out, ...said }, context) {
    const item = draft.items[part]!;
    const count = builtRecipe(draft, item).steps.length;
    if (index > count) return refuse('no-step.step', { name: item.name, count }, 'step');
    const { steps, at } = stepList(draft, item, index - 1);
    const found = steps[at]!;
    if (item.locked) return refuse('locked', { name: item.name }, 'part');
    const place = to === undefined ? at : at + to - index;
    if (!steps[place]) return refuse('no-step.to', { to: to! }, 'to');
    const changed = withChange(found, said, context);
    if (isRefusal(changed)) return changed;
    steps.splice(at, 1);
    if (out !== 'yes') steps.splice(place, 0, switched(changed, said.state));
    const { fault } = drawnOf(draft, part);
    if (fault) return refuseFor(fault.why, 'depth');
    return { select: [part] };
  },
});

interface Said {
  readonly depth: string | undefined;
  readonly field: string | undefined;
  readonly value: string | undefined;
}

function withChange(step: RecipeStep, { depth, field, value }: Said, context: VerbContext) {
  const numbered = depth === undefined ? step : withNumber(step, depth, context);
  if (isRefusal(numbered) || (field === undefined && value === undefined)) return numbered;
  if (field === undefined) return refuse('missing.field', {}, 'field');
  return withField(numbered, { name: field, value }, context);
}

/** The step with one of its fields as typed; a list of numbers may be emptied. */
function withField(
  step: RecipeStep,
  { name, value }: { readonly name: string; readonly value: string | undefined },
  context: VerbContext,
): RecipeStep | Refusal {
  const fields = fieldsOf(stepKind(step).schema).filter(([, field]) => !isChosenType(field.type));
  const found = fields.find(([key, field]) => [key, field.label.toLowerCase()].includes(name.toLowerCase()));
  if (!found) {
    const known = fields.map(([, { label }]) => label.toLowerCase()).join(', ');
    return refuse('no-field.field', { name, words: known ? `; it has ${known}` : '' }, 'field');
  }
  const [key, field] = found;
  const text = value ?? (field.type === 'numbers' ? '' : undefined);
  if (text === undefined) return refuse('missing.value', { name }, 'value');
  if ('choices' in field && !Object.hasOwn(field.choices, text))
    return refuse('choice.value', { choices: Object.keys(field.choices).join(', ') }, 'value');
  const now = (step as Readonly<Record<string, unknown>>)[key];
  const given = field.type === 'vector' ? text.split(',') : text;
  const read = readField({ field, now, given }, { context, blank: 'value' });
  if (isRefusal(read)) return read;
  const { [key]: _, ...others } = step as Record<string, unknown>;
  const changed = (read === undefined ? others : { ...others, [key]: read }) as unknown as RecipeStep;
  const together = stepKind(changed).fault?.(changed);
  return together ? refuseFor(together, 'value') : changed;
}

function switched(step: RecipeStep, state: string | undefined): RecipeStep {
  if (state === undefined) return step;
  const { off: _, ...on } = step;
  return state === 'off' ? { ...on, off: true } : on;
}

/** The step with its number as typed. */
function withNumber(step: RecipeStep, text: string, context: VerbContext): RecipeStep | Refusal {
  const number = numberOfStep(step);
  if (!number) return refuse('no-number', {}, 'depth');
  const { kind, value: now, label } = number;
  const read = readOne(text, { kind, now, context, blank: 'depth' });
  if (isRefusal(read)) return read;
  const fault = boundFault(number, valueOf(read));
  if (fault) return refuse('out-of-bounds', { label, fault }, 'depth');
  const changed = number.with(read);
  const together = stepKind(changed).fault?.(changed);
  return together ? refuseFor(together, 'depth') : changed;
}
