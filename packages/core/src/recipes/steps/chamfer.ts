import { recipeFault } from '../declare.ts';
import { angle, edges, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** Edges are cut off flat. */
export const chamfer = declareStep(
  'chamfer',
  {
    edges: edges('Edges', 'Click edges, or say a rule: all, outward, inward, along z, around top, met.'),
    width: length('Width', 'On the first of the two faces, by the order of their names.', {
      above: 0,
      default: '1 mm',
    }),
    second: length('Second width', 'On the other face; 0 is the same.', {
      least: 0,
      default: '0',
      rare: true,
    }),
    angle: angle('Angle', 'Between the first face and the chamfer; 0 leaves it to the widths.', {
      least: 0,
      default: '0',
      rare: true,
    }),
  },
  {
    title: () => 'Chamfer',
    number: (step) => ({
      label: 'Width',
      kind: 'length',
      value: step.width,
      above: 0,
      with: (width) => ({ ...step, width }),
    }),
    fault({ second, angle: lean }) {
      if (valueOf(second) > 0 && valueOf(lean) > 0) return recipeFault('recipe.chamfer-both', {}, 'angle');
      if (valueOf(lean) >= 90) return recipeFault('recipe.chamfer-angle', {}, 'angle');
      return undefined;
    },
    make: {
      id: 'chamfer',
      name: 'Chamfer',
      about: 'Cuts edges off flat, by one width, by two, or by a width and an angle.',
      words: ['bevel', 'edge', 'cut off', 'slope'],
      sentence: 'Chamfer {edges} of {part} by {width}[, {second} on the other face][, at {angle}]',
    },
  },
);
