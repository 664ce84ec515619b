import { emptyDocument, worldFromPart } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { perform } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';
import { verbNamed } from '../verbs/index.ts';
import type { Ray } from '../space/plane.ts';
import {
  MAX_CUTS,
  cuttersOf,
  cutsIn,
  isCutAway,
  isGone,
  isParted,
  isSection,
  itemsCutBy,
  sectionsIn,
  seenFrom,
  viewsOf,
} from './cuts.ts';

type Said = readonly [verb: string, typed: Record<string, unknown>];

function after(...statements: readonly Said[]): KadrelDocument {
  let document = emptyDocument();
  let ids = 0;
  for (const [verb, typed] of statements) {
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => `p${++ids}`),
    );
    if (isRefusal(done)) throw new Error(done.message);
    document = done.document;
  }
  return document;
}
const box: Said = ['box', { as: 'a', size: [40, 30, 20] }];
const towards = (from: Ray['from'], direction: Ray['direction']): Ray => ({ from, direction });

test('a half takes what lies before it, and turned over what lies behind', () => {
  const behind = cutsIn(after(box, ['section', { on: 'plan', offset: 7 }]), 'home');
  expect([
    isCutAway(behind, 'a', [0, 0, 8]),
    isCutAway(behind, 'a', [0, 0, 7]),
    isCutAway(behind, 'a', [0, 0, 6]),
  ]).toEqual([true, false, false]);
  const before = cutsIn(after(box, ['section', { on: 'plan', offset: 7, shows: 'before' }]), 'home');
  expect([isCutAway(before, 'a', [0, 0, 8]), isCutAway(before, 'a', [0, 0, 6])]).toEqual([false, true]);
});

test('a slab shows what lies between two planes, a corner all but a quarter', () => {
  const slab = cutsIn(after(box, ['section', { on: 'plan', offset: 7, form: 'slab', depth: 3 }]), 'home');
  expect([8, 6, 4.5, 3.5].map((z) => isCutAway(slab, 'a', [0, 0, z]))).toEqual([true, false, false, true]);
  const corner = cutsIn(after(box, ['section', { on: 'plan', offset: 7, form: 'corner' }]), 'home');
  expect(
    [
      [1, 0, 8],
      [-1, 0, 8],
      [1, 0, 6],
    ].map((point) => isCutAway(corner, 'a', point as never)),
  ).toEqual([true, false, false]);
});

test('each says in which views it cuts, and what it leaves whole', () => {
  const document = after(
    box,
    ['box', { as: 'bolt', size: [5, 5, 50] }],
    ['section', { as: 's', on: 'plan', offset: 7, views: 'front and home', whole: ['bolt'] }],
  );
  const [section] = sectionsIn(document);
  expect(viewsOf(section!.recipe.base)).toEqual(['home', 'front']);
  expect(cutsIn(document, 'plan')).toEqual([]);
  const cuts = cutsIn(document, 'front');
  const bolt = Object.values(document.items).find(({ name }) => name === 'bolt')!.id;
  expect([isCutAway(cuts, bolt, [0, 0, 9]), isCutAway(cuts, 'p1', [0, 0, 9])]).toEqual([false, true]);
  expect(itemsCutBy(document, section!).map(({ name }) => name)).toEqual(['a']);
});

test('a cut parts what lies on both sides of it', () => {
  const document = after(box, ['section', { as: 's', on: 'plan', offset: 7, form: 'corner', whole: [] }]);
  const cuts = cutsIn(document, 'home');
  const isIt = (min: [number, number, number], max: [number, number, number]) =>
    isParted(cuts, 'a', { min, max });
  expect(isIt([-10, -10, 0], [10, 10, 10])).toBe(true);
  // Below the plane, and before it but to the left, all stays; in the quarter nothing does.
  expect(isIt([-10, -10, 0], [10, 10, 7])).toBe(false);
  expect(isIt([-10, -10, 0], [0, 10, 10])).toBe(false);
  expect(isIt([1, -10, 8], [10, 10, 10])).toBe(false);
  expect(isIt([1, -10, 6], [10, 10, 10])).toBe(true);
  const isAllGone = (min: number) => isGone(cuts, 'a', { min: [1, -10, min], max: [10, 10, 10] });
  expect([isAllGone(8), isAllGone(6)]).toEqual([true, false]);
});

