import { length } from '../fields.ts';
import { idSchema } from '../ids.ts';
import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** A surface goes on in another one, where their rims are no farther apart than a gap. The other one stays as it is. */
export const joined = declareStep(
  'joined',
  {
    tool: idSchema,
    /** Where the other surface stands in this one’s own frame: mm, and degrees about X, then Y, then Z. */
    frame: frameSchema(),
    gap: length('Gap', 'Rims no farther apart than this become one edge.', { above: 0 }),
  },
  {
    title: (_, names) => `Joined with ${names}`,
    number: (step) => ({
      label: 'Gap',
      kind: 'length',
      above: 0,
      value: step.gap,
      with: (gap) => ({ ...step, gap }),
    }),
  },
);
