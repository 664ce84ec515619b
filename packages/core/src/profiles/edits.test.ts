import { emptyDocument } from '../document/items.ts';
import { DOCUMENT_VERSION, type KadrelDocument } from '../document/schema.ts';
import { readDocument } from '../document/migrations.ts';
import { isRefusal } from '../statement/declare.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { verbNamed } from '../verbs/index.ts';
import { plainWorld } from '../statement/world.ts';
import { cross2, dot2, unit2 } from '../space/vector2.ts';
import { curvatureAt, endOf, pointAt, startOf, velocityAt, type Curve } from '../curves/curve.ts';
import { nearMisses } from './gaps.ts';
import { handlesOf } from './handles.ts';
import { meetings, nearestOn } from '../curves/meetings.ts';
import { filledArea } from './area.ts';
import { pathArea, pathLength } from './outline.ts';
import { parallelPath } from './parallel.ts';
import { deviationOfStep, drawnOf, pathsOf } from '../document/drawn.ts';

const { PI } = Math;

/** A drawing made statement by statement. */
function draw(...statements: [string, Typed][]) {
  let document: KadrelDocument = emptyDocument();
  let ids = 0;
  let refusal: { message: string; blank?: string } | undefined;
  for (const [verb, typed] of statements) {
    const world = plainWorld(document, () => `p${++ids}`);
    const done = perform(verbNamed(verb)!, typed, document, world);
    if (isRefusal(done)) refusal = done;
    else document = done.document;
  }
  const id = (name: string) => Object.values(document.items).find((item) => item.name === name)!.id;
  return {
    document,
    refusal,
    id,
    paths: (name: string) => pathsOf(document, id(name)),
    area: (name: string) => filledArea(pathsOf(document, id(name))),
    length: (name: string) => pathsOf(document, id(name)).reduce((sum, path) => sum + pathLength(path), 0),
  };
}

const plate: [string, Typed] = ['rectangle', { as: 'plate', width: 60, height: 40 }];

describe('corners', () => {
  test('a fillet takes r² − πr²/4 from a square corner', () => {
    const drawn = draw(plate, ['corner', { profile: 'plate', at: [60, 40, 0], size: 10 }]);
    expect(drawn.area('plate')).toBeCloseTo(2400 - (100 - 25 * PI), 9);
    expect(drawn.paths('plate')[0]!.curves.map(({ name }) => name)).toContain('right-back');
  });

  test('a chamfer takes half its square, and all corners at once four times that', () => {
    const drawn = draw(plate, ['corner', { profile: 'plate', how: 'bevel', size: 10 }]);
    expect(drawn.area('plate')).toBeCloseTo(2400 - 4 * 50, 9);
  });

  test('beside an arc the fillet touches both', () => {
    const drawn = draw(
      [
        'traverse',
        {
          as: 'fan',
          legs: [
            { dx: 50, dy: 0 },
            { dx: -50, dy: 50, sweep: 90 },
          ],
          closing: 'straight',
        },
      ],
      ['corner', { profile: 'fan', at: [50, 0, 0], size: 5 }],
    );
    const { curves } = drawn.paths('fan')[0]!;
    const at = curves.findIndex(({ name }) => name === 'leg1-leg2');
    for (const [a, b] of [
      [at - 1, at],
      [at, at + 1],
    ] as const) {
      const [before, after] = [curves[a]!.curve, curves[b]!.curve];
      expect(
        Math.hypot(endOf(before)[0] - startOf(after)[0], endOf(before)[1] - startOf(after)[1]),
      ).toBeLessThan(1e-9);
      expect(Math.abs(cross2(unit2(velocityAt(before, 1)), unit2(velocityAt(after, 0))))).toBeLessThan(1e-9);
    }
    expect(Math.abs(curvatureAt(curves[at]!.curve, 0.5))).toBeCloseTo(1 / 5, 12);
  });

  test('the corner stays when the sides change, and is refused where there is no room', () => {
    const drawn = draw(
      plate,
      ['corner', { profile: 'plate', at: [0, 0, 0], size: 10 }],
      ['change', { parts: ['plate'], width: 100 }],
      ['corner', { profile: 'plate', at: [100, 40, 0], size: 45 }],
    );
    expect(drawn.area('plate')).toBeCloseTo(4000 - (100 - 25 * PI), 9);
    expect(drawn.refusal?.blank).toBe('size');
    expect(drawn.refusal?.message).toMatch(/no room/);
  });

  test('a figure that leaves no room says which step can no longer be applied', () => {
    const drawn = draw(
      plate,
      ['corner', { profile: 'plate', at: [0, 0, 0], size: 30 }],
      ['change', { parts: ['plate'], height: 20 }],
    );
    expect(drawnOf(drawn.document, drawn.id('plate')).fault).toMatchObject({ step: 0 });
  });

  test('a step is changed by its number, and taken out', () => {
    const steps: [string, Typed][] = [plate, ['corner', { profile: 'plate', at: [0, 0, 0], size: 10 }]];
    expect(draw(...steps, ['step', { part: 'plate', step: 1, depth: '4' }]).area('plate')).toBeCloseTo(
      2400 - (16 - 4 * PI),
      9,
    );
    expect(draw(...steps, ['step', { part: 'plate', step: 1, out: 'yes' }]).area('plate')).toBe(2400);
  });
});

