import { vectorOf } from '../../document/items.ts';
import { NO_TURN } from '../../space/pose.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { makePattern } from '../shared/repeating.ts';

/** The mirror image as a live copy: it follows its source. */
export const reflect = declareVerb({
  id: 'reflect',
  name: 'Repeat mirrored',
  group: 'repeat',
  about: 'The mirror image beside the source, as a live copy that follows it.',
  words: ['mirror', 'symmetry', 'symmetric', 'reflection', 'opposite hand'],
  blanks: {
    parts: needed('parts', 'parts', 'What is mirrored.', { least: 1 }),
    across: needed('direction', 'across', 'The axis that the plane is square to.', { default: 'x' }),
    at: optional('point', 'point', 'A point of the plane.'),
    face: optional('feature', 'face', 'A flat face that is the plane.', { catches: 'faces' }),
    as: optional('name', 'name', 'What the pair is called.', { rare: true }),
  },
  sentence: 'Repeat mirrored {parts} across {across}[ at {at}][, at the face {face}][ named {as}]',
  apply(draft, { parts, across, at, face, as }, context) {
    if (face && face.kind !== 'plane') return refuse('flat.face', {}, 'face');
    if (!face && !at) return refuse('missing.point-mirror', {}, 'at');
    const normal = face ? face.normal : worldDirection(across, NO_TURN);
    const point = face ? face.at : vectorOf(at!);
    return makePattern(
      draft,
      {
        parts,
        as,
        word: 'pair',
        layout: (inFrame) => ({
          kind: 'reflection',
          point: inFrame.point(point),
          normal: inFrame.direction(normal),
        }),
      },
      context,
    );
  },
});
