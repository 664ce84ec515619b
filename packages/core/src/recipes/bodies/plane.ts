import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { valueOf } from '../numbers.ts';

/** The XY plane of the own frame, shown as a square sheet round its origin. */
export const plane = declareKind(
  'plane',
  {
    size: length('Sheet', 'How wide the sheet of a plane is shown.', {
      above: 0,
      blank: 'sheet',
      rare: true,
    }),
  },
  {
    words: 'a plane',
    inAWord: 'plane',
    box({ size }) {
      const half = valueOf(size) / 2;
      return { min: [-half, -half, 0], max: [half, half, 0] };
    },
  },
);
