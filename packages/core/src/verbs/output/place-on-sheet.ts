import { valueOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { sheetBlank, sheetIn } from '../shared/sheets.ts';

/** Puts a view or a note elsewhere on its sheet. */
export const placeOnSheet = declareVerb({
  id: 'place-on-sheet',
  name: 'Place on sheet',
  group: 'output',
  about: 'Puts a view or a note elsewhere on its sheet.',
  words: ['move', 'view', 'note', 'arrange'],
  blanks: {
    entry: needed('entry', 'what', 'A view or a note, by its name.', {
      of: 'sheet',
      among: ['views', 'notes'],
    }),
    x: needed('length', 'from the left', 'Where its middle goes, or where a note begins, on paper.', {
      paper: true,
    }),
    y: needed('length', 'from below', 'The same upwards.', { paper: true }),
    sheet: sheetBlank,
  },
  sentence: 'Place on sheet {entry} at {x} and {y} of the paper[ on {sheet}]',
  apply(draft, { entry, x, y, sheet: on }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    const found = entry.kind === 'views' ? sheet.views[entry.id]! : sheet.notes[entry.id]!;
    found.at = [valueOf(x), valueOf(y)];
    return {};
  },
});
