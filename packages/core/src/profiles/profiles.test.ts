/** Drawing by number: traverses, figures, tables and the verbs round them, as examples. */
import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { documentSchema } from '../document/schema.ts';
import { isRefusal } from '../statement/declare.ts';
import { verbNamed } from '../verbs/index.ts';
import { perform } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';
import { rowsOfTraverse } from '../verbs/shared/legs.ts';
import { joinedAcross } from '../verbs/shared/outlines.ts';
import { boreOf } from '../document/bore.ts';
import { areClear } from './crossing.ts';
import {
  carryCurve,
  circle,
  curveLength,
  endOf,
  line,
  pieceOf,
  pointAt,
  reversed,
  startOf,
  type Curve,
} from '../curves/curve.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import type { FigureOf } from '../recipes/figures/index.ts';
import { filledArea } from './area.ts';
import { gapsOf, outlineOf, pathLength } from './outline.ts';
import { parallelPath } from './parallel.ts';
import { bezierPieces, throughPoints, towardsPoints } from '../curves/splines.ts';
import { traverseOf } from './traverse.ts';

type Said = readonly [verb: string, values: Record<string, unknown>];

function said(...statements: readonly Said[]): KadrelDocument {
  let document = emptyDocument();
  let ids = 0;
  for (const [verb, values] of statements) {
    const done = perform(
      verbNamed(verb)!,
      values,
      document,
      plainWorld(document, () => `p${++ids}`),
    );
    if (isRefusal(done)) throw new Error(`${verb}, ${done.blank}: ${done.message}`);
    document = done.document;
  }
  expect(documentSchema.safeParse(document).success).toBe(true);
  return document;
}

function refusal(last: Said, ...before: readonly Said[]) {
  const document = said(...before);
  const done = perform(
    verbNamed(last[0])!,
    last[1],
    document,
    plainWorld(document, () => 'new'),
  );
  if (!isRefusal(done)) throw new Error('It was carried out.');
  return done;
}

const figureOf = (document: KadrelDocument, name: string) => {
  const { base } = Object.values(document.items).find((item) => item.name === name)!.recipe;
  if (base.kind !== 'profile') throw new Error(`${name} is no profile.`);
  return base.figure;
};
const traverse = (document: KadrelDocument, name = 'Traverse') =>
  traverseOf(figureOf(document, name) as FigureOf<'traverse'>);

