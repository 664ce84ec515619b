/** Section curves, against formulas for what planes cut out of cylinders, cones and boxes. */
import {
  childrenOf,
  filledArea,
  isRefusal,
  pathsOf,
  perform,
  verbNamed,
  worldFromPart,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';
import { Evaluator, worldOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, idOf, type Statement } from '@kadrel/testing';

const kernel = new Evaluator(await sharedLibraries());

let ids = 0;
const tried = (document: KadrelDocument, verb: string, typed: Typed) =>
  perform(
    verbNamed(verb)!,
    typed,
    document,
    worldOf(document, kernel, () => `s${++ids}`),
  );

function after(document: KadrelDocument, verb: string, typed: Typed): KadrelDocument {
  const done = tried(document, verb, typed);
  if (isRefusal(done)) throw new Error(done.message);
  return done.document;
}

/** Areas of the curves of a group, in the order in which they were cut, mm². */
const areasIn = (document: KadrelDocument, group: string): number[] =>
  childrenOf(document.items[idOf(document, group)]!)
    .filter((id) => document.items[id]!.recipe.base.kind === 'profile')
    .map((id) => filledArea(pathsOf(document, id)));

const COLUMN: Statement[] = [['cylinder', { as: 'column', diameter: 40, height: 60 }]];

test('lengthwise along a line beside the axis a cylinder is cut in a rectangle as wide as the chord', () => {
  const document = builtBy(kernel, [
    ...COLUMN,
    [
      'section-curve',
      {
        as: 'cut',
        on: 'plan',
        line: [
          [-50, 12, 0],
          [50, 12, 0],
        ],
      },
    ],
  ]);
  expect(areasIn(document, 'cut')[0]).toBeCloseTo(2 * Math.sqrt(20 ** 2 - 12 ** 2) * 60, 8);
});

test('a line at an angle, looked at from the front, cuts a cylinder in an ellipse', () => {
  const document = builtBy(kernel, [
    ...COLUMN,
    [
      'section-curve',
      {
        as: 'cut',
        on: 'front',
        line: [
          [-30, 0, 15],
          [30, 0, 45],
        ],
      },
    ],
  ]);
  // The circle seen at the angle of the line: its area over the cosine.
  expect(areasIn(document, 'cut')[0]).toBeCloseTo((Math.PI * 400) / Math.cos(Math.atan2(30, 60)), 6);
});

test('in a plane, through all that is seen', () => {
  const document = builtBy(kernel, [
    ['cone', { as: 'cone', diameter: 40, height: 40 }],
    ['box', { as: 'block', size: [10, 20, 30], at: [50, 0, 0] }],
    ['plane', { as: 'level', from: 'plan', offset: 10 }],
    ['section-curve', { as: 'cut', on: 'level' }],
  ]);
  const [round, straight] = areasIn(document, 'cut');
  expect(round).toBeCloseTo(Math.PI * 15 ** 2, 8);
  expect(straight).toBeCloseTo(200, 9);
});

test('crosswise at places along a path the cuts stand square to it', () => {
  const document = builtBy(kernel, [
    ['cone', { as: 'cone', diameter: 40, height: 40 }],
    [
      'section-curve',
      {
        as: 'cut',
        way: 'across',
        line: [
          [0, 0, 0],
          [0, 0, 30],
        ],
        count: 4,
      },
    ],
  ]);
  // At heights 0, 10, 20, 30 of a cone whose radius falls by half of the height.
  const areas = [20, 15, 10, 5].map((radius) => Math.PI * radius ** 2);
  areasIn(document, 'cut').forEach((area, i) => expect(area).toBeCloseTo(areas[i]!, 7));
  expect(areasIn(document, 'cut')).toHaveLength(4);
});

test('curves follow the model and their plane, or stay as they are', () => {
  for (const [keeps, expected] of [
    ['following', 2 * 30],
    ['fixed', 2 * 20],
  ] as const) {
    const line = [
      [-50, 0, 0],
      [50, 0, 0],
    ];
    const document = builtBy(kernel, [...COLUMN, ['section-curve', { as: 'cut', line, keeps }]]);
    const wider = after(document, 'change', { parts: ['column'], diameter: 60 });
    expect(areasIn(wider, 'cut')[0]).toBeCloseTo(expected * 60, 8);
  }
  const document = builtBy(kernel, [
    ...COLUMN,
    [
      'section-curve',
      {
        as: 'cut',
        line: [
          [-50, 0, 0],
          [50, 0, 0],
        ],
      },
    ],
  ]);
  const moved = after(document, 'move', { parts: ['Plane of the curves'], by: [0, 16, 0] });
  expect(areasIn(moved, 'cut')[0]).toBeCloseTo(2 * 12 * 60, 8);
  const curve = childrenOf(moved.items[idOf(moved, 'cut')]!).at(-1)!;
  expect(worldFromPart(moved, curve).shift[1]).toBe(16);
});

test.each<[Typed, string]>([
  [
    {
      line: [
        [0, 0, 0],
        [10, 0, 0],
        [10, 10, 0],
      ],
    },
    'line.bent',
  ],
  [
    {
      line: [
        [0, 0, 0],
        [0, 0, 10],
      ],
    },
    'line.looked-along',
  ],
  [
    {
      line: [
        [0, 0, 0],
        [10, 0, 0],
      ],
      way: 'across',
    },
    'missing.how-many-how',
  ],
  [
    {
      line: [
        [0, 0, 0],
        [10, 0, 0],
      ],
      way: 'across',
      count: 300,
    },
    'too-many.cuts',
  ],
  [
    {
      line: [
        [-50, 90, 0],
        [50, 90, 0],
      ],
    },
    'nothing.curves',
  ],
])('%j is refused: %s', (typed, code) => {
  const document = builtBy(kernel, COLUMN);
  const refused = tried(document, 'section-curve', typed);
  expect(isRefusal(refused) && refused.code).toBe(code);
});

test('where nothing is seen that could be cut, that is said', () => {
  const document = builtBy(kernel, [...COLUMN, ['hide', { parts: ['column'] }]]);
  const refused = tried(document, 'section-curve', {});
  expect(isRefusal(refused) && refused.code).toBe('nothing.to-cut');
});

test('by a drawn line, and across all legs of a drawn path', () => {
  const drawn = builtBy(kernel, [
    ...COLUMN,
    ['line', { as: 'chord', from: [-50, 12, 0], to: [50, 12, 0] }],
    ['section-curve', { as: 'cut', parts: ['column'], line: { on: 'chord', at: 'leg1' } }],
  ]);
  expect(areasIn(drawn, 'cut')[0]).toBeCloseTo(2 * Math.sqrt(20 ** 2 - 12 ** 2) * 60, 8);
  const legs = [
    { x: 30, y: 0 },
    { x: 30, y: 60 },
  ];
  const path = builtBy(kernel, [
    ['box', { as: 'slab', size: [100, 100, 8], at: [-20, -20, -4] }],
    ['traverse', { as: 'way', at: [0, 0, 0], legs }],
    [
      'section-curve',
      {
        as: 'cut',
        parts: ['slab'],
        way: 'across',
        line: { on: 'way', at: 'leg2' },
        pitch: 45,
        keeps: 'fixed',
      },
    ],
  ]);
  // Of 90 mm of path, cuts at 0, 45 and 90: across the slab, whichever way it is crossed.
  areasIn(path, 'cut').forEach((area) => expect(area).toBeCloseTo(800, 8));
  expect(areasIn(path, 'cut')).toHaveLength(3);
});
