import { emptyDocument, isRefusal, perform, plainWorld, verbNamed, type KadrelDocument } from '@kadrel/core';
import { arrangement, kindWords, membersLeft, placeAt, rowsOf, sentBy } from './tree.ts';

function after(...statements: (readonly [verb: string, typed: Record<string, unknown>])[]): KadrelDocument {
  let document = emptyDocument();
  let ids = 0;
  for (const [verb, typed] of statements) {
    const world = plainWorld(document, () => `p${++ids}`);
    const done = perform(verbNamed(verb)!, typed, document, world);
    if (isRefusal(done)) throw new Error(done.message);
    document = done.document;
  }
  return document;
}

const box = (as: string) => ['box', { as, size: [1, 1, 1] }] as const;
const part = (document: KadrelDocument, name: string) =>
  Object.values(document.items).find((item) => item.name === name)!;
const model = () =>
  after(
    box('A'),
    box('B'),
    box('C'),
    box('D'),
    ['group', { parts: ['B', 'C'], as: 'G' }],
    ['along', { parts: ['D'], as: 'Row', count: 6, pitch: 5 }],
    ['omit', { part: 'Row', members: '3, 4' }],
  );

test('rows go down into what is open; a search finds what is below too', () => {
  const document = model();
  const names = (open: readonly string[], search = '') =>
    rowsOf(document, new Set(open.map((name) => part(document, name).id)), search).map(
      ({ part: { name }, level }) => `${' '.repeat(level)}${name}`,
    );
  expect(names([])).toEqual(['A', 'G', 'Row']);
  expect(names(['G', 'Row'])).toEqual(['A', 'G', ' B', ' C', 'Row', ' D']);
  expect(names([], 'd')).toEqual(['D']);
});

test('a pattern tells how many members it has, without those left out', () => {
  const document = model();
  const row = part(document, 'Row');
  expect(kindWords(row)).toBe('row · 4');
  expect(row.recipe.base.kind === 'pattern' && membersLeft(row.recipe.base)).toBe(4);
  expect(kindWords(part(document, 'G'))).toBe('group · 2');
});

test('the upper part of a row means before it, the lower after it, and the middle of a group into it', () => {
  const document = model();
  const [a, group] = [part(document, 'A'), part(document, 'G')];
  expect([0.1, 0.49, 0.51].map((height) => placeAt(a, height))).toEqual(['before', 'before', 'after']);
  expect([0.1, 0.5, 0.9].map((height) => placeAt(group, height))).toEqual(['before', 'into', 'after']);
});

test('what is dropped goes before the next one that does not come along, or last', () => {
  const document = model();
  const [a, b, c, group, row] = ['A', 'B', 'C', 'G', 'Row'].map((name) => part(document, name));
  expect(arrangement(document, [row!.id], a!, 'after')).toEqual({ parts: [row!.id], before: group!.id });
  expect(arrangement(document, [group!.id], a!, 'after')).toEqual({ parts: [group!.id], before: row!.id });
  expect(arrangement(document, [a!.id], row!, 'after')).toEqual({ parts: [a!.id] });
  expect(arrangement(document, [a!.id], c!, 'after')).toEqual({ parts: [a!.id], into: group!.id });
  expect(arrangement(document, [a!.id], b!, 'before')).toEqual({ parts: [a!.id], before: b!.id });
});

test('Alt with the arrows sends a part up and down, into the group above it, and out of its own', () => {
  const document = model();
  const sent = (name: string, key: string) => {
    const found = sentBy(document, part(document, name), key);
    return found && `${found.place} ${found.over.name}`;
  };
  expect(sent('G', 'ArrowUp')).toBe('before A');
  expect(sent('A', 'ArrowDown')).toBe('after G');
  expect(sent('Row', 'ArrowRight')).toBe('into G');
  expect(sent('B', 'ArrowLeft')).toBe('after G');
  expect(sent('A', 'ArrowUp')).toBeUndefined();
  // A source stays with its pattern.
  expect(sent('D', 'ArrowLeft')).toBeUndefined();
});
