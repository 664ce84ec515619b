import {
  cameraOf,
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type KadrelDocument,
  type ViewState,
} from '@kadrel/core';
import { nudgeStep } from '../workshop/nudgeStep.ts';
import { frameOfView, keepFrames, readFrames } from './frames.ts';
import { nudging } from './nudging.ts';
import { previewOf } from './preview.ts';
import {
  hiddenBlanks,
  isEndOfCopies,
  isShown,
  startStatement,
  withChoice,
  withPick,
  type Statement,
} from './statement.ts';
import { pickedBlank, waitsFor } from './waiting.ts';

const verb = (id: string) => verbNamed(id)!;

describe('picking', () => {
  test('goes from one blank to the next, and on to the number', () => {
    let statement = startStatement(verb('distance'));
    expect(pickedBlank(statement)).toBe('from');
    statement = withPick(statement, 'from', { on: 'p1', at: 'top' }, 'face of Lid');
    expect([pickedBlank(statement), statement.labels.from]).toEqual(['to', 'face of Lid']);
    statement = withPick(statement, 'to', [0, 0, 0]);
    expect([pickedBlank(statement), statement.focus?.blank]).toEqual([null, 'distance']);
  });
  test('a point that is picked is what is turned about, and a choice of a point asks for it', () => {
    const open = startStatement(verb('turn'), { parts: ['p1'] });
    expect(open.focus?.blank).toBe('angle');
    expect(isShown(open, 'at')).toBe(false);
    const asked = withChoice({ ...open, typed: { ...open.typed, centre: 'point' } }, 'centre');
    expect([asked.focus?.blank, isShown(asked, 'at'), pickedBlank(asked)]).toEqual(['at', true, 'at']);
    expect(withPick(open, 'at', [1, 2, 3]).typed).toMatchObject({ centre: 'point', at: [1, 2, 3] });
  });
  test('a click fills what is needed unless something else is given, whichever field has the focus', () => {
    const ring = startStatement(verb('around'), { parts: ['p1'], count: '12' });
    const counting = { ...ring, focus: { blank: 'count', axis: null } };
    expect(pickedBlank(counting)).toBe('at');
    expect(waitsFor(counting)).toContain('centre');
    const about = { ...counting, typed: { ...counting.typed, about: { on: 'p2', at: 'side' } } };
    expect(pickedBlank(about)).toBeNull();
  });
  test('nothing is picked for parts that are not chosen yet, nor for a frame that is not asked for', () => {
    expect(pickedBlank(startStatement(verb('move')))).toBeNull();
    const move = startStatement(verb('move'), { parts: ['p1'] });
    expect(pickedBlank({ ...move, focus: null })).toBeNull();
    expect(pickedBlank({ ...move, picking: { how: 'feature', points: [] } })).toBe('in');
  });
  test('of factors and sizes the one that is filled stands alone; seldom blanks wait in the list', () => {
    const open = startStatement(verb('resize'), { parts: ['p1'] });
    expect([isShown(open, 'by'), isShown(open, 'to')]).toEqual([true, true]);
    const sized = { ...open, focus: null, typed: { ...open.typed, to: ['5', 'now', 'now'] } };
    expect([isShown(sized, 'by'), isShown(sized, 'to')]).toEqual([false, true]);
    expect(hiddenBlanks(open)).toEqual(['at', 'from', 'until', 'length']);
  });
  test('copies end at Enter without another point', () => {
    const copies = startStatement(verb('move'), { parts: ['p1'], leaving: 'each', from: [0, 0, 0] });
    expect(isEndOfCopies(copies)).toBe(true);
    expect(isEndOfCopies({ ...copies, typed: { ...copies.typed, to: [1, 0, 0] } })).toBe(false);
  });
});

const view = (bearing: number, altitude: number, projection: ViewState['projection'] = 'parallel') => ({
  target: [0, 0, 0] as const,
  bearing,
  altitude,
  height: 100,
  projection,
});

describe('frames', () => {
  test('of a view go by its name, by its angles, or mean the world in perspective', () => {
    expect(frameOfView(view(0, 0))).toBe('front');
    expect(frameOfView(view(45, 0))).toEqual({ bearing: 45, altitude: 0 });
    expect(frameOfView(view(0, 0, 'perspective'))).toBe('world');
  });
  test('are remembered for each verb by itself', () => {
    keepFrames(localStorage, 'p', { move: 'view', turn: 'world', resize: 'own' });
    expect(readFrames(localStorage, 'p').move).toBe('view');
    expect(readFrames(localStorage, 'other')).toEqual({ move: 'world', turn: 'world', resize: 'own' });
  });
});

