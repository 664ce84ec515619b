import { worldFromPart } from '../../document/items.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { frameInPart } from '../../statement/planes.ts';
import { surfaceNamed } from '../shared/surfaces.ts';

/** Surfaces become one where their rims meet, or nearly do. */
export const joinSurfaces = declareVerb({
  id: 'join-surfaces',
  name: 'Join surfaces',
  group: 'draw',
  about:
    'Makes one surface of several whose rims meet, or are no farther apart than a gap; Cap ends makes a body of it.',
  words: ['sew', 'stitch', 'mend', 'heal', 'gap', 'close', 'watertight', 'quilt'],
  blanks: {
    parts: needed('parts', 'surfaces', 'The first goes on in the others, which are hidden.', { least: 2 }),
    gap: needed('length', 'gap', 'Rims no farther apart than this become one edge.', {
      default: '0.01 mm',
      positive: true,
    }),
  },
  sentence: 'Join surfaces {parts}, closing gaps up to {gap}',
  apply(draft, { parts: [first, ...others], gap }) {
    const found = surfaceNamed(draft, first!);
    if (isRefusal(found)) return { ...found, blank: 'parts' };
    for (const tool of others) {
      const other = surfaceNamed(draft, tool);
      if (isRefusal(other)) return { ...other, blank: 'parts' };
      const { kept } = frameInPart(draft, found.id, worldFromPart(draft, tool));
      found.recipe.steps.push({ kind: 'joined', tool, frame: kept, gap });
      draft.items[tool]!.visible = false;
    }
    return { select: [first!] };
  },
});
