/** Steel angles and tubes, board and batten. */
import type { StarterPart } from './declare.ts';

/** Leg, thickness, root radius. Source: EN 10056-1, from memory. The radius at the toes is half of that at the root. */
const ANGLES = {
  '30 × 30 × 3': [30, 3, 5],
  '40 × 40 × 4': [40, 4, 6],
  '50 × 50 × 5': [50, 5, 7],
  '60 × 60 × 6': [60, 6, 8],
  '80 × 80 × 8': [80, 8, 10],
  '100 × 100 × 10': [100, 10, 12],
} as const;

/** Side, wall. Source: EN 10210-2, from memory; corners are 1.5 times the wall outside and once the wall inside. */
const SQUARE_TUBES = {
  '40 × 40 × 4': [40, 4],
  '50 × 50 × 4': [50, 4],
  '60 × 60 × 5': [60, 5],
  '80 × 80 × 5': [80, 5],
  '100 × 100 × 6': [100, 6],
} as const;

/** Outside, wall. Source: EN 10210-2, from memory. */
const ROUND_TUBES = {
  '33.7 × 3.2': [33.7, 3.2],
  '42.4 × 3.2': [42.4, 3.2],
  '48.3 × 3.6': [48.3, 3.6],
  '60.3 × 4': [60.3, 4],
} as const;

/** Width, thickness. Common practice; no source. */
const BOARDS = { '100 × 20': [100, 20], '150 × 25': [150, 25], '200 × 25': [200, 25] } as const;
const BATTENS = { '40 × 20': [40, 20], '60 × 40': [60, 40], '60 × 60': [60, 60] } as const;

const ends = (part: string, kind: string, size: string) =>
  [
    ['dock', { at: ['0', '0', '0'], part, out: '-z', kind, size, called: 'A' }],
    ['dock', { at: ['0', '0', 'long'], part, out: 'z', kind, size, called: 'B' }],
  ] as const;

const plank = (id: string, name: string, sizes: StarterPart['sizes']): StarterPart => ({
  id,
  name,
  about: 'Sawn or planed timber, along X. Its origin is a corner.',
  words: ['wood', 'timber', 'plank', 'furniture'],
  parameters: { wide: ['Width', '100 mm'], thick: ['Thickness', '20 mm'], long: ['Length', '1000 mm'] },
  sizes: sizes!,
  ledger: [
    ['box', { as: name, size: ['long', 'wide', 'thick'] }],
    ['change', { parts: [name], colour: '#d9c3a0' }],
    ['dock', { at: ['0', 'wide / 2', 'thick / 2'], part: name, out: '-x', kind: 'timber', called: 'A' }],
    ['dock', { at: ['long', 'wide / 2', 'thick / 2'], part: name, out: 'x', kind: 'timber', called: 'B' }],
  ],
});

export const PROFILES: readonly StarterPart[] = [
  {
    id: 'angle',
    name: 'Steel angle',
    about: 'EN 10056-1, equal legs, along Z. Its origin is the outer corner at one end.',
    words: ['l profile', 'iron', 'en 10056', 'bracket'],
    parameters: {
      leg: ['Leg', '50 mm'],
      thick: ['Thickness', '5 mm'],
      root: ['Root radius', '7 mm'],
      long: ['Length', '1000 mm'],
    },
    sizes: ANGLES,
    variables: { toe: 'root / 2' },
    ledger: [
      [
        'traverse',
        {
          as: 'Angle section',
          legs: [
            { dx: 'leg', dy: '0' },
            { dx: '0', dy: 'thick - toe' },
            { dx: '-toe', dy: 'toe', sweep: '90' },
            { dx: 'toe + root + thick - leg', dy: '0' },
            { dx: '-root', dy: 'root', sweep: '-90' },
            { dx: '0', dy: 'leg - thick - root - toe' },
            { dx: '-toe', dy: 'toe', sweep: '90' },
            { dx: 'toe - thick', dy: '0' },
          ],
          closing: 'straight',
        },
      ],
      ['raise', { as: 'Angle', profiles: ['Angle section'], height: 'long' }],
      ['hide', { parts: ['Angle section'] }],
      ['change', { parts: ['Angle'], colour: '#b7c2cf' }],
      ...ends('Angle', 'angle', 'leg'),
    ],
  },
  {
    id: 'squaretube',
    name: 'Square tube',
    about: 'EN 10210, hot finished, along Z. Its origin is in the middle of one end.',
    words: ['hollow section', 'steel', 'box section', 'en 10210'],
    parameters: { side: ['Side', '50 mm'], wall: ['Wall', '4 mm'], long: ['Length', '1000 mm'] },
    sizes: SQUARE_TUBES,
    ledger: [
      ['rectangle', { as: 'Outside', width: 'side', height: 'side', from: 'centre', round: '1.5 * wall' }],
      [
        'rectangle',
        { as: 'Inside', width: 'side - 2 * wall', height: 'side - 2 * wall', from: 'centre', round: 'wall' },
      ],
      ['raise', { as: 'Tube', profiles: ['Outside', 'Inside'], height: 'long' }],
      ['hide', { parts: ['Outside', 'Inside'] }],
      ['change', { parts: ['Tube'], colour: '#b7c2cf' }],
      ...ends('Tube', 'square tube', 'side'),
    ],
  },
  {
    id: 'roundtube',
    name: 'Round tube',
    about: 'EN 10210, hot finished, along Z. Its origin is in the middle of one end.',
    words: ['hollow section', 'steel', 'pipe', 'en 10210', 'handrail'],
    parameters: { outside: ['Outside', '48.3 mm'], wall: ['Wall', '3.6 mm'], long: ['Length', '1000 mm'] },
    sizes: ROUND_TUBES,
    ledger: [
      ['tube', { as: 'Round tube', diameter: 'outside', bore: 'outside - 2 * wall', height: 'long' }],
      ['change', { parts: ['Round tube'], colour: '#b7c2cf' }],
      ...ends('Round tube', 'round tube', 'outside'),
    ],
  },
  plank('board', 'Board', BOARDS),
  plank('batten', 'Batten', BATTENS),
];
