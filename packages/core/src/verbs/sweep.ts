import { addBody, asBlank } from './bodies.ts';
import { declareVerb, needed } from './declare.ts';
import { requireProfiles } from './drawing.ts';

/** A section carried along a path, upright on the plane of the path. */
export const sweep = declareVerb({
  id: 'sweep',
  name: 'Sweep',
  group: 'draw',
  about: 'Carries a section along a path; its datum runs on the path, its Y stays upright.',
  words: ['pipe', 'follow', 'rail', 'track', 'moulding', 'gutter', 'profile', 'along'],
  blanks: {
    section: needed('part', 'section', 'A closed profile; its datum runs on the path.'),
    path: needed('part', 'path', 'A profile in one piece.'),
    corners: needed('choice', 'corners', 'How it goes round the corners of the path.', {
      default: 'square',
      choices: { square: 'square', round: 'round' },
    }),
    as: asBlank,
  },
  sentence: 'Sweep {section} along {path}[, corners {corners}][ named {as}]',
  apply(draft, { section, path, corners, as }, context) {
    const fault = requireProfiles(draft, [section], 'section') ?? requireProfiles(draft, [path], 'path');
    if (fault) return fault;
    return addBody(
      draft,
      {
        name: as ?? 'Swept',
        base: { kind: 'sweep', profiles: [path, section], corners: corners === 'round' ? 'round' : 'square' },
        profiles: [path],
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});
