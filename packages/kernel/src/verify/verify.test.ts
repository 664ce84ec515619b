/** What may not lie: results of the kernel that were wrong, and what finds them. */
import { buildBvh, type Vec3 } from '@kadrel/core';
import { built as builtFrom, idOf as idIn, type Statement } from '@kadrel/testing';
import { Evaluator } from '../evaluate.ts';
import { sharedLibraries } from '../node.ts';
import { Builder, type Libraries } from '../builder.ts';
import { contentOf, type Content, type SolidContent } from '../content/content.ts';
import { facetBoxes, meshShape } from '../facts/mesh.ts';
import { selfCrossings } from './crossing.ts';
import { plainVolume } from './facets.ts';
import { polygonDistance } from './distance.ts';
import { isFacetted } from './facetted.ts';
import { fieldOf } from './field.ts';
import { meshField } from './meshField.ts';
import { distanceBetween, pointShape, scope, uniqueShapes } from '../occt/occt.ts';
import { plainSamples } from './plainSamples.ts';
import { beside, samplesOf, type Sample } from '../facts/samples.ts';
import { windingNumber } from './winding.ts';

let libraries: Libraries;
beforeAll(async () => {
  libraries = await sharedLibraries();
});

function built(...statements: readonly Statement[]) {
  const document = builtFrom(statements);
  const kernel = new Evaluator(libraries);
  const idOf = (name: string) => idIn(document, name);
  return { kernel, document, idOf, measure: (name: string) => kernel.measure(document, idOf(name)) };
}

const ring: Statement = ['torus', { as: 'ring', diameter: 12, thickness: 8 }];
const ball = (at: Vec3): Statement => ['sphere', { as: 'ball', diameter: 6, at: [...at] }];

test.each(['box', 'cylinder', 'torus'])(
  'facets of a %s enclose it, and not without those of one face',
  (verb) => {
    const sizes = {
      box: { size: [30, 20, 10] },
      cylinder: { diameter: 20, height: 9 },
      torus: { diameter: 40, thickness: 8 },
    };
    const { kernel, document, idOf } = built([verb, { as: 'one', ...sizes[verb as keyof typeof sizes] }]);
    const builder = new Builder(libraries);
    const { shape } = builder.shapeOf(contentOf(document, idOf('one')));
    const mesh = meshShape(libraries.occt, shape, 0.1);
    const measures = kernel.measure(document, idOf('one'));
    expect(isFacetted(mesh, measures)).toBe(true);
    const triangles = mesh.triangles.filter((_, i) => mesh.faceOfTriangle[Math.floor(i / 3)] !== 0);
    expect(isFacetted({ ...mesh, triangles }, measures)).toBe(false);
  },
);

