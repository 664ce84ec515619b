import {
  baseBox,
  emptyDocument,
  isRefusal,
  perform,
  verbNamed,
  worldFromPart,
  type KadrelDocument,
  type Refusal,
  type Typed,
} from '@kadrel/core';
import { numbers, trials } from '@kadrel/testing';
import { Evaluator } from './evaluate.ts';
import { sharedLibraries } from './node.ts';
import type { Libraries } from './builder.ts';
import { moved, progressRange, scope, type Occt } from './occt/occt.ts';
import { worldOf } from './world.ts';

let libraries: Libraries;
let occt: Occt;
let kernel: Evaluator;
beforeAll(async () => {
  libraries = await sharedLibraries();
  occt = libraries.occt;
  kernel = new Evaluator(libraries);
});

/** Statements in, solids out, with the kernel answering what the statements ask. */
class Scene {
  document: KadrelDocument = emptyDocument();
  private ids = 0;

  run(verb: string, typed: Typed): this {
    const done = this.perform(verb, typed);
    if (isRefusal(done)) throw new Error(`${verb}, ${done.blank}: ${done.message}`);
    this.document = done.document;
    return this;
  }
  refusal(verb: string, typed: Typed): Refusal | undefined {
    const done = this.perform(verb, typed);
    return isRefusal(done) ? done : undefined;
  }
  private perform(verb: string, typed: Typed) {
    return perform(
      verbNamed(verb)!,
      typed,
      this.document,
      worldOf(this.document, kernel, () => `p${++this.ids}`),
    );
  }
  id(name: string) {
    return Object.values(this.document.items).find((item) => item.name === name)!.id;
  }
  measure(name: string) {
    return kernel.measure(this.document, this.id(name));
  }
  base(name: string) {
    return this.document.items[this.id(name)]!.recipe.base;
  }
  /** The kernel's own distance between two parts, mm. */
  gap(a: string, b: string): number {
    return scope((keep) => {
      const measure = keep(new occt.BRepExtrema_DistShapeShape());
      const [p, q] = [a, b].map((name) => {
        const id = this.id(name);
        return keep(moved(occt, kernel.shapeFor(this.document, id), worldFromPart(this.document, id)));
      });
      measure.LoadS1(p!);
      measure.LoadS2(q!);
      measure.Perform(progressRange({ occt, keep }));
      return measure.Value();
    });
  }
}
const box = (as: string, size: readonly unknown[], at: readonly unknown[] = [0, 0, 0]) =>
  ['box', { as, size: [...size], at: [...at] }] as const;
const scene = (...statements: (readonly [string, Typed])[]) =>
  statements.reduce((made, [verb, typed]) => made.run(verb, typed), new Scene());
const relative = (value: number, wanted: number) => Math.abs(value / wanted - 1);

