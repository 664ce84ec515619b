import { addStep } from '../../document/halves.ts';
import { vectorOf, worldFromPart } from '../../document/items.ts';
import type { RecipeStep } from '../../recipes/steps/index.ts';
import { fieldOf } from '../../recipes/fields.ts';
import { push } from '../../recipes/steps/push.ts';
import { carryBack } from '../../space/pose.ts';
import { blankFor, recipeOf } from '../shared/makingVerb.ts';
import { solidToShape } from '../shared/shapingVerb.ts';
import { declareVerb, isRefusal, needed, optional, type Blank } from '../../statement/declare.ts';

const blankOf = (key: 'faces' | 'sides') => blankFor(fieldOf(push.schema.shape[key])!);

/** Faces of a solid move out of themselves, or in, by a distance or to a point. */
export const offsetFace = declareVerb({
  id: 'offset-face',
  handling: 'pulls',
  name: 'Offset face',
  group: 'shape',
  about:
    'Moves faces of a solid out, or in, by a distance or to where something else is; a round face changes its radius.',
  words: ['move face', 'extrude face', 'thicker', 'deeper', 'radius'],
  blanks: {
    faces: blankOf('faces') as Blank<'faces', false>,
    part: needed('part', 'part', 'The solid.'),
    by: needed(
      'length',
      'distance',
      'Out of the face, or beyond the point; less than zero is inward, or short of it.',
      {
        default: '0',
      },
    ),
    to: optional('point', 'to', 'A point that the face goes to: on another part, say.'),
    sides: blankOf('sides') as Blank<'choice', false>,
  },
  sentence: 'Offset face {faces} of {part}[ to {to}] by {by}[, {sides}]',
  apply(draft, { part, faces, by, to, sides }) {
    const solid = solidToShape(draft, part);
    if (isRefusal(solid)) return solid;
    const there = to && carryBack(worldFromPart(draft, part), vectorOf(to));
    const step = recipeOf(
      {
        kind: push.kind,
        schema: push.schema,
        fault: (step) => push.fault?.({ ...step, to: there } as never),
      },
      { faces, by, sides },
    );
    if (isRefusal(step)) return step;
    addStep(solid, { ...step, ...(there ? { to: [...there] } : {}) } as RecipeStep);
    return { select: [part] };
  },
});
