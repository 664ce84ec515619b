/** Bolts, nuts, washers and dowels. Threads are drawn as their outside. */
import type { StarterPart } from './declare.ts';

const BOLT = 'bolt';

/** Thread → width across flats, height of the head, a usual length. Source: ISO 4014 and ISO 4017, from memory. */
const BOLTS = {
  M3: [3, 5.5, 2, 16],
  M4: [4, 7, 2.8, 20],
  M5: [5, 8, 3.5, 25],
  M6: [6, 10, 4, 30],
  M8: [8, 13, 5.3, 40],
  M10: [10, 16, 6.4, 50],
  M12: [12, 18, 7.5, 60],
} as const;

/** Thread → width across flats, height. Source: ISO 4032, from memory. */
const NUTS = {
  M3: [3, 5.5, 2.4],
  M4: [4, 7, 3.2],
  M5: [5, 8, 4.7],
  M6: [6, 10, 5.2],
  M8: [8, 13, 6.8],
  M10: [10, 16, 8.4],
  M12: [12, 18, 10.8],
} as const;

/** Thread → bore, outside, thickness. Source: ISO 7089, from memory. */
const WASHERS = {
  M3: [3, 3.2, 7, 0.5],
  M4: [4, 4.3, 9, 0.8],
  M5: [5, 5.3, 10, 1],
  M6: [6, 6.4, 12, 1.6],
  M8: [8, 8.4, 16, 1.6],
  M10: [10, 10.5, 20, 2],
  M12: [12, 13, 24, 2.5],
} as const;

/** Diameter → a usual length. Common practice; no source. */
const DOWELS = { '6': [6, 30], '8': [8, 40], '10': [10, 50] } as const;

export const FASTENERS: readonly StarterPart[] = [
  {
    id: 'bolt',
    name: 'Hexagon head bolt',
    about: 'ISO 4014 and 4017. Its origin is under the head, its shank points down.',
    words: ['screw', 'fastener', 'hex', 'iso 4014', 'iso 4017'],
    parameters: {
      thread: ['Thread', '8 mm'],
      flats: ['Across flats', '13 mm'],
      head: ['Head', '5.3 mm'],
      shank: ['Length', '40 mm'],
    },
    sizes: BOLTS,
    ledger: [
      ['prism', { as: 'Head', sides: 6, width: 'flats', across: 'flats', height: 'head' }],
      ['cylinder', { as: 'Shank', diameter: 'thread', height: 'shank', at: ['0', '0', '-shank'] }],
      ['union', { as: 'Bolt', parts: ['Head', 'Shank'] }],
      ['change', { parts: ['Bolt'], colour: '#9fb3b5' }],
      [
        'dock',
        {
          at: ['0', '0', '0'],
          part: 'Bolt',
          out: '-z',
          kind: BOLT,
          role: 'plug',
          size: 'thread',
          called: 'seat',
        },
      ],
      [
        'dock',
        {
          at: ['0', '0', '-shank'],
          part: 'Bolt',
          out: '-z',
          kind: 'bolt end',
          size: 'thread',
          called: 'end',
        },
      ],
    ],
  },
  {
    id: 'nut',
    name: 'Hexagon nut',
    about: 'ISO 4032. Its origin is in the middle of the face that bears.',
    words: ['fastener', 'hex', 'iso 4032'],
    parameters: { thread: ['Thread', '8 mm'], flats: ['Across flats', '13 mm'], high: ['Height', '6.8 mm'] },
    sizes: NUTS,
    ledger: [
      ['prism', { as: 'Hexagon', sides: 6, width: 'flats', across: 'flats', height: 'high' }],
      ['cylinder', { as: 'Bore', diameter: 'thread', height: 'high + 2 mm', at: ['0', '0', '-1 mm'] }],
      ['subtract', { as: 'Nut', from: 'Hexagon', parts: ['Bore'] }],
      ['change', { parts: ['Nut'], colour: '#9fb3b5' }],
      [
        'dock',
        {
          at: ['0', '0', '0'],
          part: 'Nut',
          out: '-z',
          kind: BOLT,
          role: 'plug',
          size: 'thread',
          called: 'seat',
        },
      ],
    ],
  },
  {
    id: 'washer',
    name: 'Plain washer',
    about: 'ISO 7089. Its origin is in the middle of its underside.',
    words: ['fastener', 'ring', 'iso 7089'],
    parameters: {
      thread: ['Thread', '8 mm'],
      hole: ['Bore', '8.4 mm'],
      outside: ['Outside', '16 mm'],
      thick: ['Thickness', '1.6 mm'],
    },
    sizes: WASHERS,
    ledger: [
      ['tube', { as: 'Washer', diameter: 'outside', bore: 'hole', height: 'thick' }],
      ['change', { parts: ['Washer'], colour: '#b7c2cf' }],
      [
        'dock',
        {
          at: ['0', '0', '0'],
          part: 'Washer',
          out: '-z',
          kind: BOLT,
          role: 'plug',
          size: 'thread',
          called: 'under',
        },
      ],
      [
        'dock',
        {
          at: ['0', '0', 'thick'],
          part: 'Washer',
          out: 'z',
          kind: BOLT,
          role: 'socket',
          size: 'thread',
          called: 'over',
        },
      ],
    ],
  },
  {
    id: 'dowel',
    name: 'Dowel',
    about: 'A plain wooden pin. Its origin is in the middle of one end.',
    words: ['peg', 'pin', 'wood', 'furniture'],
    parameters: { across: ['Diameter', '8 mm'], long: ['Length', '40 mm'] },
    sizes: DOWELS,
    ledger: [
      ['cylinder', { as: 'Dowel', diameter: 'across', height: 'long' }],
      ['change', { parts: ['Dowel'], colour: '#cdb48c' }],
      [
        'dock',
        {
          at: ['0', '0', 'long / 2'],
          part: 'Dowel',
          out: '-z',
          kind: 'dowel',
          role: 'plug',
          size: 'across',
          called: 'middle',
        },
      ],
    ],
  },
];
