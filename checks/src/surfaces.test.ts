/** Sweeps that turn and grow, lofts that come back, guides, surfaces and what becomes of them, against formulas. */
import { readDocument } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const { PI } = Math;
const near = (found: number, wanted: number, relative = 1e-9) =>
  expect(Math.abs(found - wanted)).toBeLessThan(relative * Math.max(1, Math.abs(wanted)));

const square = (as: string, width: number, on: unknown = 'plan', more: object = {}): Statement => [
  'rectangle',
  { as, width, height: width, from: 'centre', on, ...more },
];
const straight: Statement = [
  'line',
  {
    as: 'way',
    from: [0, 0, 0],
    to: [0, 100, 0],
  },
];
const volumeOf = (statements: readonly Statement[], name: string) =>
  measured(kernel, built(statements), name);

describe('sweeps', () => {
  test('that turn keep the volume of the prism', () => {
    // Source: Cavalieri's principle: each section has the same area.
    for (const twist of [30, 90, -200]) {
      const found = volumeOf(
        [square('bar', 10), straight, ['sweep', { as: 'drill', section: 'bar', path: 'way', twist }]],
        'drill',
      );
      near(found.volume, 10 * 10 * 100, 1e-6);
      expect(found.watertight).toBe(true);
    }
  });

  test('turn the right way: the corner of the section comes to where the twist says', () => {
    // A bar of 20 × 2 turned by a quarter stands upright at its end.
    const found = volumeOf(
      [
        ['rectangle', { as: 'bar', width: 20, height: 2, from: 'centre' }],
        straight,
        ['sweep', { as: 'blade', section: 'bar', path: 'way', twist: 90 }],
      ],
      'blade',
    );
    // Its corner, √101 from the path, has just passed the top.
    near(found.box.max[2], Math.hypot(10, 1), 1e-6);
    near(found.centroid[2], 0, 1e-6);
  });

  test('that grow are frusta', () => {
    // Source: volume of a frustum of a pyramid, h/3 (A + B + √(AB)); any handbook of mathematics.
    const found = volumeOf(
      [square('bar', 10), straight, ['sweep', { as: 'horn', section: 'bar', path: 'way', scale: 0.5 }]],
      'horn',
    );
    near(found.volume, (100 / 3) * (100 + 25 + 50), 1e-9);
  });

  test('that grow along an arc hold the integral of their sections', () => {
    // Source: Pappus for each slice: ∫A ds, since the centroid of the section runs along the path.
    const found = volumeOf(
      [
        square('bar', 10),
        ['arc', { as: 'way', radius: 50, first: 0, sweep: 90 }],
        ['sweep', { as: 'horn', section: 'bar', path: 'way', scale: 2 }],
      ],
      'horn',
    );
    near(found.volume, ((50 * PI) / 2 / 3) * (100 + 400 + 200), 1e-6);
  });

  test('upright: a ramp has the volume of the upright section and the level way', () => {
    // Source: Cavalieri's principle, cut by upright planes.
    const found = volumeOf(
      [
        square('bar', 10),
        [
          'line',
          {
            as: 'ramp',
            from: [0, 0, 0],
            to: [100, 0, 40],
            on: 'front',
          },
        ],
        ['sweep', { as: 'rail', section: 'bar', path: 'ramp', up: 'z' }],
      ],
      'rail',
    );
    near(found.volume, 100 * 100, 1e-9);
    near(found.box.max[0], 100, 1e-9);
    near(found.box.max[2], 45, 1e-9);
  });

  test('as a surface enclose nothing, and become bodies by their caps', () => {
    const open: Statement[] = [
      square('bar', 10),
      straight,
      ['sweep', { as: 'duct', section: 'bar', path: 'way', ends: 'open' }],
    ];
    const surface = volumeOf(open, 'duct');
    expect(surface).toMatchObject({ solids: 0, volume: 0, watertight: false, faces: 4 });
    near(surface.area, 4 * 10 * 100);
    const closed = volumeOf([...open, ['close', { part: 'duct' }]], 'duct');
    expect(closed).toMatchObject({ solids: 1, watertight: true, faces: 6 });
    near(closed.volume, 10_000);
    // 1 mm on the outside: 12² − 10² all along.
    const thick = volumeOf([...open, ['thicken', { part: 'duct', thickness: 1, side: 'before' }]], 'duct');
    near(thick.volume, (144 - 100) * 100, 1e-6);
    const both = volumeOf([...open, ['thicken', { part: 'duct', thickness: 2 }]], 'duct');
    near(both.volume, (144 - 64) * 100, 1e-6);
    expect(both.solids).toBe(1);
  });
});

