import { definitionOf, standingWithin } from '../../document/items.ts';
import type { KadrelDocument, Part } from '../../document/schema.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { HEIGHTS_SHOWN, showHeights } from '../shared/heights.ts';

/** Heights beside contours, as on a map. */
export const contourHeights = declareVerb({
  id: 'contour-heights',
  name: 'Contour heights',
  group: 'cut',
  about: 'Shows beside slices and other profiles how high they lie over a plane, or hides it again.',
  words: ['contours', 'levels', 'elevation', 'map', 'terrain', 'label', 'slices'],
  blanks: {
    parts: needed('parts', 'profiles', 'Slices, or other profiles.', { least: 1 }),
    on: needed('plane', 'over', 'The plane that heights are told over.', { default: 'plan', once: true }),
    how: needed('choice', 'how', 'Whether they are shown.', { default: 'shown', choices: HEIGHTS_SHOWN }),
  },
  sentence: 'Contour heights of {parts} over {on}: {how}',
  apply(draft, { parts, on, how }) {
    const other = parts.map((id) => draft.items[id]!).find((part) => !hasProfile(draft, part));
    if (other) return refuse('no-profile', { name: other.name }, 'parts');
    if (how === 'shown') showHeights(draft, parts, on);
    else for (const id of parts) delete draft.items[id]!.heights;
    return { select: parts };
  },
});

const hasProfile = (draft: KadrelDocument, part: Part): boolean =>
  standingWithin(draft, part).some((one) => definitionOf(draft, one).recipe.base.kind === 'profile');
