import {
  DIMENSION_KINDS,
  inOrder,
  type Dimension,
  type DimensionKind,
  type Sheet,
} from '../../document/sheet.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { spanOf } from '../../sheets/lengths.ts';
import { frameOfView, onPaper } from '../../sheets/looks.ts';
import type { KadrelDocument } from '../../document/schema.ts';
import { left2, subtract2, dot2, scale2, add2 } from '../../space/vector2.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { dimensionFault, type Made } from '../shared/dimensionFault.ts';
import { nextNumbered, nextOrderOn, sheetBlank, sheetIn, tieKept } from '../shared/sheets.ts';

/** From the outermost point to the dimension line, mm on paper, where nothing is said. Common practice, no source. */
const USUAL_OFFSET = 10;

/** A dimension in a view of a sheet, tied to points and edges by their names. */
export const dimension = declareVerb({
  id: 'dimension',
  name: 'Dimension',
  group: 'output',
  about: 'A length, a radius, a diameter, an angle or a level in a view of a sheet; it follows the model.',
  words: [
    'measure',
    'length',
    'distance',
    'size',
    'annotate',
    'radius',
    'diameter',
    'angle',
    'level',
    'height',
    'elevation',
    'chain',
    'running',
  ],
  blanks: {
    ties: needed(
      'ties',
      'of',
      'Points, edges, round edges or faces: clicked on the sheet, or told by names. Between parallel edges or faces a length is square to them.',
    ),
    kind: needed('choice', 'kind', 'What is measured.', { default: 'along', choices: DIMENSION_KINDS }),
    run: needed('choice', 'several points', 'Where there are more than two.', {
      default: 'chained',
      choices: { chained: 'each from the one before', running: 'each from the first' },
      rare: true,
    }),
    view: optional('entry', 'in', 'The view that it stands in.', { of: 'sheet', among: ['views'] }),
    sheet: sheetBlank,
    offset: optional(
      'length',
      'beside',
      'From the outermost of its points to its line, or to the mark of a level, on paper; less than 0 is the other side.',
      { paper: true },
    ),
    bearing: optional('angle', 'towards', 'Where the leader of a radius or a diameter goes.', { rare: true }),
    suffix: optional('text', 'followed by', 'A tolerance or a fit after the number: ±0.1, or H7.', {
      rare: true,
    }),
    words: optional(
      'text',
      'instead of the number',
      'Stands in brackets, so that one sees that it is not measured.',
      {
        rare: true,
      },
    ),
  },
  sentence:
    'Dimension of {ties}, {kind}[, {run}][ in {view}][ on {sheet}][, {offset} beside][ towards {bearing}][, followed by {suffix}][, instead of the number {words}]',
  apply(draft, values, context) {
    const sheet = sheetIn(draft, values.sheet);
    if (isRefusal(sheet)) return sheet;
    const view = values.view?.id ?? onlyView(sheet);
    if (view === undefined) return refuse('missing.several-views', {}, 'view');
    const { offset, bearing, ties } = values;
    const made: Dimension = {
      name: nextNumbered(sheet, 'D'),
      order: nextOrderOn(sheet, 'dimensions'),
      view,
      kind: values.kind as DimensionKind,
      ties: ties.map(tieKept),
      run: values.run as Dimension['run'],
      offset: offset === undefined ? USUAL_OFFSET : valueOf(offset),
      bearing: bearing === undefined ? 45 : valueOf(bearing),
      words: (values.words ?? '').slice(0, 120),
      suffix: (values.suffix ?? '').slice(0, 40),
    };
    const placed = offset === undefined ? { ...made, offset: outwards(draft, sheet, { made, ties }) } : made;
    const fault = dimensionFault(draft, sheet, { made: placed, ties });
    if (fault) return fault;
    sheet.dimensions[context.newId()] = placed;
    return {};
  },
});

function onlyView({ views }: Sheet): string | undefined {
  const ids = inOrder(views).map(([id]) => id);
  return ids.length === 1 ? ids[0] : undefined;
}

/** The usual distance, on the side that is away from the middle of the view. */
function outwards(document: KadrelDocument, sheet: Sheet, { made, ties }: Made): number {
  const view = sheet.views[made.view]!;
  const frame = frameOfView(document, view);
  if (!frame || ties.length === 0) return USUAL_OFFSET;
  const points = ties.map(({ geometry }) => onPaper(frame, view)(geometry.at));
  if (made.kind === 'radius' || made.kind === 'arc' || made.kind === 'angle') return USUAL_OFFSET;
  // A level stands beside what is drawn.
  if (made.kind === 'level') return points[0]![0] < view.at[0] ? -USUAL_OFFSET : USUAL_OFFSET;
  const places = ties.map(({ geometry }) => geometry);
  const span = spanOf({ document, dimension: made, view, frame, places });
  if ('words' in span) return USUAL_OFFSET;
  const middle = scale2(add2(points[0]!, points.at(-1)!), 0.5);
  return dot2(left2(span.way), subtract2(middle, view.at)) < 0 ? -USUAL_OFFSET : USUAL_OFFSET;
}