describe('lofts', () => {
  const around = (i: number, count: number, radius: number, width: number): Statement[] => {
    const angle = (360 * i) / count;
    const [c, s] = [Math.cos((angle * PI) / 180), Math.sin((angle * PI) / 180)];
    const centre = [radius * c, radius * s, 0];
    const on = { points: [centre, [centre[0]! + c, centre[1]! + s, 0], [centre[0]!, centre[1]!, 1]] };
    return [['rectangle', { as: `s${i}`, width, height: width, from: 'centre', at: centre, on }]];
  };

  test('that come back to their first section are rings', () => {
    // Source: the area of a regular polygon, n/2 r² sin(2π/n), between an outer and an inner one.
    const count = 8;
    const names = Array.from({ length: count }, (_, i) => `s${i}`);
    const sections = names.flatMap((_, i) => around(i, count, 50, 20));
    const ring = volumeOf(
      [...sections, ['loft', { as: 'ring', profiles: names, flanks: 'ruled', closed: 'yes' }]],
      'ring',
    );
    near(ring.volume, (count / 2) * Math.sin((2 * PI) / count) * (60 ** 2 - 40 ** 2) * 20, 1e-9);
    expect(ring).toMatchObject({ watertight: true, solids: 1, faces: 4 * count });
    const smooth = volumeOf([...sections, ['loft', { as: 'ring', profiles: names, closed: 'yes' }]], 'ring');
    // Source: Pappus for a ring of square section; eight sections come near to the circle.
    near(smooth.volume, 2 * PI * 50 * 400, 2e-3);
    expect(smooth.watertight).toBe(true);
  });

  test('match their starts, and twist when a start is moved', () => {
    const sections: Statement[] = [
      square('low', 20),
      square(
        'high',
        20,
        {
          points: [
            [0, 0, 50],
            [1, 0, 50],
            [0, 1, 50],
          ],
        },
        { at: [0, 0, 50] },
      ),
    ];
    const loft: Statement = ['loft', { as: 'post', profiles: ['low', 'high'], flanks: 'ruled' }];
    near(volumeOf([...sections, loft], 'post').volume, 400 * 50, 1e-9);
    // Source: prismatoid formula h/6 (A + 4M + B): half-way lies the middle of each corner and its neighbour.
    const quarter = volumeOf([...sections, loft, ['start', { part: 'post', section: 2, by: 20 }]], 'post');
    near(quarter.volume, (50 / 6) * (400 + 4 * 200 + 400), 1e-6);
  });

  test('start anywhere: an outline drawn from another corner, or the other way round, makes the same body', () => {
    const corners = [
      [-10, -10],
      [10, -10],
      [10, 10],
      [-10, 10],
    ] as const;
    const low: Statement = square('low', 20);
    for (let turn = 0; turn < 8; turn++) {
      const order = [0, 1, 2, 3].map((i) => corners[((turn % 4) + (turn < 4 ? i : 4 - i)) % 4]!);
      const high: Statement = [
        'traverse',
        {
          as: 'high',
          at: [...order[0]!, 30],
          legs: order.slice(1).map(([x, y]) => ({ x, y })),
          closing: 'straight',
          on: {
            points: [
              [0, 0, 30],
              [1, 0, 30],
              [0, 1, 30],
            ],
          },
        },
      ];
      const found = volumeOf(
        [low, high, ['loft', { as: 'post', profiles: ['low', 'high'], flanks: 'ruled' }]],
        'post',
      );
      near(found.volume, 400 * 30, 1e-9);
    }
  });

  test('run along their guides', () => {
    const above = {
      points: [
        [0, 0, 60],
        [1, 0, 60],
        [0, 1, 60],
      ],
    };
    const sections: Statement[] = [
      ['circle', { as: 'low', diameter: 40 }],
      ['circle', { as: 'high', diameter: 40, at: [0, 0, 60], on: above }],
    ];
    // A straight guide changes nothing: the cylinder, as near as its splines come to the circle.
    const plain = volumeOf(
      [
        ...sections,
        [
          'line',
          {
            as: 'rail',
            from: [20, 0, 0],
            to: [20, 0, 60],
            on: 'front',
          },
        ],
        ['loft', { as: 'drum', profiles: ['low', 'high'], guides: ['rail'] }],
      ],
      'drum',
    );
    expect(plain).toMatchObject({ watertight: true, solids: 1 });
    near(plain.volume, PI * 400 * 60, 1e-3);
    // Guides that bulge alike on all four sides: half-way it is as wide as they say.
    const bulge = (name: string, x: number, y: number, plane: unknown): Statement => [
      'arc',
      {
        as: name,
        through: [
          [x * 20, y * 20, 0],
          [x * 30, y * 30, 30],
          [x * 20, y * 20, 60],
        ],
        on: plane,
      },
    ];
    const barrel = volumeOf(
      [
        ...sections,
        bulge('a', 1, 0, 'front'),
        bulge('b', -1, 0, 'front'),
        bulge('c', 0, 1, 'side'),
        bulge('d', 0, -1, 'side'),
        ['loft', { as: 'barrel', profiles: ['low', 'high'], guides: ['a', 'b', 'c', 'd'] }],
      ],
      'barrel',
    );
    near(barrel.box.max[0], 30, 1e-3);
    near(barrel.box.min[1], -30, 1e-3);
    // Source: solid of revolution of an arc by Simpson's rule on the circle of radius 50 about (−20, 30).
    const radius = (z: number) => Math.sqrt(50 ** 2 - (z - 30) ** 2) - 20;
    const slices = 2000;
    let sum = 0;
    for (let i = 0; i <= slices; i++)
      sum += (i === 0 || i === slices ? 1 : i % 2 ? 4 : 2) * PI * radius((60 * i) / slices) ** 2;
    near(barrel.volume, (sum * 60) / slices / 3, 2e-3);
    expect(barrel.watertight).toBe(true);
  });
});