describe('nudging', () => {
  const press = (key: string, from: ViewState, more: object = {}) =>
    nudgeStep({ key, shiftKey: false, ctrlKey: false, metaKey: false, ...more }, cameraOf(from, 10, 10), 2);
  test('goes along the axes nearest to the view’s', () => {
    expect(press('ArrowUp', view(0, 0))).toEqual([0, 0, 2]);
    expect(press('ArrowUp', view(0, 90))).toEqual([0, 2, 0]);
    expect(press('ArrowUp', view(30, 30))).toEqual([0, 2, 0]);
    expect(press('ArrowRight', view(90, 0))).toEqual([0, 2, 0]);
    expect(press('ArrowRight', view(180, 0))).toEqual([-2, 0, 0]);
    expect(press('PageDown', view(30, 30))).toEqual([0, 0, -2]);
    expect(press('PageUp', view(90, 0))).toEqual([-2, 0, 0]);
  });
  test('ten times as far with Shift, a tenth with Ctrl', () => {
    expect(press('ArrowLeft', view(0, 0), { shiftKey: true })).toEqual([-20, 0, 0]);
    expect(press('ArrowRight', view(0, 0), { ctrlKey: true })).toEqual([0.2, 0, 0]);
    expect(press('a', view(0, 0))).toBeUndefined();
  });
});

describe('previews', () => {
  let document: KadrelDocument = emptyDocument();
  beforeAll(() => {
    for (const [as, x] of [
      ['a', 0],
      ['b', 50],
    ] as const) {
      const done = perform(verb('box'), { as, size: [10, 20, 30], at: [x, 0, 0] }, document, world());
      if (isRefusal(done)) throw new Error(done.message);
      document = done.document;
    }
  });
  let ids = 0;
  const world = () => plainWorld(document, () => `p${++ids}`);
  const preview = (id: string, typed: object) => {
    const found = previewOf(startStatement(verb(id), { parts: ['p1', 'p2'], ...typed }), document, world());
    if (isRefusal(found)) throw new Error(found.message);
    return found;
  };
  test('place what moves, and nothing else', () => {
    const { placed, copies } = preview('align', { x: 'max' });
    expect([...placed].map(([id, { shift }]) => [id, shift])).toEqual([['p1', [50, 0, 0]]]);
    expect(copies).toEqual([]);
  });
  test('stretch what is resized, about the point that stays', () => {
    const { placed } = preview('resize', {
      by: ['2', '1', '1'],
      about: 'point',
      at: [10, 0, 0],
      in: 'world',
    });
    expect(placed.get('p1')).toEqual({ linear: [2, 0, 0, 0, 1, 0, 0, 0, 1], shift: [-10, 0, 0] });
  });
  test('show copies', () => {
    const { placed, copies } = preview('move', { by: [0, 0, 7], leaving: 'each' });
    expect([placed.size, copies.map(({ at }) => at.shift)]).toEqual([
      0,
      [
        [0, 0, 7],
        [50, 0, 7],
      ],
    ]);
  });
  test('carry the refusal of what cannot be done', () => {
    expect(previewOf(startStatement(verb('turn'), { parts: ['p1'] }), document, world())).toMatchObject({
      refused: true,
      blank: 'angle',
    });
  });
});

describe('nudges that follow one another', () => {
  test('are one statement, and none is lost while one is at work', async () => {
    const said: string[] = [];
    let statement: Statement | null = null;
    let release: () => void = () => undefined;
    const nudge = nudging({
      state: () => ({ statement, selection: ['p1'] }),
      settled: () => new Promise((resolve) => (release = resolve)),
      say(verbId, typed) {
        said.push(`say ${String(typed.by)}`);
        statement = { ...startStatement(verb(verbId), typed), phase: 'done' };
        return Promise.resolve(true);
      },
      adjust(typed) {
        said.push(`adjust ${String(typed.by)}`);
        statement = { ...statement!, typed };
        return Promise.resolve(true);
      },
    });
    const all = nudge([0.1, 0, 0]);
    void nudge([0.2, 0, 0]);
    release();
    await Promise.resolve();
    void nudge([0, 0, 5]);
    await new Promise((resolve) => setTimeout(resolve));
    release();
    await all;
    expect(said).toEqual(['say 0.3 mm,0 mm,0 mm', 'adjust 0.3 mm,0 mm,5 mm']);
  });
});
