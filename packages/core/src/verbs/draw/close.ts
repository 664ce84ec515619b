import { declareVerb, needed } from '../../statement/declare.ts';
import { surfaceNamed } from '../shared/surfaces.ts';

/** The flat openings of a surface are closed. */
export const close = declareVerb({
  id: 'close',
  name: 'Cap ends',
  group: 'draw',
  about: 'Closes the flat openings of a surface, so that it becomes a body.',
  words: ['cap', 'close', 'lid', 'seal', 'watertight'],
  blanks: { part: needed('part', 'surface', 'A surface.') },
  sentence: 'Cap ends of {part}',
  apply(draft, { part }) {
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    found.recipe.steps.push({ kind: 'close' });
    return { select: [part] };
  },
});