describe('trimming, extending, splitting', () => {
  const cross: [string, Typed][] = [
    ['line', { as: 'across', from: [-50, 0, 0], to: [50, 0, 0] }],
    ['circle', { as: 'ring', diameter: 40 }],
  ];

  test('the loop of a curve that crosses itself goes', () => {
    const loop: [string, Typed] = [
      'curve',
      {
        as: 'loop',
        how: 'control',
        points: [
          [0, 0, 0],
          [60, 40, 0],
          [-20, 40, 0],
          [40, 0, 0],
        ],
      },
    ];
    const drawn = draw(loop, ['trim', { profile: 'loop', at: [20, 30, 0] }]);
    // By symmetry it crosses itself above the middle; two arms are left that end there.
    const paths = drawn.paths('loop');
    expect(paths).toHaveLength(2);
    const [a, b] = [endOf(paths[0]!.curves.at(-1)!.curve), startOf(paths[1]!.curves[0]!.curve)];
    expect(a[0]).toBeCloseTo(20, 9);
    expect(b[0]).toBeCloseTo(20, 9);
    expect(a[1]).toBeCloseTo(b[1], 9);
    expect(drawn.length('loop')).toBeLessThan(draw(loop).length('loop'));
  });

  test('the piece that is pointed at goes, as far as the crossings', () => {
    const inside = draw(...cross, ['trim', { profile: 'across', at: [0, 0, 0], by: ['ring'] }]);
    expect(inside.paths('across').map(pathLength)).toEqual([30, 30]);
    const left = draw(...cross, ['trim', { profile: 'across', at: [-40, 0, 0], by: ['ring'] }]);
    expect(left.length('across')).toBeCloseTo(70, 12);
    const half = draw(...cross, ['trim', { profile: 'ring', at: [0, 20, 0], by: ['across'] }]);
    expect(half.length('ring')).toBeCloseTo(20 * PI, 9);
    expect(half.paths('ring')[0]!.closed).toBe(false);
  });

  test('over a corner of the outline too', () => {
    const drawn = draw(
      plate,
      ['line', { as: 'cut', from: [40, -10, 0], to: [70, 20, 0] }],
      ['trim', { profile: 'plate', at: [60, 0, 0], by: ['cut'] }],
    );
    // From 50 along the front and 10 up the right side.
    expect(drawn.length('plate')).toBeCloseTo(200 - 20, 9);
  });

  test('follows the curve that cuts it', () => {
    const drawn = draw(
      ...cross,
      ['trim', { profile: 'across', at: [-40, 0, 0], by: ['ring'] }],
      ['change', { parts: ['ring'], diameter: 60 }],
    );
    expect(drawn.length('across')).toBeCloseTo(80, 12);
  });

  test('what nothing crosses is not trimmed', () => {
    expect(draw(cross[0]!, ['trim', { profile: 'across', at: [0, 0, 0] }]).refusal?.message).toMatch(
      /Nothing crosses/,
    );
  });

  test('a line goes on to the first curve, an arc round its circle', () => {
    const drawn = draw(
      ['line', { as: 'wall', from: [100, -50, 0], to: [100, 50, 0] }],
      ['line', { as: 'leg', from: [0, 0, 0], to: [30, 30, 0] }],
      ['arc', { as: 'bow', radius: 30, at: [100, 0, 0], first: 180, sweep: 30 }],
      ['line', { as: 'short', from: [0, 0, 0], to: [10, 0, 0] }],
      ['extend', { profile: 'short', at: [10, 0, 0], to: ['wall'] }],
      ['extend', { profile: 'bow', at: [80, -20, 0], to: ['wall'] }],
    );
    expect(drawn.length('short')).toBe(100);
    expect(drawn.length('bow')).toBeCloseTo((30 * PI) / 2, 9);
    const missed = draw(cross[0]!, ['extend', { profile: 'across', at: [50, 0, 0] }]);
    expect(missed.refusal?.message).toMatch(/meets no curve/);
  });

  test('an open one falls in two, a closed one opens', () => {
    const drawn = draw(
      ...cross,
      ['split', { profile: 'across', at: [-20, 5, 0] }],
      ['split', { profile: 'ring', at: [30, 0, 0] }],
    );
    expect(drawn.paths('across').map(pathLength)).toEqual([30, 70]);
    expect(drawn.paths('ring')[0]).toMatchObject({ closed: false });
    expect(startOf(drawn.paths('ring')[0]!.curves[0]!.curve)).toEqual([20, 0]);
  });

  test('reversed, its area has the other sign; reversed again, it is as it was', () => {
    const once = draw(plate, ['reverse', { profiles: ['plate'] }]);
    expect(pathArea(once.paths('plate')[0]!)).toBe(-2400);
    const twice = draw(plate, ['reverse', { profiles: ['plate'] }], ['reverse', { profiles: ['plate'] }]);
    expect(twice.document.items[twice.id('plate')]!.recipe.steps).toEqual([]);
  });
});

