import { z } from 'zod';
import { choice, length, places } from '../fields.ts';
import { declareStep } from './declare.ts';

/** Corners of a solid with flat faces stand elsewhere. */
export const reshape = declareStep(
  'reshape',
  {
    places: places('Places', 'Faces, edges and corners that move.'),
    /** In the part's own frame, mm. */
    by: z.tuple([length('Move X'), length('Move Y'), length('Move Z')]),
    folds: choice(
      'Faces',
      {
        beside: 'faces fold beside the corner',
        through: 'faces fold through the corner',
        warp: 'faces warp',
      },
      { about: 'What becomes of faces that would no longer be flat.', default: 'beside' },
    ),
  },
  {
    title: ({ places: chosen }) => `Reshaped, ${chosen.length === 1 ? '1 place' : `${chosen.length} places`}`,
  },
);
