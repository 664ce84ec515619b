import { definitionOf } from '../../document/items.ts';
import { declareVerb, needed } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { addEdit } from '../shared/curveSteps.ts';

export const reverse = declareVerb({
  id: 'reverse',
  name: 'Reverse',
  group: 'draw',
  about: 'Lets profiles run the other way: their start becomes their end, their left their right.',
  words: ['direction', 'turn round', 'flip', 'backwards'],
  blanks: { profiles: needed('parts', 'profiles', 'Drawn profiles.', { least: 1 }) },
  sentence: 'Reverse {profiles}',
  apply(draft, { profiles }) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    for (const id of profiles) {
      const { steps } = definitionOf(draft, draft.items[id]!).recipe;
      // Twice round is not at all.
      if (steps.at(-1)?.kind === 'reverse') steps.pop();
      else {
        const done = addEdit(draft, id, { edit: { kind: 'reverse' }, blank: 'profiles' });
        if ('refused' in done) return done;
      }
    }
    return { select: profiles };
  },
});
