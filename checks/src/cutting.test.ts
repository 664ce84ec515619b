/** Solids cut by planes, and what is subtracted with a clearance, against formulas. */
import { datumInWorld, perform, plainWorld, verbNamed } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, builtBy, idOf, measured, numbers, type Statement, isEveryTrial } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const volumes = (statements: readonly Statement[], ...names: string[]) => {
  const document = builtBy(kernel, statements);
  return names.map((name) => measured(kernel, document, name).volume);
};

const SOLIDS: readonly (readonly [Statement, number])[] = [
  [['box', { as: 'block', size: [20, 30, 40], at: [-10, -15, -20] }], 20 * 30 * 40],
  [['cylinder', { as: 'block', diameter: 30, height: 40, at: [0, 0, -20] }], Math.PI * 225 * 40],
  [['sphere', { as: 'block', diameter: 30, at: [0, 0, 0] }], (4 / 3) * Math.PI * 15 ** 3],
  [
    ['cone', { as: 'block', diameter: 30, top: 10, height: 40, at: [0, 0, -20] }],
    ((Math.PI * 40) / 3) * (225 + 75 + 25),
  ],
  [['torus', { as: 'block', diameter: 40, thickness: 12, at: [0, 0, 0] }], 2 * Math.PI ** 2 * 20 * 36],
];

const PLANES = isEveryTrial ? 200 : 6;

// Planes through points near the middle, leaning at random: the two halves come to what the formula of the whole says.
test('halves add up to the whole', () => {
  const random = numbers(7);
  const between = (min: number, max: number) => min + (max - min) * random();
  for (let i = 0; i < PLANES; i++) {
    const [solid, whole] = SOLIDS[i % SOLIDS.length]!;
    const points = Array.from({ length: 3 }, () => [between(-8, 8), between(-8, 8), between(-8, 8)]);
    const [a, b] = volumes(
      [solid, ['split-solid', { parts: ['block'], plane: { points } }]],
      'block',
      'block 2',
    );
    expect(Math.abs((a! + b!) / whole - 1)).toBeLessThan(1e-9);
    expect(Math.min(a!, b!)).toBeGreaterThan(0);
  }
});

// Source: a cap of a ball of radius r and height h holds π h² (3r − h) / 3.
test.each([
  ['front', 5],
  ['behind', 25],
] as const)('what is %s a plane at 10 stays of a ball', (keep, height) => {
  const [left] = volumes(
    [
      ['sphere', { as: 'block', diameter: 30, at: [0, 0, 0] }],
      ['trim-solid', { parts: ['block'], plane: 'plan', at: '10', keep }],
    ],
    'block',
  );
  expect(left! / ((Math.PI * height ** 2 * (45 - height)) / 3)).toBeCloseTo(1, 9);
});

const split: readonly Statement[] = [
  ['box', { as: 'block', size: [10, 10, 30], at: [0, 0, 0] }],
  ['split-solid', { parts: ['block'], plane: 'plan', at: '12' }],
];
const heights = (...more: Statement[]) =>
  volumes([...split, ...more], 'block', 'block 2').map((volume) => volume / 100);
const upper = (...more: Statement[]) => volumes([...split, ...more], 'block')[0]!;

test('the plane can be moved for both halves, in the step of either', () => {
  expect(heights()).toEqual([expect.closeTo(18, 9), expect.closeTo(12, 9)]);
  const moved: Statement = ['step', { part: 'block 2', step: '1', depth: '20' }];
  expect(heights(moved)).toEqual([expect.closeTo(10, 9), expect.closeTo(20, 9)]);
});

test('a half that is unlinked, copied or left alone stays the half that it is', () => {
  const moved: Statement = ['step', { part: 'block', step: '1', depth: '20' }];
  expect(heights(['unlink', { parts: ['block 2'] }], moved)).toEqual([
    expect.closeTo(10, 9),
    expect.closeTo(12, 9),
  ]);
  const [copy] = volumes([...split, ['duplicate', { parts: ['block 2'], by: ['50', '0', '0'] }]], 'block 3');
  expect(copy! / 100).toBeCloseTo(12, 9);
  const [left] = volumes([...split, ['delete', { parts: ['block'] }]], 'block 2');
  expect(left! / 100).toBeCloseTo(12, 9);
});

