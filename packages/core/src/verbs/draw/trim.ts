import { declareVerb, needed, optional } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { profileBlank, addEdit, inProfile, besides } from '../shared/curveSteps.ts';

export const trim = declareVerb({
  id: 'trim',
  name: 'Trim',
  group: 'draw',
  about: 'Takes out the piece of a profile that you point at, as far as other curves cross it.',
  words: ['cut', 'remove', 'clean', 'crossing'],
  blanks: {
    profile: profileBlank,
    at: needed('point', 'at', 'A point of the piece that goes.'),
    by: optional('parts', 'by', 'Profiles that cut it; without them only its own curves do.'),
  },
  sentence: 'Trim {profile} at {at}[ by {by}]',
  apply(draft, { profile, at, by }) {
    const fault = requireProfiles(draft, [profile, ...(by ?? [])], 'profile');
    if (fault) return fault;
    const near = inProfile(draft, profile, at);
    return addEdit(draft, profile, {
      edit: { kind: 'trim', near, profiles: besides(profile, by) },
      blank: 'at',
    });
  },
});
