import fc from 'fast-check';
import { trials } from '@kadrel/testing';
import {
  carry,
  documentSchema,
  emptyDocument,
  partNamed,
  readDocument,
  vectorOf,
  worldFromPart,
} from '../index.ts';
import type { KadrelDocument } from '../index.ts';
import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import { baseBox, poseOfPlacement } from '../document/items.ts';
import { carryBox } from '../space/box.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';

/** Statements in, placements out, without a kernel. */
class Bench {
  document: KadrelDocument = emptyDocument();
  private ids = 0;

  run(verb: string, typed: Typed): this {
    const done = this.perform(verb, typed);
    if (isRefusal(done)) throw new Error(`${verb}, ${done.blank}: ${done.message}`);
    this.document = documentSchema.parse(done.document);
    return this;
  }
  refusal(verb: string, typed: Typed): Refusal | undefined {
    const done = this.perform(verb, typed);
    return isRefusal(done) ? done : undefined;
  }
  title(verb: string, typed: Typed): string {
    const done = this.perform(verb, typed);
    return isRefusal(done) ? done.message : done.title;
  }
  private perform(verb: string, typed: Typed) {
    return perform(
      verbNamed(verb)!,
      typed,
      this.document,
      plainWorld(this.document, () => `p${++this.ids}`),
    );
  }
  part(name: string) {
    return partNamed(this.document, name)!;
  }
  origin(name: string) {
    return vectorOf(this.part(name).placement.origin);
  }
  turned(name: string) {
    return vectorOf(this.part(name).placement.turn);
  }
  box(name: string): Box {
    const part = this.part(name);
    return carryBox(poseOfPlacement(part.placement), baseBox(part.recipe.base)!);
  }
}
const box = (as: string, size: readonly unknown[], at: readonly unknown[] = [0, 0, 0]) =>
  ['box', { as, size: [...size], at: [...at] }] as const;
const scene = (...statements: (readonly [string, Typed])[]) =>
  statements.reduce((made, [verb, typed]) => made.run(verb, typed), new Bench());
const two = () => scene(box('a', [10, 20, 30]), box('b', [10, 10, 10], [50, 0, 0]));

