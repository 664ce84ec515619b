import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';

/** Its centre at the own origin. */
export const ellipse = declareKind(
  'ellipse',
  {
    width: length('Width', 'Along the X of the plane.', { above: 0 }),
    height: length('Height', 'Along the Y of the plane.', { above: 0 }),
  },
  { words: 'an ellipse', inAWord: 'ellipse' },
);
