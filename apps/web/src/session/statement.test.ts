import { verbNamed } from '@kadrel/core';
import {
  entriesOf,
  entryKey,
  entryText,
  exactMm,
  exactNumber,
  goneOn,
  hiddenBlanks,
  isChanged,
  isShown,
  lockedAxis,
  nextEntry,
  startStatement,
  withPointer,
  withText,
} from './statement.ts';

const box = () => startStatement(verbNamed('box')!);

test('the focus begins at the first needed blank that is empty', () => {
  expect(entryKey(box().focus!)).toBe('size.0');
  expect(entryKey(startStatement(verbNamed('move')!, { parts: ['p1'] }).focus!)).toBe('from');
  expect(entryKey(startStatement(verbNamed('move')!).focus!)).toBe('parts');
  expect(entryKey(startStatement(verbNamed('cylinder')!).focus!)).toBe('diameter');
});

test('Tab walks the entries in the order of the sentence, round and round', () => {
  const verb = verbNamed('box')!;
  expect(entriesOf(verb).map(entryKey)).toEqual(['size.0', 'size.1', 'size.2', 'at.0', 'at.1', 'at.2', 'as']);
  expect(entryKey(nextEntry({ ...box(), focus: { blank: 'as', axis: null } }, 1)!)).toBe('size.0');
  expect(entryKey(nextEntry(box(), -1)!)).toBe('as');
});

test('what is typed stays while the pointer drags, the rest follows it', () => {
  const typed = withText(box(), { blank: 'size', axis: 1 }, '60');
  const dragged = withPointer(typed, 'size', [12.5, 99, 3]);
  expect(dragged.typed.size).toEqual(['12.5 mm', '60', '3 mm']);
});

test('of diameter and radius the later one stays', () => {
  const cylinder = startStatement(verbNamed('cylinder')!);
  const both = withText(
    withText(cylinder, { blank: 'diameter', axis: null }, '8'),
    { blank: 'radius', axis: null },
    '5',
  );
  expect([both.typed.diameter, both.typed.radius]).toEqual([undefined, '5']);
});

test('a picked point is told in words until it is typed over', () => {
  const move = startStatement(verbNamed('move')!, { parts: ['p1'] });
  const picked = withPointer(move, 'from', [1, 2, 3], 'endpoint of Lid');
  expect([picked.labels.from, entryText(picked, { blank: 'from', axis: null })]).toEqual([
    'endpoint of Lid',
    '1 mm, 2 mm, 3 mm',
  ]);
  const typed = withText(picked, { blank: 'from', axis: null }, '4, 5, 6');
  expect([typed.labels.from, typed.typed.from]).toEqual([undefined, ['4', '5', '6']]);
});

test('exact millimetres read back bit for bit', () => {
  for (const mm of [0.1, -1e-7, 12.7, 1 / 3, -0]) expect(exactNumber(exactMm(mm))).toBe(mm + 0);
  expect(exactNumber('12')).toBeUndefined();
});

test('the field of an axis locks the motion to it', () => {
  const move = startStatement(verbNamed('move')!, { parts: ['p1'] });
  expect(lockedAxis(move)).toBeNull();
  expect(lockedAxis({ ...move, focus: { blank: 'by', axis: 2 } })).toBe(2);
});

test('what is seldom wanted stands in the bar when it is not as usual', () => {
  const grid = startStatement(verbNamed('grid')!, { parts: ['p1'] });
  expect(isShown(grid, 'columns')).toBe(true);
  expect(isShown(grid, 'levels')).toBe(false);
  expect(hiddenBlanks(grid)).toContain('stagger');
  const staggered = { ...grid, typed: { ...grid.typed, stagger: 'half' } };
  expect(isShown(staggered, 'stagger')).toBe(true);
});

describe('going on from a copy', () => {
  const done = (step: Parameters<typeof goneOn>[0]['step']) => ({
    ...startStatement(verbNamed('move')!, { parts: ['p1'] }),
    phase: 'done' as const,
    editId: 'edit-1',
    step,
  });
  test('a step along an axis becomes a row of two, whose count is typed next', () => {
    const row = goneOn(done({ kind: 'along', by: [0, -50, 0] }), 'every')!;
    expect(row).toMatchObject({
      verb: 'along',
      editId: 'edit-1',
      phase: 'done',
      focus: { blank: 'count', axis: null },
      typed: { parts: ['p1'], along: '-y', count: '2', pitch: '50 mm' },
    });
    // It shows what it comes to before it is carried out.
    expect(isChanged(row)).toBe(true);
  });
  test('across shares the step out, and a slanting one keeps its direction', () => {
    const { typed } = goneOn(done({ kind: 'along', by: [30, 40, 0] }), 'across')!;
    expect(typed).toMatchObject({ along: [30, 40, 0], span: '50 mm' });
    expect(typed.pitch).toBeUndefined();
  });
  test('a turn becomes a ring about its centre', () => {
    const { verb, typed } = goneOn(
      done({ kind: 'around', axis: [0, 0, 1], centre: [5, 0, 0], angle: 30 }),
      'every',
    )!;
    expect(verb).toBe('around');
    expect(typed).toMatchObject({ axis: 'z', at: ['5 mm', '0 mm', '0 mm'], pitch: '30' });
  });
  test('nothing goes on from a statement that left no copy', () => {
    expect(goneOn(done(null), 'every')).toBeNull();
  });
});
