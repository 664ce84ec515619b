/** Pegs and sockets with a clearance, and the tiles of a marble run. Sizes of our own; no source. */
import type { StarterPart, Statement } from './declare.ts';

const TRACK = 'track end';
const track = (
  called: string,
  { at, out }: { readonly at: readonly string[]; readonly out: string },
  part: string,
): Statement => ['dock', { at: [...at], part, out, kind: TRACK, called }];
const wooden = (part: string): Statement => ['change', { parts: [part], colour: '#d8a15c' }];

const MARBLE = { marble: ['Marble', '16 mm'], wall: ['Wall', '3 mm'], high: ['Height', '14 mm'] } as const;
const WIDE = { wide: 'marble + 2 * wall + 2 mm', groove: 'marble + 2 mm' };

export const PRINTED: readonly StarterPart[] = [
  {
    id: 'peg',
    name: 'Printed peg',
    about: 'Stands on a face; goes into the socket of its size. Its origin is in the middle of its foot.',
    words: ['pin', 'plug', 'print', 'connector'],
    parameters: { across: ['Diameter', '6 mm'], long: ['Length', '8 mm'] },
    sizes: { '4': [4, 6], '6': [6, 8], '8': [8, 10] },
    ledger: [
      ['cylinder', { as: 'Peg', diameter: 'across', height: 'long' }],
      wooden('Peg'),
      ['dock', { at: ['0', '0', '0'], part: 'Peg', out: '-z', kind: 'face', called: 'foot' }],
      [
        'dock',
        {
          at: ['0', '0', 'long'],
          part: 'Peg',
          out: 'z',
          kind: 'peg',
          role: 'plug',
          size: 'across',
          called: 'tip',
        },
      ],
    ],
  },
  {
    id: 'socket',
    name: 'Printed socket',
    about: 'A block with a hole that a peg of its size slides into. Its origin is a corner.',
    words: ['hole', 'print', 'connector', 'clearance'],
    parameters: {
      across: ['Peg', '6 mm'],
      deep: ['Depth', '8 mm'],
      clear: ['Clearance a side', '0.2 mm'],
      wall: ['Wall', '2 mm'],
    },
    sizes: { '4': [4, 6], '6': [6, 8], '8': [8, 10] },
    variables: { side: 'across + 2 * clear + 2 * wall', high: 'deep + clear + wall' },
    ledger: [
      ['box', { as: 'Block', size: ['side', 'side', 'high'] }],
      [
        'cylinder',
        {
          as: 'Hole',
          diameter: 'across + 2 * clear',
          height: 'deep + clear + 1 mm',
          at: ['side / 2', 'side / 2', 'wall'],
        },
      ],
      ['subtract', { as: 'Socket', from: 'Block', parts: ['Hole'] }],
      wooden('Socket'),
      [
        'dock',
        {
          at: ['side / 2', 'side / 2', 'wall + clear'],
          part: 'Socket',
          out: 'z',
          kind: 'peg',
          role: 'socket',
          size: 'across',
          called: 'floor',
        },
      ],
    ],
  },
  {
    id: 'straight',
    name: 'Straight track',
    about: 'A tile of the marble run, along Y. Its origin is in the middle of one end, on the bed.',
    words: ['marble run', 'tile', 'toy'],
    parameters: { ...MARBLE, tile: ['Length', '100 mm'] },
    variables: WIDE,
    ledger: [
      ['box', { as: 'Track', size: ['wide', 'tile', 'high'], at: ['-wide / 2', '0', '0'] }],
      ['cylinder', { as: 'Groove', diameter: 'groove', height: 'tile + 2 mm', at: ['0', '-1 mm', 'high'] }],
      ['change', { parts: ['Groove'], turn: ['-90', '0', '0'] }],
      ['subtract', { as: 'Straight', from: 'Track', parts: ['Groove'] }],
      wooden('Straight'),
      track('A', { at: ['0', '0', '0'], out: '-y' }, 'Straight'),
      track('B', { at: ['0', 'tile', '0'], out: 'y' }, 'Straight'),
    ],
  },
  {
    id: 'bend',
    name: 'Bend track',
    about:
      'A quarter round of the marble run, from −Y to X. Its origin is in the middle of one end, on the bed.',
    words: ['marble run', 'curve', 'tile', 'toy'],
    parameters: { ...MARBLE, bend: ['Radius', '60 mm'] },
    variables: WIDE,
    ledger: [
      [
        'tube',
        {
          as: 'Ring',
          diameter: '2 * bend + wide',
          bore: '2 * bend - wide',
          height: 'high',
          at: ['bend', '0', '0'],
        },
      ],
      [
        'box',
        { as: 'Quarter', size: ['bend + wide', 'bend + wide', 'high + 2 mm'], at: ['-wide', '0', '-1 mm'] },
      ],
      ['intersect', { as: 'Bend body', parts: ['Ring', 'Quarter'] }],
      ['torus', { as: 'Groove', diameter: '2 * bend', thickness: 'groove', at: ['bend', '0', 'high'] }],
      ['subtract', { as: 'Bend', from: 'Bend body', parts: ['Groove'] }],
      wooden('Bend'),
      track('A', { at: ['0', '0', '0'], out: '-y' }, 'Bend'),
      track('B', { at: ['bend', 'bend', '0'], out: 'x' }, 'Bend'),
    ],
  },
  {
    id: 'tower',
    name: 'Tower',
    about:
      'The start of a marble run: dropped in at the top, the marble rolls out along Y. Its origin is in the middle of its front, on the bed.',
    words: ['marble run', 'start', 'drop', 'toy'],
    parameters: { ...MARBLE, tall: ['Tall', '70 mm'] },
    variables: { ...WIDE, deep: 'wide + wall' },
    ledger: [
      ['box', { as: 'Body', size: ['wide', 'deep', 'tall'], at: ['-wide / 2', '-deep', '0'] }],
      ['cylinder', { as: 'Drop', diameter: 'groove', height: 'tall', at: ['0', '-groove / 2', 'high'] }],
      [
        'cylinder',
        { as: 'Exit', diameter: 'groove', height: 'groove / 2 + 1 mm', at: ['0', '-groove / 2', 'high'] },
      ],
      ['change', { parts: ['Exit'], turn: ['-90', '0', '0'] }],
      ['sphere', { as: 'Turn', diameter: 'groove', at: ['0', '-groove / 2', 'high'] }],
      ['subtract', { as: 'Tower', from: 'Body', parts: ['Drop', 'Exit', 'Turn'] }],
      wooden('Tower'),
      track('A', { at: ['0', '0', '0'], out: 'y' }, 'Tower'),
    ],
  },
];