describe('blends', () => {
  const ends: [string, Typed][] = [
    ['line', { as: 'a', from: [-40, 0, 0], to: [0, 0, 0] }],
    ['arc', { as: 'b', radius: 20, at: [60, 30, 0], first: 180, sweep: 90 }],
  ];
  const blend = (how: string) =>
    draw(...ends, [
      'blend',
      { as: 'bridge', profiles: ['a', 'b'], from: [0, 0, 0], to: [40, 30, 0], how },
    ]).paths('bridge')[0]!.curves[0]!.curve;

  test.each(['tangent', 'curvature'])('go on in the direction of both ends (%s)', (how) => {
    const curve = blend(how);
    expect(startOf(curve)).toEqual([0, 0]);
    expect(endOf(curve)[0]).toBeCloseTo(40, 9);
    expect(unit2(velocityAt(curve, 0))).toEqual([1, 0]);
    // The arc leaves its start downward: the blend comes to it on the same way.
    expect(dot2(unit2(velocityAt(curve, 1)), [0, -1])).toBeCloseTo(1, 9);
  });

  test('bend as the ends do', () => {
    const curve = blend('curvature');
    expect(curvatureAt(curve, 0)).toBeCloseTo(0, 12);
    expect(curvatureAt(curve, 1)).toBeCloseTo(1 / 20, 9);
  });
});

describe('resampling', () => {
  const wave: [string, Typed] = ['ellipse', { as: 'egg', width: 100, height: 60 }];

  test('to a tolerance keeps within it, and says by how much it departs', () => {
    for (const [drawn, tolerance] of [
      ['curve', 0.01],
      ['lines', 0.5],
    ] as const) {
      const found = draw(wave, ['resample', { profiles: ['egg'], tolerance, drawn }]);
      const deviation = deviationOfStep(found.document, found.id('egg'), 0)!;
      expect(deviation.deviation).toBeGreaterThan(0);
      expect(deviation.deviation).toBeLessThanOrEqual(tolerance * 1.001);
      expect(found.paths('egg')[0]!.closed).toBe(true);
    }
  });

  test('to a count draws as many curves', () => {
    const found = draw(wave, ['resample', { profiles: ['egg'], count: 12 }]);
    expect(found.paths('egg')[0]!.curves).toHaveLength(12);
    expect(found.area('egg')).toBeCloseTo(PI * 50 * 30, -1);
  });

  test('corners stay where they are, and points that say nothing go', () => {
    const legs = Array.from({ length: 40 }, (_, i) => (i < 20 ? { dx: 5, dy: 0 } : { dx: 0, dy: 5 }));
    const found = draw(
      ['traverse', { as: 'bend', legs }],
      ['resample', { profiles: ['bend'], tolerance: 0.01, drawn: 'lines' }],
    );
    const deviation = deviationOfStep(found.document, found.id('bend'), 0)!;
    expect(deviation).toMatchObject({ before: 40, after: 2 });
    expect(deviation.deviation).toBeLessThan(1e-9);
  });
});

