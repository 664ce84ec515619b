import { addStep } from '../../document/halves.ts';
import { valueOf } from '../../document/items.ts';
import type { Num } from '../../document/schema.ts';
import { plainRegions, profilesBlank, regionsBlank, slantOf } from '../shared/bodies.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { frameOfProfiles, requireProfiles } from '../shared/drawing.ts';
import { frameInPart } from '../../statement/planes.ts';
import { solidToShape } from '../shared/shapingVerb.ts';

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
    along: optional('direction', 'along', 'The way on which it is laid; else square to its own plane.', {
      rare: true,
    }),
  },
  sentence: 'Emboss {part} with {profiles}[, {regions}], {how}, {depth} deep[, laid along {along}]',
  apply(draft, { part, profiles, regions, how, depth, along }) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    const definition = solidToShape(draft, part);
    if (isRefusal(definition)) return definition;
    if (how !== 'imprint' && !(valueOf(depth) > 0)) return refuse('not-positive.depth', {}, 'depth');
    const slant = slantOf(along, frameOfProfiles(draft, profiles));
    if (isRefusal(slant)) return slant;
    const { kept } = frameInPart(draft, part, frameOfProfiles(draft, profiles));
    addStep(definition, {
      kind: 'emboss',
      profiles: [...profiles],
      regions: plainRegions(regions),
      frame: kept,
      slant,
      depth: how === 'imprint' ? 0 : how === 'engrave' ? negative(depth) : depth,
    });
    return { select: [part] };
  },
});

const negative = (n: Num): Num =>
  typeof n === 'number' ? -n : { formula: `-(${n.formula})`, value: -n.value };
