import { SNAP_KINDS, verbNamed } from '@kadrel/core';
import { FIRST_SNAPS, FORCING_KEYS, selectedWith, selectingBy } from './manner.ts';
import { hiddenBlanks, isShown, startStatement } from './statement.ts';

describe('what is selected after parts are taken', () => {
  const before = ['a', 'b'];
  test.each([
    ['replace', ['b', 'c']],
    ['add', ['a', 'b', 'c']],
    ['take away', ['a']],
    ['toggle', ['a', 'c']],
  ] as const)('%s', (how, expected) => {
    expect(selectedWith(before, ['b', 'c'], how)).toEqual(expected);
  });
  test('a held key goes before what is set', () => {
    const none = { shift: false, ctrl: false, alt: false };
    expect(selectingBy(none, 'add')).toBe('add');
    expect(selectingBy({ ...none, shift: true }, 'replace')).toBe('add');
    expect(selectingBy({ ...none, ctrl: true }, 'add')).toBe('toggle');
    expect(selectingBy({ ...none, alt: true, shift: true }, 'replace')).toBe('take away');
  });
});

test('every letter forces another kind, and none is one that fits the view', () => {
  const kinds = Object.values(FORCING_KEYS);
  expect(new Set(kinds).size).toBe(kinds.length);
  expect(kinds.every((kind) => SNAP_KINDS.includes(kind))).toBe(true);
  expect(Object.keys(FORCING_KEYS)).not.toContain('F');
  expect(FIRST_SNAPS.every((kind) => SNAP_KINDS.includes(kind))).toBe(true);
});

test('a blank that is seldom wanted waits behind “more…”', () => {
  const statement = startStatement(verbNamed('move')!, { parts: ['a'] });
  expect(hiddenBlanks(statement)).toEqual(['facing', 'normal']);
  expect(isShown(statement, 'from')).toBe(true);
  const asked = { ...statement, focus: { blank: 'facing', axis: null } };
  expect(isShown(asked, 'facing')).toBe(true);
  expect(isShown({ ...statement, typed: { ...statement.typed, facing: 'z' } }, 'facing')).toBe(true);
});