test('a step that is off is not done, and steps are done in their order', () => {
  const shelled: Statement = ['shell', { part: 'block', thickness: 1, open: 'top' }];
  expect(heights(['step', { part: 'block', step: '1', state: 'off' }])[0]).toBeCloseTo(30, 9);
  // Split first, the shell has a floor of its own; the other way round the cut goes through the finished shell.
  expect(upper(shelled)).toBeCloseTo(1800 - 64 * 17, 6);
  expect(upper(shelled, ['step', { part: 'block', step: '2', to: '1' }])).toBeCloseTo(36 * 18, 6);
});

test('each half has its own steps from the split on', () => {
  const rounded: Statement[] = [
    ['fillet', { part: 'block', edges: 'around top', radius: '1' }],
    ['shell', { part: 'block 2', thickness: '1', open: 'cut' }],
  ];
  const [top, bottom] = heights(...rounded);
  expect(top! * 100).toBeLessThan(1800);
  expect(bottom! * 100).toBeCloseTo(1200 - 64 * 11, 6);
  const moved: Statement = ['step', { part: 'block 2', step: '1', depth: '20' }];
  expect(heights(...rounded, moved)[1]! * 100).toBeCloseTo(2000 - 64 * 19, 6);
  const thicker: Statement = ['step', { part: 'block 2', step: '2', depth: '2' }];
  expect(heights(...rounded, thicker)[1]! * 100).toBeCloseTo(1200 - 36 * 10, 6);
});

test('the datum of a half is a point of that half', () => {
  const document = builtBy(kernel, [...split, ['change', { parts: ['block 2'], datum: '0, 0, 1' }]]);
  const half = document.items[idOf(document, 'block 2')]!;
  const boxOf = (id: string) => kernel.facts(document, id).measures.box;
  expect(datumInWorld(document, half, boxOf)).toEqual([5, 5, 12]);
});

test('a plane that misses is refused', () => {
  const document = builtBy(kernel, [
    split[0]!,
    ['trim-solid', { parts: ['block'], plane: 'plan', at: '31' }],
  ]);
  expect(kernel.problemOf(document, Object.keys(document.items)[0]!)).toMatchObject({
    step: 0,
    reason: 'The plane does not go through the solid.',
  });
});

// Source: J. Steiner 1840, for the upright prism that lies within the block: its base grows to A + P·c + π·c².
test('what is taken out leaves a clearance all round', () => {
  const [left] = volumes(
    [
      ['box', { as: 'block', size: [60, 60, 20], at: [-30, -30, 0] }],
      ['box', { as: 'peg', size: [10, 20, 40], at: [-5, -10, -10] }],
      ['subtract', { as: 'socket', from: 'block', parts: ['peg'], clearance: '0.3' }],
    ],
    'socket',
  );
  expect(left! / (60 * 60 * 20 - 20 * (200 + 60 * 0.3 + Math.PI * 0.09))).toBeCloseTo(1, 9);
});

