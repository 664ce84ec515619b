import { POINT_KINDS, locatePoint, type KadrelDocument, type Vec3 } from '@kadrel/core';
import { built as builtFrom, builtBy, idOf, trials, type Statement } from '@kadrel/testing';
import { readStep } from './exchange/step.ts';
import { faceNamesOf, Evaluator } from './evaluate.ts';
import type { ShapeFacts } from './shapes.ts';
import { measureShape } from './facts/measure.ts';
import { loadLibraries, sharedLibraries } from './node.ts';
import { BuildWatch } from './buildWatch.ts';
import type { Libraries } from './builder.ts';
import type { Occt } from './occt/occt.ts';

let libraries: Libraries;
let occt: Occt;
let evaluator: Evaluator;
beforeAll(async () => {
  libraries = await sharedLibraries();
  occt = libraries.occt;
  evaluator = new Evaluator(libraries);
});

const built = (...statements: readonly Statement[]) => builtFrom(statements);
const measure = (document: KadrelDocument, name: string) => evaluator.measure(document, idOf(document, name));
const factsOf = (document: KadrelDocument, name: string): ShapeFacts =>
  evaluator.facts(document, idOf(document, name));
const box = (as: string, size: Vec3, at: Vec3 = [0, 0, 0]): Statement => [
  'box',
  { as, size: [...size], at: [...at] },
];
const cylinder = (as: string, diameter: number, height: number, at: Vec3 = [0, 0, 0]): Statement => [
  'cylinder',
  { as, diameter, height, at: [...at] },
];

const bracket = () =>
  built(box('plate', [100, 60, 8]), cylinder('drill', 8, 20, [15, 15, -5]), [
    'subtract',
    { as: 'bracket', from: 'plate', parts: ['drill'] },
  ]);

describe('measures', () => {
  test('a bored plate has the volume and the area of the formula', () => {
    const facts = measure(bracket(), 'bracket');
    expect(facts.volume).toBeCloseTo(48000 - Math.PI * 16 * 8, 8);
    expect(facts.area).toBeCloseTo(2 * (6000 + 800 + 480) - 2 * Math.PI * 16 + Math.PI * 8 * 8, 8);
    expect(facts).toMatchObject({
      watertight: true,
      faces: 7,
      solids: 1,
      faceted: false,
      box: { min: [0, 0, 0], max: [100, 60, 8] },
    });
  });
  test('follow the part where it is placed and turned', () => {
    const moved = built(
      box('a', [10, 20, 30], [1, 2, 3]),
      ['change', { parts: ['a'], turn: ['0', '0', '90'] }],
      ['move', { parts: ['a'], by: ['0', '0', '1/2 in'] }],
    );
    expect(measure(moved, 'a').box).toEqual({ min: [-19, 2, 15.7], max: [1, 12, 45.7] });
    const tilted = built(cylinder('c', 20, 50), ['change', { parts: ['c'], turn: ['0', '30', '0'] }]);
    // The box of a tilted cylinder: half a width of r cos a on both sides, and the axis' own run h sin a.
    const [width, run] = [10 * Math.cos(Math.PI / 6), 50 * Math.sin(Math.PI / 6)];
    expect(measure(tilted, 'c').box.max[0]).toBeCloseTo(width + run, 6);
    expect(measure(tilted, 'c').box.min[0]).toBeCloseTo(-width, 6);
  });
  test('parts that touch along an edge only are not watertight as one', () => {
    const touching = built(box('a', [10, 10, 10]), box('b', [10, 10, 10], [10, 10, 0]), [
      'union',
      { as: 'u', parts: ['a', 'b'] },
    ]);
    expect(measure(touching, 'u')).toMatchObject({ solids: 2, volume: expect.closeTo(2000, 9) as number });
  });
});

