import { valueOf } from '../../recipes/numbers.ts';
import { frameOfView } from '../../sheets/looks.ts';
import { LETTERS } from '../../sheets/marks.ts';
import { northOnPaper } from '../../sheets/northArrow.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { MAX_LETTER_MM, nextNumbered, nextOrderOn, sheetBlank, sheetIn } from '../shared/sheets.ts';

/** Shows which way north is in a view of a sheet. */
export const northArrow = declareVerb({
  id: 'north-arrow',
  name: 'North arrow',
  group: 'output',
  about: 'An arrow on a sheet to the north of a view: the world’s Y, or that turned by a bearing.',
  words: ['north', 'compass', 'orientation', 'site plan'],
  blanks: {
    x: needed('length', 'from the left', 'Where its middle is, on paper.', { default: '40 mm', paper: true }),
    y: needed('length', 'from below', 'The same upwards.', { default: '60 mm', paper: true }),
    view: optional('entry', 'of', 'The view whose north it shows.', { of: 'sheet', among: ['views'] }),
    sheet: sheetBlank,
    bearing: needed('angle', 'north', 'Where north is, clockwise from the world’s Y.', { default: '0' }),
    height: optional('length', 'letter', 'Height of its letter, on paper.', {
      positive: true,
      rare: true,
      paper: true,
    }),
  },
  sentence:
    'North arrow at {x} and {y} of the paper[, of {view}][ on {sheet}], north {bearing} from Y[, its letter {height} high]',
  apply(draft, { x, y, view, sheet: on, bearing, height }, context) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    const [only, other] = Object.keys(sheet.views);
    const of = view?.id ?? (other === undefined ? only : undefined);
    if (of === undefined) return refuse('missing.view-of-north', {}, 'view');
    const frame = frameOfView(draft, sheet.views[of]!);
    if (!frame) return refuse('gone', {}, 'view');
    if (!northOnPaper(frame, valueOf(bearing))) return refuse('no-north', {}, 'view');
    sheet.notes[context.newId()] = {
      name: nextNumbered(sheet, 'N'),
      order: nextOrderOn(sheet, 'notes'),
      at: [valueOf(x), valueOf(y)],
      text: 'N',
      height: height === undefined ? LETTERS.usual : Math.min(MAX_LETTER_MM, valueOf(height)),
      north: { view: of, bearing: valueOf(bearing) },
    };
    return {};
  },
});
