import { emptyDocument, starterPart, type RackPart } from '@kadrel/core';
import { isWished, outdatedIn } from './racks.ts';

const bolt = starterPart('Hexagon head bolt')!;
const pipe = starterPart('Pipe 40')!;

test('parts are found by name, by words, by a size, and by what they fit', () => {
  const found = (text: string, fits = '') =>
    [bolt, pipe].filter((part) => isWished(part, { text, fits })).map(({ name }) => name);
  expect(found('')).toEqual([bolt.name, pipe.name]);
  expect(found('hex bolt')).toEqual([bolt.name]);
  expect(found('m8')).toEqual([bolt.name]);
  expect(found('plumbing')).toEqual([pipe.name]);
  expect(found('', 'pipe 40')).toEqual([pipe.name]);
  expect(found('screw', 'pipe 40')).toEqual([]);
});

test('only what follows, and of which a rack has a later version, is told', () => {
  const item = (from: string, follows?: true) => ({
    id: `${from}${follows ?? ''}`,
    name: from,
    taken: { from, values: {}, items: {}, ...(follows ? { follows } : {}) },
  });
  const kept: RackPart = { ...pipe, version: 2 };
  const document = {
    ...emptyDocument(),
    items: { a: item('k', true), b: item('k'), c: item('gone', true) },
    rackParts: { k: kept },
  } as unknown as ReturnType<typeof emptyDocument>;
  const rack = (version: number) => [
    { id: 'r', name: 'Mine', project: null, parts: [{ ...pipe, version }], drawn: [] },
  ];
  expect(outdatedIn(document, rack(3))).toMatchObject([{ name: 'k', from: 2, to: { version: 3 } }]);
  expect(outdatedIn(document, rack(2))).toEqual([]);
});
