import { standingOf } from '../../document/items.ts';
import type { KadrelDocument, LayerPlace, TracedOf } from '../../document/schema.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { chain, NO_TURN } from '../../space/pose.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { wrapParts } from '../shared/combine.ts';
import { layersOf, type Layers } from '../../statement/layers.ts';
import { cutKeeping } from '../shared/cutKeeping.ts';
import { HEIGHTS_SHOWN, showHeights } from '../shared/heights.ts';
import { drawPaths } from '../shared/outlines.ts';
import { notSolid } from '../shared/sectionPlane.ts';

/** A stack of cuts at a pitch, as profiles: layers to be cut from sheets, or contours. */
export const slices = declareVerb({
  id: 'slices',
  name: 'Slices',
  group: 'cut',
  about:
    'The outlines of parts at every so many millimetres, as profiles: layers of a stacked model, or contours.',
  words: ['layers', 'contours', 'stack', 'laser', 'sheets', 'section', 'terrain', 'levels'],
  blanks: {
    parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
    on: needed('plane', 'from', 'The plane that they are counted from, and lie along.', {
      default: 'plan',
      once: true,
    }),
    pitch: optional('length', 'pitch', 'From one to the next.', { positive: true, excludes: 'count' }),
    count: optional('count', 'count', 'How many, spread evenly over the height.', { excludes: 'pitch' }),
    at: needed('choice', 'at', 'Where within its layer each is cut.', {
      default: 'middle',
      choices: {
        bottom: 'at the bottom of each layer',
        middle: 'in the middle of each layer',
        top: 'at the top of each layer',
      },
    }),
    keeps: cutKeeping,
    heights: optional('choice', 'heights', 'Whether the height of each stands beside it.', {
      choices: HEIGHTS_SHOWN,
    }),
    as: optional('name', 'name', 'What the group of them is called.'),
  },
  sentence:
    'Slices of {parts} from {on}[, every {pitch}][, {count} in all], {at}, {keeps}[, {heights}][ named {as}]',
  apply(draft, { parts, on, pitch, count, at, keeps, heights: shown, as }, context) {
    const fault = notSolid(draft, parts);
    if (fault) return fault;
    const items = [...standingOf(draft, parts)];
    const by = { pitch: pitch && valueOf(pitch), count, at: at as LayerPlace };
    const heights = layersOf({ items, plane: on, ...by }, context);
    if (isRefusal(heights)) return heights;
    const layers = drawnLayers(draft, { items, plane: on, heights }, context);
    if (isRefusal(layers)) return layers;
    const made = layers.flatMap(({ item }) => item ?? []);
    if (made.length === 0) return refuse('nothing.slices', {}, 'parts');
    const name = as ?? `Slices of ${draft.items[parts[0]!]!.name}`;
    const group = wrapParts({ draft, context }, made, { name, base: { kind: 'group', members: [] } });
    if (keeps === 'following')
      draft.items[group]!.traced = {
        by: 'slices',
        parts: items,
        plane: { turn: [...on.turn], shift: [...on.shift] },
        at: by.at,
        ...(by.pitch === undefined ? {} : { pitch: by.pitch }),
        ...(by.count === undefined ? {} : { count: by.count }),
        layers: [...layers],
      };
    if (shown === 'shown') showHeights(draft, [group], on);
    return { result: group, select: [group] };
  },
});

type Heights = { readonly heights: readonly number[] };
type DrawnLayers = TracedOf<'slices'>['layers'];

function drawnLayers(
  draft: KadrelDocument,
  { items, plane, heights }: Pick<Layers, 'items' | 'plane'> & Heights,
  context: VerbContext,
): DrawnLayers | Refusal {
  const { turn, shift } = plane;
  const found = context.ask<'slices'>({ ask: 'slices', parts: items, plane: { turn, shift }, heights });
  const made: DrawnLayers = [];
  for (const [i, cut] of found.entries()) {
    const paths = cut.flatMap((one) => one.paths);
    made.push({ height: heights[i]!, item: null });
    if (paths.length === 0) continue;
    const there = chain({ turn, shift }, { turn: NO_TURN, shift: [0, 0, heights[i]!] });
    const drawn = drawPaths(draft, context, {
      name: `Slice ${made.filter(({ item }) => item !== null).length + 1}`,
      paths,
      plane: there,
    });
    if (isRefusal(drawn)) return drawn;
    made.at(-1)!.item = drawn.result!;
  }
  return made;
}
