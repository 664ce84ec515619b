import { choice, faces, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** What was solid becomes a wall of one thickness. */
export const shell = declareStep(
  'shell',
  {
    open: faces(
      'Open faces',
      'Faces that are left out, so that one can look in; none leaves a closed hollow.',
      {
        mayBeNone: true,
      },
    ),
    thickness: length('Thickness', 'Of the wall.', { above: 0, default: '2 mm' }),
    side: choice(
      'Side',
      { in: 'inward', out: 'outward' },
      { about: 'Which side of the faces the wall stands on.', default: 'in' },
    ),
  },
  {
    title: ({ open, side }) =>
      `Shell${open.length > 0 ? '' : ', closed'}${side === 'out' ? ', outward' : ''}`,
    number: (step) => ({
      label: 'Thickness',
      kind: 'length',
      value: step.thickness,
      above: 0,
      with: (thickness) => ({ ...step, thickness }),
    }),
    fault: ({ open, side, thickness }) =>
      open.length === 0 && side === 'out' && valueOf(thickness) > 0
        ? {
            message: 'A closed hollow has its wall inward: choose a face to leave open, or inward.',
            blank: 'side',
          }
        : undefined,
    make: {
      id: 'shell',
      name: 'Shell',
      about: 'Hollows a solid out to a wall of one thickness, with faces left open or none.',
      words: ['hollow', 'wall', 'thin', 'case', 'box', 'empty'],
      sentence: 'Shell {part} to a wall of {thickness}[, open at {open}][, {side}]',
    },
  },
);
