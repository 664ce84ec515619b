import { NO_TURN, VERBS, verbNamed, type Vec3 } from '@kadrel/core';
import {
  withPlace,
  entryInHand,
  gestureOf,
  hasSize,
  isComplete,
  nextStep,
  type Aim,
  type GestureBase,
} from './gesture.ts';
import { entryKey, startStatement, withText, type Statement } from './statement.ts';

const read = (text: string) => {
  const n = Number(text.replace(/ mm$/, ''));
  return text.trim() === '' || Number.isNaN(n) ? undefined : n;
};
const STEPS = { length: 5, angle: 15 };
const at = (point: Vec3, isFree = false): Aim => ({ point, steps: isFree ? STEPS : null });
const begun = (verb: string) => startStatement(verbNamed(verb)!);
const typed = (statement: Statement, key: string, text: string) => {
  const [blank, axis] = key.split('.');
  return withText(statement, { blank: blank!, axis: axis === undefined ? null : (Number(axis) as 0) }, text);
};

/** Gives places one after another, each to the step that asks for it. */
function drawn(statement: Statement, ...places: readonly Aim[]): Statement {
  let base: GestureBase | undefined;
  let step = nextStep(statement, -1);
  return places.reduce((now, aim) => {
    base ??= { plane: { turn: NO_TURN, shift: [0, 0, aim.point[2]] }, first: aim.point };
    const next = withPlace(now, gestureOf(now)!.steps[step!]!, { aim, base, read });
    step = nextStep(next, step!);
    return next;
  }, statement);
}

test('a box goes from corner to corner, whichever way, and up or down', () => {
  const up = drawn(begun('box'), at([40, 30, 5]), at([10, 70, 5]), at([0, 0, 25]));
  expect(up.typed).toMatchObject({ at: ['10 mm', '30 mm', '5 mm'], size: ['30 mm', '40 mm', '20 mm'] });
  const down = drawn(begun('box'), at([0, 0, 5]), at([10, 10, 5]), at([0, 0, -3]));
  expect(down.typed).toMatchObject({ at: ['0 mm', '0 mm', '-3 mm'], size: ['10 mm', '10 mm', '8 mm'] });
});

test('what was typed holds, and its step is passed over', () => {
  const one = drawn(typed(begun('box'), 'size.0', '12'), at([0, 0, 0]), at([-50, 30, 0]));
  expect(one.typed).toMatchObject({ at: ['-12 mm', '0 mm', '0 mm'], size: ['12', '30 mm', ''] });
  const ball = typed(begun('sphere'), 'diameter', '20');
  expect(nextStep(ball, 0)).toBeNull();
  const rod = typed(begun('cylinder'), 'radius', '4');
  expect(nextStep(rod, 0)).toBe(2);
  expect(drawn(rod, at([1, 2, 3]), at([0, 0, 13])).typed).toMatchObject({
    radius: '4',
    height: '10 mm',
    at: ['1 mm', '2 mm', '3 mm'],
  });
});

test('a height that was typed stands upward, wherever the pointer is', () => {
  const box = drawn(typed(begun('box'), 'size.2', '12'), at([0, 0, 5]), at([10, 10, 5]));
  expect(nextStep(box, 1)).toBeNull();
  const { steps } = gestureOf(box)!;
  const base: GestureBase = { plane: { turn: NO_TURN, shift: [0, 0, 5] }, first: [0, 0, 5] };
  const below = withPlace(box, steps[2]!, { aim: at([0, 0, -30]), base, read });
  expect(below.typed).toMatchObject({ at: ['0 mm', '0 mm', '5 mm'], size: ['10 mm', '10 mm', '12'] });
});

