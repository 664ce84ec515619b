import { recipeFault } from '../declare.ts';
import { choice, faces, length, lengths } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** What was solid becomes a wall, of one thickness but for single faces. */
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
    other: faces('Other faces', 'Faces whose wall has a thickness of its own.', {
      mayBeNone: true,
      rare: true,
    }).optional(),
    thicknesses: lengths(
      'Their thickness',
      'Of the wall behind each of the other faces, in their order; those after the last have the last one.',
      { above: 0, rare: true },
    ),
  },
  {
    title: ({ open, side, thicknesses }) =>
      `Shell${open.length > 0 ? '' : ', closed'}${side === 'out' ? ', outward' : ''}${thicknesses ? ', several thicknesses' : ''}`,
    number: (step) => ({
      label: 'Thickness',
      kind: 'length',
      value: step.thickness,
      above: 0,
      with: (thickness) => ({ ...step, thickness }),
    }),
    fault({ open, side, thickness, other = [], thicknesses = [] }) {
      if (open.length === 0 && side === 'out' && valueOf(thickness) > 0)
        return recipeFault('recipe.shell-outward', {}, 'side');
      if (other.length > 0 && thicknesses.length === 0)
        return recipeFault('recipe.shell-thickness', {}, 'thicknesses');
      if (thicknesses.length > other.length)
        return recipeFault(
          'recipe.shell-many',
          { count: thicknesses.length, faces: other.length },
          'thicknesses',
        );
      return undefined;
    },
    make: {
      id: 'shell',
      name: 'Shell',
      about:
        'Hollows a solid out to a wall, with faces left open or none; single faces may have another thickness.',
      words: ['hollow', 'wall', 'thin', 'case', 'box', 'empty'],
      sentence:
        'Shell {part} to a wall of {thickness}[, open at {open}][, {side}][, {other} by their own: {thicknesses}]',
    },
  },
);
