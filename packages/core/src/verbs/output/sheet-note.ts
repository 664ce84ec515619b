import { valueOf } from '../../recipes/numbers.ts';
import { LETTERS } from '../../sheets/marks.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { nextNumbered, nextOrderOn, sheetBlank, sheetIn, tieKept } from '../shared/sheets.ts';

/** Words on a sheet, with a leader to what they are about where that is given. */
export const sheetNote = declareVerb({
  id: 'sheet-note',
  name: 'Sheet note',
  group: 'output',
  about: 'Words on a sheet, with a leader that follows what it points to.',
  words: ['text', 'label', 'leader', 'annotation', 'callout', 'comment'],
  blanks: {
    text: needed(
      'text',
      'words',
      'What it says; # stands for the number of the part in the parts list, in a ring.',
    ),
    x: needed('length', 'from the left', 'Where it begins, on paper.', {
      default: '40 mm',
      paper: true,
    }),
    y: needed('length', 'from below', 'Where it stands, on paper.', {
      default: '60 mm',
      paper: true,
    }),
    sheet: sheetBlank,
    to: optional(
      'ties',
      'pointing to',
      'What its leader points to: clicked on the sheet, or told by names.',
      {
        single: true,
      },
    ),
    view: optional('entry', 'in', 'The view that its leader points into.', { of: 'sheet', among: ['views'] }),
    height: optional('length', 'height', 'Of its capitals, on paper.', {
      positive: true,
      rare: true,
      paper: true,
    }),
  },
  sentence:
    'Sheet note {text} at {x} and {y} of the paper[ on {sheet}][ pointing to {to}][ in {view}][, {height} high]',
  apply(draft, { text, x, y, sheet: sheetName, to, view, height }, context) {
    const sheet = sheetIn(draft, sheetName);
    if (isRefusal(sheet)) return sheet;
    if (to && to.length !== 1) return refuse('too-many.leader', {}, 'to');
    const only = Object.keys(sheet.views).length === 1 ? Object.keys(sheet.views)[0] : undefined;
    const into = view?.id ?? only;
    if (to && into === undefined) return refuse('missing.several-views-sheet', {}, 'view');
    sheet.notes[context.newId()] = {
      name: nextNumbered(sheet, 'N'),
      order: nextOrderOn(sheet, 'notes'),
      at: [valueOf(x), valueOf(y)],
      text,
      height: height === undefined ? LETTERS.usual : Math.min(100, valueOf(height)),
      ...(to ? { leader: { view: into!, tie: tieKept(to[0]!) } } : {}),
    };
    return {};
  },
});
