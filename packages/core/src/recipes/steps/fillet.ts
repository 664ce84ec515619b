import { recipeFault } from '../declare.ts';
import { edges, length, lengths } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** Edges become round: outward ones lose what stands out of the arc, inward ones are filled. */
export const fillet = declareStep(
  'fillet',
  {
    edges: edges('Edges', 'Click edges, or say a rule: all, outward, inward, along z, around top, met.'),
    radius: length('Radius', 'Of the arc.', { above: 0, default: '1 mm' }),
    to: length('Radius at the other end', 'Where it grows along the edge; 0 is the same all along.', {
      least: 0,
      default: '0',
      rare: true,
    }),
    radii: lengths(
      'Radius of each',
      'As many as edges or rules were chosen, in their order; those after the last have the radius.',
      { above: 0, rare: true },
    ),
  },
  {
    fault({ to, radii = [], edges: chosen }) {
      if (radii.length > 0 && valueOf(to) > 0) return recipeFault('recipe.fillet-both', {}, 'radii');
      if (radii.length > chosen.length)
        return recipeFault('recipe.fillet-many', { count: radii.length, edges: chosen.length }, 'radii');
      return undefined;
    },
    title: ({ to, radii }) =>
      radii ? 'Fillet, several radii' : valueOf(to) > 0 ? 'Fillet, growing' : 'Fillet',
    number: (step) => ({
      label: 'Radius',
      kind: 'length',
      value: step.radius,
      above: 0,
      with: (radius) => ({ ...step, radius }),
    }),
    make: {
      id: 'fillet',
      name: 'Fillet',
      about:
        'Rounds edges by a radius: clicked ones, or all that a rule names, whatever size the part has later.',
      words: ['round', 'edge', 'soften', 'radius', 'blend'],
      sentence: 'Fillet {edges} of {part} by {radius}[, growing to {to}][, each by its own: {radii}]',
    },
  },
);
