/** Docks in blanks: written, found again, and the next one that is free. */
import {
  docksIn,
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type KadrelDocument,
} from '@kadrel/core';
import { dockIn, snapDocks, typedDock, withNextDock } from './docks.ts';
import { startStatement, withPick } from './statement.ts';

let ids = 0;
const after = (steps: readonly (readonly [verb: string, typed: Record<string, unknown>])[]): KadrelDocument =>
  steps.reduce((document, [verb, typed]) => {
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => `d${++ids}`),
    );
    if (isRefusal(done)) throw new Error(done.message);
    return done.document;
  }, emptyDocument());

const beam = (as: string, y: number) =>
  [
    ['box', { size: [100, 20, 10], at: [0, y, 0], as }],
    ['dock', { at: [0, y, 0], part: as, out: '-x', kind: 'beam', called: 'start' }],
    ['dock', { at: [50, y, 0], part: as, out: 'z', kind: 'post', called: 'middle' }],
    ['dock', { at: [100, y, 0], part: as, out: 'x', kind: 'beam', called: 'end' }],
  ] as const;

const placesOf = (document: KadrelDocument) =>
  docksIn(document, (part) => plainWorld(document, () => '').shapeOf(part));

test('what is written into a blank is found again', () => {
  const places = placesOf(
    after([...beam('a', 0), ...beam('b', 100), ['along', { parts: ['b'], count: 3, along: 'z', pitch: 50 }]]),
  );
  expect(places).toHaveLength(12);
  for (const place of places) expect(dockIn(typedDock(place), places)).toBe(place);
  expect(dockIn({ on: places[0]!.part }, places)).toBeUndefined();
});

test('the next dock is a free one of the same part that matches the other, round and round', () => {
  const document = after([
    ...beam('a', 0),
    ...beam('b', 100),
    ...beam('c', 200),
    ['join-docks', { dock: 'c: start', onto: 'a: end' }],
  ]);
  const places = placesOf(document);
  const named = (part: string, dock: string) =>
    places.find((one) => document.items[one.part]!.name === part && one.dock.name === dock)!;
  const statement = startStatement(verbNamed('join-docks')!, {
    dock: typedDock(named('b', 'start')),
    onto: typedDock(named('a', 'start')),
  });
  const once = withNextDock(statement, 'dock', places, document);
  expect(dockIn(once.typed.dock, places)).toBe(named('b', 'end'));
  expect(dockIn(withNextDock(once, 'dock', places, document).typed.dock, places)).toBe(named('b', 'start'));
  // The end of a is taken, and its middle is of another kind.
  expect(dockIn(withNextDock(statement, 'onto', places, document).typed.onto, places)).toBe(
    named('a', 'start'),
  );
});

test('snaps get the same list again as long as the docks are the same', () => {
  const places = placesOf(after([...beam('a', 0)]));
  expect(snapDocks(places)).toBe(snapDocks(places));
  expect(snapDocks(places).map(({ dock, at }) => [dock, at])).toEqual([
    ['start', [0, 0, 0]],
    ['middle', [50, 0, 0]],
    ['end', [100, 0, 0]],
  ]);
});

test('of a place and a dock the one that is picked last is meant', () => {
  const placed = withPick(startStatement(verbNamed('take')!, { part: 'Dowel' }), 'at', ['1', '2', '3']);
  const joined = withPick(placed, 'onto', { on: 'a', dock: 'end' });
  expect([placed.typed.at, joined.typed.at, joined.typed.onto]).toEqual([
    ['1', '2', '3'],
    undefined,
    { on: 'a', dock: 'end' },
  ]);
});
