import { type BodyOf, type RecipeStep } from '../../recipes/bodies/index.ts';
import { isFlatPart, valueOf } from '../../document/items.ts';
import type { ItemId, Num } from '../../document/schema.ts';
import { addBody, asBlank } from '../shared/bodies.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Outcome,
  type Refusal,
  type Drafting,
} from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { surfaceNamed } from '../shared/surfaces.ts';

const SIDES = { both: 'half on either side', before: 'before it', behind: 'behind it' } as const;

/** A surface becomes a body of a thickness; so does a profile, as the surface that it rises to. */
export const thicken = declareVerb({
  id: 'thicken',
  name: 'Thicken',
  group: 'draw',
  about:
    'Makes a body of a surface, or of what an open profile rises to: as thick as you say, before it, behind it, or half on either side.',
  words: ['thickness', 'surface', 'shell', 'sheet', 'plate'],
  blanks: {
    part: needed('part', 'surface', 'A surface, or a profile.'),
    thickness: needed('length', 'thickness', 'Square to the surface.', { positive: true }),
    side: needed('choice', 'side', 'Where it lies beside the surface.', { default: 'both', choices: SIDES }),
    height: optional('length', 'height', 'Of a profile: how far it rises from its plane.', {
      positive: true,
    }),
    as: asBlank,
  },
  sentence: 'Thicken {part} by {thickness}[, {side}][, {height} high][ named {as}]',
  apply(draft, { part, thickness, side, height, as }, context) {
    const step = thicknessStep(thickness, side);
    if (isFlatPart(draft, draft.items[part]!))
      return thickened({ draft, context }, part, { height, step, as });
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    if (height !== undefined) return refuse('height', {}, 'height');
    found.recipe.steps.push(step);
    return { select: [part] };
  },
});

function thicknessStep(thickness: Num, side: string): ThickenStep {
  const half: Num =
    typeof thickness === 'number'
      ? thickness / 2
      : { formula: `(${thickness.formula}) / 2`, value: valueOf(thickness) / 2 };
  return {
    kind: 'thicken',
    before: side === 'both' ? half : side === 'before' ? thickness : 0,
    behind: side === 'both' ? half : side === 'behind' ? thickness : 0,
  };
}

type ThickenStep = Extract<RecipeStep, { kind: 'thicken' }>;

/** What a profile rises to, as an open surface, made thick. */
function thickened(
  { draft, context }: Drafting,
  profile: ItemId,
  { height, step, as }: { height: Num | undefined; step: ThickenStep; as: string | undefined },
): Outcome | Refusal {
  const fault = requireProfiles(draft, [profile], 'part');
  if (fault) return fault;
  if (height === undefined) return refuse('missing.drawing', { name: draft.items[profile]!.name }, 'height');
  const profiles = [profile];
  const base: BodyOf<'raise'> = {
    kind: 'raise',
    profiles,
    regions: 'all',
    height,
    down: 0,
    draft: 0,
    ends: 'open',
  };
  const made = addBody(draft, { name: as ?? 'Sheet', base, profiles, how: 'new', into: undefined }, context);
  if (!isRefusal(made)) draft.items[made.result!]!.recipe.steps.push(step);
  return made;
}
