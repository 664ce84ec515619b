import { recipeFault } from '../declare.ts';
import { choice, count, counts, edges, places } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** More levels than this only make more faces: the form is within a hundredth of a percent of its limit before. */
const MAX_LEVEL = 4;
const MAX_SHARPNESS = 100;

/** A solid with flat faces is the cage of a smooth one. */
export const soften = declareStep(
  'soften',
  {
    level: count('Level', 'How often the cage is made finer first.', {
      least: 1,
      most: MAX_LEVEL,
      default: '1',
    }),
    form: choice(
      'Form',
      { smooth: 'smooth patches', facets: 'facets' },
      { about: 'An exact solid of smooth patches, or flat facets.', default: 'smooth' },
    ),
    sharp: edges(
      'Sharp edges',
      'Edges of the cage that stay sharp; the form is smooth on both sides of them.',
      {
        mayBeNone: true,
      },
    ).optional(),
    sharpness: count(
      'Sharpness',
      'Of the sharp edges, percent: 100 keeps them, less lets them go soft in part.',
      {
        least: 1,
        most: MAX_SHARPNESS,
        default: '100',
        absent: MAX_SHARPNESS,
        rare: true,
      },
    ).optional(),
    sharpnesses: counts(
      'Sharpness of each',
      'Percent, as many as sharp edges or rules were chosen, in their order; those after the last have the sharpness.',
      { least: 1, most: MAX_SHARPNESS, rare: true },
    ),
    corners: places(
      'Sharp corners',
      'Corners, edges and faces of the cage whose corners stay where they are.',
      {
        mayBeNone: true,
      },
    ).optional(),
  },
  {
    fault({ sharp = [], sharpnesses = [] }) {
      if (sharpnesses.length > sharp.length)
        return recipeFault(
          'recipe.soften-many',
          { count: sharpnesses.length, edges: sharp.length },
          'sharpnesses',
        );
      const isOut = (n: number) => !(n >= 1 && n <= MAX_SHARPNESS);
      return sharpnesses.map(valueOf).some(isOut)
        ? recipeFault('recipe.soften-percent', { most: MAX_SHARPNESS }, 'sharpnesses')
        : undefined;
    },
    title: ({ level, form, sharp = [], sharpness = MAX_SHARPNESS, sharpnesses, corners = [] }) =>
      [
        `Softened, level ${level}`,
        ...(form === 'facets' ? ['facets'] : []),
        ...(sharp.length + corners.length > 0 ? ['with creases'] : []),
        ...(sharpnesses ? ['several sharpnesses'] : []),
        ...(sharp.length > 0 && !sharpnesses && sharpness < MAX_SHARPNESS ? [`${sharpness} % sharp`] : []),
      ].join(', '),
    number: (step) => ({
      label: 'Level',
      kind: 'count',
      value: step.level,
      least: 1,
      most: MAX_LEVEL,
      whole: true,
      with: (level) => ({ ...step, level: typeof level === 'number' ? level : level.value }),
    }),
    make: {
      id: 'soften',
      name: 'Soften',
      about:
        'Makes the solid the cage of a smooth one, of exact patches or of facets; the cage stays editable in the steps before.',
      words: ['smooth', 'subdivide', 'subdivision', 'organic', 'round', 'cage', 'melt', 'crease'],
      sentence:
        'Soften {part} to level {level}[, {form}][, {sharp} sharp][ by {sharpness} %][, with corners {corners}][, each by its own: {sharpnesses} %]',
    },
  },
);
