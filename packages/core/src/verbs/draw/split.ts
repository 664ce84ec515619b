import { declareVerb, needed } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { profileBlank, addEdit, inProfile } from '../shared/curveSteps.ts';

export const split = declareVerb({
  id: 'split',
  name: 'Split profile',
  group: 'draw',
  about: 'Cuts a profile at the point of its curves that is nearest; a closed one opens there.',
  words: ['break', 'divide', 'open', 'cut'],
  blanks: { profile: profileBlank, at: needed('point', 'at', 'A point on it.') },
  sentence: 'Split profile {profile} at {at}',
  apply(draft, { profile, at }) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    return addEdit(draft, profile, {
      edit: { kind: 'split', near: inProfile(draft, profile, at) },
      blank: 'at',
    });
  },
});
