/** Pipe 40 with elbow, tee and cap. Sizes of our own; no source. */
import type { StarterPart, Statement } from './declare.ts';

const KIND = 'pipe 40';
const dock = (
  called: string,
  { at, out }: { readonly at: readonly string[]; readonly out: string },
  part: string,
): Statement => ['dock', { at: [...at], part, out, kind: KIND, called }];
const grey = (part: string): Statement => ['change', { parts: [part], colour: '#a9b8a4' }];

export const PIPES: readonly StarterPart[] = [
  {
    id: 'pipe',
    name: 'Pipe 40',
    about: '40 across with a wall of 3, along Z. Its origin is in the middle of one end.',
    words: ['tube', 'plumbing', 'drain'],
    parameters: { long: ['Length', '200 mm'] },
    sizes: { short: [100], usual: [200], long: [500] },
    ledger: [
      ['tube', { as: 'Pipe', diameter: '40 mm', bore: '34 mm', height: 'long' }],
      grey('Pipe'),
      dock('A', { at: ['0', '0', '0'], out: '-z' }, 'Pipe'),
      dock('B', { at: ['0', '0', 'long'], out: 'z' }, 'Pipe'),
    ],
  },
  {
    id: 'elbow',
    name: 'Pipe 40 elbow',
    about: 'A quarter round from X to Y. Its origin is the centre of the bend.',
    words: ['bend', 'corner', 'knee', 'plumbing'],
    parameters: { bend: ['Radius', '60 mm'] },
    ledger: [
      ['torus', { as: 'Ring', diameter: '2 * bend', thickness: '40 mm' }],
      ['box', { as: 'Quarter', size: ['bend + 30 mm', 'bend + 30 mm', '50 mm'], at: ['0', '0', '-25 mm'] }],
      ['intersect', { as: 'Bend', parts: ['Ring', 'Quarter'] }],
      ['torus', { as: 'Bore', diameter: '2 * bend', thickness: '34 mm' }],
      ['subtract', { as: 'Elbow', from: 'Bend', parts: ['Bore'] }],
      grey('Elbow'),
      dock('A', { at: ['bend', '0', '0'], out: '-y' }, 'Elbow'),
      dock('B', { at: ['0', 'bend', '0'], out: '-x' }, 'Elbow'),
    ],
  },
  {
    id: 'tee',
    name: 'Pipe 40 tee',
    about: 'Through along Z, with a branch along X. Its origin is where the axes meet.',
    words: ['branch', 'junction', 'plumbing'],
    parameters: { arm: ['Arm', '60 mm'] },
    ledger: [
      ['cylinder', { as: 'Through', diameter: '40 mm', height: '2 * arm', at: ['0', '0', '-arm'] }],
      ['cylinder', { as: 'Branch', diameter: '40 mm', height: 'arm' }],
      ['change', { parts: ['Branch'], turn: ['0', '90', '0'] }],
      ['union', { as: 'Body', parts: ['Through', 'Branch'] }],
      [
        'cylinder',
        { as: 'Through bore', diameter: '34 mm', height: '2 * arm + 2 mm', at: ['0', '0', '-arm - 1 mm'] },
      ],
      ['cylinder', { as: 'Branch bore', diameter: '34 mm', height: 'arm + 1 mm' }],
      ['change', { parts: ['Branch bore'], turn: ['0', '90', '0'] }],
      ['subtract', { as: 'Tee', from: 'Body', parts: ['Through bore', 'Branch bore'] }],
      grey('Tee'),
      dock('A', { at: ['0', '0', '-arm'], out: '-z' }, 'Tee'),
      dock('B', { at: ['0', '0', 'arm'], out: 'z' }, 'Tee'),
      dock('C', { at: ['arm', '0', '0'], out: 'x' }, 'Tee'),
    ],
  },
  {
    id: 'cap',
    name: 'Pipe 40 cap',
    about: 'Closes an end. Its origin is in the middle of the face that joins.',
    words: ['plug', 'lid', 'end', 'plumbing'],
    parameters: { thick: ['Thickness', '5 mm'] },
    ledger: [
      ['cylinder', { as: 'Cap', diameter: '40 mm', height: 'thick' }],
      grey('Cap'),
      dock('A', { at: ['0', '0', '0'], out: '-z' }, 'Cap'),
    ],
  },
];
