import { declareVerb, needed } from '../../statement/declare.ts';
import { surfaceNamed } from '../shared/surfaces.ts';

/** A surface faces the other way: what lies before it, and behind it, change places. */
export const turnOver = declareVerb({
  id: 'turn-over',
  // Not “Turn …”: who types that means to turn a part.
  name: 'Flip surface',
  group: 'draw',
  about: 'Makes the inside of a surface its outside. A view that shows facing tells which is which.',
  words: ['turn inside out', 'reverse', 'normals', 'facing', 'orient', 'inside', 'outside'],
  blanks: { part: needed('part', 'surface', 'A surface.') },
  sentence: 'Flip surface {part}',
  apply(draft, { part }) {
    const found = surfaceNamed(draft, part);
    if ('refused' in found) return found;
    found.recipe.steps.push({ kind: 'turnOver' });
    return { select: [part] };
  },
});
