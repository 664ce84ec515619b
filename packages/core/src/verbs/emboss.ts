import { definitionOf, isFlatPart, valueOf, worldFromPart } from '../document/items.ts';
import type { Num } from '../document/schema.ts';
import { chain, inverse, roundPoint } from '../space/pose.ts';
import { plainRegions, profilesBlank, regionsBlank } from './bodies.ts';
import { declareVerb, needed, refuse } from './declare.ts';
import { frameOfProfiles, requireProfiles } from './drawing.ts';
import { degreesOf } from './planes.ts';

const HOW = { emboss: 'raised', engrave: 'cut in', imprint: 'only marked' } as const;

/** Outlines laid on a solid, flat or curved, square to their own plane. */
export const emboss = declareVerb({
  id: 'emboss',
  name: 'Emboss',
  group: 'shape',
  about: 'Lays an outline on a solid, square to its plane: raised by a depth, cut in by one, or only marked.',
  words: ['engrave', 'imprint', 'project', 'wrap', 'letters', 'logo', 'relief'],
  blanks: {
    part: needed('part', 'part', 'The solid that it is laid on.'),
    profiles: profilesBlank,
    regions: regionsBlank,
    how: needed('choice', 'how', 'Raised out of the surface, cut into it, or only marked on it.', {
      default: 'emboss',
      choices: HOW,
    }),
    depth: needed('length', 'depth', 'Square to the surface.', { default: '1 mm' }),
  },
  sentence: 'Emboss {part} with {profiles}[, {regions}], {how}, {depth} deep',
  apply(draft, { part, profiles, regions, how, depth }) {
    const item = draft.items[part]!;
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    if (isFlatPart(draft, item)) return refuse('flat', `${item.name} is no solid.`, 'part');
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
    const definition = definitionOf(draft, item);
    const { kind } = definition.recipe.base;
    if (kind === 'pattern' || kind === 'group')
      return refuse('whole', `${item.name} consists of several parts: choose one of them.`, 'part');
    if (how !== 'imprint' && !(valueOf(depth) > 0))
      return refuse('not-positive', 'The depth must be more than zero.', 'depth');
    const frame = chain(inverse(worldFromPart(draft, part)), frameOfProfiles(draft, profiles));
    definition.recipe.steps.push({
      kind: 'emboss',
      profiles: [...profiles],
      regions: plainRegions(regions),
      frame: { origin: [...roundPoint(frame.shift)], turn: degreesOf(frame) },
      depth: how === 'imprint' ? 0 : how === 'engrave' ? negative(depth) : depth,
    });
    return { select: [part] };
  },
});

const negative = (n: Num): Num =>
  typeof n === 'number' ? -n : { formula: `-(${n.formula})`, value: -n.value };