describe('a traverse', () => {
  test('is told leg by leg in four ways, which may be mixed', () => {
    const { legs } = traverse(
      said([
        'traverse',
        {
          legs: [
            { dx: 100, dy: 0 },
            { length: 50, bearing: 0 },
            { length: 100, turn: -90 },
            { x: 0, y: 0 },
          ],
        },
      ]),
    );
    expect(legs.map(({ to }) => to)).toEqual([
      [100, 0],
      [100, 50],
      [0, 50],
      [0, 0],
    ]);
    expect(legs.map(({ course }) => course.bearing)).toEqual([90, 0, 270, 180]);
    expect(legs[2]!.turn).toBe(-90);
  });

  test.each(['100\t0\n0\t50\n-100\t0', '100, 0\n0, 50\n-100, 0', '100;0\n0;50\n-100;0'])(
    'is pasted from a spreadsheet',
    (pasted) => {
      const { closed, legs } = traverse(said(['traverse', { legs: pasted, closing: 'straight' }]));
      expect(legs).toHaveLength(3);
      expect(closed).toBe(true);
    },
  );

  test('keeps formulas, and follows their variables', () => {
    const document = said(
      ['variable', { name: 'wide', value: '80 mm' }],
      [
        'traverse',
        {
          legs: [
            { dx: 'wide', dy: 0 },
            { dx: 0, dy: 'wide / 2' },
          ],
          as: 'T',
        },
      ],
      ['variable', { name: 'wide', value: '120 mm' }],
    );
    expect(traverse(document, 'T').legs.at(-1)!.to).toEqual([120, 60]);
  });

  test.each([
    ['straight', 1],
    ['square', 2],
    ['spread', 0],
  ] as const)('is closed %s', (closing, more) => {
    const found = traverse(
      said([
        'traverse',
        {
          legs: [
            { dx: 60, dy: 0 },
            { dx: 0, dy: 40 },
            { dx: -30, dy: 0 },
          ],
          closing,
        },
      ]),
    );
    expect(found.closing).toHaveLength(more);
    expect(found.closed).toBe(true);
    expect(found.error.length).toBeCloseTo(50, 12);
    const last = [...found.legs, ...found.closing].at(-1)!;
    expect(last.to).toEqual([0, 0]);
  });

  test('closed square, its last leg is square to its first', () => {
    const { closing } = traverse(
      said([
        'traverse',
        {
          legs: [
            { dx: 60, dy: 0 },
            { dx: 20, dy: 40 },
          ],
          closing: 'square',
        },
      ]),
    );
    expect(closing.map(({ course }) => course.bearing)).toEqual([270, 180]);
  });

  test('rounds a corner, and bends a leg on from the last one', () => {
    const document = said([
      'traverse',
      {
        legs: [
          { dx: 100, dy: 0, round: 10 },
          { dx: 0, dy: 50 },
          { dx: -20, dy: 20, sweep: 'tangent' },
        ],
      },
    ]);
    const { curves } = traverse(document);
    expect(curves.map(({ name }) => name)).toEqual(['leg1', 'corner1', 'leg2', 'leg3']);
    expect(curves[1]!.curve).toMatchObject({ kind: 'arc', radius: 10, sweep: 90 });
    expect(curves[3]!.curve).toMatchObject({ kind: 'arc', radius: 20, sweep: 90 });
    curves.slice(1).forEach(({ curve }, i) => {
      const [a, b] = [endOf(curves[i]!.curve), startOf(curve)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-12);
    });
  });

  test.each([
    [{ length: 5, x: 3, y: 4 }, 'only one way'],
    [{ dx: 5, bearing: 3 }, 'only one way'],
    [{ x: 5 }, 'both x and y'],
    [{ bearing: 5 }, 'a leg is told by'],
    [{ dx: 0, dy: 0 }, 'no length'],
    [{ dx: 'ten', dy: 0 }, 'ten'],
    [{ dx: 5, dy: 5, round: 1, bevel: 1 }, 'not both'],
    [{ dx: 5, dy: 5, roundness: 1 }, 'there is no “roundness”'],
  ])('refuses %j and says in which row', (row, words) => {
    const { message, blank } = refusal(['traverse', { legs: [{ dx: 1, dy: 1 }, row] }]);
    expect(message).toContain('Row 2');
    expect(message).toContain(words);
    expect(blank).toBe('legs');
  });

  test('gives its rows back as they would be typed', () => {
    const rows = [
      { dx: '100 mm', dy: '0 mm' },
      { length: '50 mm', bearing: '45', name: 'slant' },
      { x: '0 mm', y: '0 mm', sweep: '30' },
    ];
    const figure = figureOf(said(['traverse', { legs: rows }]), 'Traverse') as FigureOf<'traverse'>;
    expect(rowsOfTraverse(figure)).toEqual(rows);
  });

  test('has other legs afterwards, and what is refused changes nothing', () => {
    const before: Said = ['traverse', { legs: [{ dx: 9, dy: 0 }], as: 'T' }];
    const document = said(before, ['relay', { profile: 'T', legs: [{ dx: 0, dy: 7 }], closing: 'open' }]);
    expect(traverse(document, 'T').legs[0]!.to).toEqual([0, 7]);
    expect(refusal(['relay', { profile: 'T', legs: [{ dx: 0, dy: 0 }] }], before).code).toBe(
      'figure.leg-empty',
    );
  });
});