describe('surfaces', () => {
  test('within a flat loop have its area; within a skew one they go through its edges', () => {
    const flat = volumeOf([square('frame', 30), ['fill', { as: 'pane', profiles: ['frame'] }]], 'pane');
    expect(flat).toMatchObject({ solids: 0, volume: 0, faces: 1 });
    near(flat.area, 900);
    const thick = volumeOf(
      [
        square('frame', 30),
        ['fill', { as: 'pane', profiles: ['frame'] }],
        ['thicken', { part: 'pane', thickness: 4 }],
      ],
      'pane',
    );
    near(thick.volume, 3600, 1e-9);
    near(thick.box.min[2], -2);
    near(thick.box.max[2], 2);
  });

  test('over curves of several planes become plates', () => {
    const arcs: Statement[] = [
      [
        'line',
        {
          as: 'a',
          from: [0, 0, 0],
          to: [40, 0, 0],
        },
      ],
      [
        'arc',
        {
          as: 'b',
          through: [
            [40, 0, 0],
            [40, 20, 8],
            [40, 40, 0],
          ],
          on: {
            points: [
              [40, 0, 0],
              [40, 1, 0],
              [40, 0, 1],
            ],
          },
        },
      ],
      [
        'line',
        {
          as: 'c',
          from: [40, 40, 0],
          to: [0, 40, 0],
        },
      ],
      [
        'arc',
        {
          as: 'd',
          through: [
            [0, 40, 0],
            [0, 20, 8],
            [0, 0, 0],
          ],
          on: 'side',
        },
      ],
      ['fill', { as: 'roof', profiles: ['a', 'b', 'c', 'd'] }],
    ];
    const roof = volumeOf(arcs, 'roof');
    expect(roof.solids).toBe(0);
    // Source: the arc of 40 mm chord and 8 mm rise has the radius (20² + 8²)/16; the vault is its length times 40.
    const r = (20 ** 2 + 8 ** 2) / 16;
    const vault = 2 * r * Math.asin(20 / r) * 40;
    near(roof.area, vault, 2e-3);
    const plate = volumeOf([...arcs, ['thicken', { part: 'roof', thickness: 1, side: 'before' }]], 'roof');
    expect(plate).toMatchObject({ solids: 1, watertight: true });
    near(plate.volume, roof.area, 0.05);
  });

  test('raised from an open outline become walls of two parallels', () => {
    const statements: Statement[] = [
      [
        'traverse',
        {
          as: 'L',
          legs: [
            { dx: 50, dy: 0 },
            { dx: 0, dy: 30 },
          ],
        },
      ],
      ['raise', { as: 'screen', profiles: ['L'], height: 20, ends: 'open' }],
    ];
    const screen = volumeOf(statements, 'screen');
    expect(screen).toMatchObject({ solids: 0, volume: 0, faces: 2 });
    near(screen.area, 80 * 20);
    const wall = volumeOf([...statements, ['thicken', { part: 'screen', thickness: 4 }]], 'screen');
    // Common practice, no source: the centre line times thickness times height.
    near(wall.volume, 80 * 4 * 20);
    // The same in one go, from the profile itself.
    const sheet = volumeOf(
      [statements[0]!, ['thicken', { as: 'sheet', part: 'L', thickness: 4, height: 20 }]],
      'sheet',
    );
    expect(sheet).toMatchObject({ solids: 1, watertight: true });
    near(sheet.volume, wall.volume);
  });

  test('turned from open curves are bowls, and as thick as one says', () => {
    const quarter: Statement = [
      'arc',
      {
        as: 'quarter',
        through: [
          [30, 0, 0],
          [30 * Math.SQRT1_2, 0, -30 * Math.SQRT1_2],
          [0, 0, -30],
        ],
        on: 'front',
      },
    ];
    const turn: Statement = ['revolve', { as: 'bowl', profiles: ['quarter'], ends: 'open' }];
    const bowl = volumeOf([quarter, turn], 'bowl');
    expect(bowl).toMatchObject({ solids: 0, volume: 0, faces: 1 });
    // Source: Archimedes: half a ball has the surface 2πr².
    near(bowl.area, 2 * PI * 900);
    const shell = volumeOf([quarter, turn, ['thicken', { part: 'bowl', thickness: 2 }]], 'bowl');
    expect(shell).toMatchObject({ solids: 1, watertight: true });
    // The difference of two half balls.
    near(shell.volume, ((2 * PI) / 3) * (31 ** 3 - 29 ** 3));
    // Drawn downward to the right of its axis, it looks inward: before it is inside.
    const inner = volumeOf(
      [quarter, turn, ['thicken', { part: 'bowl', thickness: 2, side: 'before' }]],
      'bowl',
    );
    near(inner.volume, ((2 * PI) / 3) * (30 ** 3 - 28 ** 3));
    const half = volumeOf(
      [quarter, ['revolve', { as: 'half', profiles: ['quarter'], ends: 'open', angle: 90 }]],
      'half',
    );
    near(half.area, (2 * PI * 900) / 4);
  });

  test.each([
    [360, 1],
    [360, -1],
    [90, 1],
    [-90, 1],
    [-90, -1],
  ])('turned by %s° on either side of their axis are thickened before where they look', (angle, side) => {
    const quarter: Statement = [
      'arc',
      {
        as: 'quarter',
        through: [
          [30 * side, 0, 0],
          [30 * side * Math.SQRT1_2, 0, -30 * Math.SQRT1_2],
          [0, 0, -30],
        ],
        on: 'front',
      },
    ];
    const turn: Statement = ['revolve', { as: 'bowl', profiles: ['quarter'], ends: 'open', angle }];
    const document = built([quarter, turn]);
    const { snaps, normals } = kernel.facts(document, idOf(document, 'bowl'));
    const outward = snaps.positions.reduce((sum, x, i) => sum + x * normals[i]!, 0) > 0;
    const thick = volumeOf(
      [quarter, turn, ['thicken', { part: 'bowl', thickness: 2, side: 'before' }]],
      'bowl',
    );
    const [inner, outer] = outward ? [30, 32] : [28, 30];
    near(thick.volume, (((2 * PI) / 3) * (outer ** 3 - inner ** 3) * Math.abs(angle)) / 360);
  });

  test('turned from a bent line have a face for each leg', () => {
    const cup: Statement[] = [
      [
        'traverse',
        {
          as: 'L',
          at: [0, 0, 0],
          legs: [
            { dx: 20, dy: 0 },
            { dx: 0, dy: 30 },
          ],
          on: 'front',
        },
      ],
      ['revolve', { as: 'cup', profiles: ['L'], ends: 'open' }],
    ];
    const open = volumeOf(cup, 'cup');
    expect(open).toMatchObject({ solids: 0, faces: 2 });
    near(open.area, PI * 400 + 2 * PI * 20 * 30);
    const shut = volumeOf([...cup, ['close', { part: 'cup' }]], 'cup');
    near(shut.volume, PI * 400 * 30);
  });

  test('raised from a closed outline become rings', () => {
    const ring = volumeOf(
      [
        ['circle', { as: 'disc', diameter: 40 }],
        ['thicken', { as: 'ring', part: 'disc', thickness: 3, height: 10, side: 'both' }],
      ],
      'ring',
    );
    // Source: Pappus: the area carried along the way of its centre.
    near(ring.volume, PI * 40 * 3 * 10);
  });
});

