import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { sheetBlank, sheetIn } from '../shared/sheets.ts';

/** Takes a view, a dimension or a note off its sheet; with a view goes what stands in it. */
export const takeOffSheet = declareVerb({
  id: 'take-off-sheet',
  name: 'Take off sheet',
  group: 'output',
  about:
    'Takes a view, a dimension or a note off its sheet; with a view go its dimensions and its north arrow.',
  words: ['delete', 'remove', 'view', 'dimension', 'note'],
  blanks: {
    entry: needed('entry', 'what', 'A view, a dimension or a note, by its name.', { of: 'sheet' }),
    sheet: sheetBlank,
  },
  sentence: 'Take off sheet {entry}[ of {sheet}]',
  apply(draft, { entry, sheet: on }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    delete sheet[entry.kind][entry.id];
    if (entry.kind !== 'views') return {};
    for (const [id, { view }] of Object.entries(sheet.dimensions))
      if (view === entry.id) delete sheet.dimensions[id];
    for (const [id, note] of Object.entries(sheet.notes)) {
      if (note.leader?.view === entry.id) delete note.leader;
      if (note.north?.view === entry.id) delete sheet.notes[id];
    }
    return {};
  },
});