describe('combining', () => {
  test('coplanar faces become one, and carry both names', () => {
    const joined = built(box('a', [10, 10, 10]), box('b', [10, 10, 10], [10, 0, 0]), [
      'union',
      { as: 'u', parts: ['a', 'b'] },
    ]);
    expect(measure(joined, 'u')).toMatchObject({ faces: 6, edges: 12, solids: 1 });
    expect(faceNamesOf(factsOf(joined, 'u')).sort()).toEqual([
      'back+p2.back',
      'bottom+p2.bottom',
      'front+p2.front',
      'left',
      'p2.right',
      'top+p2.top',
    ]);
  });
  test('names follow through several operations', () => {
    const document = built(
      box('plate', [100, 60, 8]),
      cylinder('drill', 8, 20, [15, 15, -5]),
      ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
      box('rib', [100, 5, 20], [0, 20, 8]),
      ['union', { as: 'whole', parts: ['bracket', 'rib'] }],
    );
    const names = faceNamesOf(factsOf(document, 'whole'));
    expect(names).toEqual(
      expect.arrayContaining(['bottom', 'p2.side', 'p4.top', 'p4.front', 'left+p4.left']),
    );
    expect(names).not.toContain('face');
  });
  test('three parts intersect in what all three share', () => {
    const document = built(
      box('a', [10, 10, 10]),
      box('b', [10, 10, 10], [5, 0, 0]),
      box('c', [10, 10, 10], [0, 5, 0]),
      ['intersect', { as: 'i', parts: ['a', 'b', 'c'] }],
    );
    expect(measure(document, 'i').volume).toBeCloseTo(5 * 5 * 10, 9);
  });
  test('an empty result is an error that says so, and the other parts are built', () => {
    const apart = built(
      box('a', [1, 1, 1]),
      box('b', [1, 1, 1], [5, 0, 0]),
      ['intersect', { as: 'i', parts: ['a', 'b'] }],
      box('c', [1, 1, 1]),
    );
    const { parts, failures } = evaluator.evaluate(apart);
    expect(failures).toMatchObject([
      { part: idOf(apart, 'i'), step: null, reason: expect.stringContaining('do not meet') as string },
    ]);
    expect(Object.keys(parts)).toEqual([idOf(apart, 'c')]);
    const covered = built(box('a', [1, 1, 1]), box('b', [3, 3, 3], [-1, -1, -1]), [
      'subtract',
      { as: 's', from: 'a', parts: ['b'] },
    ]);
    expect(evaluator.evaluate(covered).failures[0]?.reason).toContain('Nothing is left');
  });
  test('sizes that the kernel cannot hold are refused before they reach it', () => {
    const tiny = built(box('a', [1e-8, 1, 1]));
    expect(evaluator.evaluate(tiny).failures[0]).toMatchObject({ reason: 'The length is 1e-8 mm.' });
  });
});