describe('figures', () => {
  test.each([
    ['rectangle', { width: 40, height: 30 }, 1200, 140],
    ['rectangle', { width: 40, height: 30, round: 5 }, 1200 - (4 - Math.PI) * 25, 100 + 10 * Math.PI],
    ['circle', { diameter: 20 }, Math.PI * 100, Math.PI * 20],
    [
      'circle',
      {
        through: [
          [0, 0, 0],
          [20, 0, 0],
        ],
      },
      Math.PI * 100,
      Math.PI * 20,
    ],
    [
      'circle',
      {
        through: [
          [10, 0, 0],
          [0, 10, 0],
          [-10, 0, 0],
        ],
      },
      Math.PI * 100,
      Math.PI * 20,
    ],
    ['ellipse', { width: 20, height: 10 }, Math.PI * 50, 48.442241102738],
    ['polygon', { sides: 6, width: 20, across: 'flats' }, 200 * Math.sqrt(3), 120 / Math.sqrt(3)],
  ] as const)('%s %j', (verb, values, area, length) => {
    const document = said([verb, values]);
    const [item] = Object.values(document.items);
    const paths = outlineOf(figureOf(document, item!.name));
    expect(filledArea(paths)).toBeCloseTo(area, 9);
    expect(paths.reduce((sum, path) => sum + pathLength(path), 0)).toBeCloseTo(length, 9);
  });

  test('an arc goes through three points, either way round', () => {
    for (const middle of [
      [0, 10, 0],
      [0, -10, 0],
    ]) {
      const document = said(['arc', { through: [[10, 0, 0], middle, [-10, 0, 0]] }]);
      const [{ curves }] = outlineOf(figureOf(document, 'Arc')) as [ReturnType<typeof outlineOf>[0]];
      expect(pointAt(curves[0]!.curve, 0.5)[1]).toBeCloseTo(middle[1]!, 12);
    }
  });

  test('a curve goes through its points, and one drawn towards them stays within', () => {
    const points = [
      [0, 0],
      [10, 20],
      [30, 20],
      [40, 0],
    ] as const;
    const through = throughPoints({ points, closed: false });
    points.slice(1).forEach((point, i) => expect(endOf(through[i]!)).toEqual(point));
    const box = boxOfCurves(towardsPoints({ points, closed: true }))!;
    expect(box.min[1]).toBeGreaterThan(0);
    expect(box.max[1]).toBeLessThan(20);
    // A closed one goes on as it came: its tangents meet.
    const ring = throughPoints({ points, closed: true });
    const slope = (curve: Curve, part: number) => {
      const [a, b] = [pointAt(curve, part - 1e-6), pointAt(curve, part + 1e-6)];
      return Math.atan2(b[1] - a[1], b[0] - a[0]);
    };
    expect(slope(ring.at(-1)!, 1 - 1e-6)).toBeCloseTo(slope(ring[0]!, 1e-6), 3);
  });

  test('a B-spline and its Bézier pieces are one curve', () => {
    // Source: the quadratic B-spline on 0 0 0 1 2 2 2 passes half-way between its inner points.
    const pieces = bezierPieces(
      [
        [0, 0],
        [10, 10],
        [20, 10],
        [30, 0],
      ],
      [0, 0, 0, 1, 2, 2, 2],
      2,
    );
    expect(pieces).toHaveLength(2);
    expect(endOf(pieces[0]!)).toEqual([15, 10]);
  });

  test.each([
    ['rectangle', { width: 10 }, 'high'],
    ['rectangle', { width: 10, height: 10, round: 6 }, 'rounder'],
    ['circle', {}, 'how wide'],
    [
      'circle',
      {
        through: [
          [0, 0, 0],
          [1, 0, 0],
          [2, 0, 0],
        ],
      },
      'one line',
    ],
    ['arc', { radius: 5, sweep: 400 }, 'at most 360'],
    ['polygon', { sides: 2, width: 5 }, 'whole number'],
    ['text', { text: '中', height: 5 }, 'has no “中”'],
    ['text', { text: 'A', height: 0 }, 'more than zero'],
    [
      'curve',
      {
        points: [
          [0, 0, 0],
          [1, 1, 0],
        ],
        closed: 'yes',
      },
      '3 points',
    ],
  ])('%s %j is refused', (verb, values, words) => {
    expect(refusal([verb, values]).message).toContain(words);
  });
});

