import { LINE_WIDTHS, TITLE_FIELDS, sheetNamed, type Sheet, type TitleField } from '../../document/sheet.ts';
import { PAPER_CHOICES, type Paper } from '../../sheets/paper.ts';
import {
  declareVerb,
  isRefusal,
  optional,
  refuse,
  type Refusal,
  type Values,
} from '../../statement/declare.ts';
import { OWN_PAPER, isOwn, paperSaid } from '../shared/papers.ts';
import { sheetBlank, sheetIn } from '../shared/sheets.ts';

const BLANKS = {
  sheet: sheetBlank,
  to: optional('name', 'name', 'What it is called from now on.'),
  paper: optional('choice', 'paper', 'Its size.', { choices: PAPER_CHOICES }),
  ...OWN_PAPER,
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
};

/** What a sheet is drawn on, and what stands in its title block. */
export const changeSheet = declareVerb({
  id: 'change-sheet',
  name: 'Change sheet',
  group: 'output',
  about: 'The name of a sheet, its paper, its lines, its parts list, and what stands in its title block.',
  words: ['title block', 'paper', 'rename', 'parts list', 'line width', 'date', 'author'],
  blanks: BLANKS,
  sentence:
    'Change sheet[ {sheet}][, named {to}][, on {paper}][ {width} wide][ {height} high][ {turned}][, lines {lines}][, {list}][, title {title}][, number {number}][, drawn by {author}][, date {date}][, remarks {remarks}]',
  apply(draft, values) {
    const sheet = sheetIn(draft, values.sheet);
    if (isRefusal(sheet)) return sheet;
    const { to } = values;
    if (to !== undefined && to !== sheet.name && sheetNamed(draft, to))
      return refuse('name-taken.sheet-named', { to }, 'to');
    if (to !== undefined) sheet.name = to;
    const paper = paperFor(sheet, values);
    if (isRefusal(paper)) return paper;
    sheet.paper = { width: paper.width, height: paper.height };
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

/** Without a size it is the paper that it is, perhaps turned. */
function paperFor(
  { paper: before }: Sheet,
  { paper, turned, width, height }: Values<typeof BLANKS>,
): Paper | Refusal {
  const isUpright = turned === undefined ? before.width < before.height : turned === 'upright';
  const way = isUpright ? 'upright' : 'across';
  if (paper !== undefined || isOwn({ width, height }))
    return paperSaid({ paper: paper ?? 'own', turned: way, width, height });
  const [short, long] = [Math.min(before.width, before.height), Math.max(before.width, before.height)];
  return isUpright ? { width: short, height: long } : { width: long, height: short };
}
