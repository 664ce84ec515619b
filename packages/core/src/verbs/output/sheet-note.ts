import { valueOf } from '../../recipes/numbers.ts';
import { LETTERS } from '../../sheets/marks.ts';
import { declareVerb, isRefusal, needed, optional } from '../../statement/declare.ts';
import { leaderSaid } from '../shared/leader.ts';
import { MAX_LETTER_MM, nextNumbered, nextOrderOn, sheetBlank, sheetIn } from '../shared/sheets.ts';

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
    const leader = to && leaderSaid(sheet, { to, view: view?.id });
    if (leader && isRefusal(leader)) return leader;
    sheet.notes[context.newId()] = {
      name: nextNumbered(sheet, 'N'),
      order: nextOrderOn(sheet, 'notes'),
      at: [valueOf(x), valueOf(y)],
      text,
      height: height === undefined ? LETTERS.usual : Math.min(MAX_LETTER_MM, valueOf(height)),
      ...(leader ? { leader } : {}),
    };
    return {};
  },
});