describe('resizing', () => {
  test('a cylinder stretched across its axis is an exact elliptic one: V = πabh', () => {
    const bench = scene(['cylinder', { as: 'c', diameter: 20, height: 30 }]);
    bench.run('resize', { parts: ['c'], by: ['2', '1', '1'] });
    expect(bench.base('c').kind).toBe('stretched');
    const { volume, box: bounds, watertight, faces } = bench.measure('c');
    expect(relative(volume, Math.PI * 20 * 10 * 30)).toBeLessThan(1e-9);
    expect([watertight, faces]).toEqual([true, 3]);
    expect(Math.abs(bounds.max[0] - 20)).toBeLessThan(1e-9);
    bench.run('resize', { parts: ['c'], by: ['1/2', '1', '2'] });
    expect(bench.base('c')).toEqual({ kind: 'cylinder', diameter: 20, height: 60 });
  });
  test('a ball becomes an ellipsoid: V = 4/3 πabc', () => {
    const bench = scene(['sphere', { as: 's', diameter: 20 }]);
    bench.run('resize', { parts: ['s'], to: ['20', '30', '50'] });
    const { volume, watertight, box: bounds } = bench.measure('s');
    expect(relative(volume, (4 / 3) * Math.PI * 10 * 15 * 25)).toBeLessThan(1e-9);
    expect(watertight).toBe(true);
    expect(Math.abs(bounds.max[2] - 25)).toBeLessThan(1e-9);
  });
  test('a turned box stretched in the world becomes a slanted one of the right volume', () => {
    const bench = scene(box('b', [10, 20, 30]));
    bench.run('turn', { parts: ['b'], angle: '30', about: 'z' });
    bench.run('resize', { parts: ['b'], by: ['3', '1', '1'], in: 'world' });
    const { volume, faces, watertight } = bench.measure('b');
    expect(relative(volume, 18000)).toBeLessThan(1e-12);
    expect([faces, watertight]).toEqual([6, true]);
  });
  test('a combined part passes it on to its operands, and mirrors keep the volume', () => {
    const bench = scene(
      box('plate', [100, 60, 8]),
      ['cylinder', { as: 'drill', diameter: 8, height: 20, at: [15, 15, -5] }],
      ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
    );
    const before = bench.measure('bracket').volume;
    bench.run('resize', { parts: ['bracket'], by: ['2', '3', '1/2'] });
    expect(relative(bench.measure('bracket').volume, before * 3)).toBeLessThan(1e-9);
    bench.run('mirror', { parts: ['bracket'], across: 'x' });
    const { volume, watertight, centroid } = bench.measure('bracket');
    expect(relative(volume, before * 3)).toBeLessThan(1e-9);
    expect(watertight).toBe(true);
    // The hole was near the left end, and the left end was at the datum: now both lie on the other side of it.
    expect(centroid[0]).toBeLessThan(-100);
  });
  test('a reset brings the size back that was made, the datum staying', () => {
    const bench = scene(
      box('plate', [100, 60, 8], [7, 8, 9]),
      ['cylinder', { as: 'drill', diameter: 8, height: 20, at: [22, 23, 4] }],
      ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
    );
    const before = bench.measure('bracket');
    bench
      .run('resize', { parts: ['bracket'], by: ['2', '3', '1/2'] })
      .run('reset', { parts: ['bracket'], what: 'size' });
    expect(bench.measure('bracket')).toMatchObject({ volume: before.volume, box: before.box });
    expect(bench.refusal('reset', { parts: ['bracket'], what: 'size' })?.code).toBe('as-made');
  });
  test('a size that is asked for is read back', () => {
    const bench = scene(box('a', [10, 20, 30], [5, 5, 5]), box('b', [7, 7, 7], [40, 1, 2]));
    bench.run('resize', { parts: ['a', 'b'], to: ['100', 'now', '12.7 mm'], in: 'world', about: 'shared' });
    const [p, q] = [bench.measure('a').box, bench.measure('b').box];
    expect(Math.max(p.max[0], q.max[0]) - Math.min(p.min[0], q.min[0])).toBeCloseTo(100, 9);
    expect(Math.max(p.max[2], q.max[2]) - Math.min(p.min[2], q.min[2])).toBeCloseTo(12.7, 9);
  });
  test('along a face normal about a picked point, and to a picked distance', () => {
    const bench = scene(['cylinder', { as: 'k', diameter: 30, height: 12, at: [0, 0, 5] }]);
    bench.run('resize', {
      parts: ['k'],
      by: ['1', '1', '1.5'],
      in: { on: 'k', at: 'top' },
      about: 'point',
      at: [15, 0, 17],
    });
    expect(bench.measure('k').box).toMatchObject({ min: [-15, -15, -1], max: [15, 15, 17] });
    bench.run('resize', {
      parts: ['k'],
      from: [0, 0, -1],
      until: [0, 0, 17],
      length: '9',
      about: 'point',
      at: [0, 0, 17],
    });
    expect(bench.base('k')).toEqual({ kind: 'cylinder', diameter: 30, height: 9 });
  });
});