describe('frames', () => {
  test('a move goes along the axes of the frame that is named', () => {
    const bench = two().run('move', { parts: ['a'], by: [1, 2, 3], in: 'front' });
    expect(bench.origin('a')).toEqual([1, -3, 2]);
    bench
      .run('turn', { parts: ['b'], angle: '90', about: 'z' })
      .run('move', { parts: ['b'], by: [5, 0, 0], in: 'own' });
    expect(bench.origin('b')).toEqual([50, 5, 0]);
    bench.run('move', {
      parts: ['a'],
      by: [0, 0, 4],
      in: {
        points: [
          [0, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ],
      },
    });
    expect(bench.origin('a')).toEqual([5, -3, 2]);
  });
  test('the own frame is each part’s own', () => {
    const bench = two().run('turn', { parts: ['a'], angle: '90', about: 'z' });
    bench.run('move', { parts: ['a', 'b'], by: [7, 0, 0], in: 'own' });
    expect([bench.origin('a'), bench.origin('b')]).toEqual([
      [0, 7, 0],
      [57, 0, 0],
    ]);
  });
  test('a frame that is none is refused with what may stand there', () => {
    expect(two().refusal('move', { parts: ['a'], by: [1, 0, 0], in: 'moon' })?.message).toContain(
      'world, own',
    );
    const line = [
      [0, 0, 0],
      [1, 0, 0],
      [2, 0, 0],
    ];
    expect(two().refusal('move', { parts: ['a'], by: [1, 0, 0], in: { points: line } })?.code).toBe(
      'frame.these',
    );
  });
  test('what goes without saying is left out of the ledger', () => {
    expect(two().title('move', { parts: ['a'], by: [1, 0, 0] })).toBe('Move a by 1, 0, 0');
    expect(two().title('move', { parts: ['a'], by: [1, 0, 0], in: 'front', along: 'x' })).toBe(
      'Move a by 1, 0, 0 in Front frame, along X only',
    );
    expect(two().title('turn', { parts: ['a', 'b'], angle: '30', about: '-x', centre: 'shared' })).toBe(
      'Turn a and b by 30° about −X, all about their shared centre',
    );
  });
});

describe('turn', () => {
  test('each about its own datum, or all about the shared centre', () => {
    const own = two().run('turn', { parts: ['a', 'b'], angle: '90' });
    expect([own.origin('a'), own.origin('b')]).toEqual([
      [0, 0, 0],
      [50, 0, 0],
    ]);
    const shared = two().run('turn', { parts: ['a', 'b'], angle: '90', centre: 'shared' });
    expect([shared.origin('a'), shared.origin('b')]).toEqual([
      [40, -20, 0],
      [40, 30, 0],
    ]);
  });
  test('from a point to a point, about a picked one, and as copies', () => {
    const bench = two().run('turn', {
      parts: ['b'],
      centre: 'point',
      at: [0, 0, 0],
      from: [10, 0, 5],
      to: [0, 3, 0],
      leaving: 'copy',
    });
    expect([bench.origin('b'), bench.turned('b'), bench.origin('b 2')]).toEqual([
      [0, 50, 0],
      [0, 0, 90],
      [50, 0, 0],
    ]);
    bench.run('turn', { parts: ['a'], angle: '30', leaving: 'each' });
    expect([bench.turned('a'), bench.turned('a 2')]).toEqual([
      [0, 0, 0],
      [0, 0, 30],
    ]);
  });
  test('needs one way of telling it, whole', () => {
    expect(two().refusal('turn', { parts: ['a'] })?.blank).toBe('angle');
    expect(two().refusal('turn', { parts: ['a'], from: [1, 0, 0] })?.blank).toBe('to');
    expect(two().refusal('turn', { parts: ['a'], angle: '5', from: [1, 0, 0], to: [0, 1, 0] })?.code).toBe(
      'both.angle',
    );
    expect(two().refusal('turn', { parts: ['a'], from: [0, 0, 9], to: [0, 1, 0] })?.code).toBe('on-axis');
    expect(two().refusal('turn', { parts: ['a'], angle: '5', centre: 'point' })?.blank).toBe('at');
  });
  test('slopes and minutes are angles', () => {
    expect(
      two()
        .run('turn', { parts: ['a'], angle: '1:12', about: 'x' })
        .turned('a')[0],
    ).toBeCloseTo(4.7636, 4);
  });
});

/** A random move or turn, and the one that takes it back. */
type Step = readonly [verb: string, there: Typed, back: Typed];
const decimal = fc.integer({ min: -500_000, max: 500_000 }).map((n) => n / 1000);
const moving: fc.Arbitrary<Step> = fc
  .tuple(decimal, decimal, decimal, fc.constantFrom('world', 'own', 'front', 'right'))
  .map(([x, y, z, frame]) => [
    'move',
    { parts: ['a'], by: [x, y, z], in: frame },
    { parts: ['a'], by: [-x, -y, -z], in: frame },
  ]);
const turning = (angle: fc.Arbitrary<number>): fc.Arbitrary<Step> =>
  fc
    .tuple(angle, fc.constantFrom('x', 'y', 'z'), fc.constantFrom('own', 'point'), decimal, decimal)
    .map(([degrees, about, centre, x, y]) => {
      const typed = { parts: ['a'], about, centre, ...(centre === 'point' ? { at: [x, y, 0] } : {}) };
      return ['turn', { ...typed, angle: String(degrees) }, { ...typed, angle: String(-degrees) }];
    });
const there = (bench: Bench, steps: readonly Step[]) => {
  for (const [verb, typed] of steps) bench.run(verb, typed);
  for (const [verb, , back] of steps.toReversed()) bench.run(verb, back);
};
const start = () => scene(box('a', ['10', '20', '30'], ['0.1', '1/64 in', '-7.25']));

describe('200 moves and turns and all of them back', () => {
  test('quarter turns restore the placement bit for bit', () =>
    fc.assert(
      fc.property(
        fc.array(fc.oneof(moving, turning(fc.constantFrom(90, 180, -90, 270))), {
          minLength: 200,
          maxLength: 200,
        }),
        (steps) => {
          const bench = start();
          const before = bench.part('a').placement;
          there(bench, steps);
          expect([bench.origin('a'), bench.turned('a')]).toEqual([
            vectorOf(before.origin),
            vectorOf(before.turn),
          ]);
        },
      ),
      { numRuns: 8 },
    ));
  test('any turns restore it to 1e-9', () =>
    fc.assert(
      fc.property(
        fc.array(fc.oneof(moving, turning(decimal)), { minLength: 200, maxLength: 200 }),
        (steps) => {
          const bench = start();
          const corner: Vec3 = [10, 20, 30];
          const before = carry(worldFromPart(bench.document, bench.part('a').id), corner);
          there(bench, steps);
          const after = carry(worldFromPart(bench.document, bench.part('a').id), corner);
          expect(Math.max(...after.map((n, i) => Math.abs(n - before[i]!)))).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 8 },
    ));
});

describe('resize and mirror', () => {
  test('a box takes new sizes about its datum, and about the opposite side', () => {
    const bench = two().run('resize', { parts: ['a'], to: ['25', 'now', 'now + 5'] });
    expect(bench.part('a').recipe.base).toEqual({ kind: 'box', size: [25, 20, 35] });
    bench.run('resize', { parts: ['b'], by: ['2', '1', '1'], about: 'point', at: [60, 0, 0] });
    expect(bench.box('b')).toEqual({ min: [40, 0, 0], max: [60, 10, 10] });
  });
  test('others follow in proportion, several as one', () => {
    const bench = two().run('resize', {
      parts: ['a', 'b'],
      to: ['120', 'now', 'now'],
      others: 'follow',
      in: 'world',
      about: 'point',
      at: [0, 0, 0],
    });
    expect([bench.box('a'), bench.box('b')]).toEqual([
      { min: [0, 0, 0], max: [20, 40, 60] },
      { min: [100, 0, 0], max: [120, 20, 20] },
    ]);
  });
  test('a negative factor mirrors, and the datum stays on its corner', () => {
    const bench = two().run('resize', { parts: ['b'], by: ['-1', '1', '1'] });
    expect(bench.box('b')).toEqual({ min: [40, 0, 0], max: [50, 10, 10] });
    expect(bench.part('b').datum).toEqual([1, -1, -1]);
  });
  test('a mirror at a plane, as a copy', () => {
    const bench = two().run('mirror', {
      parts: ['b'],
      across: 'x',
      centre: 'point',
      at: [30, 0, 0],
      leaving: 'copy',
    });
    expect(bench.box('b').min).toEqual([0, 0, 0]);
    expect(bench.box('b 2').min).toEqual([50, 0, 0]);
    const plane = { a: [0, 0, 0], b: [1, 1, 0], c: [0, 0, 1] };
    const swapped = two()
      .run('mirror', { parts: ['b'], ...plane })
      .box('b');
    expect([...swapped.min, ...swapped.max].map((n) => Math.round(n * 1e9) / 1e9)).toEqual([
      0, 50, 0, 10, 60, 10,
    ]);
  });
  test('nothing is resized to nothing', () => {
    expect(two().refusal('resize', { parts: ['a'], by: ['0', '1', '1'] })?.blank).toBe('by');
    expect(two().refusal('resize', { parts: ['a'] })?.blank).toBe('by');
    expect(
      two().refusal('resize', { parts: ['a'], by: ['2', '1', '1'], to: ['3', 'now', 'now'] })?.code,
    ).toBe('both.to');
    expect(two().refusal('resize', { parts: ['a'], by: ['2 mm', '1', '1'] })?.blank).toBe('by');
  });
  test('a resized part can go back to what it was made', () => {
    const bench = two()
      .run('resize', { parts: ['a'], by: ['2', '3', '4'] })
      .run('reset', { parts: ['a'], what: 'size' });
    expect(bench.box('a')).toEqual({ min: [0, 0, 0], max: [10, 20, 30] });
    bench.run('turn', { parts: ['b'], angle: '37', about: 'y' }).run('reset', { parts: ['b'] });
    expect(bench.turned('b')).toEqual([0, 0, 0]);
    expect(bench.run('reset', { parts: ['b'], what: 'place' }).origin('b')).toEqual([0, 0, 0]);
  });
});

/** Scenes of boxes at random places and sizes, some of them turned by quarters. */
const boxes = (count: number) =>
  fc.array(
    fc.tuple(
      decimal,
      decimal,
      decimal,
      fc.integer({ min: 1, max: 90_000 }),
      fc.constantFrom(0, 90, 180, 270),
    ),
    { minLength: count, maxLength: count },
  );
const randomScene = (rows: readonly (readonly [number, number, number, number, number])[]) => {
  const bench = new Bench();
  rows.forEach(([x, y, z, size, angle], i) => {
    bench.run('box', { as: `b${i}`, size: [size / 1000, size / 700, size / 300], at: [x, y, z] });
    if (angle) bench.run('turn', { parts: [`b${i}`], angle: String(angle), about: 'y' });
  });
  return { bench, names: rows.map((_, i) => `b${i}`) };
};

describe('random scenes leave no residual above 1e-9 mm', () => {
  const middle = ({ min, max }: Box, axis: number) => (min[axis]! + max[axis]!) / 2;
  test('align', () =>
    fc.assert(
      fc.property(boxes(4), (rows) => {
        const { bench, names } = randomScene(rows);
        const goal = bench.box('b3');
        bench.run('align', { parts: names, x: 'min', y: 'middle', z: 'max' });
        for (const name of names) {
          const now = bench.box(name);
          expect(Math.abs(now.min[0] - goal.min[0])).toBeLessThan(1e-9);
          expect(Math.abs(middle(now, 1) - middle(goal, 1))).toBeLessThan(1e-9);
          expect(Math.abs(now.max[2] - goal.max[2])).toBeLessThan(1e-9);
        }
      }),
      { numRuns: trials(500) },
    ));
  test('distribute by equal gaps, with both ends in place', () =>
    fc.assert(
      fc.property(boxes(5), (rows) => {
        const { bench, names } = randomScene(rows);
        const order = names.toSorted((a, b) => middle(bench.box(a), 0) - middle(bench.box(b), 0));
        const before = order.map((name) => bench.box(name));
        bench.run('distribute', { parts: names, along: 'x' });
        const now = order.map((name) => bench.box(name));
        const gaps = [0, 1, 2, 3].map((i) => now[i + 1]!.min[0] - now[i]!.max[0]);
        expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThan(1e-9);
        expect([now[0], now[4]]).toEqual([before[0], before[4]]);
      }),
      { numRuns: trials(500) },
    ));
});

describe('align, distribute and stack', () => {
  const shelf = () =>
    scene(box('a', [10, 4, 4]), box('b', [10, 4, 4], [30, 5, 9]), box('c', [10, 4, 4], [90, 1, 2]));
  test('against the box of the selection, a point, the bed, or as one block', () => {
    expect(
      shelf()
        .run('align', { parts: ['a', 'b', 'c'], y: 'max', against: 'selection' })
        .box('a').max[1],
    ).toBe(9);
    expect(
      shelf()
        .run('align', { parts: ['a'], x: 'middle', against: 'point', to: [50, 0, 0] })
        .box('a').min[0],
    ).toBe(45);
    const block = shelf().run('align', { parts: ['b', 'c'], z: 'min', against: 'bed', as: 'one' });
    expect([block.box('b').min[2], block.box('c').min[2]]).toEqual([7, 0]);
    expect(shelf().refusal('align', { parts: ['b'], x: 'min', against: 'bed' })?.blank).toBe('x');
    expect(shelf().refusal('align', { parts: ['b'], x: 'min' })?.code).toBe('too-few.select');
    expect(shelf().refusal('align', { parts: ['a', 'b'] })?.code).toBe('nothing.x');
  });
  test('equal centres, and a stated gap from the first', () => {
    expect(
      shelf()
        .run('distribute', { parts: ['a', 'b', 'c'], by: 'centres' })
        .box('b').min[0],
    ).toBe(45);
    const bench = shelf().run('distribute', {
      parts: ['c', 'a', 'b'],
      by: 'gap',
      gap: '5',
      keeping: 'first',
    });
    expect(['a', 'b', 'c'].map((name) => bench.box(name).min[0])).toEqual([0, 15, 30]);
    expect(shelf().refusal('distribute', { parts: ['a', 'b'] })?.code).toBe('too-few.parts');
    expect(shelf().refusal('distribute', { parts: ['a', 'b'], by: 'gap' })?.blank).toBe('gap');
  });
  test('on top of one another, and beside', () => {
    const bench = shelf().run('stack', { parts: ['b', 'c'], onto: 'a', gap: '0.5' });
    expect([bench.box('b').min, bench.box('c').min]).toEqual([
      [0, 0, 4.5],
      [0, 0, 9],
    ]);
    expect(
      shelf()
        .run('stack', { parts: ['b'], onto: 'a', side: 'left', placed: 'leave' })
        .box('b').min,
    ).toEqual([-10, 5, 9]);
  });
});

describe('pins, datums and views', () => {
  test('a pin is a point for every blank, and a part moves onto it by its datum', () => {
    const bench = two().run('pin', { as: 'hinge', at: ['12', '0', '1/2 in'] });
    bench.run('move', { parts: ['b'], to: { pin: 'hinge' } });
    expect(bench.origin('b')).toEqual([12, 0, 12.7]);
    bench
      .run('pin', { as: 'hinge', at: [0, 0, 0] })
      .run('turn', { parts: ['b'], angle: '90', centre: 'point', at: { pin: 'hinge' } });
    expect(bench.origin('b')).toEqual([0, 12, 12.7]);
    expect(Object.keys(bench.document.pins)).toHaveLength(1);
    expect(
      bench.run('unpin', { pin: 'hinge' }).refusal('move', { parts: ['b'], to: { pin: 'hinge' } })?.message,
    ).toBe('There is no pin named hinge.');
  });
  test('a datum on any point stays with the part', () => {
    const bench = two()
      .run('datum', { part: 'a', at: [10, 20, 15] })
      .run('turn', { parts: ['a'], angle: '180' });
    expect(bench.box('a')).toEqual({ min: [10, 20, 0], max: [20, 40, 30] });
  });
  test('a view is kept and forgotten', () => {
    const view = { target: [0, 0, 0], bearing: 30, altitude: 30, height: 100, projection: 'parallel' };
    const bench = two().run('keep-view', { as: 'Door', view });
    expect(bench.document.views).toEqual({ Door: view });
    expect(bench.run('forget-view', { view: 'Door' }).document.views).toEqual({});
    expect(bench.refusal('keep-view', { as: 'Door', view: { bearing: 1 } })?.blank).toBe('view');
  });
  test('locked parts are moved by no verb', () => {
    const bench = two().run('change', { parts: ['a'], locked: 'yes' });
    const tries: [string, Typed][] = [
      ['move', { parts: ['a'], by: [1, 0, 0] }],
      ['turn', { parts: ['a'], angle: '5' }],
      ['resize', { parts: ['a'], by: ['2', '1', '1'] }],
      ['mirror', { parts: ['a'] }],
      ['align', { parts: ['a', 'b'], x: 'min' }],
      ['distribute', { parts: ['a', 'b'], by: 'gap', gap: '1' }],
      ['stack', { parts: ['a'], onto: 'b' }],
      ['seat', { parts: ['a'] }],
      ['nudge', { parts: ['a'], by: [1, 0, 0] }],
      ['reset', { parts: ['a'] }],
    ];
    for (const [verb, typed] of tries)
      expect([verb, bench.refusal(verb, typed)?.code]).toEqual([verb, 'locked']);
  });
  test('what is below a locked part is locked with it', () => {
    const bench = two()
      .run('union', { as: 'u', parts: ['a', 'b'] })
      .run('change', { parts: ['u'], locked: 'yes' });
    expect(bench.refusal('move', { parts: ['b'], by: [1, 0, 0] })?.message).toContain('u is locked');
    expect(bench.refusal('datum', { part: 'a', at: [0, 0, 0] })?.code).toBe('locked');
  });
  test('documents of version 1 are lifted', () => {
    const { pins: _, views: __, scene: now, ...old } = emptyDocument();
    const { nudge: ___, ...scene1 } = now;
    expect(readDocument({ ...old, kadrel: 1, scene: scene1 })).toEqual(emptyDocument());
  });
});
