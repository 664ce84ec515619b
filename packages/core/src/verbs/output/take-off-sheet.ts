import type { Sheet } from '../../document/sheet.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { sheetBlank, sheetIn } from '../shared/sheets.ts';

/** Takes a view, a dimension or a note off its sheet; with a view goes what stands in it. */
export const takeOffSheet = declareVerb({
  id: 'take-off-sheet',
  name: 'Take off sheet',
  group: 'output',
  about:
    'Takes a view, a dimension or a note off its sheet; with a view go its dimensions, its details and its north arrow.',
  words: ['delete', 'remove', 'view', 'dimension', 'note'],
  blanks: {
    entry: needed('entry', 'what', 'A view, a dimension or a note, by its name.', { of: 'sheet' }),
    sheet: sheetBlank,
  },
  sentence: 'Take off sheet {entry}[ of {sheet}]',
  apply(draft, { entry, sheet: on }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    if (entry.kind === 'views') takeOffView(sheet, entry.id);
    else delete sheet[entry.kind][entry.id];
    return {};
  },
});

/** With all that stands in it, and its details. */
function takeOffView(sheet: Sheet, view: string): void {
  delete sheet.views[view];
  for (const [id, one] of Object.entries(sheet.dimensions))
    if (one.view === view) delete sheet.dimensions[id];
  for (const [id, note] of Object.entries(sheet.notes)) {
    if (note.leader?.view === view) delete note.leader;
    if (note.north?.view === view) delete sheet.notes[id];
  }
  for (const [id, { detail }] of Object.entries(sheet.views)) if (detail?.of === view) takeOffView(sheet, id);
}
