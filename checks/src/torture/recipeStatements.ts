/** What random recipes are made of: solids to begin with, and steps that may or may not go. */
import type { Statement } from '@kadrel/testing';

type Random = () => number;

/** What can be named of the solid as it stands. */
export interface Names {
  readonly faces: readonly string[];
  readonly edges: readonly string[];
  readonly corners: readonly string[];
}

export const between = (random: Random, min: number, max: number): number =>
  Math.round((min + (max - min) * random()) * 100) / 100;
export const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** What a solid begins as; its name is block. */
const BASES: readonly ((random: Random) => Statement[])[] = [
  (random) => [['box', { as: 'block', size: [0, 0, 0].map(() => between(random, 20, 60)) }]],
  (random) => [
    ['cylinder', { as: 'block', diameter: between(random, 20, 50), height: between(random, 20, 60) }],
  ],
  (random) => [
    [
      'prism',
      {
        as: 'block',
        sides: 3 + Math.floor(random() * 6),
        width: between(random, 30, 60),
        height: between(random, 20, 50),
      },
    ],
  ],
  (random) => [
    [
      'frustum',
      {
        as: 'block',
        sides: 4,
        width: 50,
        across: 'flats',
        top: between(random, 20, 45),
        height: between(random, 20, 50),
      },
    ],
  ],
  (random) => [
    ['box', { as: 'low', size: [50, 40, 15] }],
    ['box', { as: 'high', size: [25, 40, between(random, 25, 50)] }],
    ['union', { as: 'block', parts: ['low', 'high'] }],
  ],
  (random) => [
    ['box', { as: 'plate', size: [60, 50, 20] }],
    ['cylinder', { as: 'bore', diameter: between(random, 8, 30), height: 40, at: [30, 25, -10] }],
    ['subtract', { as: 'block', from: 'plate', parts: ['bore'] }],
  ],
  (random) => [
    [
      'cone',
      {
        as: 'block',
        diameter: between(random, 25, 50),
        top: oneOf(random, [0, 8, 20]),
        height: between(random, 20, 50),
      },
    ],
  ],
  (random) => [['sphere', { as: 'block', diameter: between(random, 25, 60) }]],
  (random) => [
    [
      'tube',
      {
        as: 'block',
        diameter: between(random, 40, 60),
        bore: between(random, 8, 34),
        height: between(random, 15, 50),
      },
    ],
  ],
  (random) => [
    ['torus', { as: 'block', diameter: between(random, 40, 60), thickness: between(random, 8, 20) }],
  ],
  (random) => [
    [
      'wedge',
      {
        as: 'block',
        size: [0, 0, 0].map(() => between(random, 20, 50)),
        top: oneOf(random, [0, 10]),
        lean: oneOf(random, ['left', 'middle']),
      },
    ],
  ],
  (random) => [
    ['rectangle', { as: 'outline', width: between(random, 30, 60), height: between(random, 25, 50) }],
    ['corner', { profile: 'outline', size: between(random, 2, 9), at: [0, 0, 0] }],
    ['raise', { as: 'block', profiles: ['outline'], height: between(random, 10, 40) }],
  ],
  (random) => [
    [
      'rectangle',
      {
        as: 'outline',
        width: between(random, 8, 20),
        height: between(random, 10, 30),
        at: [between(random, 0, 20), 0, 0],
        on: 'front',
      },
    ],
    ['revolve', { as: 'block', profiles: ['outline'], angle: oneOf(random, [90, 200, 360]) }],
  ],
  (random) => [
    ['rectangle', { as: 'outline', width: 40, height: between(random, 25, 50), from: 'centre' }],
    ['plane', { as: 'above', on: 'plan', offset: between(random, 15, 40) }],
    ['circle', { as: 'rim', diameter: between(random, 15, 40), on: 'above' }],
    ['loft', { as: 'block', profiles: ['outline', 'rim'] }],
  ],
  (random) => [
    ['circle', { as: 'section', diameter: between(random, 6, 18) }],
    [
      'arc',
      {
        as: 'way',
        through: [
          [0, 0, 0],
          [10, 0, 25],
          [35, 0, between(random, 28, 40)],
        ],
        on: 'front',
      },
    ],
    ['sweep', { as: 'block', section: 'section', path: 'way' }],
  ],
  (random) => [
    ['box', { as: 'block', size: [40, 30, between(random, 10, 30)] }],
    ['along', { as: 'row', parts: ['block'], count: 3, pitch: 70 }],
  ],
  (random) => [
    ['box', { as: 'first', size: [between(random, 25, 45), 30, 25] }],
    ['duplicate', { as: 'block', parts: ['first'], kind: 'linked', by: [0, 80, 0] }],
    ['turn', { parts: ['block'], angle: between(random, -90, 90), about: 'z' }],
  ],
  (random) => [
    ['box', { as: 'plate', size: [50, 40, between(random, 15, 30)] }],
    ['sphere', { as: 'bore', diameter: between(random, 15, 35), at: [25, 20, 20] }],
    [oneOf(random, ['union', 'intersect']), { as: 'block', parts: ['plate', 'bore'] }],
  ],
];