describe('meetings of curves', () => {
  const bezier: Curve = {
    kind: 'bezier',
    points: [
      [0, 0],
      [10, 30],
      [30, -30],
      [40, 0],
    ],
  };

  test('a free curve meets a line where its formula says', () => {
    // By symmetry it crosses its own chord in the middle.
    const found = meetings(bezier, { kind: 'line', from: [-10, 0], to: [50, 0] });
    expect(found.map(({ a }) => a).sort((p, q) => p - q)[1]).toBeCloseTo(0.5, 9);
  });

  test('circles that touch meet once', () => {
    const a: Curve = { kind: 'arc', centre: [0, 0], radius: 5, first: 90, sweep: 360 };
    const b: Curve = { kind: 'arc', centre: [8, 0], radius: 3, first: 0, sweep: 360 };
    expect(meetings(a, b)).toHaveLength(1);
    expect(meetings(a, { ...b, centre: [8.1, 0] })).toHaveLength(0);
    expect(meetings(a, { ...b, centre: [7, 0] })).toHaveLength(2);
  });

  test('the nearest point of an arc is its end where the foot lies beyond', () => {
    const arc: Curve = { kind: 'arc', centre: [0, 0], radius: 10, first: 0, sweep: 90 };
    expect(nearestOn(arc, [5, -20])).toMatchObject({ part: 0 });
    expect(nearestOn(arc, [10, 10]).distance).toBeCloseTo(Math.hypot(10, 10) - 10, 12);
  });
});

test('a document of version 4 is read as it is: what it does not say stays unsaid', () => {
  const { document } = draw(
    plate,
    ['raise', { as: 'slab', profiles: ['plate'], height: 5 }],
    ['emboss', { part: 'slab', profiles: ['plate'], depth: 1 }],
    ['sweep', { as: 'bar', section: 'plate', path: 'plate' }],
  );
  const SINCE = ['ends', 'guides', 'closed', 'starts', 'up', 'twist', 'scale', 'slant'];
  const old = JSON.parse(
    JSON.stringify(document, (key, value: unknown) => (SINCE.includes(key) ? undefined : value)),
  ) as object;
  expect(readDocument({ ...old, kadrel: 4 })).toEqual({
    ...old,
    kadrel: DOCUMENT_VERSION,
    sheets: {},
    measures: {},
    fits: {},
    meant: {},
  });
});

describe('moving points', () => {
  const ends = (drawn: ReturnType<typeof draw>, name: string) => {
    const { base } = drawn.document.items[drawn.id(name)]!.recipe;
    return base.kind === 'profile' ? handlesOf(base.figure) : [];
  };
  const legs = [
    { dx: 100, dy: 0 },
    { length: 50, turn: -90 },
    { length: 60, bearing: 300 },
    { length: 20, turn: 15 },
    { x: 0, y: 30 },
  ];

  test('of a traverse leaves all others where they are, each leg told in its own way', () => {
    const before = draw(['traverse', { as: 'T', legs }]);
    const after = draw(
      ['traverse', { as: 'T', legs }],
      ['point', { profile: 'T', point: 3, to: [120, 70, 0] }],
    );
    const [was, now] = [ends(before, 'T'), ends(after, 'T')];
    now.forEach(([x, y], i) => {
      const [u, v] = i === 2 ? [120, 70] : was[i]!;
      expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-9);
    });
    const { base } = after.document.items[after.id('T')]!.recipe;
    const expected =
      base.kind === 'profile' && base.figure.kind === 'traverse' ? base.figure.legs.map(Object.keys) : [];
    expect(expected).toEqual([['by'], ['length', 'turn'], ['length', 'bearing'], ['length', 'turn'], ['to']]);
  });

  test('of a rectangle leaves the opposite corner, of a circle its centre', () => {
    const drawn = draw(
      plate,
      ['point', { profile: 'plate', point: 1, to: [-10, 5, 0] }],
      ['circle', { as: 'ring', diameter: 10, at: [100, 0, 0] }],
      ['point', { profile: 'ring', point: 1, to: [100, 12, 0] }],
    );
    expect(drawn.area('plate')).toBe(70 * 35);
    expect(drawn.document.items[drawn.id('plate')]!.placement.origin).toEqual([-10, 5, 0]);
    expect(drawn.area('ring')).toBeCloseTo(144 * PI, 9);
  });

  test('of what was mirrored are refused: they no longer stand where the figure says', () => {
    const drawn = draw(
      plate,
      ['mirror', { parts: ['plate'], across: 'x', centre: 'point', at: [0, 0, 0] }],
      ['point', { profile: 'plate', point: 1, to: [5, 5, 0] }],
    );
    expect(drawn.refusal?.blank).toBe('profile');
  });

  test('that are not there are refused', () => {
    expect(draw(plate, ['point', { profile: 'plate', point: 9, to: [0, 0, 0] }]).refusal?.blank).toBe(
      'point',
    );
    expect(draw(plate, ['point', { profile: 'plate', point: 1, to: [60, 5, 0] }]).refusal?.blank).toBe('to');
  });
});

