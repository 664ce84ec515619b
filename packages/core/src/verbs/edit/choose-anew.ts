import { builtRecipe, stepList } from '../../document/halves.ts';
import { CHOSEN_TYPES, type ChosenType } from '../../recipes/chosen.ts';
import { fieldsOf } from '../../recipes/fields.ts';
import { stepKind, type RecipeStep } from '../../recipes/steps/index.ts';
import { onFrom } from '../../statement/chosen.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  refuseFor,
  type Refusal,
} from '../../statement/declare.ts';

const BEFORE = 'Those that the step has taken already are named by their two faces.';

/** A step goes on with other edges, faces or corners than it was given first. */
export const chooseAnew = declareVerb({
  id: 'choose-anew',
  name: 'Choose anew',
  group: 'edit',
  about: 'Gives one of a part’s steps other edges, faces or corners; its numbers stay.',
  words: [
    'step',
    'edges',
    'faces',
    'corners',
    'fillet',
    'chamfer',
    'shell',
    'reselect',
    'replace',
    'add edge',
  ],
  blanks: {
    part: needed('part', 'part', 'Whose step.'),
    step: needed('count', 'step', 'Which one, counted from 1.', { default: '1' }),
    what: optional('text', 'what', 'Of a step that asks for faces twice: which, as in “other faces”.', {
      rare: true,
    }),
    edges: optional('edges', 'edges', `Edges, or a rule. ${BEFORE}`, {
      of: 'part',
      former: true,
      rare: true,
    }),
    faces: optional('faces', 'faces', 'The faces that it is about.', { of: 'part', rare: true }),
    places: optional('places', 'corners', 'Corners, edges and faces.', {
      of: 'part',
      former: true,
      rare: true,
    }),
  },
  sentence: 'Choose anew for step {step} of {part}[, {what}][: {edges}][: {faces}][: {places}]',
  apply(draft, { part, step: index, what, edges, faces, places }) {
    const item = draft.items[part]!;
    if (item.locked) return refuse('locked', { name: item.name }, 'part');
    const { length: count } = builtRecipe(draft, item).steps;
    if (index < 1 || index > count) return refuse('no-step.step', { name: item.name, count }, 'step');
    const { steps, at } = stepList(draft, item, index - 1);
    const changed = rechosen(steps[at]!, { edges, faces, places }, what);
    if (isRefusal(changed)) return changed;
    steps[at] = changed;
    return { select: [part] };
  },
});

type Given = Readonly<Record<ChosenType, readonly unknown[] | undefined>>;

/** The step with what is given in place of what it had of each sort. */
function rechosen(step: RecipeStep, given: Given, what: string | undefined): RecipeStep | Refusal {
  const types = CHOSEN_TYPES.filter((type) => given[type] !== undefined);
  if (types.length === 0) return refuse('missing.edges', {});
  const changed: Record<string, unknown> = { ...step };
  for (const type of types) {
    const [key, field] = fieldChosen(step, type, what) ?? [];
    if (!key || !field) return refuse('no-field.step-about', { what: what ?? type }, what ? 'what' : type);
    if (given[type]!.length === 0 && !('mayBeNone' in field)) return refuse('missing.take', { type }, type);
    changed[key] = JSON.parse(JSON.stringify(given[type]));
  }
  const made = changed as unknown as RecipeStep;
  const fault = stepKind(made).fault?.(made);
  return fault ? refuseFor(fault) : made;
}

/** The field of a step that holds edges, faces or corners; of several the first, or the one that is called so. */
const fieldChosen = (step: RecipeStep, type: ChosenType, what?: string) =>
  fieldsOf(stepKind(step).schema).find(
    ([key, one]) =>
      one.type === type &&
      (what === undefined || [key, one.label.toLowerCase()].includes(what.toLowerCase())),
  );

/** What a step was given, as a statement’s blanks hold it. @param on the part */
export function chosenOfStep(step: RecipeStep, on: string): Partial<Record<ChosenType, readonly unknown[]>> {
  const holder = step as unknown as Readonly<Record<string, readonly object[] | undefined>>;
  return Object.fromEntries(
    CHOSEN_TYPES.flatMap((type) => {
      const [key] = fieldChosen(step, type) ?? [];
      return key === undefined ? [] : [[type, (holder[key] ?? []).map((one) => asTyped(one, on))] as const];
    }),
  );
}

function asTyped(one: object, on: string): unknown {
  const { rule, around, from, near, ...named } = one as Readonly<Record<string, unknown>>;
  if (typeof rule === 'string') return rule;
  if (typeof around === 'string') return `around ${around}`;
  const at = typeof from === 'string' ? onFrom(from) : Object.values(named)[0];
  return near === undefined ? at : { on, at, near };
}
