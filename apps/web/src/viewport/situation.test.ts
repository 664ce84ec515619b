import {
  CLICK_PX,
  step,
  type Effect,
  type Facts,
  type PointerEventData,
  type Situation,
} from './situation.ts';

const FACTS: Facts = {
  isBusy: () => false,
  drawsFrom: () => null,
  nextStep: () => null,
  held: () => 'other',
  takesRegions: () => true,
  isFence: () => false,
  isRoundDone: () => false,
};
const downAt = (x: number, y: number, button = 0, shift = false): PointerEventData => ({
  is: 'down',
  button,
  shift,
  x,
  y,
});
const moveTo = (x: number, y: number): PointerEventData => ({ is: 'move', x, y });
const upAt = (x: number, y: number, button = 0): PointerEventData => ({ is: 'up', button, x, y });

/** What a row of events does, and what the pointer is at after each. */
function follow(
  events: readonly PointerEventData[],
  facts: Partial<Facts> = {},
  from: Situation = { at: 'idle' },
) {
  let now = from;
  const done: Effect['do'][] = [];
  const path: Situation['at'][] = [];
  for (const event of events) {
    const [next, effects] = step(now, event, { ...FACTS, ...facts });
    now = next;
    path.push(next.at);
    done.push(...effects.map((effect) => effect.do));
  }
  return { now, done, path };
}

describe('a press on nothing that is drawn', () => {
  test('that does not move is a click', () => {
    const { done, path } = follow([downAt(10, 10), moveTo(12, 11), upAt(12, 11)]);
    expect(path).toEqual(['pressed', 'pressed', 'idle']);
    expect(done).toEqual(['click']);
  });

  test('that moves draws a region, and ends it', () => {
    const { done, path } = follow([downAt(10, 10), moveTo(30, 30), moveTo(40, 40), upAt(40, 40)]);
    expect(path).toEqual(['pressed', 'region', 'region', 'idle']);
    expect(done).toEqual(['beginRegion', 'drawRegion', 'endRegion']);
  });

  test('draws no region while a statement waits for something else', () => {
    const { done } = follow([downAt(10, 10), moveTo(30, 30), upAt(30, 30)], { takesRegions: () => false });
    expect(done).toEqual(['click']);
  });

  test('goes on as a fence by clicks, takes a corner back, and ends by Enter', () => {
    const events: PointerEventData[] = [
      downAt(0, 0),
      moveTo(30, 0),
      upAt(30, 0),
      moveTo(50, 20),
      downAt(50, 20),
      upAt(50, 20),
    ];
    const { now, done } = follow(events, { isFence: () => true });
    expect(now.at).toBe('fence');
    expect(done).toEqual(['beginRegion', 'fenceCorner', 'showFence', 'fenceCorner']);
    expect(follow([{ is: 'key', key: 'Backspace' }], {}, now).done).toEqual(['lastCornerBack']);
    const ended = follow([{ is: 'key', key: 'Enter' }], {}, now);
    expect([ended.now.at, ended.done]).toEqual(['idle', ['endRegion']]);
    expect(follow([{ is: 'key', key: 'Escape' }], {}, now).now.at).toBe('idle');
  });
});

describe('what can be dragged', () => {
  test('is taken where the press was, once it moves', () => {
    const facts = { held: () => 'grip' as const };
    const [, effects] = step({ at: 'pressed', on: 'grip', x: 5, y: 6 }, moveTo(5 + CLICK_PX, 6), FACTS);
    expect(effects).toEqual([{ do: 'takeGrip', x: 5, y: 6 }]);
    expect(follow([downAt(5, 6), moveTo(40, 6), moveTo(60, 6), upAt(60, 6)], facts).done).toEqual([
      'takeGrip',
      'follow',
      'letGo',
    ]);
  });

  test('is no obstacle to a click', () => {
    for (const held of ['grip', 'handle'] as const)
      expect(follow([downAt(5, 6), upAt(6, 6)], { held: () => held }).done).toEqual(['click']);
  });

  test('is a point of a profile too', () => {
    const facts = { held: () => 'handle' as const };
    expect(follow([downAt(5, 6), moveTo(40, 6), upAt(60, 6)], facts).done).toEqual([
      'takePoint',
      'letPointGo',
    ]);
  });
});

