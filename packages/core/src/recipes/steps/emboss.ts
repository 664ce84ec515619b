import { z } from 'zod';
import { profilesSchema, regionsSchema } from '../bodies/regions.ts';
import { length } from '../fields.ts';
import { finite, valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** Regions of profiles, laid on a solid: raised out of it, cut into it, or only marked on it. */
export const emboss = declareStep(
  'emboss',
  {
    profiles: profilesSchema,
    regions: regionsSchema,
    /** Where the plane of the profiles stands in the part's own frame: mm, and degrees about X, then Y, then Z. */
    frame: frameSchema(),
    /** The way on which they are laid on it, in that frame, Z being 1; 0, 0 is square to their plane. */
    slant: z.tuple([finite, finite]).optional(),
    /** Out of the surface; less than zero is into it, and 0 only marks the outline. */
    depth: length('Depth', 'Out of the surface.'),
  },
  {
    title({ depth }, names) {
      const out = valueOf(depth);
      return `${names}, ${out === 0 ? 'marked' : out > 0 ? 'embossed' : 'engraved'}`;
    },
    number: (step) => ({
      label: 'Depth',
      kind: 'length',
      value: step.depth,
      with: (depth) => ({ ...step, depth }),
    }),
  },
);
