import { angle, faces } from '../fields.ts';
import { declareStep } from './declare.ts';

/** Faces lean about the border of a face that stays as it is. */
export const draft = declareStep(
  'draft',
  {
    faces: faces('Faces', 'Faces that lean.'),
    angle: angle('Angle', 'Inward, away from the foot; less than zero is outward.', {
      above: -80,
      most: 80,
      default: '3°',
    }),
    foot: faces('Foot', 'A flat face that stays as it is, about whose plane they lean.'),
  },
  {
    title: () => 'Draft',
    number: (step) => ({
      label: 'Angle',
      kind: 'angle',
      value: step.angle,
      above: -80,
      most: 80,
      with: (lean) => ({ ...step, angle: lean }),
    }),
    make: {
      id: 'draft',
      name: 'Draft',
      about: 'Makes faces lean by an angle about the plane of a face that stays, as moulds need it.',
      words: ['taper', 'lean', 'slope', 'mould', 'angle'],
      sentence: 'Draft {faces} of {part} by {angle} from {foot}',
    },
  },
);