describe('seat', () => {
  const ballInBowl = () =>
    scene(
      ['cylinder', { as: 'block', diameter: 100, height: 50 }],
      ['sphere', { as: 'hollow', diameter: 80, at: [0, 0, 60] }],
      ['subtract', { as: 'bowl', from: 'block', parts: ['hollow'] }],
    );
  test('a ball rests at the bottom of a bowl, and beside its middle where its side touches first', () => {
    const bench = ballInBowl();
    bench.run('sphere', { as: 'ball', diameter: 30, at: [0, 0, 120] }).run('seat', { parts: ['ball'] });
    expect(Math.abs(bench.measure('ball').box.min[2] - 20)).toBeLessThan(1e-9);
    for (const [x, y] of [
      [10, 5],
      [6, 0],
      [-9, 3],
      [0, -12],
    ] as const) {
      const off = ballInBowl();
      off.run('sphere', { as: 'ball', diameter: 30, at: [x, y, 120] }).run('seat', { parts: ['ball'] });
      // Centres of two touching balls, one in the other, are the difference of the radii apart.
      const { min, max } = off.measure('ball').box;
      const centre = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2] as const;
      expect(Math.abs(Math.hypot(centre[0], centre[1], centre[2] - 60) - 25)).toBeLessThan(1e-9);
    }
  });
  test('one ball on another, off the middle', () => {
    const bench = scene(
      ['sphere', { as: 'a', diameter: 40, at: [0, 0, 20] }],
      ['sphere', { as: 'b', diameter: 20, at: [7, 3, 90] }],
    );
    bench.run('seat', { parts: ['b'] });
    const { min, max } = bench.measure('b').box;
    const centre = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2] as const;
    expect(Math.abs(Math.hypot(centre[0], centre[1], centre[2] - 20) - 30)).toBeLessThan(1e-9);
  });
  test('a part slides down beside another that it only touches', () => {
    const bench = scene(
      box('a', [10, 10, 20]),
      box('b', [10, 10, 5], [10, 0, 20]),
      box('c', [10, 10, 5], [20, 0, 15]),
    );
    bench.run('seat', { parts: ['b'] });
    expect(bench.measure('b').box.min[2]).toBe(0);
    bench.run('seat', { parts: ['c'], towards: '-x', onto: 'part', on: 'a' });
    expect(bench.measure('c').box.min).toEqual([10, 0, 15]);
  });
  test('a part that sinks a little is lifted, onto the part or onto the bed', () => {
    const bench = scene(
      box('a', [50, 50, 10]),
      box('b', [10, 10, 5], [5, 5, 9]),
      box('c', [5, 5, 5], [80, 0, -2]),
    );
    bench.run('seat', { parts: ['b'] }).run('seat', { parts: ['c'], onto: 'bed' });
    expect([bench.measure('b').box.min[2], bench.measure('c').box.min[2]]).toEqual([10, 0]);
  });
  test('a lying cylinder rests on a slope', () => {
    const bench = scene(box('slope', [100, 100, 20]), [
      'cylinder',
      { as: 'log', diameter: 10, height: 40, at: [50, 0, 100] },
    ]);
    bench.run('turn', { parts: ['slope'], angle: '20', about: 'y' });
    bench.run('turn', { parts: ['log'], angle: '-90', about: 'x' }).run('seat', { parts: ['log'] });
    expect(bench.gap('log', 'slope')).toBeLessThan(1e-9);
  });
  test('several go lowest first, or as one block', () => {
    const stack = () => scene(box('a', [10, 10, 4], [0, 0, 30]), box('b', [10, 10, 4], [0, 0, 50]));
    const each = stack().run('seat', { parts: ['b', 'a'] });
    expect([each.measure('a').box.min[2], each.measure('b').box.min[2]]).toEqual([0, 4]);
    const one = stack().run('seat', { parts: ['b', 'a'], as: 'one' });
    expect([one.measure('a').box.min[2], one.measure('b').box.min[2]]).toEqual([0, 20]);
  });
  test('random heaps of boxes come to rest on the highest under them', () => {
    const next = numbers(7);
    const some = () => Math.round(next() * 8000) / 100;
    const size = [
      [30, 50, 5],
      [60, 12, 5],
      [25, 25, 5],
      [44.4, 71.7, 5],
    ] as const;
    const bench = new Scene();
    size.forEach((sizes, n) => bench.run('box', { as: `f${n}`, size: [...sizes] }));
    bench.run('box', { as: 'm', size: [20, 20, 10] });
    for (let i = 0; i < trials(500); i++) {
      const at = size.map(() => [some(), some(), some()] as const);
      at.forEach((place, n) => bench.run('change', { parts: [`f${n}`], at: [...place].map(String) }));
      bench
        .run('change', { parts: ['m'], at: [some(), some(), 200].map(String) })
        .run('seat', { parts: ['m'] });
      const m = bench.measure('m').box;
      const under = at.filter((place, n) =>
        [0, 1].every(
          (k) => Math.min(m.max[k]!, place[k]! + size[n]![k]!) - Math.max(m.min[k]!, place[k]!) > 0,
        ),
      );
      const top = Math.max(0, ...under.map(([, , z]) => z + 5));
      expect(Math.abs(m.min[2] - top)).toBeLessThan(1e-9);
    }
  });
  test('balls, rods and tilted boxes touch what they land on', () => {
    const next = numbers(11);
    for (let i = 0; i < trials(30); i++) {
      const some = (scale: number) => Math.round(next() * scale * 100) / 100;
      const wide = 40 + some(20);
      const bench = scene(box('slab', [300, 300, 10], [-150, -150, 0]), [
        'sphere',
        { as: 'ball', diameter: wide, at: [some(10), some(10), 30] },
      ]);
      const [kind, sizes] = [
        ['sphere', { diameter: 25 }],
        ['cylinder', { diameter: 12, height: 40 }],
        ['box', { size: [20, 15, 12] }],
      ][i % 3] as [string, Typed];
      bench.run(kind, { as: 'm', ...sizes, at: [some(8), some(8), 150] });
      bench.run('turn', { parts: ['m'], angle: String(some(80)), about: 'x' });
      bench.run('turn', { parts: ['m'], angle: String(some(80)), about: 'y' });
      bench.run('seat', { parts: ['m'] });
      // The kernel measures the gap between balls 1e-8 off; their centres and radii tell it exactly.
      const [a, b] = [bench.measure('m'), bench.measure('ball')];
      const between = Math.hypot(...a.centroid.map((n, k) => n - b.centroid[k]!)) - (25 + wide) / 2;
      const gap =
        kind === 'sphere' ? Math.min(Math.abs(between), Math.abs(a.box.min[2] - 10)) : bench.gap('m', 'ball');
      expect(Math.min(gap, kind === 'sphere' ? gap : bench.gap('m', 'slab'))).toBeLessThan(1e-9);
      bench.run('move', { parts: ['m'], by: [0, 0, '0.001 mm'] });
      expect(Math.min(bench.gap('m', 'ball'), bench.gap('m', 'slab'))).toBeGreaterThan(1e-4);
    }
  });
  test('where nothing is in the way it says so', () => {
    const bench = scene(box('a', [10, 10, 4]));
    expect(bench.refusal('seat', { parts: ['a'], towards: 'x' })?.code).toBe('nothing-there.towards');
  });
});

