import { said, type Statement } from '@kadrel/testing';
import { current } from 'immer';
import { change } from '../history/edit.ts';
import { itemIndex } from './itemIndex.ts';
import { emptyDocument, freeName } from './items.ts';

type WithItems = Parameters<typeof itemIndex>[0];

/** What an index says, of the names in the items and of one that nothing has. */
function told(asked: WithItems, { items }: WithItems) {
  const { count, lastOrder, named } = itemIndex(asked);
  const names = [...Object.values(items).map(({ name }) => name), 'nothing'];
  const free = [...names, 'Box', 'bored', 'side'].map((name) => freeName(asked, name));
  return { count, lastOrder, free, names: names.map((name) => [name, named(name)]) };
}

/** As it would be counted from the items alone. */
const countedAnew = ({ items }: WithItems) => {
  const plain = { items: { ...items } };
  return told(plain, plain);
};

const STATEMENTS: readonly Statement[] = [
  ['box', { as: 'shelf', size: [400, 300, 18] }],
  ['box', { size: [400, 18, 300] }],
  ['box', { size: [18, 300, 300] }],
  ['duplicate', { parts: ['Box'], by: [0, 500, 0] }],
  ['rename', { part: 'Box 2', to: 'side' }],
  ['cylinder', { as: 'dowel', diameter: 8, height: 30 }],
  ['along', { as: 'dowels', parts: ['dowel'], count: 4, pitch: 60 }],
  ['group', { as: 'frame', parts: ['shelf', 'side'] }],
  ['move', { parts: ['frame'], by: [10, 0, 0] }],
  ['subtract', { as: 'bored', from: 'Box', parts: ['dowels'] }],
  ['delete', { parts: ['bored'] }],
  ['box', { as: 'bored', size: [5, 5, 5] }],
  ['delete', { parts: ['Box 3', 'bored'] }],
  ['box', { size: [5, 5, 5] }],
];

test('what a statement hands on is what would be counted anew', () => {
  let document = emptyDocument();
  for (const [verb, typed] of STATEMENTS) {
    document = said(document, verb, typed).document;
    expect(told(document, document)).toEqual(countedAnew(document));
  }
  expect(Object.keys(document.items).length).toBe(itemIndex(document).count);
});

test('a document that was gone on from can be asked about and gone on from again', () => {
  const first = said(emptyDocument(), 'box', { as: 'shelf', size: [400, 300, 18] }).document;
  const second = said(first, 'box', { as: 'side', size: [18, 300, 300] }).document;
  const other = said(first, 'box', { as: 'back', size: [400, 18, 300] }).document;
  for (const [document, names] of [
    [first, ['shelf']],
    [second, ['shelf', 'side']],
    [other, ['shelf', 'back']],
  ] as const) {
    expect(['shelf', 'side', 'back'].filter((name) => itemIndex(document).named(name) > 0)).toEqual(names);
    expect(told(document, document)).toEqual(countedAnew(document));
  }
});

test('a draft is counted as it stands, and to count it changes nothing of it', () => {
  const before = STATEMENTS.slice(0, 6).reduce(
    (document, [verb, typed]) => said(document, verb, typed).document,
    emptyDocument(),
  );
  const [first, second, third] = Object.keys(before.items);
  const { patches } = change(before, (draft) => {
    const stands = () => {
      const plain = current(draft);
      expect(told(draft, plain)).toEqual(countedAnew(plain));
    };
    stands();
    draft.items[first!]!.name = 'board';
    stands();
    delete draft.items[second!];
    stands();
    draft.items.fresh = { ...before.items[third!]!, id: 'fresh', name: 'fresh', order: 99 };
    draft.items.fresh.name = 'renamed';
    stands();
    expect(['board', 'renamed', 'fresh'].map(itemIndex(draft).named)).toEqual([1, 1, 0]);
  });
  expect(patches.map(({ op, path }) => [op, ...path.slice(1, 3)])).toEqual(
    expect.arrayContaining([
      ['replace', first, 'name'],
      ['remove', second],
      ['add', 'fresh'],
    ]),
  );
  expect(patches).toHaveLength(3);
});

test('a draft that loses its last item, or has others in place of all, is counted as it stands', () => {
  const before = said(emptyDocument(), 'box', { as: 'shelf', size: [400, 300, 18] }).document;
  const more = said(before, 'box', { as: 'side', size: [18, 300, 300] }).document;
  change(more, (draft) => {
    const stands = () => {
      const plain = current(draft);
      expect(told(draft, plain)).toEqual(countedAnew(plain));
    };
    delete draft.items[Object.keys(more.items).at(-1)!];
    stands();
    draft.items = { other: { ...Object.values(before.items)[0]!, id: 'other', name: 'other', order: 7 } };
    stands();
    draft.items.other!.name = 'another';
    stands();
  });
});
