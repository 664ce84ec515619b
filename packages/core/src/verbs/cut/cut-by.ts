import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { definitionOf, isFlatPart, valueOf, withAllBelow, worldFromPart } from '../../document/items.ts';
import { isSurface } from '../../recipes/bodies/index.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { frameInPart } from '../../statement/planes.ts';
import { splitInTwo, trimAll, type CutStep } from '../shared/cutting.ts';

const KEPT = {
  both: 'both sides stay',
  front: 'what lies within stays',
  behind: 'what lies outside stays',
} as const;

/** Solids are cut where another one goes through them; that one stays as it is. */
export const cutByPart = declareVerb({
  id: 'cut-by',
  name: 'Cut by part',
  group: 'cut',
  about: 'Cuts solids where another part goes through them; where that is moved or changed, the cut follows.',
  words: ['split', 'trim', 'divide', 'separate', 'tool', 'inside', 'outside', 'knife'],
  blanks: {
    parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
    by: needed('part', 'by', 'The part that goes through them. It stays.'),
    keep: needed('choice', 'kept', 'What lies within the other part, outside it, or both.', {
      default: 'both',
      choices: KEPT,
    }),
    clearance: optional('length', 'clearance', 'Left all round the part that goes through them.', {
      rare: true,
    }),
  },
  sentence: 'Cut by part {by} through {parts}[ with {clearance} all round], {keep}',
  apply(draft, { parts, by, keep, clearance }, context) {
    const fault = toolFault(draft, parts, by);
    if (fault) return fault;
    if (clearance !== undefined && !(valueOf(clearance) > 0))
      return refuse('not-positive.clearance', {}, 'clearance');
    const place = worldFromPart(draft, by);
    const stepOf = (id: ItemId): CutStep => ({
      kind: 'cutBy',
      tool: by,
      frame: frameInPart(draft, id, place).kept,
      keep: keep === 'behind' ? 'behind' : 'front',
      ...(clearance !== undefined && { clearance }),
    });
    if (keep !== 'both') return trimAll(draft, parts, stepOf) ?? { select: parts };
    const halves = splitInTwo(draft, { parts, stepOf }, context);
    return isRefusal(halves) ? halves : { select: halves };
  },
});

function toolFault(draft: KadrelDocument, parts: readonly ItemId[], by: ItemId): Refusal | undefined {
  const tool = draft.items[by]!;
  if (isFlatPart(draft, tool) || isSurface(definitionOf(draft, tool)))
    return refuse('no-solid', { name: tool.name }, 'by');
  const below = new Set(withAllBelow(draft, by).map(({ id }) => id));
  const within = parts.find((id) => below.has(id));
  if (within === undefined) return undefined;
  return within === by
    ? refuse('itself.cut', { name: tool.name }, 'by')
    : refuse('itself.made-from', { name: tool.name, part: draft.items[within]!.name }, 'by');
}
