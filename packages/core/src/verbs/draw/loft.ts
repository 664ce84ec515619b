import { addBody, asBlank, endsBlank, endsOf } from '../shared/bodies.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';

/** A body between sections, each in its own place. */
export const loft = declareVerb({
  id: 'loft',
  name: 'Loft',
  group: 'draw',
  about: 'A body through two or more sections, one after another; inner outlines leave a hollow.',
  words: ['blend', 'through', 'sections', 'skin', 'transition', 'hollow', 'funnel', 'rails', 'guides'],
  blanks: {
    profiles: needed('parts', 'sections', 'Closed profiles, in the order in which it goes through them.', {
      least: 2,
    }),
    flanks: needed('choice', 'flanks', 'Straight from section to section, or one smooth curve through all.', {
      default: 'smooth',
      choices: { smooth: 'smooth', ruled: 'straight between them' },
    }),
    closed: needed('choice', 'round', 'Whether it goes on from the last section to the first.', {
      default: 'no',
      choices: { no: 'from the first to the last', yes: 'and back to the first' },
      rare: true,
    }),
    guides: optional(
      'parts',
      'guides',
      'Open profiles from the first section to the last, on which its sides run.',
      {
        rare: true,
      },
    ),
    ends: endsBlank,
    as: asBlank,
  },
  sentence: 'Loft {profiles}[, {flanks}][, {closed}][, guided by {guides}][, {ends}][ named {as}]',
  apply(draft, { profiles, flanks, closed, guides = [], ends, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles') ?? requireProfiles(draft, guides, 'guides');
    if (fault) return fault;
    const sections = profiles.filter((id) => !guides.includes(id));
    if (sections.length < 2) return refuse('too-few.profiles', {}, 'profiles');
    if (closed === 'yes' && sections.length < 3) return refuse('too-few.closed', {}, 'closed');
    if (guides.length > 0 && (sections.length > 2 || closed === 'yes')) return refuse('guides', {}, 'guides');
    return addBody(
      draft,
      {
        name: as ?? 'Loft',
        base: {
          kind: 'loft',
          profiles: [...sections, ...guides],
          guides: guides.length,
          flanks: flanks === 'ruled' ? 'ruled' : 'smooth',
          closed: closed === 'yes',
          starts: sections.map(() => 0),
          ends: endsOf(ends),
        },
        profiles: sections,
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});