describe('near misses', () => {
  const miss = (...statements: [string, Typed][]) => {
    const drawn = draw(...statements);
    return nearMisses(statements.flatMap(([, { as }]) => [...drawn.paths(as as string)]));
  };
  test('are told with their size: end to end, and end to curve', () => {
    const [gap] = miss(
      [
        'traverse',
        {
          as: 'a',
          legs: [
            { dx: 100, dy: 0 },
            { dx: 0, dy: 60 },
          ],
        },
      ],
      [
        'traverse',
        {
          as: 'b',
          at: [0, 0.4, 0],
          legs: [
            { dx: 0, dy: 59.6 },
            { dx: 100, dy: 0 },
          ],
        },
      ],
    );
    expect(gap).toMatchObject({ isEnd: true });
    expect(gap!.size).toBeCloseTo(0.4, 12);
    const [short] = miss(
      ['rectangle', { as: 'r', width: 100, height: 60 }],
      ['line', { as: 'wall', from: [50, 0, 0], to: [50, 59, 0] }],
    );
    expect(short).toMatchObject({ isEnd: false, size: 1 });
  });
  test('are none where curves cross or end on each other', () => {
    expect(
      miss(
        ['rectangle', { as: 'r', width: 100, height: 60 }],
        ['line', { as: 'wall', from: [50, 0, 0], to: [50, 60, 0] }],
        ['line', { as: 'far', from: [30, 10, 0], to: [30, 50, 0] }],
      ),
    ).toEqual([]);
  });
});

describe('wall outlines', () => {
  test('of an open profile have square ends, of a closed one two rims', () => {
    const legs = [
      { dx: 50, dy: 0 },
      { dx: 0, dy: 30 },
    ];
    const drawn = draw(
      ['traverse', { as: 'L', legs }],
      ['band', { as: 'wall', profile: 'L', thickness: 4 }],
      plate,
      ['band', { as: 'rim', profile: 'plate', thickness: 4, side: 'left' }],
    );
    expect(drawn.paths('wall')).toHaveLength(1);
    expect(drawn.paths('wall')[0]!.closed).toBe(true);
    // Common practice, no source: the centre line times the thickness.
    expect(drawn.area('wall')).toBeCloseTo(80 * 4, 9);
    expect(drawn.area('rim')).toBeCloseTo(60 * 40 - 52 * 32, 9);
  });
});

test('open surfaces are combined with nothing until they are closed', () => {
  const drawn = draw(
    plate,
    ['raise', { as: 'fence', profiles: ['plate'], height: 5, ends: 'open' }],
    ['box', { as: 'block', size: [10, 10, 10] }],
    ['union', { parts: ['block', 'fence'] }],
  );
  expect(drawn.refusal?.message).toMatch(/open surface/);
});

describe('parallels of free curves', () => {
  const wave: [string, Typed] = [
    'curve',
    {
      as: 'wave',
      points: [
        [-40, 0, 0],
        [-10, 45, 0],
        [20, -10, 0],
        [50, 20, 0],
      ],
    },
  ];

  test('keep their distance all along', () => {
    const [path] = draw(wave).paths('wave');
    for (const by of [2, -2, 5]) {
      const beside = parallelPath(path!, by)!;
      expect(beside.curves.length).toBeLessThan(20);
      for (const { curve } of beside.curves)
        for (let i = 0; i <= 20; i++) {
          const point = pointAt(curve, i / 20);
          const nearest = Math.min(...path!.curves.map((one) => nearestOn(one.curve, point).distance));
          expect(nearest).toBeCloseTo(Math.abs(by), 7);
        }
    }
  });

  test('of an ellipse enclose what Steiner’s formula says', () => {
    // Source: J. Steiner's formula for parallel sets: A + P·d + π·d².
    const drawn = draw(['ellipse', { as: 'pond', width: 60, height: 40 }]);
    const [path] = drawn.paths('pond');
    const beside = parallelPath(path!, -3)!;
    expect(pathArea(beside)).toBeCloseTo(drawn.area('pond') + drawn.length('pond') * 3 + PI * 9, 6);
  });

  test('are left to the kernel where a bend is tighter than the distance', () => {
    const [path] = draw(['ellipse', { as: 'pond', width: 60, height: 20 }]).paths('pond');
    // The tightest bend of an ellipse has the radius b²/a.
    expect(parallelPath(path!, 3)).toBeDefined();
    expect(parallelPath(path!, 3.4)).toBeUndefined();
  });
});
