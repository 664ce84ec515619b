import { worldFromPart } from '../../document/items.ts';
import type { ItemId } from '../../document/schema.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { cutKeeping } from '../shared/cutKeeping.ts';
import { drawPaths } from '../shared/outlines.ts';
import { notSolid } from '../shared/sectionPlane.ts';

/** What a section plane cuts, as profiles that follow it, or stay as they are. */
export const keepCut = declareVerb({
  id: 'keep-cut',
  name: 'Keep the cut',
  group: 'cut',
  about: 'The outlines that a section plane cuts, as profiles in its plane.',
  words: ['section', 'outline', 'profile', 'curve', 'trace', 'contour'],
  blanks: {
    section: needed('part', 'of', 'The section plane.'),
    parts: optional(
      'parts',
      'through',
      'Whose outlines are kept; of all parts that it cuts where none is said.',
    ),
    keeps: cutKeeping,
  },
  sentence: 'Keep the cut of {section}[ through {parts}], {keeps}',
  apply(draft, { section, parts, keeps }, context) {
    const { name, recipe } = draft.items[section]!;
    if (recipe.base.kind !== 'section') return refuse('section', { name }, 'section');
    const fault = notSolid(draft, parts);
    if (fault) return fault;
    const wanted = parts && new Set(parts);
    const found = context
      .ask<'outlines'>({ ask: 'outlines', part: section })
      .filter(({ item }) => !wanted || wanted.has(item));
    if (found.length === 0) return refuse('nothing.section', { name }, 'section');
    const plane = worldFromPart(draft, section);
    const made: ItemId[] = [];
    for (const { item, paths } of found) {
      const drawn = drawPaths(draft, context, {
        name: `${name} through ${draft.items[item]!.name}`,
        paths,
        plane,
      });
      if (isRefusal(drawn)) return drawn;
      if (keeps === 'following')
        draft.items[drawn.result!]!.traced = { by: 'section', section, through: item };
      made.push(drawn.result!);
    }
    return { select: made };
  },
});