/** What steps may refer to: an outline, a line seen from the front, and a pin that goes through. */
const besides = (random: Random): Statement[] => [
  [
    'circle',
    { as: 'mark', diameter: between(random, 4, 12), at: [between(random, 0, 30), between(random, 0, 30), 0] },
  ],
  [
    'line',
    { as: 'saw', from: [-100, 0, between(random, 3, 20)], to: [100, 0, between(random, 3, 20)], on: 'front' },
  ],
  [
    'cylinder',
    {
      as: 'pin',
      diameter: between(random, 4, 15),
      height: 200,
      at: [between(random, 0, 30), between(random, 0, 30), -80],
    },
  ],
];

const EDGE_RULES = ['all', 'outward', 'inward', 'along x', 'along z', 'met', 'around top', 'around bottom'];
const USUAL_FACES = ['top', 'bottom', 'front', 'right', 'side', 'side1', 'cut', 'bore'];

/** One or two of what is there, as they are picked; what is said where there is none. */
const picked = (random: Random, names: readonly string[], otherwise: string) =>
  names.length === 0
    ? otherwise
    : Array.from({ length: oneOf(random, [1, 1, 2]) }, () => ({ at: oneOf(random, names) }));
const someEdges = (random: Random, { edges }: Names) =>
  random() < 0.5 ? oneOf(random, EDGE_RULES) : picked(random, edges, 'all');
const someFaces = (random: Random, { faces }: Names) =>
  random() < 0.4 ? oneOf(random, USUAL_FACES) : picked(random, faces, 'top');
const somePlaces = (random: Random, { faces, edges, corners }: Names) =>
  picked(random, oneOf(random, [faces, edges, corners]), 'top');

/** A step that may or may not go: what cannot be named is refused when it is said. */
const STEPS: readonly ((random: Random, names: Names) => Statement)[] = [
  (random, names) => [
    'fillet',
    { part: 'block', edges: someEdges(random, names), radius: between(random, 0.5, 8) },
  ],
  (random, names) => [
    'chamfer',
    { part: 'block', edges: someEdges(random, names), width: between(random, 0.5, 6) },
  ],
  (random, names) => [
    'shell',
    {
      part: 'block',
      thickness: between(random, 0.5, 6),
      ...(random() < 0.7 ? { open: someFaces(random, names) } : {}),
    },
  ],
  (random, names) => [
    'offset-face',
    { part: 'block', faces: someFaces(random, names), by: between(random, -8, 12) },
  ],
  (random) => [
    'trim-solid',
    {
      parts: ['block'],
      plane: oneOf(random, ['plan', 'front', 'side']),
      at: between(random, -10, 30),
      keep: oneOf(random, ['front', 'behind']),
    },
  ],
  (random, names) => [
    'draft',
    { part: 'block', faces: someFaces(random, names), angle: between(random, -15, 20), foot: 'bottom' },
  ],
  (random) => ['mirror-join', { part: 'block', plane: oneOf(random, ['plan', 'front', 'side']) }],
  (random, names) => [
    'reshape',
    {
      part: 'block',
      places: somePlaces(random, names),
      by: [0, 0, 0].map(() => between(random, -6, 6)),
      folds: oneOf(random, ['beside', 'through', 'warp']),
    },
  ],
  (random, names) => [
    'soften',
    {
      part: 'block',
      level: oneOf(random, [1, 1, 2]),
      form: oneOf(random, ['smooth', 'facets']),
      ...(random() < 0.4 ? { sharp: someEdges(random, names), sharpness: oneOf(random, [100, 60]) } : {}),
      ...(random() < 0.2 ? { corners: 'top' } : {}),
    },
  ],
  (random, names) => [
    'fillet',
    {
      part: 'block',
      edges: someEdges(random, names),
      radius: between(random, 0.5, 5),
      to: between(random, 1, 6),
    },
  ],
  (random) => [
    'fillet',
    {
      part: 'block',
      edges: ['around top', 'along z'],
      radius: between(random, 0.5, 4),
      radii: [between(random, 0.5, 4)],
    },
  ],
  (random, names) => [
    'shell',
    {
      part: 'block',
      thickness: between(random, 0.5, 5),
      open: someFaces(random, names),
      side: oneOf(random, ['in', 'out']),
      ...(random() < 0.5 ? { other: someFaces(random, names), thicknesses: [between(random, 0.5, 6)] } : {}),
    },
  ],
  () => ['hull', { part: 'block', chord: 0.2 }],
  (random) => [
    'emboss',
    {
      part: 'block',
      profiles: ['mark'],
      how: oneOf(random, ['emboss', 'engrave', 'imprint']),
      depth: between(random, 0.3, 4),
    },
  ],
  (random) => [
    'cut-along',
    {
      parts: ['block'],
      profiles: [oneOf(random, ['saw', 'mark'])],
      keep: oneOf(random, ['front', 'behind']),
    },
  ],
  (random) => [
    'cut-by',
    {
      parts: ['block'],
      by: 'pin',
      keep: oneOf(random, ['front', 'behind']),
      ...(random() < 0.3 ? { clearance: between(random, 0.1, 1) } : {}),
    },
  ],
  (random) => [
    'offset-solid',
    { part: 'block', by: between(random, -3, 4), corners: oneOf(random, ['round', 'square']) },
  ],
];

/** Makes a solid that is called block, and what its steps may refer to. */
export const someSolid = (random: Random): Statement[] => [
  ...oneOf(random, BASES)(random),
  ...besides(random),
];

export const someStep = (random: Random, names: Names): Statement => oneOf(random, STEPS)(random, names);
