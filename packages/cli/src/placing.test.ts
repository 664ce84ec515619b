import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { runLedger } from './ledger.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** The boxes of all parts after a ledger, by name. */
function boxes(...ledger: object[]) {
  const { document, warnings } = runLedger({ kadrel: 1, ledger }, kernel);
  expect(warnings).toEqual([]);
  return Object.fromEntries(
    Object.values(document.items).map(({ id, name }) => [name, kernel.measure(document, id).box]),
  );
}
const box = (as: string, size: readonly number[], at: readonly number[] = [0, 0, 0]) => ({
  verb: 'box',
  as,
  size,
  at,
});

// The same jobs as e2e/placing.spec.ts does by hand, with the same numbers.
describe('the jobs of the browser tests, headless', () => {
  test('a shelf of four boards', () => {
    const found = boxes(
      box('Board 1', [800, 250, 18]),
      box('Board 2', [800, 250, 18], [17, 9, 260]),
      box('Board 3', [800, 250, 18], [34, 18, 700]),
      box('Board 4', [800, 250, 18], [51, 27, 1100]),
      {
        verb: 'distance',
        from: { on: 'Board 1', at: 'top&front' },
        to: { on: 'Board 2', at: 'bottom&front' },
        distance: '318',
        along: 'z',
      },
      { verb: 'align', parts: ['Board 2', 'Board 3', 'Board 4', 'Board 1'], x: 'min', y: 'max' },
      { verb: 'distribute', parts: ['Board 2', 'Board 3', 'Board 4', 'Board 1'], along: 'z' },
    );
    const rows = [1, 2, 3, 4].map((i) => found[`Board ${i}`]!);
    expect(rows.map(({ min, max }) => [min[0], max[1]])).toEqual(Array(4).fill([0, 250]));
    for (const i of [0, 1, 2]) expect(rows[i + 1]!.min[2] - rows[i]!.max[2]).toBeCloseTo((1118 - 72) / 3, 9);
  });
  test('the distance between two boards is what was typed', () => {
    const found = boxes(box('a', [800, 250, 18]), box('b', [800, 250, 18], [17, 9, 260]), {
      verb: 'distance',
      from: { on: 'a', at: 'top' },
      to: { on: 'b', at: 'bottom' },
      distance: '318',
    });
    expect(found.b!.min).toEqual([17, 9, 336]);
  });
  test('each about its own datum, or all about the shared centre', () => {
    const parts = [box('a', [10, 20, 30]), box('b', [10, 10, 10], [50, 0, 0])];
    const turned = (centre: string) => {
      const found = boxes(...parts, { verb: 'turn', parts: ['a', 'b'], angle: '90', centre });
      return [found.a!.min, found.b!.min];
    };
    expect(turned('own')).toEqual([
      [-20, 0, 0],
      [40, 0, 0],
    ]);
    expect(turned('shared')).toEqual([
      [20, -20, 0],
      [30, 30, 0],
    ]);
  });
  test('a knob about its rim along its face normal, and an upright in the front view', () => {
    const found = boxes(
      { verb: 'cylinder', as: 'knob', diameter: 30, height: 12, at: [0, 0, 5] },
      {
        verb: 'resize',
        parts: ['knob'],
        by: ['1', '1', '1.5'],
        in: { on: 'knob', at: 'top' },
        about: 'point',
        at: { on: 'knob', at: 'top&side', snap: 'quadrant', near: [0, -15, 12] },
      },
      box('post', [40, 40, 900]),
      { verb: 'move', parts: ['post'], by: [0, 120, 0], in: 'front' },
      { verb: 'nudge', parts: ['post'], by: [10, 0, 2] },
    );
    expect(found.knob).toEqual({ min: [-15, -15, -1], max: [15, 15, 17] });
    expect(found.post!.min).toEqual([10, 0, 122]);
  });
  test('a ball in a bowl', () => {
    const { ball } = boxes(
      { verb: 'cylinder', as: 'block', diameter: 100, height: 50 },
      { verb: 'sphere', as: 'hollow', diameter: 80, at: [0, 0, 60] },
      { verb: 'subtract', as: 'bowl', from: 'block', parts: ['hollow'] },
      { verb: 'sphere', as: 'ball', diameter: 30, at: [6, 0, 140] },
      { verb: 'seat', parts: ['ball'] },
    );
    const [x, z] = [(ball!.min[0] + ball!.max[0]) / 2, (ball!.min[2] + ball!.max[2]) / 2];
    expect(Math.abs(Math.hypot(x, z - 60) - 25)).toBeLessThan(1e-9);
  });
});