describe('embossing on a slanting way', () => {
  test('marks a flat top where the way leads', () => {
    const found = built([
      ['box', { as: 'block', size: [60, 60, 10], at: [-30, -30, 20] }],
      ['circle', { as: 'spot', diameter: 10 }],
      ['emboss', { part: 'block', profiles: ['spot'], how: 'engrave', depth: 2, along: [1, 0, 2] }],
    ]);
    // The bottom lies 20 mm up: the way leads 10 mm along X. Source: Cavalieri: an oblique cylinder of depth 2.
    const block = measured(kernel, found, 'block');
    near(block.volume, 60 * 60 * 10 - PI * 25 * 2, 1e-8);
    // First moments: what is taken out lies about x = 10.5 (half-way up its depth).
    expect(Math.abs(block.centroid[0] + (10.5 * PI * 25 * 2) / block.volume)).toBeLessThan(1e-4);
  });
});

describe('resizing and mirroring what is made from profiles', () => {
  const half: Statement[] = [
    [
      'traverse',
      {
        as: 'outline',
        legs: [
          { dx: 30, dy: 0 },
          { dx: 0, dy: 10 },
          { dx: -20, dy: 10 },
        ],
        closing: 'straight',
      },
    ],
    ['raise', { as: 'foot', profiles: ['outline'], height: 10 }],
  ];
  test('keeps volumes and turns the form round', () => {
    const before = volumeOf(half, 'foot');
    const mirrored = volumeOf(
      [...half, ['mirror', { parts: ['foot'], across: 'x', centre: 'point', at: [0, 0, 0] }]],
      'foot',
    );
    near(mirrored.volume, before.volume);
    near(mirrored.centroid[0], -before.centroid[0]);
    near(mirrored.centroid[1], before.centroid[1]);
    const doubled = volumeOf([...half, ['resize', { parts: ['foot'], by: [2, 2, 2] }]], 'foot');
    near(doubled.volume, 8 * before.volume);
  });
});

