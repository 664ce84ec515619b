import type { BodyOf } from '../../recipes/bodies/index.ts';
import { worldFromPart } from '../../document/items.ts';
import { NO_TURN, turnBack } from '../../space/pose.ts';
import { addBody, asBlank, endsBlank, endsOf } from '../shared/bodies.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { requireProfiles } from '../shared/drawing.ts';

/** A section carried along a path: square to it, its Y out of the plane of the path or always upright. */
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
    up: optional(
      'direction',
      'upright',
      'Where the Y of the section points all along; else out of the plane.',
      {
        rare: true,
      },
    ),
    twist: needed('angle', 'twist', 'Of the section from the start to the end of the path.', {
      default: '0',
      rare: true,
    }),
    scale: needed('count', 'end size', 'How many times as large it is at the end of the path.', {
      default: '1',
      kind: 'number',
      rare: true,
    }),
    ends: endsBlank,
    as: asBlank,
  },
  sentence:
    'Sweep {section} along {path}[, corners {corners}][, upright along {up}][, twisted {twist}][, its end {scale} times as large][, {ends}][ named {as}]',
  apply(draft, { section, path, corners, up, twist, scale, ends, as }, context) {
    const fault = requireProfiles(draft, [section], 'section') ?? requireProfiles(draft, [path], 'path');
    if (fault) return fault;
    if (!(scale > 0 && Number.isFinite(scale))) return refuse('not-positive.scale', {}, 'scale');
    const base: BodyOf<'sweep'> = {
      kind: 'sweep',
      profiles: [path, section],
      corners: corners === 'round' ? 'round' : 'square',
      up: up ? [...turnBack(worldFromPart(draft, path).turn, worldDirection(up, NO_TURN))] : 'plane',
      twist,
      scale,
      ends: endsOf(ends),
    };
    return addBody(
      draft,
      {
        name: as ?? 'Swept',
        base,
        profiles: [path],
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});
