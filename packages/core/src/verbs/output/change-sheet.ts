import { LINE_WIDTHS, TITLE_FIELDS, sheetNamed, type Sheet, type TitleField } from '../../document/sheet.ts';
import { PAPER_SIZES, type PaperSize } from '../../sheets/paper.ts';
import { declareVerb, isRefusal, optional, refuse } from '../../statement/declare.ts';
import { sheetBlank, sheetIn } from '../shared/sheets.ts';

/** What a sheet is drawn on, and what stands in its title block. */
export const changeSheet = declareVerb({
  id: 'change-sheet',
  name: 'Change sheet',
  group: 'output',
  about: 'The name of a sheet, its paper, its lines, its parts list, and what stands in its title block.',
  words: ['title block', 'paper', 'rename', 'parts list', 'line width', 'date', 'author'],
  blanks: {
    sheet: sheetBlank,
    to: optional('name', 'name', 'What it is called from now on.'),
    paper: optional('choice', 'paper', 'Its size.', {
      choices: Object.fromEntries(Object.entries(PAPER_SIZES).map(([id, { words }]) => [id, words])),
    }),
    turned: optional('choice', 'turned', 'Which way it lies.', {
      choices: { across: 'lying across', upright: 'upright' },
    }),
    lines: optional('choice', 'lines', 'How wide visible lines are, mm.', {
      choices: Object.fromEntries(LINE_WIDTHS.map((width) => [width, `${width} mm`])),
    }),
    list: optional('choice', 'parts list', 'Whether the parts are listed above the title block.', {
      choices: { yes: 'with a parts list', no: 'without a parts list' },
    }),
    title: optional('text', TITLE_FIELDS.title, 'What is drawn; the name of the sheet where it is empty.'),
    number: optional('text', TITLE_FIELDS.number, 'Of the drawing.'),
    author: optional('text', TITLE_FIELDS.author, 'Who has drawn it.'),
    date: optional('text', TITLE_FIELDS.date, 'When.'),
    remarks: optional('text', TITLE_FIELDS.remarks, 'Whatever else belongs there; a dash empties it.'),
  },
  sentence:
    'Change sheet[ {sheet}][, named {to}][, on {paper}][ {turned}][, lines {lines}][, {list}][, title {title}][, number {number}][, drawn by {author}][, date {date}][, remarks {remarks}]',
  apply(draft, values) {
    const sheet = sheetIn(draft, values.sheet);
    if (isRefusal(sheet)) return sheet;
    const { to } = values;
    if (to !== undefined && to !== sheet.name && sheetNamed(draft, to))
      return refuse('name-taken.sheet-named', { to }, 'to');
    if (to !== undefined) sheet.name = to;
    setPaper(sheet, values.paper as PaperSize | undefined, values.turned);
    if (values.lines !== undefined) sheet.lines = values.lines as Sheet['lines'];
    if (values.list !== undefined) sheet.partsList = values.list === 'yes';
    for (const field of Object.keys(TITLE_FIELDS) as TitleField[]) {
      const text = values[field];
      // An empty blank changes nothing, so that a dash says that nothing is to stand there.
      if (text !== undefined) sheet.title[field] = text === '-' ? '' : text.slice(0, 120);
    }
    return {};
  },
});

function setPaper(sheet: Sheet, size: PaperSize | undefined, turned: string | undefined): void {
  const { width, height } = size ? PAPER_SIZES[size] : sheet.paper;
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  const isUpright = turned === undefined ? sheet.paper.width < sheet.paper.height : turned === 'upright';
  sheet.paper = isUpright ? { width: short, height: long } : { width: long, height: short };
}
