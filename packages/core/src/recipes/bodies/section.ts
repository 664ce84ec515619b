import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { choice, flag, length } from '../fields.ts';
import { idSchema } from '../ids.ts';

/** The views of the workshop, by what they are called. */
export const SECTION_VIEWS = ['plan', 'home', 'front', 'right'] as const;
export type SectionView = (typeof SECTION_VIEWS)[number];

/** More parts are not left whole one by one. */
const MAX_WHOLE = 2000;

const inView = (view: string) =>
  flag(
    `${view[0]!.toUpperCase()}${view.slice(1)} view`,
    { no: `not in the ${view} view`, yes: `in the ${view} view` },
    { about: `Whether it cuts in the ${view} view.`, absent: true, rare: true, says: `{${view}}` },
  ).optional();

/** The XY plane of the own frame cuts the model open; Z points to who looks at the cut. */
export const section = declareKind(
  'section',
  {
    shows: choice(
      'Shows',
      { behind: 'what lies behind it', before: 'what lies before it' },
      { about: 'The side that stays in sight.', default: 'behind' },
    ),
    form: choice(
      'Form',
      { half: 'all of that side', slab: 'a slab of it', corner: 'all but a quarter' },
      {
        about:
          'A slab ends at a depth. A quarter is what lies before the plane and to the right of its origin.',
        default: 'half',
      },
    ),
    depth: length('Depth', 'How thick a slab is.', { above: 0, default: '20 mm' }),
    fill: choice(
      'Cut faces',
      { hatched: 'hatched', plain: 'filled' },
      { about: 'How cut faces are drawn.', default: 'hatched', rare: true },
    ),
    spacing: length(
      'Hatch spacing',
      'Between the lines of the hatch, in the model; 0 keeps it alike on the screen.',
      {
        least: 0,
        default: '0',
        rare: true,
      },
    ),
    size: length('Sheet', 'How wide it is shown where it meets nothing. It cuts beyond that.', {
      above: 0,
      blank: 'sheet',
      default: '200 mm',
      rare: true,
    }),
    plan: inView('plan'),
    home: inView('home'),
    front: inView('front'),
    right: inView('right'),
    /** Items that it leaves whole. */
    whole: z.array(idSchema).max(MAX_WHOLE).optional(),
  },
  {
    words: 'a section plane',
    inAWord: 'section',
  },
);