describe('along what is drawn', () => {
  const block: Statement = ['box', { as: 'block', size: [40, 20, 30], at: [-20, -10, -15] }];
  const along = (profile: string, more = {}): Statement => [
    'cut-along',
    { parts: ['block'], profiles: [profile], ...more },
  ];
  const line: Statement = ['line', { as: 'saw', from: [-5, 0, -5], to: [5, 0, 5], on: 'front' }];

  test('a line seen from the front cuts to both ends, and the halves follow it when it is moved', () => {
    // By 45° through the middle: half of the whole lies to the left of it.
    expect(volumes([block, line, along('saw')], 'block', 'block 2')).toEqual([
      expect.closeTo(12_000, 8),
      expect.closeTo(12_000, 8),
    ]);
    const upright: readonly Statement[] = [
      ['point', { profile: 'saw', point: '1', to: [-5, 0, 0] }],
      ['point', { profile: 'saw', point: '2', to: [-5, 0, 9] }],
    ];
    expect(volumes([block, line, along('saw'), ...upright], 'block', 'block 2')).toEqual([
      expect.closeTo(15 * 600, 8),
      expect.closeTo(25 * 600, 8),
    ]);
  });

  // Upright, the line takes off what lies to its left; the numbers are the distances to it.
  test('the cut goes with the line as a whole, and with the part where that is moved', () => {
    const upright = {
      ...line[1],
      from: [-5, 0, -5],
      to: [-5, 0, 9],
    };
    const first: readonly Statement[] = [block, ['line', upright], along('saw')];
    const byMove: Statement = ['move', { parts: ['saw'], by: [3, 0, 0] }];
    expect(volumes([...first, byMove], 'block', 'block 2')).toEqual([
      expect.closeTo(18 * 600, 8),
      expect.closeTo(22 * 600, 8),
    ]);
    const quarter: Statement = [
      'turn',
      { parts: ['saw'], about: 'y', angle: '90', centre: 'point', at: [0, 0, 0] },
    ];
    const turned = volumes([...first, quarter], 'block', 'block 2');
    expect(turned.map((volume) => volume / 800).sort((a, b) => a - b)).toEqual([
      expect.closeTo(10, 9),
      expect.closeTo(20, 9),
    ]);
    for (const parts of [['block'], ['block', 'saw']])
      expect(volumes([...first, ['move', { parts, by: [3, 0, 0] }]], 'block')).toEqual([
        expect.closeTo(15 * 600, 8),
      ]);
  });

  test('its sides are told by its direction, and stay alone where that is said', () => {
    const [left] = volumes(
      [
        block,
        line,
        ['point', { profile: 'saw', point: '1', to: [5, 0, -5] }],
        along('saw', { keep: 'front' }),
      ],
      'block',
    );
    expect(left).toBeCloseTo(25 * 600, 8);
    const [right] = volumes(
      [
        block,
        line,
        ['point', { profile: 'saw', point: '1', to: [5, 0, -5] }],
        along('saw', { keep: 'behind' }),
      ],
      'block',
    );
    expect(right).toBeCloseTo(15 * 600, 8);
  });

  // A circle of radius r takes π r² of the face; square to it, and leaning by 45° alike (Cavalieri's principle);
  // leaning, its sides are measured by the kernel's own rule.
  test.each([
    [undefined, 9],
    [[0, -1, 1], 6],
  ])('a circle cuts a plug out, on the way %j', (way, digits) => {
    const circle: Statement = ['circle', { as: 'saw', diameter: 8, at: [0, 0, 0], on: 'front' }];
    const [plug, rest] = volumes(
      [block, circle, along('saw', way ? { along: way } : {})],
      'block',
      'block 2',
    );
    expect(plug! / (Math.PI * 16 * 20)).toBeCloseTo(1, digits);
    expect((plug! + rest!) / 24_000).toBeCloseTo(1, digits);
  });

  // Source: a segment of a circle, r² (α − sin α) / 2, as in any handbook; beyond its ends the arc goes on straight.
  test('an arc goes on straight where it ends', () => {
    const arc: Statement = [
      'arc',
      { as: 'saw', radius: 10, at: [0, 0, 0], first: '0', sweep: '180', on: 'front' },
    ];
    const [within] = volumes([block, arc, along('saw')], 'block');
    expect(within! / (20 * ((Math.PI * 100) / 2 + 20 * 15))).toBeCloseTo(1, 9);
  });

  test('a free curve cuts a ring in two, and what it does not reach is refused', () => {
    const wave: Statement = [
      'curve',
      {
        as: 'saw',
        points: [
          [-9, -2, 0],
          [-3, 3, 0],
          [4, -3, 0],
          [9, 2, 0],
        ],
        on: 'plan',
      },
    ];
    const ring: Statement = ['torus', { as: 'block', diameter: 20, thickness: 6, at: [0, 0, 0] }];
    const [a, b] = volumes([ring, wave, along('saw')], 'block', 'block 2');
    expect((a! + b!) / (2 * Math.PI ** 2 * 10 * 9)).toBeCloseTo(1, 6);
    const away: Statement = ['circle', { as: 'saw', diameter: 4, at: [60, 60, 0], on: 'plan' }];
    const document = builtBy(kernel, [block, away, along('saw')]);
    expect(kernel.problemOf(document, idOf(document, 'block'))).toMatchObject({
      step: 0,
      reason: 'The outline does not go through the solid.',
    });
  });

  test('a line that would run into itself, led on, is refused with a place', () => {
    // A hook whose end looks back at its shaft.
    const legs = [
      { x: -4, y: 8 },
      { x: 6, y: 8 },
      { x: 6, y: 0 },
      { x: 4, y: 0 },
    ];
    const hook: Statement = ['traverse', { as: 'saw', at: [-4, 0, -8], legs, closing: 'open', on: 'front' }];
    const document = builtBy(kernel, [block, hook, along('saw')]);
    expect(kernel.problemOf(document, idOf(document, 'block'))).toMatchObject({
      step: 0,
      reason: 'Led on straight at its ends, the line runs into itself.',
      places: [expect.anything()],
    });
  });
});