describe('face to face', () => {
  const tilted = () =>
    scene(box('a', [30, 30, 30]), box('b', [20, 20, 20], [100, 40, 10]))
      .run('turn', { parts: ['a'], angle: '17', about: 'x' })
      .run('turn', { parts: ['a'], angle: '31', about: 'y' })
      .run('turn', { parts: ['b'], angle: '-44', about: 'z' })
      .run('turn', { parts: ['b'], angle: '12.5', about: 'x' });
  test('two tilted cubes lie flat on each other: no gap, no overlap', () => {
    const bench = tilted().run('face-to-face', {
      face: { on: 'b', at: 'bottom' },
      onto: { on: 'a', at: 'right' },
      placed: 'centred',
    });
    expect(bench.gap('a', 'b')).toBeLessThan(1e-12);
    bench.run('intersect', { as: 'common', parts: ['a', 'b'] });
    expect(() => bench.measure('common')).toThrow('do not meet');
  });
  test('a clearance and a turn are kept', () => {
    const bench = tilted().run('face-to-face', {
      face: { on: 'b', at: 'bottom' },
      onto: { on: 'a', at: 'right' },
      gap: '0.3',
      turn: '45',
      placed: 'centred',
    });
    expect(Math.abs(bench.gap('a', 'b') - 0.3)).toBeLessThan(1e-9);
  });
  test('round faces share their axis', () => {
    const bench = scene(
      box('plate', [60, 60, 10]),
      ['cylinder', { as: 'bore', diameter: 12, height: 20, at: [20, 30, -5] }],
      ['subtract', { as: 'hub', from: 'plate', parts: ['bore'] }],
      ['cylinder', { as: 'pin', diameter: 12, height: 40, at: [100, 100, 0] }],
    )
      .run('turn', { parts: ['hub'], angle: '25', about: 'y' })
      .run('turn', { parts: ['pin'], angle: '40', about: 'x' })
      .run('face-to-face', { face: { on: 'pin', at: 'side' }, onto: { on: 'hub', at: 'bore.side' } });
    const after = bench.run('intersect', { as: 'common', parts: ['pin', 'hub'] });
    expect(() => after.measure('common')).toThrow();
  });
});

