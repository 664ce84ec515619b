import type { RecipeStep } from '../document/bodies.ts';
import { definitionOf, valueOf } from '../document/items.ts';
import type { Num } from '../document/schema.ts';
import { drawnOf } from '../profiles/together.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from './declare.ts';
import { readOne } from './reading.ts';

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
      const fault = setNumber(found, depth, context);
      if (fault) return fault;
    }
    const { fault } = drawnOf(draft, part);
    if (fault) return refuse('edit', fault.message, 'depth');
    return { select: [part] };
  },
});

/** Each kind of step has one number, or none. */
function setNumber(step: RecipeStep, text: string, context: VerbContext): Refusal | undefined {
  const read = (now: Num, positive: boolean) => readOne(text, 'length', now, context, 'depth', positive);
  switch (step.kind) {
    case 'emboss': {
      const depth = read(step.depth, false);
      if (isRefusal(depth)) return depth;
      step.depth = depth;
      return undefined;
    }
    case 'corner': {
      const size = read(step.size, true);
      if (isRefusal(size)) return size;
      step.size = size;
      return undefined;
    }
    case 'thicken': {
      const now = valueOf(step.before) + valueOf(step.behind);
      const thickness = read(now, true);
      if (isRefusal(thickness)) return thickness;
      const share = (part: Num): Num =>
        valueOf(part) === 0 ? 0 : valueOf(part) === now ? thickness : valueOf(thickness) / 2;
      [step.before, step.behind] = [share(step.before), share(step.behind)];
      return undefined;
    }
    case 'resample': {
      if ('count' in step.by) {
        const count = readOne(text, 'count', step.by.count, context, 'depth', true);
        if (isRefusal(count)) return count;
        if (!Number.isInteger(valueOf(count)) || valueOf(count) < 2)
          return refuse('count', 'Points: a whole number from 2.', 'depth');
        step.by = { count: valueOf(count) };
        return undefined;
      }
      const tolerance = read(step.by.tolerance, true);
      if (isRefusal(tolerance)) return tolerance;
      step.by = { tolerance };
      return undefined;
    }
    default:
      return refuse('no-number', 'This step has no number.', 'depth');
  }
}
