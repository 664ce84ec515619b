import { length } from '../fields.ts';
import { valueOf, type Num } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** A surface becomes a body: as thick as said, before it and behind it; the sum of both is more than zero. */
export const thicken = declareStep(
  'thicken',
  {
    before: length('Before', '', { least: 0 }),
    behind: length('Behind', '', { least: 0 }),
  },
  {
    title: () => 'Thickened',
    number(step) {
      const [before, behind] = [valueOf(step.before), valueOf(step.behind)];
      const now = before + behind;
      const share = (part: Num, thickness: Num): Num =>
        valueOf(part) === 0 ? 0 : valueOf(part) === now ? thickness : valueOf(thickness) / 2;
      return {
        label: 'Thickness',
        kind: 'length',
        above: 0,
        value: before === 0 ? step.behind : behind === 0 ? step.before : now,
        with: (thickness) => ({
          ...step,
          before: share(step.before, thickness),
          behind: share(step.behind, thickness),
        }),
      };
    },
  },
);