describe('by another part', () => {
  const block: Statement = ['box', { as: 'block', size: [40, 20, 30], at: [-20, -10, -15] }];
  const peg: Statement = ['cylinder', { as: 'peg', diameter: 10, height: 50, at: [0, 0, -25] }];
  const cut: Statement = ['cut-by', { parts: ['block'], by: 'peg' }];
  const made = [block, peg, cut];
  const within = Math.PI * 25 * 30;

  test('what lies within and what lies outside are two parts, and the other one stays', () => {
    const [inner, outer, whole] = volumes(made, 'block', 'block 2', 'peg');
    expect(inner! / within).toBeCloseTo(1, 9);
    expect((inner! + outer!) / 24_000).toBeCloseTo(1, 9);
    expect(whole! / (Math.PI * 25 * 50)).toBeCloseTo(1, 9);
  });

  // Source of the octant: by symmetry an eighth of the ball.
  test('one side may be kept, of several parts at once', () => {
    const corner: Statement = ['box', { as: 'corner', size: [20, 20, 20], at: [0, 0, 0] }];
    const balls = ['a', 'b'].map((as): Statement => ['sphere', { as, diameter: 12, at: [0, 0, 0] }]);
    const trim = (keep: string): Statement => ['cut-by', { parts: ['a', 'b'], by: 'corner', keep }];
    const ball = (4 / 3) * Math.PI * 216;
    for (const volume of volumes([...balls, corner, trim('front')], 'a', 'b'))
      expect(volume / (ball / 8)).toBeCloseTo(1, 9);
    for (const volume of volumes([...balls, corner, trim('behind')], 'a', 'b'))
      expect(volume / (ball * (7 / 8))).toBeCloseTo(1, 9);
  });

  // Source: Steiner's formula of a cylinder that grows by c all round, which is a cylinder of radius r + c within the block.
  test('a clearance is left all round the other part, can be changed, and follows it', () => {
    const room = (radius: number) => 24_000 - Math.PI * radius ** 2 * 30;
    const clear: Statement = ['cut-by', { parts: ['block'], by: 'peg', keep: 'behind', clearance: '0.3' }];
    expect(volumes([block, peg, clear], 'block')[0]! / room(5.3)).toBeCloseTo(1, 9);
    const wider: Statement = ['step', { part: 'block', depth: '0.5' }];
    expect(volumes([block, peg, clear, wider], 'block')[0]! / room(5.5)).toBeCloseTo(1, 9);
    const thicker: Statement = ['change', { parts: ['peg'], diameter: 12 }];
    expect(volumes([block, peg, clear, thicker], 'block', 'peg')).toEqual([
      expect.closeTo(room(6.3), 6),
      expect.closeTo(Math.PI * 36 * 50, 6),
    ]);
    const document = built([block, peg]);
    const done = perform(
      verbNamed('cut-by')!,
      { parts: ['block'], by: 'peg', keep: 'behind', clearance: '0' },
      document,
      plainWorld(document, () => 'new'),
    );
    expect(done).toMatchObject({ code: 'not-positive.clearance', blank: 'clearance' });
  });

  test('the cut follows the other part where that is moved, turned or resized, and goes with what is cut', () => {
    const half: Statement = ['move', { parts: ['peg'], by: [20, 0, 0] }];
    expect(volumes([...made, half], 'block')[0]! / (within / 2)).toBeCloseTo(1, 9);
    const thicker: Statement = ['change', { parts: ['peg'], diameter: 12 }];
    expect(volumes([...made, thicker], 'block')[0]! / (Math.PI * 36 * 30)).toBeCloseTo(1, 9);
    const across: Statement = [
      'turn',
      { parts: ['peg'], about: 'y', angle: '90', centre: 'point', at: [0, 0, 0] },
    ];
    expect(volumes([...made, across], 'block')[0]! / (Math.PI * 25 * 40)).toBeCloseTo(1, 9);
    const away: Statement = ['move', { parts: ['block'], by: [300, 0, 0] }];
    expect(volumes([...made, away], 'block')[0]! / within).toBeCloseTo(1, 9);
    const mirrored: Statement = ['mirror', { parts: ['block'], plane: 'side' }];
    const off: Statement = ['move', { parts: ['peg'], by: [12, 0, 0] }];
    expect(volumes([...made, mirrored, half], 'block')[0]! / (within / 2)).toBeCloseTo(1, 9);
    expect(volumes([...made, mirrored, off], 'block')[0]! / within).toBeCloseTo(1, 9);
  });

  test('what does not go through is told, and what is cut by it has to stay', () => {
    const away: Statement = ['move', { parts: ['peg'], by: [100, 0, 0] }];
    const document = builtBy(kernel, [...made, away]);
    expect(kernel.problemOf(document, idOf(document, 'block'))).toMatchObject({ step: 0 });
    expect(kernel.measure(document, idOf(document, 'block')).volume).toBeCloseTo(24_000, 6);
    for (const [statement, words] of [
      [['delete', { parts: ['peg'] }], 'block is made from peg'],
      [['cut-by', { parts: ['peg'], by: 'peg' }], 'cannot be cut by itself'],
      [['cut-by', { parts: ['peg'], by: 'block' }], 'block would be made with what is made from it'],
    ] as const)
      expect(() => builtBy(kernel, [...made, statement as unknown as Statement])).toThrow(words);
  });

  test('a pattern cuts as all of its members', () => {
    const row: Statement = ['along', { as: 'pegs', parts: ['peg'], count: 3, pitch: '12' }];
    const document = builtBy(kernel, [block, peg, row]);
    expect(document.items[idOf(document, 'pegs')]!.recipe.base.kind).toBe('pattern');
    const by: Statement = ['cut-by', { parts: ['block'], by: 'pegs', keep: 'behind' }];
    const [left] = volumes([block, peg, row, by], 'block');
    expect(() => built([block, peg, row, by, ['dissolve', { parts: ['pegs'] }]])).toThrow(
      'block is made with pegs, which has to stay',
    );
    // Three pegs 12 mm apart from the middle: two whole and one of which the rim at 20 mm takes off a part.
    const rim = Math.acos((24 - 20) / 5);
    const segment = 25 * (rim - Math.sin(rim) * Math.cos(rim));
    expect(left! / (24_000 - 2 * within - segment * 30)).toBeCloseTo(1, 9);
  });
});
