import { valueOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { leaderSaid } from '../shared/leader.ts';
import { MAX_LETTER_MM, sheetBlank, sheetIn } from '../shared/sheets.ts';

/** What a note says, and what it points to. */
export const changeNote = declareVerb({
  id: 'change-note',
  name: 'Change note',
  group: 'output',
  about: 'What a note on a sheet says, how large its letters are, and what its leader points to.',
  words: ['text', 'edit', 'label', 'leader', 'note'],
  blanks: {
    note: needed('entry', 'note', 'Which one: N1, for example.', { of: 'sheet', among: ['notes'] }),
    text: optional('text', 'words', 'What it says from now on.'),
    height: optional('length', 'height', 'Of its capitals, on paper.', { positive: true, paper: true }),
    leader: optional('choice', 'leader', 'Whether it has one.', { choices: { none: 'without a leader' } }),
    to: optional('ties', 'pointing to', 'What its leader points to from now on.', {
      single: true,
      excludes: 'leader',
    }),
    view: optional('entry', 'in', 'The view that its leader points into.', { of: 'sheet', among: ['views'] }),
    sheet: sheetBlank,
  },
  sentence:
    'Change note {note}[ to {text}][, {height} high][, {leader}][, pointing to {to}][ in {view}][ on {sheet}]',
  apply(draft, { note, text, height, leader, to, view, sheet: on }) {
    const sheet = sheetIn(draft, on);
    if (isRefusal(sheet)) return sheet;
    const one = sheet.notes[note.id]!;
    if (one.north && (text !== undefined || to)) return refuse('north-arrow', { name: one.name }, 'note');
    if (text !== undefined) one.text = text;
    if (height !== undefined) one.height = Math.min(MAX_LETTER_MM, valueOf(height));
    if (leader === 'none') delete one.leader;
    if (!to && view && !one.leader) return refuse('missing.leader', { name: one.name }, 'to');
    if (!to && view) one.leader!.view = view.id;
    if (!to) return {};
    const made = leaderSaid(sheet, { to, view: view?.id ?? one.leader?.view });
    if (isRefusal(made)) return made;
    one.leader = made;
    return {};
  },
});
