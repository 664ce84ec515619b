import { valueOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed, optional } from '../../statement/declare.ts';
import { dimensionFault } from '../shared/dimensionFault.ts';
import { sheetBlank, sheetIn, tieKept } from '../shared/sheets.ts';

/** Where a dimension stands, and what its number is followed by. */
export const changeDimension = declareVerb({
  id: 'change-dimension',
  name: 'Change dimension',
  group: 'output',
  about:
    'What a dimension measures, how far it stands from that, its tolerance, and words instead of its number.',
  words: ['tolerance', 'fit', 'offset', 'dimension', 'tie', 'measure anew'],
  blanks: {
    dimension: needed('entry', 'dimension', 'Which one: D1, for example.', {
      of: 'sheet',
      among: ['dimensions'],
    }),
    ties: optional(
      'ties',
      'of',
      'What it measures from now on: points, edges or round edges, clicked on the sheet or told by names.',
    ),
    view: optional('entry', 'in', 'The view that it stands in from now on.', {
      of: 'sheet',
      among: ['views'],
      rare: true,
    }),
    sheet: sheetBlank,
    offset: optional(
      'length',
      'beside',
      'From the outermost of its points to its line, on paper; less than 0 is the other side.',
      { paper: true },
    ),
    bearing: optional('angle', 'towards', 'Where the leader of a radius or a diameter goes.'),
    suffix: optional('text', 'followed by', 'A tolerance or a fit after the number; a dash takes it away.'),
    words: optional('text', 'instead of the number', 'In brackets; a dash brings the number back.'),
  },
  sentence:
    'Change dimension {dimension}[ to be of {ties}][ in {view}][ on {sheet}][, {offset} beside][, towards {bearing}][, followed by {suffix}][, instead of the number {words}]',
  apply(draft, { dimension, ties, view, sheet: on, offset, bearing, suffix, words }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    const one = sheet.dimensions[dimension.id]!;
    if (view !== undefined) one.view = view.id;
    if (ties !== undefined) {
      one.ties = ties.map(tieKept);
      const fault = dimensionFault(draft, sheet, { made: one, ties });
      if (fault) return fault;
    }
    if (offset !== undefined) one.offset = valueOf(offset);
    if (bearing !== undefined) one.bearing = valueOf(bearing);
    if (suffix !== undefined) one.suffix = suffix === '-' ? '' : suffix.slice(0, 40);
    if (words !== undefined) one.words = words === '-' ? '' : words.slice(0, 120);
    return {};
  },
});