describe('holes straight through a box', () => {
  const drilled = (axis: 'x' | 'y' | 'z', extra: Statement[] = []) => {
    const turns = { x: ['0', '90', '0'], y: ['-90', '0', '0'], z: ['0', '0', '0'] };
    const at = { x: [-5, 10, 12], y: [14, -5, 12], z: [14, 11, -5] } as const;
    const drills = [0, 1].flatMap((i): Statement[] => {
      const [x, y, z] = at[axis];
      const place: Vec3 = axis === 'z' ? [x, y + 12 * i, z] : [x, y, z + 12 * i];
      return [cylinder(`d${i}`, 6 + i, 60, place), ['change', { parts: [`d${i}`], turn: turns[axis] }]];
    });
    return built(box('b', [40, 36, 44]), ...drills, ...extra, [
      'subtract',
      { as: 's', from: 'b', parts: ['d0', 'd1', ...extra.map(([, t]) => t.as as string)] },
    ]);
  };
  // A small box in the list makes the same subtraction go the general way.
  const general: Statement[] = [box('far', [1, 1, 1], [200, 0, 0])];

  test.each(['x', 'y', 'z'] as const)(
    'along %s are the same solid as the general subtraction, names included',
    (axis) => {
      const [quick, slow] = [drilled(axis), drilled(axis, general)];
      const [a, b] = [measure(quick, 's'), measure(slow, 's')];
      expect(a).toMatchObject({ faces: b.faces, edges: b.edges, solids: 1, watertight: true });
      expect(Math.abs(a.volume / b.volume - 1)).toBeLessThan(1e-12);
      expect(Math.abs(a.area / b.area - 1)).toBeLessThan(1e-12);
      a.centroid.forEach((n, i) => expect(n).toBeCloseTo(b.centroid[i]!, 9));
      const [qf, sf] = [factsOf(quick, 's'), factsOf(slow, 's')];
      expect(faceNamesOf(qf).sort()).toEqual(faceNamesOf(sf).sort());
      const points = ({ snaps }: ShapeFacts) =>
        [...snaps.pointKind]
          .map(
            (k, i) =>
              `${POINT_KINDS[k]} ${snaps.names[snaps.pointName[i]!]} ${[...snaps.points.slice(3 * i, 3 * i + 3)].map((n) => (Math.round(n * 1e6) / 1e6 + 0).toFixed(6)).join()}`,
          )
          .sort();
      expect(points(qf)).toEqual(points(sf));
    },
  );
  test('that touch a side, one another, or end inside go the general way, and are right', () => {
    const volume = (diameter: number, height: number, at: Vec3) => {
      const document = built(box('b', [20, 20, 20]), cylinder('d', diameter, height, at), [
        'subtract',
        { as: 's', from: 'b', parts: ['d'] },
      ]);
      return measure(document, 's').volume;
    };
    expect(volume(10, 40, [10, 10, 10])).toBeCloseTo(8000 - 250 * Math.PI, 8);
    expect(volume(10, 40, [0, 10, -10])).toBeCloseTo(8000 - 250 * Math.PI, 8);
    expect(volume(10, 20, [10, 10, 0])).toBeCloseTo(8000 - 500 * Math.PI, 8);
  });
});

describe('snap features', () => {
  const count = (facts: ShapeFacts, kind: string) =>
    [...facts.snaps.pointKind].filter((k) => POINT_KINDS[k] === kind).length;
  test('a box has 8 corners, 12 middles, 6 face centres', () => {
    const facts = factsOf(built(box('a', [10, 20, 30])), 'a');
    expect([
      count(facts, 'endpoint'),
      count(facts, 'midpoint'),
      count(facts, 'face centre'),
      count(facts, 'quadrant'),
    ]).toEqual([8, 12, 6, 0]);
    expect(facts.outline.length).toBe(12 * 6);
  });
  test('a cylinder has two centres and eight quadrants, and its seam offers nothing', () => {
    const facts = factsOf(built(cylinder('c', 20, 50)), 'c');
    expect([
      count(facts, 'endpoint'),
      count(facts, 'midpoint'),
      count(facts, 'centre'),
      count(facts, 'quadrant'),
    ]).toEqual([0, 0, 2, 8]);
    expect(facts.snaps.curveKind.length).toBe(2);
  });
  test('normals of planes point outward, also inside a cut', () => {
    const document = built(box('a', [30, 30, 30]), box('b', [10, 10, 50], [10, 10, -10]), [
      'subtract',
      { as: 's', from: 'a', parts: ['b'] },
    ]);
    const { snaps } = factsOf(document, 's');
    const face = [...snaps.faceName].findIndex((i) => snaps.names[i] === 'p2.left');
    expect([...snaps.faces.slice(7 * face + 3, 7 * face + 6)]).toEqual([1, 0, 0]);
  });
  test('points are found by the names of their faces', () => {
    const document = bracket();
    const { snaps } = factsOf(document, 'bracket');
    const at = (names: string, snap?: string) =>
      locatePoint(snaps, { on: 'bracket', at: names, snap }, document);
    expect(at('top&front&right')).toEqual([100, 0, 8]);
    expect(at('right & top & front')).toEqual([100, 0, 8]);
    expect(at('top&front', 'midpoint')).toEqual([50, 0, 8]);
    expect(at('drill.side&top')).toEqual([15, 15, 8]);
    expect(at('bottom&side', 'centre')).toEqual([15, 15, 0]);
    const centre = at('top', 'centre') as Vec3;
    // The hole pulls the centre of the face away from it: (6000·50 − 16π·15) / (6000 − 16π).
    expect(centre[0]).toBeCloseTo((6000 * 50 - 16 * Math.PI * 15) / (6000 - 16 * Math.PI), 9);
    expect(at('top&bottom')).toMatchObject({ code: 'no-such-point' });
    expect(at('side', 'quadrant')).toMatchObject({ refused: true });
    expect(at('top&side', 'quadrant')).toMatchObject({ code: 'ambiguous.points' });
  });
  test('facets stay within the stated chord of the true surface', () => {
    const { snaps } = factsOf(built(cylinder('c', 200, 10)), 'c');
    for (let t = 0; t < snaps.triangles.length; t += 3) {
      if (snaps.faceKind[snaps.faceOfTriangle[t / 3]!] !== 1) continue;
      const [x, y] = [0, 1].map((axis) =>
        [0, 1, 2].reduce((sum, c) => sum + snaps.positions[3 * snaps.triangles[t + c]! + axis]! / 3, 0),
      );
      expect(100 - Math.hypot(x!, y!)).toBeLessThanOrEqual(snaps.chordMm + 1e-5);
    }
  });
});

