import { isFlatPart } from '../../document/items.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { namedAs, onPlane } from '../shared/drawing.ts';
import { drawPaths } from '../shared/outlines.ts';

/** Where a plane cuts a part, as a profile; on a face of it the outline of the face. */
export const outline = declareVerb({
  id: 'outline',
  name: 'Outline of',
  group: 'draw',
  about: 'The outline of a part as a profile: where a plane cuts it, of a flat face, or its silhouette.',
  words: ['section', 'cut', 'trace', 'face', 'edges', 'project', 'convert', 'silhouette', 'shadow'],
  blanks: {
    part: needed('part', 'part', 'A solid.'),
    how: needed(
      'choice',
      'what',
      'Where the plane cuts it, its whole shadow on the plane, or its face there.',
      {
        default: 'cut',
        choices: {
          cut: 'where the plane cuts it',
          shadow: 'its silhouette',
          face: 'the edges of its face there',
        },
      },
    ),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Outline of {part}[, {how}] on {on}[ named {as}]',
  apply(draft, { part, how, on, as }, context) {
    if (isFlatPart(draft, draft.items[part]!))
      return refuse('flat.solid', { name: draft.items[part]!.name }, 'part');
    if (how === 'face' && on.face === undefined) return refuse('face.on', {}, 'on');
    const { turn, shift, face } = on;
    const paths = context.ask<'cut'>({
      ask: 'cut',
      part,
      plane: { turn, shift },
      how: how === 'face' ? { face: face! } : how === 'shadow' ? 'shadow' : 'cut',
    });
    return drawPaths(draft, context, {
      name: as ?? `Outline of ${draft.items[part]!.name}`,
      paths,
      plane: on,
    });
  },
});