test('hidden ones cut nothing, and what is dragged cuts where it is dragged to', () => {
  const shown = after(box, ['section', { as: 's', on: 'plan', offset: 7 }]);
  const id = Object.values(shown.items).find(isSection)!.id;
  const { turn } = worldFromPart(shown, id);
  const dragged = cutsIn(shown, 'home', () => ({ turn, shift: [0, 0, 15] }));
  expect(isCutAway(dragged, 'a', [0, 0, 8])).toBe(false);
  const hidden = after(box, ['section', { as: 's', on: 'plan', offset: 7 }], ['hide', { parts: ['s'] }]);
  expect(cutsIn(hidden, 'home')).toEqual([]);
});

test('along a ray an item comes into sight where the last cut is left', () => {
  const document = after(
    box,
    ['section', { on: 'plan', offset: 10 }],
    ['section', { on: 'side', offset: 5 }],
  );
  const cuts = cutsIn(document, 'home');
  const down = towards([0, 0, 50], [0, 0, -1]);
  expect(seenFrom(cuts, 'a', { ray: down, from: 0 })).toBe(40);
  expect(seenFrom(cuts, 'a', { ray: down, from: 45 })).toBe(45);
  // Beyond x = 5 nothing is seen at any height.
  expect(seenFrom(cuts, 'a', { ray: towards([6, 0, 50], [0, 0, -1]), from: 0 })).toBe(Infinity);
  const slanting = towards([20, 0, 20], [-Math.SQRT1_2, 0, -Math.SQRT1_2]);
  expect(seenFrom(cuts, 'a', { ray: slanting, from: 0 })).toBeCloseTo(15 * Math.SQRT2, 9);
});

describe('what is said wrongly is refused', () => {
  const refusal = (verb: string, typed: Record<string, unknown>): Refusal => {
    const document = after(box, ['section', { as: 's', on: 'plan', offset: 7 }]);
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => 'new'),
    );
    if (!isRefusal(done)) throw new Error('it was not refused');
    return done;
  };
  test.each([
    ['section', { on: 'plan', views: 'plan, attic' }, 'views', 'There is no view attic'],
    ['leave-whole', { parts: ['a'], section: 'a' }, 'section', 'a is no section plane.'],
    ['keep-cut', { section: 'a' }, 'section', 'a is no section plane.'],
    ['keep-cut', { section: 's', parts: ['s'] }, 'parts', 's is no solid.'],
    ['slices', { parts: ['s'], pitch: 2 }, 'parts', 's is no solid.'],
  ])('%s', (verb, typed, blank, words) => {
    const { blank: refusedBlank, message } = refusal(verb, typed);
    expect([refusedBlank, message]).toEqual([blank, expect.stringContaining(words)]);
  });
});

test('parts are left whole, and cut again', () => {
  const start: Said[] = [
    box,
    ['section', { as: 's', on: 'plan', offset: 7 }],
    ['leave-whole', { parts: ['a'], section: 's' }],
  ];
  const cutOf = (document: KadrelDocument) => itemsCutBy(document, sectionsIn(document)[0]!).length;
  expect(cutOf(after(...start))).toBe(0);
  expect(cutOf(after(...start, ['leave-whole', { parts: ['a'], section: 's', how: 'cut' }]))).toBe(1);
});

test('a view draws so many cuts at once, a slab as two; those that are too many are told apart', () => {
  const planes = Array.from(
    { length: MAX_CUTS - 1 },
    (_, i) => ['section', { as: `s${i}`, on: 'plan', offset: i }] as const,
  );
  const slab = ['section', { as: 'slab', on: 'plan', offset: 90, form: 'slab', depth: 3 }] as const;
  const last = ['section', { as: 'last', on: 'plan', offset: 95 }] as const;
  const { cutting, leftOut } = cuttersOf(after(box, ...planes, slab, last), 'home');
  expect(cutting).toHaveLength(MAX_CUTS);
  expect(leftOut.map(({ name }) => name)).toEqual(['slab']);
  expect(cutsIn(after(box, ...planes, slab, last), 'home')).toHaveLength(MAX_CUTS);
});