describe('evaluating', () => {
  test('builds only what changed', () => {
    const fresh = new Evaluator(libraries);
    const document = bracket();
    const first = fresh.evaluate(document);
    const known = new Set(first.shapes.map(({ key }) => key));
    const parts: string[] = [];
    const moved = built(
      box('plate', [100, 60, 8]),
      cylinder('drill', 8, 20, [15, 15, -5]),
      ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
      ['move', { parts: ['bracket'], by: [1, 2, 3] }],
    );
    const again = fresh.evaluate(moved, { known, onPart: ({ part }) => parts.push(part) });
    expect([again.shapes, parts]).toEqual([[], []]);
    expect(Object.values(again.parts)).toEqual(Object.values(first.parts));
  });
  test('hundreds of booleans in a row stay under a fixed bound of memory and of held shapes', async () => {
    // A kernel of its own: what other suites have left in a shared one decides when its memory grows.
    const own = await loadLibraries();
    const fresh = new Evaluator(own);
    const run = (from: number, to: number) => {
      for (let i = from; i < to; i++) {
        const document = built(box('a', [20, 20, 20]), cylinder('b', 4 + i / 1000, 40, [10, 10, -10]), [
          'subtract',
          { as: 's', from: 'a', parts: ['b'] },
        ]);
        expect(fresh.problemOf(document, idOf(document, 's'))).toBeUndefined();
      }
    };
    // Each leaves two shapes: by then as many are held as ever are.
    const full = 210;
    const more = trials(600);
    run(0, full);
    const before = own.occt.wasmMemory.buffer.byteLength;
    run(full, full + more);
    // The kernel loses some 100 KB an operation for good, copies of the operands included (measured), and its memory grows by a fifth
    // at a time.
    expect(own.occt.wasmMemory.buffer.byteLength).toBeLessThan(1.2 * before + more * 100 * 1024);
    expect(fresh.heldShapes).toBeLessThanOrEqual(403);
  });
});

