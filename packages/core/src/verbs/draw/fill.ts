import { addBody, asBlank, profilesBlank } from '../shared/bodies.ts';
import { declareVerb } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';

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
