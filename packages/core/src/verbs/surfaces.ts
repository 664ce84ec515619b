/** Surfaces, and bodies from them. */
import { isSurface } from '../document/bodies.ts';
import { definitionOf, isFlatPart, valueOf } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, Part } from '../document/schema.ts';
import { addBody, asBlank, profilesBlank } from './bodies.ts';
import { declareVerb, needed, refuse, type Refusal } from './declare.ts';
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

/** A surface becomes a body of a thickness; an open profile becomes a surface first, by raising it. */
export const thicken = declareVerb({
  id: 'thicken',
  name: 'Thicken',
  group: 'draw',
  about: 'Makes a body of a surface: as thick as you say, before it, behind it, or half on either side.',
  words: ['thickness', 'surface', 'shell', 'sheet', 'plate'],
  blanks: {
    part: needed('part', 'surface', 'A surface.'),
    thickness: needed('length', 'thickness', 'Square to the surface.', { positive: true }),
    side: needed('choice', 'side', 'Where it lies beside the surface.', { default: 'both', choices: SIDES }),
  },
  sentence: 'Thicken {part} by {thickness}[, {side}]',
  apply(draft, { part, thickness, side }) {
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    const half: Num =
      typeof thickness === 'number'
        ? thickness / 2
        : { formula: `(${thickness.formula}) / 2`, value: valueOf(thickness) / 2 };
    found.recipe.steps.push({
      kind: 'thicken',
      before: side === 'both' ? half : side === 'before' ? thickness : 0,
      behind: side === 'both' ? half : side === 'behind' ? thickness : 0,
    });
    return { select: [part] };
  },
});

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
      ? `${item.name} is a drawing: raise it as a surface first, or make a wall along it.`
      : `${item.name} is no surface: it is closed already.`,
    'part',
  );
}