describe('drawing', () => {
  /** A box: a corner, the other, the height. */
  const facts = { drawsFrom: () => 0, nextStep: (at: number) => (at < 2 ? at + 1 : null) };

  test('by clicks: one place each, and the last one carries it out', () => {
    const events = [
      downAt(0, 0),
      upAt(0, 0),
      moveTo(50, 0),
      downAt(50, 50),
      upAt(50, 50),
      downAt(50, 20),
      upAt(50, 20),
    ];
    const { done, now } = follow(events, facts);
    expect(done).toEqual(['give', 'follow', 'give', 'give', 'finish']);
    expect(now.at).toBe('idle');
  });

  test('by a drag for the first two places, and a click for the third', () => {
    const { done, now } = follow([downAt(0, 0), moveTo(30, 30), upAt(60, 60)], facts);
    expect(done).toEqual(['give', 'follow', 'give']);
    expect(now).toEqual({ at: 'drawing', step: 2, press: null, isFirst: false });
  });

  test('of one place is carried out by one click', () => {
    const { done, now } = follow([downAt(0, 0), upAt(1, 0)], { drawsFrom: () => 0 });
    expect([done, now.at]).toEqual([['give', 'finish'], 'idle']);
  });

  test('begins after what was typed, and ends with it', () => {
    const typed = { drawsFrom: () => 0, nextStep: (at: number) => (at === 0 ? 2 : null) };
    const [next] = step({ at: 'idle' }, downAt(0, 0), { ...FACTS, ...typed });
    expect(next).toMatchObject({ at: 'drawing', step: 2 });
  });

  test('looks round in the middle, and goes on', () => {
    const events = [
      downAt(0, 0),
      upAt(0, 0),
      downAt(9, 9, 1),
      moveTo(20, 9),
      upAt(20, 9, 1),
      downAt(50, 50),
      upAt(50, 50),
    ];
    const { path, done } = follow(events, facts);
    expect(path).toEqual(['drawing', 'drawing', 'navigating', 'navigating', 'drawing', 'drawing', 'drawing']);
    expect(done).toEqual(['give', 'look', 'turn', 'follow', 'give']);
  });

  test('takes what is shown by Enter, as by a click', () => {
    const last: Situation = { at: 'drawing', step: 2, press: null, isFirst: false };
    expect(follow([{ is: 'key', key: 'Enter' }], facts, last).done).toEqual(['give', 'finish']);
    const middle = follow([{ is: 'key', key: 'Enter' }], facts, { ...last, step: 1 });
    expect([middle.done, middle.now]).toEqual([['give'], last]);
  });

  test('that goes on level by level is ended by Enter', () => {
    const round = { drawsFrom: () => 0, nextStep: (at: number) => (at === 2 ? 1 : at + 1) };
    const at = (step: number): Situation => ({ at: 'drawing', step, press: null, isFirst: false });
    const enter: PointerEventData[] = [{ is: 'key', key: 'Enter' }];
    expect(follow(enter, round, at(1)).done).toEqual(['give']);
    expect(follow(enter, round, at(2)).done).toEqual(['give', 'finish']);
    expect(follow(enter, { ...round, isRoundDone: (step) => step === 1 }, at(1)).done).toEqual(['finish']);
  });

  test('ends with its statement', () => {
    const { now, done } = follow([{ is: 'ended' }], facts, {
      at: 'drawing',
      step: 1,
      press: null,
      isFirst: false,
    });
    expect([now.at, done]).toEqual(['idle', ['clear']]);
  });
});

test('looking round works at any time, and Shift pans', () => {
  const { path, done } = follow([downAt(0, 0, 2, true), moveTo(5, 5), upAt(5, 5, 2)], { isBusy: () => true });
  expect(path).toEqual(['navigating', 'navigating', 'idle']);
  expect(done).toEqual(['look', 'shift', 'follow']);
});

test('nothing is pressed while a statement is at work', () => {
  expect(follow([downAt(0, 0), upAt(0, 0)], { isBusy: () => true }).done).toEqual([]);
});