test('bodies of version 4, which says less of lofts and sweeps, are what they were', () => {
  const document = built([
    square('low', 20),
    square(
      'high',
      10,
      {
        points: [
          [0, 0, 50],
          [1, 0, 50],
          [0, 1, 50],
        ],
      },
      { at: [0, 0, 50] },
    ),
    straight,
    ['loft', { as: 'post', profiles: ['low', 'high'], flanks: 'ruled' }],
    ['sweep', { as: 'bar', section: 'low', path: 'way' }],
    ['raise', { as: 'slab', profiles: ['low'], height: 5 }],
    ['emboss', { part: 'slab', profiles: ['high'], depth: 1 }],
  ]);
  const SINCE = ['ends', 'guides', 'closed', 'starts', 'up', 'twist', 'scale', 'slant'];
  const old = structuredClone(document);
  for (const { recipe } of Object.values(old.items))
    for (const held of recipe.base.kind === 'profile' ? [] : [recipe.base, ...recipe.steps])
      for (const key of SINCE) delete (held as unknown as Record<string, unknown>)[key];
  const read = readDocument({ ...old, kadrel: 4 });
  for (const name of ['post', 'bar', 'slab'])
    expect(measured(kernel, read, name)).toEqual(measured(kernel, document, name));
});

describe('surfaces that are joined', () => {
  // Three sides of a box of 20 × 30, 10 high, and the fourth, which stands off by a gap.
  const sides = (off: number): Statement[] => [
    [
      'traverse',
      {
        as: 'U',
        start: [0, 0, 0],
        legs: [
          { dx: 0, dy: 20 },
          { dx: 30, dy: 0 },
          { dx: 0, dy: -20 },
        ],
      },
    ],
    ['raise', { as: 'three', profiles: ['U'], height: 10, ends: 'open' }],
    ['line', { as: 'I', from: [0, -off, 0], to: [30, -off, 0] }],
    ['raise', { as: 'fourth', profiles: ['I'], height: 10, ends: 'open' }],
  ];
  const join = (gap: string): Statement => ['join-surfaces', { parts: ['three', 'fourth'], gap }];
  const cap: Statement = ['close', { part: 'three' }];

  test('become a body once their openings are capped, and the others are hidden', () => {
    const joined = built([...sides(0), join('0.01'), cap]);
    const { volume, watertight, solids } = measured(kernel, joined, 'three');
    near(volume, 6000);
    expect([watertight, solids]).toEqual([true, 1]);
    expect(joined.items[idOf(joined, 'fourth')]!.visible).toBe(false);
    expect(kernel.noticesFor(joined, idOf(joined, 'three'))).toEqual([]);
  });

  test('a gap is closed where that is allowed, and told; one that is wider is refused with its size', () => {
    const joined = built([...sides(0.03), join('0.05')]);
    expect(kernel.problemOf(joined, idOf(joined, 'three'))).toBeUndefined();
    expect(kernel.noticesFor(joined, idOf(joined, 'three'))).toMatchObject([{ what: 'fuzzy' }]);
    const apart = built([...sides(0.03), join('0.01')]);
    expect(kernel.problemOf(apart, idOf(apart, 'three'))).toMatchObject({
      step: 0,
      reason: expect.stringContaining('0.03 mm apart') as string,
    });
  });

  test('what has a gap that was to be closed can be changed further', () => {
    const joined = built([...sides(0.03), join('0.05'), ['turn-over', { part: 'three' }]]);
    expect(kernel.problemOf(joined, idOf(joined, 'three'))).toBeUndefined();
  });

  test('the join follows the other surface where that is moved', () => {
    const back: Statement = ['move', { parts: ['fourth'], by: [0, 0.03, 0] }];
    near(measured(kernel, built([...sides(0.03), join('0.01'), back, cap]), 'three').volume, 6000);
  });

  test('only surfaces are joined', () =>
    expect(() =>
      built([
        ...sides(0),
        ['box', { as: 'box', size: [1, 1, 1] }],
        ['join-surfaces', { parts: ['three', 'box'] }],
      ]),
    ).toThrow('no surface'));
});