test('what is round goes from its centre to its rim, by whole steps where nothing is caught', () => {
  expect(drawn(begun('sphere'), at([0, 0, 0]), at([3, 4, 9])).typed.diameter).toBe('10 mm');
  expect(drawn(begun('sphere'), at([0, 0, 0]), at([3, 4.4, 0], true)).typed.diameter).toBe('10 mm');
  const ring = drawn(begun('torus'), at([0, 0, 0]), at([20, 0, 0]), at([23, 0, 0]));
  expect(ring.typed).toMatchObject({ diameter: '40 mm', thickness: '6 mm' });
  const pipe = drawn(begun('tube'), at([0, 0, 0]), at([20, 0, 0]), at([15, 0, 0]), at([0, 0, 8]));
  expect(pipe.typed).toMatchObject({ diameter: '40 mm', bore: '30 mm', height: '8 mm' });
});

test('a regular outline is as wide as its width is measured', () => {
  const along = (across: string) =>
    drawn({ ...begun('prism'), typed: { ...begun('prism').typed, across } }, at([0, 0, 0]), at([10, 0, 0]))
      .typed.width;
  expect(along('corners')).toBe('20 mm');
  expect(along('flats')).toBe('20 mm');
  // A side of a hexagon is as long as its corners are from the centre.
  expect(along('side')).toBe('10 mm');
});

test('figures: a line, a rectangle about its centre, an ellipse, an arc the shorter way', () => {
  expect(drawn(begun('line'), at([1, 2, 0]), at([11, 2, 0])).typed).toMatchObject({
    from: ['1 mm', '2 mm', '0 mm'],
    to: ['11 mm', '2 mm', '0 mm'],
  });
  const centred = { ...begun('rectangle'), typed: { ...begun('rectangle').typed, from: 'centre' } };
  expect(drawn(centred, at([5, 5, 0]), at([15, 0, 0])).typed).toMatchObject({
    width: '20 mm',
    height: '10 mm',
    at: ['5 mm', '5 mm', '0 mm'],
  });
  expect(drawn(begun('ellipse'), at([0, 0, 0]), at([-30, 10, 0])).typed).toMatchObject({
    width: '60 mm',
    height: '20 mm',
    at: ['0 mm', '0 mm', '0 mm'],
  });
  const bow = drawn(begun('arc'), at([0, 0, 0]), at([0, 10, 0]), at([10, 0, 0]));
  expect(bow.typed).toMatchObject({ radius: '10 mm', first: '90', sweep: '-90' });
});

test('tiers grow level by level', () => {
  const tower = drawn(
    begun('tiers'),
    at([0, 0, 0]),
    at([20, 0, 0]),
    at([0, 0, 10]),
    at([12, 0, 0]),
    at([0, 0, 35]),
  );
  expect(tower.typed.levels).toEqual([
    { below: '40 mm', height: '10 mm' },
    { below: '24 mm', height: '25 mm' },
  ]);
});

test('a place that leaves a step flat is none', () => {
  const flat = drawn(begun('box'), at([0, 0, 0]), at([10, 0, 0]));
  expect(hasSize(flat, gestureOf(flat)!.steps[1]!, read)).toBe(false);
  const wide = drawn(begun('box'), at([0, 0, 0]), at([10, 5, 0]));
  expect(hasSize(wide, gestureOf(wide)!.steps[1]!, read)).toBe(true);
});

test('a number typed while a step is drawn goes into its first entry that is free', () => {
  const box = begun('box');
  expect(entryKey(entryInHand(box, gestureOf(box)!.steps[1]!)!)).toBe('size.0');
  expect(entryKey(entryInHand(typed(box, 'size.0', '5'), gestureOf(box)!.steps[1]!)!)).toBe('size.1');
});

test('every verb that is drawn names blanks that it has, and is complete once all places are given', () => {
  const names = VERBS.filter((verb) => verb.gesture).map(({ id }) => id);
  expect(names.length).toBeGreaterThan(15);
  for (const id of names) {
    const { gesture, blanks } = verbNamed(id)!;
    for (const { into } of gesture!.steps.flat())
      for (const key of [into].flat()) expect(blanks[key.split('.')[0]!]).toBeDefined();
    const places = [at([1, 2, 0]), at([31, 42, 0]), at([51, 42, 20]), at([51, 62, 40])];
    const all = drawn(begun(id), ...places.slice(0, gesture!.steps.length));
    if (id !== 'text') expect([id, isComplete(all)]).toEqual([id, true]);
  }
});
