/** Surfaces, and bodies from them. */
import { isSurface, type BodyOf, type RecipeStep } from '../recipes/bodies/index.ts';
import { definitionOf, isFlatPart, valueOf } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, Part } from '../document/schema.ts';
import { addBody, asBlank, profilesBlank } from './bodies.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Outcome,
  type Refusal,
  type VerbContext,
} from './declare.ts';
import { requireProfiles } from './drawing.ts';

/** A surface within a loop of curves. */
export const fill = declareVerb({
  id: 'fill',
  name: 'Fill',
  group: 'draw',
  about: 'A smooth surface within a loop of curves, which may lie in several planes.',
  words: ['patch', 'surface', 'membrane', 'skin', 'cover'],
  blanks: {
    profiles: { ...profilesBlank, about: 'Profiles that together run round in one loop.' },
    as: asBlank,
  },
  sentence: 'Fill {profiles}[ named {as}]',
  apply(draft, { profiles, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    const base = { kind: 'fill' as const, profiles: [...profiles] };
    return addBody(draft, { name: as ?? 'Surface', base, profiles, how: 'new', into: undefined }, context);
  },
});

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
    if (isFlatPart(draft, draft.items[part]!)) return thickened(draft, part, { height, step, as }, context);
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    if (height !== undefined) return refuse('height', 'A surface has its height: leave this out.', 'height');
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
  draft: KadrelDocument,
  profile: ItemId,
  { height, step, as }: { height: Num | undefined; step: ThickenStep; as: string | undefined },
  context: VerbContext,
): Outcome | Refusal {
  const fault = requireProfiles(draft, [profile], 'part');
  if (fault) return fault;
  if (height === undefined)
    return refuse('missing', `${draft.items[profile]!.name} is a drawing: say how high it rises.`, 'height');
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

/** The flat openings of a surface are closed. */
export const close = declareVerb({
  id: 'close',
  name: 'Cap ends',
  group: 'draw',
  about: 'Closes the flat openings of a surface, so that it becomes a body.',
  words: ['cap', 'close', 'lid', 'seal', 'watertight'],
  blanks: { part: needed('part', 'surface', 'A surface.') },
  sentence: 'Cap ends of {part}',
  apply(draft, { part }) {
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    found.recipe.steps.push({ kind: 'close' });
    return { select: [part] };
  },
});

function surfaceNamed(draft: KadrelDocument, part: ItemId): Part | Refusal {
  const item = draft.items[part]!;
  const definition = definitionOf(draft, item);
  if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
  if (isSurface(definition)) return definition;
  return refuse(
    'no-surface',
    isFlatPart(draft, item)
      ? `${item.name} is a drawing: raise it as a surface first.`
      : `${item.name} is no surface: it is closed already.`,
    'part',
  );
}
