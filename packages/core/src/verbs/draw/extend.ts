import { declareVerb, needed, optional } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { profileBlank, addEdit, inProfile, besides } from '../shared/curveSteps.ts';

export const extend = declareVerb({
  id: 'extend',
  name: 'Extend',
  group: 'draw',
  about: 'Lets the free end nearest to a point go on to the first curve that it meets.',
  words: ['lengthen', 'meet', 'reach', 'stretch'],
  blanks: {
    profile: profileBlank,
    at: needed('point', 'at', 'Near the free end.'),
    to: optional('parts', 'to', 'Profiles that it goes on to; without them only its own curves count.'),
  },
  sentence: 'Extend {profile} at {at}[ to {to}]',
  apply(draft, { profile, at, to }) {
    const fault = requireProfiles(draft, [profile, ...(to ?? [])], 'profile');
    if (fault) return fault;
    const near = inProfile(draft, profile, at);
    return addEdit(draft, profile, {
      edit: { kind: 'extend', near, profiles: besides(profile, to) },
      blank: 'to',
    });
  },
});
