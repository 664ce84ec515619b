import { addBody, asBlank } from './bodies.ts';
import { declareVerb, needed } from './declare.ts';
import { requireProfiles } from './drawing.ts';

/** A body between sections, each in its own place. */
export const loft = declareVerb({
  id: 'loft',
  name: 'Loft',
  group: 'draw',
  about: 'A body through two or more sections, one after another; inner outlines leave a hollow.',
  words: ['blend', 'through', 'sections', 'skin', 'transition', 'hollow', 'funnel'],
  blanks: {
    profiles: needed('parts', 'sections', 'Closed profiles, in the order in which it goes through them.', {
      least: 2,
    }),
    flanks: needed('choice', 'flanks', 'Straight from section to section, or one smooth curve through all.', {
      default: 'smooth',
      choices: { smooth: 'smooth', ruled: 'straight between them' },
    }),
    as: asBlank,
  },
  sentence: 'Loft {profiles}[, {flanks}][ named {as}]',
  apply(draft, { profiles, flanks, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    return addBody(
      draft,
      {
        name: as ?? 'Loft',
        base: { kind: 'loft', profiles: [...profiles], flanks: flanks === 'ruled' ? 'ruled' : 'smooth' },
        profiles,
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});