describe('combinations', () => {
  // Once −1969.6: joining edges damaged the result. Source: inclusion and exclusion.
  test.each([
    [5, 4, 3],
    [3, 0, 1],
    [7, 2, 0],
  ] as const)('a ring less a ball at %d, %d, %d', (x, y, z) => {
    const cut = built(ring, ball([x, y, z]), [
      'subtract',
      { as: 'r', from: 'ring', parts: ['ball'] },
    ]).measure('r');
    const common = built(ring, ball([x, y, z]), ['intersect', { as: 'r', parts: ['ring', 'ball'] }]).measure(
      'r',
    );
    const whole = 2 * Math.PI ** 2 * 6 * 16;
    expect(Math.abs(cut.volume + common.volume - whole)).toBeLessThan(1e-6 * whole);
    expect(cut.volume).toBeGreaterThan(0);
  });

  test('cylinders that touch along a line stay two solids, and say so', () => {
    const { measure } = built(
      ['cylinder', { as: 'a', diameter: 10, height: 10 }],
      ['cylinder', { as: 'b', diameter: 6, height: 10, at: [8, 0, 3] }],
      ['union', { as: 'u', parts: ['a', 'b'] }],
    );
    const { volume, ...found } = measure('u');
    expect(volume).toBeCloseTo(Math.PI * (250 + 90), 8);
    expect(found).toMatchObject({ solids: 2, closed: true, touching: true, watertight: false });
  });

  // Once minutes: the kernel was asked for the distance of all that a wrong attempt left.
  test('a tilted ring through a box is united, and rings that are linked do not touch', () => {
    const { measure } = built(
      ['box', { as: 'box', size: [7.774591025, 10.3466231846, 11], at: [-3, -1.8438781099, -1] }],
      [
        'torus',
        {
          as: 'ring',
          diameter: 10.2541129137,
          thickness: 2.0508225827,
          at: [0.9483007388, -2.2586555616, -2],
        },
      ],
      ['change', { parts: ['ring'], turn: ['180', '-44.654517816379666', '180'] }],
      ['union', { as: 'one', parts: ['box', 'ring'] }],
      ['torus', { as: 'a', diameter: 20, thickness: 2, at: [100, 0, 0] }],
      ['torus', { as: 'b', diameter: 20, thickness: 2, at: [110, 0, 0] }],
      ['change', { parts: ['b'], turn: ['90', '0', '0'] }],
      ['union', { as: 'linked', parts: ['a', 'b'] }],
    );
    expect(measure('one')).toMatchObject({ solids: 1, watertight: true });
    expect(measure('linked')).toMatchObject({ solids: 2, touching: false, watertight: true });
  });

  test('rings that nearly coincide do meet', () => {
    const thin = (as: string, at: number): Statement => [
      'torus',
      { as, diameter: 12, thickness: 4, at: [at, 0, 0] },
    ];
    const { measure } = built(thin('a', 0), thin('b', 1e-6), ['union', { as: 'u', parts: ['a', 'b'] }]);
    const one = plainVolume({ kind: 'torus', diameter: 12, thickness: 4 });
    expect(Math.abs(measure('u').volume - one)).toBeLessThan(1e-3 * one);
  });

  // Once nothing: a millionth of a millimetre was left, and counted as none.
  test('a ring less itself moved by a hair is refused', () => {
    const thin = (as: string, at: number): Statement => [
      'torus',
      { as, diameter: 6, thickness: 1, at: [0, 0, at] },
    ];
    const { kernel, document, idOf } = built(thin('a', 0), thin('b', -1e-6), [
      'subtract',
      { as: 'u', from: 'a', parts: ['b'] },
    ]);
    expect(kernel.problemOf(document, idOf('u'))?.reason).toMatch(/nearly coincide/);
  });

  test('what has no effect is told', () => {
    const { kernel, document, idOf } = built(
      ['box', { as: 'Box', size: [10, 10, 10] }],
      ['box', { as: 'Lid', size: [1, 1, 1], at: [20, 0, 0] }],
      ['subtract', { as: 'cut', from: 'Box', parts: ['Lid'] }],
    );
    const [notice] = kernel.noticesFor(document, idOf('cut'));
    expect(notice).toMatchObject({ what: 'without effect' });
    expect(notice!.words).toContain('Nothing of Lid lies within Box');
  });

  test('a ball between two planes has the volume of the formula, to nine digits', () => {
    const { measure } = built(
      ['box', { as: 'slab', size: [20, 5, 20], at: [-10, -2.5, -10] }],
      ['sphere', { as: 'ball', diameter: 8, at: [0, 0, 0] }],
      ['intersect', { as: 'zone', parts: ['slab', 'ball'] }],
    );
    // Source: π h (R² − h² / 12) for a zone between planes at ± h / 2, any handbook of mensuration.
    const formula = Math.PI * 5 * (16 - 25 / 12);
    expect(Math.abs(measure('zone').volume / formula - 1)).toBeLessThan(1e-9);
  });
});

describe('boxes', () => {
  test('of a tilted cylinder, and of a ball that is cut, are exact', () => {
    const { measure } = built(
      ['cylinder', { as: 'c', diameter: 20, height: 50 }],
      ['change', { parts: ['c'], turn: ['0', '30', '0'] }],
      ['sphere', { as: 's', diameter: 10, at: [100, 0, 0] }],
      ['box', { as: 'k', size: [20, 20, 20], at: [98, -10, -10] }],
      ['subtract', { as: 'cut', from: 's', parts: ['k'] }],
    );
    const [wide, run] = [10 * Math.cos(Math.PI / 6), 25];
    expect(Math.abs(measure('c').box.max[0] - (wide + run))).toBeLessThan(1e-9);
    const { box } = measure('cut');
    // The plane at x = 98 leaves a cap; its rim has the radius √(25 − 4).
    expect(Math.abs(box.max[0] - 98)).toBeLessThan(1e-9);
    expect(Math.abs(box.max[1] - Math.sqrt(21))).toBeLessThan(1e-9);
  });
});

