import type { SheetView } from '../../document/sheet.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { entryNamed } from '../../statement/onSheets.ts';
import { scaleFrom, sheetBlank, sheetIn } from '../shared/sheets.ts';

/** How a view of a sheet is drawn. */
export const changeSheetView = declareVerb({
  id: 'change-sheet-view',
  name: 'Change sheet view',
  group: 'output',
  about: 'The name of a view on a sheet, its scale, and how its hidden and smooth lines are drawn.',
  words: ['scale', 'hidden lines', 'view'],
  blanks: {
    view: needed('entry', 'view', 'Which one.', { of: 'sheet', among: ['views'] }),
    sheet: sheetBlank,
    to: optional('name', 'name', 'What it is called from now on.'),
    scale: optional('text', 'scale', '1:50, or 2:1.'),
    hidden: optional('choice', 'hidden lines', 'Lines that are behind something.', {
      choices: { dashed: 'dashed', none: 'left out' },
    }),
    smooth: optional('choice', 'smooth edges', 'Where round faces go on into others.', {
      choices: { thin: 'thin', none: 'left out' },
    }),
    centres: optional(
      'choice',
      'centres',
      'Crosses in circles that are seen squarely, and the axes of round things that are seen from the side.',
      {
        choices: { marked: 'marked', none: 'left out' },
      },
    ),
  },
  sentence:
    'Change sheet view {view}[ on {sheet}][, named {to}][, at {scale}][, hidden lines {hidden}][, smooth edges {smooth}][, centres {centres}]',
  apply(draft, { view: name, sheet: on, to, scale: written, hidden, smooth, centres }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    const view = sheet.views[name.id]!;
    const scale = scaleFrom(written);
    if (isRefusal(scale)) return scale;
    if (to !== undefined && to !== view.name && entryNamed(sheet, to))
      return refuse('name-taken.sheet-already', { to }, 'to');
    if (to !== undefined) view.name = to;
    if (scale !== undefined) view.scale = scale;
    if (hidden !== undefined) view.hidden = hidden as SheetView['hidden'];
    if (smooth !== undefined) view.smooth = smooth as SheetView['smooth'];
    if (centres !== undefined) view.centres = centres as SheetView['centres'];
    return {};
  },
});
