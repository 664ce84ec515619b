import type { Finding } from '@kadrel/core';
import { csvOf } from '@kadrel/core';
import { groupedRows, rowsOf } from './rows.ts';

const found = (id: string, some: Partial<Finding> = {}): Finding => ({
  id,
  kind: 'mass',
  state: 'fine',
  items: [id],
  what: id,
  words: 'About 3 g.',
  size: 3,
  box: { min: [0, 0, 0], max: [2, 4, 6] },
  remedies: [],
  ...some,
});
const ALL = 'all' as const;

test('what says the same of several is one row, where the first of them stands', () => {
  const findings = [
    found('frame 10', { state: 'fault', kind: 'overhang', words: 'Some.' }),
    found('frame 2'),
    found('board', { words: 'About 9 g.' }),
    found('frame 1'),
    found('glued', { why: 'it is glued' }),
  ];
  const rows = groupedRows(findings);
  expect(rows.map(({ finding, alike }) => [finding.id, alike.map(({ id }) => id)])).toEqual([
    ['frame 10', []],
    ['frame 2', ['frame 1']],
    ['board', []],
    ['glued', []],
  ]);
});

test('rows are found by name and words, sorted by name as people count, and written as a table', () => {
  const findings = [found('frame 10'), found('frame 2'), found('board', { words: 'A "thin" one.' })];
  const wish = { listed: ALL, sorted: 'what', text: ' Frame ' } as const;
  expect(rowsOf(findings, wish).map(({ id }) => id)).toEqual(['frame 2', 'frame 10']);
  expect(csvOf([findings[2]!]).split('\r\n')[1]).toBe('Mass,fine,"board","A ""thin"" one.",3,1,2,3,""');
});
