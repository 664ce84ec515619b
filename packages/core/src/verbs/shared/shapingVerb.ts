/** Steps that are added to solids, and the verbs of those that are given by their numbers alone. */
import { isSurface } from '../../recipes/bodies/index.ts';
import { blankOf, fieldsOf } from '../../recipes/fields.ts';
import type { RecipeStep } from '../../recipes/steps/index.ts';
import type { StepKind } from '../../recipes/steps/declare.ts';
import { addStep, shapedPart } from '../../document/halves.ts';
import { definitionOf, isFlatPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../../document/schema.ts';
import { blankFor, recipeOf } from './makingVerb.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Blank,
  type Refusal,
  type Verb,
} from '../../statement/declare.ts';

/** The part whose recipe a step is added to: the solid itself, or what it is linked to. A half takes steps of its own. */
export function solidToShape(draft: KadrelDocument, id: ItemId): Part | Refusal {
  const item = draft.items[id]!;
  const definition = definitionOf(draft, item);
  if (isFlatPart(draft, item)) return refuse('flat.solid', { name: item.name }, 'part');
  if (isSurface(definition)) return refuse('surface.open', { name: item.name }, 'part');
  if (item.locked) return refuse('locked', { name: item.name }, 'part');
  const { kind } = definition.recipe.base;
  return kind === 'pattern' || kind === 'group'
    ? refuse('whole.consists', { name: item.name }, 'part')
    : shapedPart(draft, item);
}

/** Its blanks are the solid and its fields. */
export function shapingVerb(kind: StepKind): Verb {
  const { make } = kind;
  if (!make) throw new Error(`${kind.kind} does not say how it is made.`);
  const fields = fieldsOf(kind.schema);
  return declareVerb<Record<string, Blank>>({
    id: make.id,
    name: make.name,
    group: 'shape',
    about: make.about,
    words: make.words,
    blanks: {
      part: needed('part', 'part', 'The solid.'),
      ...Object.fromEntries(
        fields.map(([key, field]) => [
          blankOf(key, field),
          blankFor(field, 'mayBeNone' in field || field.type === 'numbers' ? optional : needed),
        ]),
      ),
    },
    sentence: make.sentence,
    apply(draft, given) {
      const { part } = given as { part: ItemId };
      const solid = solidToShape(draft, part);
      if (isRefusal(solid)) return solid;
      const step = recipeOf(
        { kind: kind.kind, schema: kind.schema, fault: (step) => kind.fault?.(step) },
        given,
      );
      if (isRefusal(step)) return step;
      addStep(solid, step as unknown as RecipeStep);
      return { select: [part] };
    },
  });
}
