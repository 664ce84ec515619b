import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';

/** Its centre at the own origin. */
export const circle = declareKind(
  'circle',
  { diameter: length('Diameter', 'Across the circle.', { above: 0, half: 'radius' }) },
  { words: 'a circle' },
);
