import { standingOf } from '../../document/items.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { packed } from '../../sheets/packing.ts';
import type { Num } from '../../document/schema.ts';
import type { WayCurve } from '../../recipes/layouts/index.ts';
import type { Dowels } from '../../sheets/dowels.ts';
import type { Pose } from '../../space/pose.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { inPlane } from '../../statement/planes.ts';
import { doesNotFit, idleDowel, layersIn, pageOf, type Layer } from '../shared/stacking.ts';
import { notSolid } from '../shared/sectionPlane.ts';
import { scaleFrom } from '../shared/sheets.ts';

/** A length of card, of which there is a usual one. */
const onCard = (label: string, about: string, usual: string) =>
  needed('length', label, about, { positive: true, paper: true, default: usual });

/** Layers of a model at a scale, numbered and laid out on sheets of card that are cut up; they follow the model. */
export const stackedModel = declareVerb({
  id: 'stacked-model',
  name: 'Stacked model',
  group: 'output',
  about:
    'Parts at a scale as layers of card, numbered and laid out on sheets to be cut, each marked with the next one.',
  words: ['layers', 'slices', 'laser', 'card', 'stack', 'nesting', 'cut', 'terrain', 'sheet model'],
  blanks: {
    parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
    on: needed('plane', 'from', 'The plane that they are counted from, and lie along.', {
      default: 'plan',
      once: true,
    }),
    scale: needed('text', 'scale', '1:50, or 2:1.', { default: '1:50' }),
    thickness: onCard('card', 'How thick the card is.', '2 mm'),
    width: onCard('sheet width', 'Of a sheet of card.', '420 mm'),
    height: onCard('sheet height', 'Of a sheet of card.', '297 mm'),
    margin: { ...onCard('margin', 'From the rim of a sheet.', '10 mm'), rare: true },
    spacing: { ...onCard('apart', 'Between layers on a sheet.', '4 mm'), rare: true },
    dowels: optional('path', 'dowels at', 'Places of holes through all layers that have room for them.', {
      rare: true,
    }),
    dowel: { ...onCard('dowel', 'How wide the holes for dowels are, on card.', '3 mm'), rare: true },
    as: optional('name', 'name', 'What the sheets are called, with a number each.', { replaces: true }),
  },
  sentence:
    'Stacked model of {parts} from {on} at {scale}, of card {thickness} thick on sheets of {width} by {height}[, {margin} from the rim][, {spacing} apart][, dowels at {dowels}][, {dowel} wide][ named {as}]',
  apply(draft, values, context) {
    const { parts, on, as } = values;
    const fault = notSolid(draft, parts);
    if (fault) return fault;
    const scale = scaleFrom(values.scale);
    if (isRefusal(scale)) return scale;
    const layers = layersIn(
      {
        items: [...standingOf(draft, parts)],
        plane: on,
        pitch: valueOf(values.thickness) / scale!,
        scale: scale!,
      },
      context,
    );
    if (isRefusal(layers)) return layers;
    const dowels = dowelsSaid(values, layers, { plane: on, scale: scale! });
    if (isRefusal(dowels)) return dowels;
    const [width, height, margin, spacing] = [values.width, values.height, values.margin, values.spacing].map(
      valueOf,
    ) as [number, number, number, number];
    const pages = packed(layers, { width, height, margin, spacing });
    if ('tooLarge' in pages)
      return doesNotFit(layers[pages.tooLarge]!, { width: width - 2 * margin, height: height - 2 * margin });
    const name = as ?? `Layers of ${draft.items[parts[0]!]!.name}`;
    const made = pages.map((page, i) =>
      pageOf(draft, context, {
        page,
        layers,
        name: `${name} ${i + 1}`,
        paper: { width, height },
        scale: scale!,
        plane: on,
        parts,
        dowels,
      }),
    );
    return { sheet: made[0]! };
  },
});

interface DowelsSaid {
  readonly dowels: WayCurve | undefined;
  readonly dowel: Num;
}

/** Points as they fall on the plane, and the width of a hole on the model. */
function dowelsSaid(
  { dowels, dowel }: DowelsSaid,
  layers: readonly Layer[],
  { plane, scale }: { readonly plane: Pose; readonly scale: number },
): Dowels | undefined | Refusal {
  if (!dowels) return undefined;
  if (dowels.kind !== 'points') return refuse('places.dowels', {}, 'dowels');
  const at = dowels.points.map((point) => inPlane(plane, point));
  const made = { at, diameter: valueOf(dowel) / scale };
  const idle = idleDowel(layers, made);
  return idle === undefined ? made : refuse('no-layer.dowel', { number: idle }, 'dowels');
}