test('an ellipse that is raised has its formula’s volume, to nine digits', () => {
  const { measure } = built(
    ['ellipse', { as: 'e', width: 20, height: 8, at: [0, 0, 0] }],
    ['raise', { as: 'r', profiles: ['e'], height: 5 }],
  );
  expect(Math.abs(measure('r').volume / (Math.PI * 10 * 4 * 5) - 1)).toBeLessThan(1e-9);
});

test('a sweep that runs through itself is refused', () => {
  const { kernel, document, idOf } = built(
    ['circle', { as: 'c', diameter: 4 }],
    [
      'traverse',
      {
        as: 'p',
        legs: [
          ['30', '0'],
          ['0', '20'],
          ['-15', '0'],
          ['0', '-40'],
        ],
      },
    ],
    ['sweep', { as: 's', section: 'c', path: 'p' }],
  );
  expect(kernel.problemOf(document, idOf('s'))?.reason).toBe('The body runs through itself.');
});

describe('fields', () => {
  const nothing = () => undefined;
  const at = (content: Content, point: Vec3) => fieldOf(content, nothing)!.at(point);
  test.each([
    [{ kind: 'box', size: [2, 4, 6] }, [1, 2, 7], 1],
    [{ kind: 'box', size: [2, 4, 6] }, [1, 2, 3], -1],
    [{ kind: 'cylinder', diameter: 4, height: 6 }, [5, 0, 3], 3],
    [{ kind: 'cone', diameter: 6, top: 0, height: 4 }, [3, 0, 4], 2.4],
    [{ kind: 'torus', diameter: 10, thickness: 2 }, [5, 0, 3], 2],
    [{ kind: 'tube', diameter: 6, bore: 2, height: 4 }, [0, 0, 2], 1],
  ] as const)('%j at %j is %d away', (content, point, distance) =>
    expect(at(content as unknown as Content, point)).toBeCloseTo(distance, 12),
  );
  const drawnAndRaised: readonly Statement[] = [
    ['rectangle', { as: 'p', width: 20, height: 12, round: 3, at: [3, -2, 0] }],
    ['circle', { as: 'h', diameter: 5, at: [10, 4, 0] }],
    ['ellipse', { as: 'e', width: 5, height: 3, at: [18, 4, 0] }],
    [
      'curve',
      {
        as: 'c',
        points: [
          [5, 1, 0],
          [7, 2, 0],
          [6, 6, 0],
        ],
        closed: 'yes',
      },
    ],
  ];
  const PROFILES = ['p', 'h', 'e', 'c'];
  test.each([
    ['raised', 'raise', { height: 7, down: 2 }],
    ['turned', 'revolve', { axis: 'y' }],
    ['turned a quarter', 'revolve', { axis: 'y', angle: 90 }],
    ['turned back by most of a turn', 'revolve', { axis: 'y', angle: -250 }],
    [
      'turned beside a leaning line',
      'revolve',
      {
        through: [
          [0, 20, 0],
          [30, 25, 0],
        ],
        angle: 200,
      },
    ],
  ] as const)('of what is %s agree with the kernel on both sides of every face', (_, verb, typed) => {
    const { kernel, document, idOf } = built(...drawnAndRaised, [
      verb,
      { as: 'b', profiles: PROFILES, ...typed },
    ]);
    const content = contentOf(document, idOf('b'));
    const { shape, faceNames } = new Builder(libraries).shapeOf(content);
    const samples = samplesOf(libraries.occt, shape, meshShape(libraries.occt, shape, 0.05));
    expect(new Set(samples.map(({ face }) => face)).size).toBe(faceNames.length);
    const field = fieldOf(content, nothing)!;
    const off = (sample: Sample, by: number) => Math.abs(field.at(beside(sample, by)) - by);
    expect(Math.max(...samples.flatMap((one) => [off(one, -1e-6), off(one, 1e-6)]))).toBeLessThan(1e-9);
    const { box } = kernel.measure(document, idOf('b'));
    const corner: Vec3 = [0, 1, 2].map((i) => box.max[i]! - field.centre[i]!) as unknown as Vec3;
    expect(Math.min(...corner)).toBeLessThanOrEqual(field.radius);
  });
  test.each([
    { kind: 'box', size: [2, 4, 6] },
    { kind: 'cylinder', diameter: 4, height: 6 },
    { kind: 'cone', diameter: 6, top: 0, height: 4 },
    { kind: 'cone', diameter: 6, top: 9, height: 4 },
    { kind: 'tube', diameter: 6, bore: 2, height: 4 },
    { kind: 'sphere', diameter: 5 },
    { kind: 'torus', diameter: 10, thickness: 2 },
    {
      kind: 'prism',
      corners: [0, 72, 144, 216, 288].map((a) => [
        3 * Math.cos((a * Math.PI) / 180),
        3 * Math.sin((a * Math.PI) / 180),
      ]),
      height: 4,
    },
  ])('points of $kind lie on the faces that the kernel means, and look out', (content) => {
    const { occt } = libraries;
    const { shape, faceNames } = new Builder(libraries).shapeOf(content as Content);
    const samples = plainSamples(content as SolidContent, faceNames);
    expect(new Set(samples.map(({ face }) => face)).size).toBe(faceNames.length);
    const field = fieldOf(content as Content, nothing)!;
    const off = (sample: Sample, by: number) => Math.abs(field.at(beside(sample, by)) - by);
    expect(Math.max(...samples.flatMap((one) => [off(one, -1e-3), off(one, 1e-3)]))).toBeLessThan(1e-12);
    scope((keep) => {
      const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
      for (const { face, point } of samples)
        expect(distanceBetween(occt, faces[face]!, pointShape({ occt, keep }, point))).toBeLessThan(1e-9);
    });
  });
  test('a polygon is told by its nearest side', () => {
    const square = [
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ] as const;
    expect([polygonDistance(square, [1, 1.5]), polygonDistance(square, [3, 1])]).toEqual([-0.5, 1]);
  });
});