describe('planes', () => {
  test('stand beside another, about an edge, and square to a curve', () => {
    const document = said(
      ['plane', { as: 'up', offset: 25 }],
      ['plane', { as: 'wall', on: 'front', offset: 5 }],
      [
        'plane',
        {
          as: 'end',
          curve: [
            [0, 0, 0],
            [100, 0, 0],
          ],
          distance: 40,
        },
      ],
      ['rectangle', { as: 'on wall', on: 'wall', width: 4, height: 3, at: [7, 0, 9] }],
    );
    const place = (name: string) =>
      Object.values(document.items).find((item) => item.name === name)!.placement;
    expect(place('up').origin).toEqual([0, 0, 25]);
    expect(place('wall')).toEqual({ origin: [0, -5, 0], turn: [90, 0, 0] });
    expect(place('end').origin).toEqual([40, 0, 0]);
    expect(place('on wall')).toEqual({ origin: [7, -5, 9], turn: [90, 0, 0] });
  });

  test('what is no plane is refused', () => {
    expect(refusal(['circle', { diameter: 5, on: 'nowhere' }]).message).toContain('no plane named nowhere');
    expect(
      refusal(['circle', { diameter: 5, on: 'B' }], ['box', { as: 'B', size: [1, 1, 1] }]).message,
    ).toContain('is no plane');
  });
});

describe('bodies', () => {
  const square: Said = ['rectangle', { as: 'S', width: 10, height: 10 }];

  test('refer to their profiles, which cannot go before them', () => {
    const raised: Said = ['raise', { as: 'R', profiles: ['S'], height: 5 }];
    expect(refusal(['delete', { parts: ['S'] }], square, raised).message).toContain('R is made from S');
    expect(said(square, raised, ['delete', { parts: ['R', 'S'] }]).items).toEqual({});
  });

  test('raised downward they hang below their plane', () => {
    const document = said(square, ['raise', { as: 'R', profiles: ['S'], height: -5 }]);
    const { base } = Object.values(document.items).find(({ name }) => name === 'R')!.recipe;
    expect(base).toMatchObject({ height: 0, down: 5 });
  });

  test.each([
    [['raise', { profiles: ['S'] }], 'how high'],
    [['raise', { profiles: ['B'], height: 3 }], 'no profile'],
    [['raise', { profiles: ['S'], height: 3, how: 'join' }], 'which part'],
    [['revolve', { profiles: ['S'], angle: 400 }], 'at most 360'],
    [
      [
        'revolve',
        {
          profiles: ['S'],
          through: [
            [0, 0, 5],
            [0, 5, 5],
          ],
        },
      ],
      'does not lie in the plane',
    ],
    [['union', { parts: ['S', 'B'] }], 'is no solid'],
    [['resize', { parts: ['R'], by: [2, 1, 1] }], 'change those in the Spec'],
    [['wall', { profile: 'S', thickness: 2, height: 0 }], 'more than zero'],
    [['emboss', { part: 'S', profiles: ['S'] }], 'is no solid'],
    [['tiers', { levels: [{ below: 0, height: 4 }] }], 'Row 1'],
    [['wedge', { size: [5, 5, 5], top: 9 }], 'length of the bottom'],
    [['cap', { diameter: 5, height: 5 }], 'lower than the whole ball'],
  ] as const)('%j is refused', (last, words) => {
    const before: Said[] = [
      square,
      ['box', { as: 'B', size: [5, 5, 5] }],
      ['raise', { as: 'R', profiles: ['S'], height: 5 }],
    ];
    expect(refusal(last as unknown as Said, ...before).message).toContain(words);
  });

  test.each([
    [{ at: [4, 0, 0] }, 8],
    [{ at: [-14, 0, 0] }, 8],
    [{ at: [0, 0, 0] }, 0],
    [
      {
        at: [4, 0, 0],
        through: [
          [3, 0, 0],
          [3, 9, 0],
        ],
      },
      2,
    ],
  ])('turned with %j they leave a bore of %s mm', ({ at, ...more }, bore) => {
    const document = said(
      ['rectangle', { as: 'S', width: 10, height: 10, at }],
      [
        'revolve',
        {
          as: 'R',
          profiles: ['S'],
          through: [
            [0, 0, 0],
            [0, 9, 0],
          ],
          ...more,
        },
      ],
    );
    const { base } = Object.values(document.items).find(({ name }) => name === 'R')!.recipe;
    if (base.kind !== 'revolve') throw new Error('It is turned.');
    expect(boreOf(document, base)).toBe(bore);
  });

  test('their numbers are changed by name, and follow variables', () => {
    const document = said(
      ['variable', { name: 'h', value: '7 mm' }],
      square,
      ['raise', { as: 'R', profiles: ['S'], height: 'h' }],
      ['change', { parts: ['S'], width: 'now * 2', round: 1 }],
      ['change', { parts: ['R'], draft: 3 }],
      ['variable', { name: 'h', value: '9 mm' }],
    );
    expect(figureOf(document, 'S')).toMatchObject({ width: 20, height: 10, round: 1 });
    const { base } = Object.values(document.items).find(({ name }) => name === 'R')!.recipe;
    expect(base).toMatchObject({ height: { formula: 'h', value: 9 }, draft: 3 });
  });
});

