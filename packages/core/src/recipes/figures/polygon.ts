import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { acrossOf, sidesOf } from '../regular.ts';

/** Its centre at the own origin. */
export const polygon = declareKind(
  'polygon',
  {
    sides: sidesOf(),
    across: acrossOf(),
    size: length('Width', 'Across corners, across flats, or of one side.', { above: 0, blank: 'width' }),
  },
  { words: 'a polygon' },
);