describe('set distance', () => {
  test('between faces, edges, axes and points, to the last digit', () => {
    const pair = () =>
      scene(box('a', [30, 30, 30]), ['cylinder', { as: 'c', diameter: 10, height: 40, at: [100, 20, 3] }]);
    const axes = pair().run('distance', {
      from: { on: 'a', at: 'right&front' },
      to: { on: 'c', at: 'side' },
      distance: '80.5',
    });
    const { min, max } = axes.measure('c').box;
    expect(Math.hypot((min[0] + max[0]) / 2 - 30, (min[1] + max[1]) / 2)).toBeCloseTo(80.5, 9);
    const faces = pair().run('distance', {
      from: { on: 'a', at: 'top' },
      to: { on: 'c', at: 'bottom' },
      distance: '0.2',
    });
    expect(faces.measure('c').box.min[2]).toBeCloseTo(30 - 0.2, 9);
    const corner = pair().run('distance', {
      from: { on: 'a', at: 'top&right&front' },
      to: { on: 'c', at: 'bottom', snap: 'centre' },
      distance: '2 in',
      moving: 'first',
    });
    const a = corner.measure('a').box;
    expect(Math.hypot(100 - a.max[0], 20 - a.min[1], 3 - a.max[2])).toBeCloseTo(50.8, 9);
  });
  test('of corners of random pairs of boxes, 1e-9 mm', () => {
    const next = numbers(23);
    const some = () => Math.round(next() * 400_000) / 1000;
    const bench = scene(box('a', [30, 20, 10]), box('b', [10, 20, 30], [50, 0, 0]));
    for (let i = 0; i < trials(500); i++) {
      bench.run('change', { parts: ['b'], at: [some() + 60, some(), some()].map(String) });
      const wanted = some() + 1;
      bench.run('distance', {
        from: { on: 'a', at: 'top&right&back' },
        to: { on: 'b', at: 'bottom&left&front' },
        distance: String(wanted),
      });
      const b = bench.measure('b').box.min;
      expect(Math.abs(Math.hypot(b[0] - 30, b[1] - 20, b[2] - 10) - wanted)).toBeLessThan(1e-9);
    }
  });
  test('says when things are not parallel, or one', () => {
    const bench = scene(box('a', [30, 30, 30]), box('b', [10, 10, 10], [50, 0, 0]));
    bench.run('turn', { parts: ['b'], angle: '10', about: 'y' });
    expect(
      bench.refusal('distance', {
        from: { on: 'a', at: 'right' },
        to: { on: 'b', at: 'left' },
        distance: '5',
      })?.message,
    ).toContain('10° off');
    expect(
      bench.refusal('distance', {
        from: { on: 'a', at: 'right' },
        to: { on: 'a', at: 'left' },
        distance: '5',
      })?.code,
    ).toBe('same-part.to');
  });
});

test('alignment goes by the exact boxes of turned and curved solids', () => {
  const bench = scene(
    ['cylinder', { as: 'c', diameter: 20, height: 50, at: [5, 5, 5] }],
    box('a', [10, 10, 10], [200, 0, 0]),
  );
  bench
    .run('turn', { parts: ['c'], angle: '30', about: 'y' })
    .run('align', { parts: ['c', 'a'], x: 'min', z: 'min' });
  const { min, max } = bench.measure('c').box;
  expect(Math.abs(min[0] - 200)).toBeLessThan(1e-9);
  expect(Math.abs(min[2])).toBeLessThan(1e-9);
  expect(max[0] - min[0]).toBeCloseTo(50 * Math.sin(Math.PI / 6) + 20 * Math.cos(Math.PI / 6), 7);
  expect(baseBox(bench.base('c'))).toBeDefined();
});

test('a turn makes a picked face parallel to another', () => {
  const bench = scene(box('a', [30, 20, 10]), box('b', [10, 10, 10], [60, 0, 0]));
  bench
    .run('turn', { parts: ['a'], angle: '33', about: 'x' })
    .run('turn', { parts: ['a'], angle: '21', about: 'z' });
  bench.run('turn', { parts: ['a'], line: { on: 'a', at: 'top' }, parallel: { on: 'b', at: 'top' } });
  const { min, max } = bench.measure('a').box;
  expect(max[2] - min[2]).toBeCloseTo(10, 9);
});