describe('facets', () => {
  const cube = {
    positions: Float32Array.of(0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0, 0, 0, 1, 1, 0, 1, 1, 1, 1, 0, 1, 1),
    triangles: Uint32Array.of(
      0,
      2,
      1,
      0,
      3,
      2,
      4,
      5,
      6,
      4,
      6,
      7,
      0,
      1,
      5,
      0,
      5,
      4,
      2,
      3,
      7,
      2,
      7,
      6,
      1,
      2,
      6,
      1,
      6,
      5,
      3,
      0,
      4,
      3,
      4,
      7,
    ),
  };
  test('wind once round what is inside, and not round what is outside', () => {
    const tree = buildBvh(facetBoxes(cube));
    expect(windingNumber(cube, tree, [0.3, 0.6, 0.2])).toBe(1);
    expect(windingNumber(cube, tree, [1.3, 0.6, 0.2])).toBe(0);
  });
  test('that cross are found, and those of a cube do not', () => {
    const mesh = { ...cube, normals: cube.positions, faceOfTriangle: new Uint32Array(12), chordMm: 0 };
    expect(selfCrossings(mesh)).toEqual([]);
    const shifted = Float32Array.from(cube.positions, (n) => n * 0.8 + 0.55);
    const both = {
      ...mesh,
      positions: Float32Array.of(...cube.positions, ...shifted),
      triangles: Uint32Array.of(...cube.triangles, ...cube.triangles.map((i) => i + 8)),
      faceOfTriangle: new Uint32Array(24),
    };
    expect(selfCrossings(both).length).toBeGreaterThan(0);
  });
  test('tell how far from a ring a point is, and on which side, but for what is nearer than they can tell', () => {
    const content: Content = { kind: 'torus', diameter: 20, thickness: 6 };
    const byFormula = fieldOf(content, () => undefined)!;
    const byFacets = meshField(
      meshShape(libraries.occt, new Builder(libraries).shapeOf(content).shape, 0.02),
    )!;
    // Spread evenly. Source: the R3 sequence of M. Roberts, 2018, from memory.
    const spread = (i: number) =>
      [0.8191725134, 0.6710436067, 0.5497004779].map(
        (share, axis) => [30, 30, 12][axis]! * (((i * share) % 1) - 0.5),
      ) as unknown as Vec3;
    const off = Array.from({ length: 500 }, (_, i) => {
      const [byMesh, formula] = [byFacets.at(spread(i)), byFormula.at(spread(i))];
      return Number.isNaN(byMesh) ? Math.max(0, Math.abs(formula) - 0.1) : Math.abs(byMesh - formula);
    });
    expect(Math.max(...off)).toBeLessThan(0.05);
  });
});
