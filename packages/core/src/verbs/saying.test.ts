/** What statements are said by: names, ranges, and counts that follow variables. */
import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { countOf } from '../patterns/members.ts';
import { isRefusal } from '../statement/declare.ts';
import { verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';

let ids = 0;
const say = (document: KadrelDocument, verb: string, typed: Typed) =>
  perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `p${++ids}`),
  );
function documentOf(...statements: readonly [verb: string, typed: Typed][]): KadrelDocument {
  ids = 0;
  return statements.reduce((document, [verb, typed]) => {
    const done = say(document, verb, typed);
    if (isRefusal(done)) throw new Error(done.message);
    return done.document;
  }, emptyDocument());
}
const named = (document: KadrelDocument, name: string) =>
  Object.values(document.items).find((item) => item.name === name)!;
const refusalOf = (document: KadrelDocument, verb: string, typed: Typed) => {
  const done = say(document, verb, typed);
  return isRefusal(done) ? [done.code, done.blank] : undefined;
};
const box = (as: string): [string, Typed] => ['box', { as, size: [1, 1, 1] }];

test('a part that is named like the id of another is the one that is meant', () => {
  const document = documentOf(box('p2'), box('other'), ['move', { parts: ['p2'], by: [5, 0, 0] }]);
  expect(named(document, 'p2').placement.origin).toEqual([5, 0, 0]);
  expect(named(document, 'other').placement.origin).toEqual([0, 0, 0]);
});

test('a name that is taken is refused, and so is one where nothing is made', () => {
  const document = documentOf(box('a'), box('b'));
  expect(refusalOf(document, 'box', { as: 'a', size: [1, 1, 1] })).toEqual(['name-taken.part-named', 'as']);
  expect(refusalOf(document, 'union', { as: 'a', parts: ['a', 'b'] })).toEqual([
    'name-taken.part-named',
    'as',
  ]);
});

test('a count follows its variable', () => {
  const document = documentOf(
    ['variable', { name: 'n', value: '3' }],
    box('a'),
    ['along', { as: 'row', parts: ['a'], count: 'n', pitch: 2 }],
    ['variable', { name: 'n', value: '5' }],
  );
  const { base } = named(document, 'row').recipe;
  expect(base.kind === 'pattern' && countOf(base.layout)).toBe(5);
});

test('members are left out by ranges', () => {
  const row: [string, Typed] = ['along', { as: 'row', parts: ['a'], count: 6, pitch: 2 }];
  const document = documentOf(box('a'), row, ['omit', { part: 'row', members: '2-4, 6' }]);
  const { base } = named(document, 'row').recipe;
  expect(base.kind === 'pattern' && base.omitted.map(([i]) => i)).toEqual([1, 2, 3, 5]);
  expect(refusalOf(document, 'omit', { part: 'row', members: '4-2' })).toEqual(['range.members', 'members']);
});

test('patterns within patterns have an end', () => {
  const document = documentOf(box('a'), ['along', { as: 'row', parts: ['a'], count: 1000, pitch: 2 }]);
  expect(refusalOf(document, 'along', { parts: ['row'], along: 'y', count: 1000, pitch: 2 })?.[0]).toBe(
    'too-many.solids',
  );
});

test('the centre of a ring is needed, unless an axis is picked', () => {
  expect(refusalOf(documentOf(box('a')), 'around', { parts: ['a'], count: 4 })).toEqual([
    'missing.still',
    'at',
  ]);
});

test('what is farther than a model can be is refused', () => {
  expect(refusalOf(documentOf(box('a')), 'move', { parts: ['a'], by: ['1e300', 0, 0] })).toEqual([
    'too-large.more',
    'by',
  ]);
});
