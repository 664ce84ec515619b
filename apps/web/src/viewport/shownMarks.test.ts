import { emptyDocument, isRefusal, perform, plainWorld, verbNamed, type DockPlace } from '@kadrel/core';
import { dockTags, movedTags } from './shownMarks.ts';

const NO_TURN = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;
const QUARTER = [0, -1, 0, 1, 0, 0, 0, 0, 1] as const;

function oneBox() {
  const done = perform(
    verbNamed('box')!,
    { as: 'a', size: [10, 10, 10], at: [100, 0, 0] },
    emptyDocument(),
    plainWorld(emptyDocument(), () => 'p1'),
  );
  if (isRefusal(done)) throw new Error(done.message);
  return done.document;
}

/** On the right side of the box, looking out of it along X. */
const dock = {
  end: { of: 'p1', dock: 'd1' },
  part: 'p1',
  dock: { name: 'end' },
  pose: { turn: [0, 0, 1, 0, 1, 0, -1, 0, 0], shift: [110, 5, 5] },
} as unknown as DockPlace;

test('tags stand where docks are, and go along with what is moved by the statement in hand', () => {
  const document = oneBox();
  const [still] = dockTags(document, [dock]);
  expect(still).toMatchObject({ at: [110, 5, 5], out: [1, 0, 0], name: 'end', isTaken: false });
  const shown = { docks: [dock], tags: [still!] };
  const [moved] = movedTags(document, shown, new Map([['p1', { linear: QUARTER, shift: [0, 50, 0] }]]));
  // From the corner of the box (10, 5, 5), turned by a quarter about Z.
  expect(moved!.at).toEqual([-5, 60, 5]);
  expect(moved!.out.map((n) => n + 0)).toEqual([0, 1, 0]);
  const [other] = movedTags(document, shown, new Map([['p2', { linear: NO_TURN, shift: [5, 0, 0] }]]));
  expect(other).toBe(still);
});