describe('files', () => {
  test('STEP keeps volume, true cylinders, names and millimetres', () => {
    const document = bracket();
    const text = evaluator.exported('step', {
      document,
      parts: [idOf(document, 'bracket')],
      chordMm: 1,
      time: '2026-01-01T00:00:00',
    }) as string;
    expect(text.startsWith('ISO-10303-21;')).toBe(true);
    expect(text.trimEnd().endsWith('END-ISO-10303-21;')).toBe(true);
    expect(text).toMatch(/CYLINDRICAL_SURFACE/);
    expect(text).toMatch(/PRODUCT\('bracket'/);
    expect(text).toMatch(/SI_UNIT\(\.MILLI\.,\.METRE\.\)/);
    const back = readStep(occt, text);
    expect(Math.abs(measureShape(occt, back).volume / (48000 - 128 * Math.PI) - 1)).toBeLessThan(1e-9);
    back.delete();
  });
  test('several placed parts come back where they stand', () => {
    const document = built(box('a', [10, 10, 10]), cylinder('b', 10, 10, [50, 0, 0]), [
      'change',
      { parts: ['b'], turn: ['90', '0', '0'] },
    ]);
    const back = readStep(
      occt,
      evaluator.exported('step', {
        document,
        parts: Object.keys(document.items),
        chordMm: 1,
        time: '2026-01-01T00:00:00',
      }) as string,
    );
    const facts = measureShape(occt, back);
    expect(facts.volume).toBeCloseTo(1000 + 250 * Math.PI, 6);
    expect(facts.box.max[0]).toBeCloseTo(55, 6);
    back.delete();
  });
  test('STL has the size that its count says', () => {
    const document = bracket();
    const bytes = evaluator.exported('stl', {
      document,
      parts: [idOf(document, 'bracket')],
      chordMm: 0.01,
      time: '',
    }) as Uint8Array;
    const count = new DataView(bytes.buffer).getUint32(80, true);
    expect(bytes.length).toBe(84 + 50 * count);
    expect(count).toBeGreaterThan(100);
  });
});

describe('a content over which a kernel has stopped', () => {
  const fillet: Statement = ['fillet', { part: 'block', edges: 'along z', radius: 2 }];
  const chamfer: Statement = ['chamfer', { part: 'block', edges: 'around top', width: 1 }];
  const block = (...steps: readonly Statement[]) =>
    builtBy(evaluator, [box('block', [10, 20, 30]), ...steps]);
  /** Keys in the order in which they were told. */
  const told = (document: KadrelDocument) => {
    const keys: string[] = [];
    const watch = new BuildWatch();
    watch.onBuilding = (key) => keys.push(key);
    new Evaluator(libraries, watch).evaluate(document);
    return keys;
  };

  /** Where the content of a key is left out. */
  const withPoison = (key: string) => {
    const watch = new BuildWatch();
    watch.poisoned = new Map([[key, 'The kernel stopped while it built this.']]);
    return new Evaluator(libraries, watch);
  };

  test('is told before it is built, and what is made of it again after it', () => {
    const cut: Statement[] = [
      cylinder('drill', 4, 50, [5, 5, -5]),
      ['subtract', { as: 'bored', from: 'block', parts: ['drill'] }],
    ];
    const [bored, filleted, again, ...others] = told(block(fillet, ...cut));
    expect([again, others]).toEqual([bored, []]);
    expect(told(block(fillet, chamfer))[0]).toBe(filleted);
  });

  test('is what was told last, also where the kernel calls itself without an end', () => {
    const keys: string[] = [];
    const watch = new BuildWatch();
    watch.onBuilding = (key) => keys.push(key);
    const endless = (depth: number): number => 1 + endless(depth + 1);
    expect(() => watch.over('outer', () => watch.over('inner', () => endless(0)))).toThrow(/call stack/);
    expect(keys).toEqual(['outer', 'inner']);
  });

  test('is left out where it is a step, and that is reported with its place', () => {
    const rounded = block(fillet, chamfer);
    const [filleted] = told(rounded);
    const kernel = withPoison(filleted!);
    const { failures, shapes } = kernel.evaluate(rounded);
    expect(shapes).toHaveLength(1);
    expect(failures).toMatchObject([
      { part: idOf(rounded, 'block'), reason: expect.stringContaining('The kernel stopped') as string },
    ]);
    expect(failures[0]!.places).toHaveLength(1);
    // The chamfer has gone on with the whole block.
    expect(kernel.measure(rounded, idOf(rounded, 'block')).volume).toBe(
      measure(block(chamfer), 'block').volume,
    );
  });

  test('is refused where it is all of a part', () => {
    const bodies = bracket();
    const [key] = told(bodies);
    const kernel = withPoison(key!);
    const { failures, shapes } = kernel.evaluate(bodies);
    expect([failures.length, shapes.length]).toEqual([1, 0]);
  });
});
