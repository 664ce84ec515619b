import { lineage, topParts } from '../../document/items.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';

/** Brings parts back into sight, or leaves nothing else in it. */
export const show = declareVerb({
  id: 'show',
  name: 'Show',
  group: 'edit',
  about: 'All that is hidden, or only these parts and nothing else.',
  words: ['unhide', 'visible', 'isolate', 'only these', 'all'],
  blanks: {
    which: needed('choice', 'which', 'Everything, or only some parts.', {
      default: 'all',
      choices: { all: 'all', only: 'only', these: 'also' },
    }),
    parts: optional('parts', 'parts', 'What is shown.'),
  },
  sentence: 'Show {which}[ {parts}]',
  apply(draft, { which, parts = [] }) {
    if (which !== 'all' && parts.length === 0) return refuse('missing.parts', {}, 'parts');
    const wanted = new Set(parts.flatMap((id) => lineage(draft, id)));
    for (const part of topParts(draft))
      if (which !== 'these' || wanted.has(part.id)) part.visible = which === 'all' || wanted.has(part.id);
    for (const id of parts) draft.items[id]!.visible = true;
    return parts.length > 0 ? { select: parts } : {};
  },
});