describe('a surface that is turned inside out', () => {
  const sheet: Statement[] = [
    ['line', { as: 'I', from: [0, 0, 0], to: [20, 0, 0] }],
    ['raise', { as: 'sheet', profiles: ['I'], height: 10, ends: 'open' }],
  ];
  const turned: Statement = ['turn-over', { part: 'sheet' }];
  const thick = (side: string): Statement => ['thicken', { part: 'sheet', thickness: '2', side }];

  test('has its thickness on the other side', () => {
    const boxOf = (...more: Statement[]) => measured(kernel, built([...sheet, ...more]), 'sheet').box;
    expect(boxOf(turned, thick('before'))).toEqual(boxOf(thick('behind')));
    expect(boxOf(turned, turned, thick('before'))).toEqual(boxOf(thick('before')));
    expect(boxOf(thick('before'))).not.toEqual(boxOf(thick('behind')));
  });

  // The side that a view shows as its outside is the one on which “before” lies.
  test.each([
    ['raised', sheet],
    [
      'turned',
      [
        ['line', { as: 'I', from: [10, 0, 0], to: [10, 20, 0] }],
        ['revolve', { as: 'sheet', profiles: ['I'], ends: 'open', angle: 30 }],
      ] as Statement[],
    ],
    ['filled', [square('I', 10), ['fill', { as: 'sheet', profiles: ['I'] }]] as Statement[]],
  ])('what is %s faces to where its thickness before it lies', (_, made) => {
    for (const more of [[], [turned]]) {
      const before = built([...made, ...more]);
      const normal = [...kernel.facts(before, idOf(before, 'sheet')).normals.slice(0, 3)];
      const from = measured(kernel, before, 'sheet').centroid;
      const to = measured(kernel, built([...made, ...more, thick('before')]), 'sheet').centroid;
      expect(normal.reduce((sum, n, axis) => sum + n * (to[axis]! - from[axis]!), 0)).toBeGreaterThan(0.5);
    }
  });

  test('has the same area, and the same volume once it is closed', () => {
    near(measured(kernel, built([...sheet, turned]), 'sheet').area, 200);
    const cup: Statement[] = [
      square('base', 10),
      ['raise', { as: 'sheet', profiles: ['base'], height: 10, ends: 'open' }],
    ];
    near(measured(kernel, built([...cup, turned, ['close', { part: 'sheet' }]]), 'sheet').volume, 1000);
  });
});