describe('curves', () => {
  const all: readonly Curve[] = [
    line([1, 2], [5, -3]),
    { kind: 'arc', centre: [1, 1], radius: 4, first: 20, sweep: -200 },
    { kind: 'ellipse', centre: [0, 2], x: [5, 0], y: [0, 3], first: 10, sweep: 250 },
    {
      kind: 'bezier',
      points: [
        [0, 0],
        [3, 8],
        [6, -8],
        [9, 1],
      ],
    },
  ];

  test.each(all)('$kind turned back and cut in pieces stays the same curve', (curve) => {
    expect(curveLength(reversed(curve))).toBeCloseTo(curveLength(curve), 12);
    const [a, b] = [pieceOf(curve, 0, 0.3), pieceOf(curve, 0.3, 1)];
    expect(curveLength(a) + curveLength(b)).toBeCloseTo(curveLength(curve), 11);
    const [p, q] = [endOf(a), startOf(b)];
    expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeLessThan(1e-12);
  });

  test.each(all)('$kind is carried point by point', (curve) => {
    const map = { x: [2, 0.5] as const, y: [-0.3, 1.5] as const, shift: [7, -2] as const };
    const carried = carryCurve(map, curve);
    for (const part of [0, 1]) {
      const [x, y] = pointAt(curve, part);
      const [u, v] = pointAt(carried, part);
      expect(u).toBeCloseTo(2 * x - 0.3 * y + 7, 10);
      expect(v).toBeCloseTo(0.5 * x + 1.5 * y - 2, 10);
    }
  });

  test('keep clear of each other or not', () => {
    const ring = (x: number, radius: number) => ({
      closed: true,
      curves: [{ name: 'round', curve: circle([x, 0], radius) }],
    });
    expect(areClear([ring(0, 10), ring(0, 5)])).toBe(true);
    expect(areClear([ring(0, 10), ring(15, 10)])).toBe(false);
    expect(areClear([ring(0, 10), ring(20, 10)])).toBe(false);
  });

  test('loose ends are told with the size of the gap between them', () => {
    const open = (from: [number, number], to: [number, number]) => ({
      closed: false,
      curves: [{ name: 'l', curve: line(from, to) }],
    });
    const gaps = gapsOf([open([0, 0], [10, 0]), open([10.5, 0], [10.5, 9]), open([10.5, 9], [0, 9])]);
    expect(gaps.map(({ size }) => size)).toEqual([0.5, 9]);
  });

  test('ends within a gap are joined, and what is farther stays open', () => {
    const drawn = [
      { closed: false, curves: [line([0, 0], [10, 0])] },
      { closed: false, curves: [line([10, 8], [10.05, 0])] },
      { closed: false, curves: [line([10, 8], [0, 0.02])] },
    ];
    const [joined] = joinedAcross(drawn, 0.1);
    expect(joined).toMatchObject({ closed: true });
    expect(joined!.curves).toHaveLength(5);
    expect(joinedAcross(drawn, 0.03).map(({ closed }) => closed)).toEqual([false]);
  });

  test('a parallel has mitred corners, and none where a leg would vanish', () => {
    const path = {
      closed: true,
      curves: outlineOf({ kind: 'rectangle', width: 40, height: 10, round: 0, centred: false })[0]!.curves,
    };
    const inner = parallelPath(path, 3)!;
    expect(boxOfCurves(inner.curves.map(({ curve }) => curve))).toEqual({ min: [3, 3], max: [37, 7] });
    expect(parallelPath(path, 6)).toBeUndefined();
  });
});
