import { valueOf } from '../../document/items.ts';
import { carryBack, turnBack } from '../../space/pose.ts';
import {
  addBody,
  asBlank,
  endsBlank,
  endsOf,
  howBlank,
  intoBlank,
  plainRegions,
  profilesBlank,
  regionsBlank,
} from '../shared/bodies.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { frameOfProfiles, requireProfiles } from '../shared/drawing.ts';

/** A face that leans by more than this (sine) is not level with the plane. */
const LEVEL_SINE = 1e-9;

/** Regions of profiles, pulled square out of their plane. */
export const raise = declareVerb({
  id: 'raise',
  name: 'Raise',
  group: 'draw',
  about: 'Pulls the region that you click in out of its plane: up, down, both ways, or to a face.',
  words: ['extrude', 'pull', 'push', 'height', 'solid', 'pad', 'wall'],
  blanks: {
    profiles: profilesBlank,
    regions: regionsBlank,
    height: optional('length', 'height', 'Out of the plane; less than zero goes the other way.', {
      excludes: 'to',
    }),
    to: optional('feature', 'up to', 'A flat face, level with the plane.', {
      excludes: 'height',
      catches: 'faces',
      rare: true,
    }),
    down: needed('length', 'below', 'How far it also goes the other way.', { default: '0', rare: true }),
    draft: needed('angle', 'draft', 'How far the sides lean inward from the plane.', {
      default: '0',
      rare: true,
    }),
    ends: endsBlank,
    how: howBlank,
    into: intoBlank,
    as: asBlank,
  },
  sentence:
    'Raise {profiles}[, {regions},] by {height}[ up to {to}][, {down} below][, draft {draft}][, {ends}][, {how} {into}][ named {as}]',
  apply(document, { profiles, regions, height, to, down, draft, ends, how, into, as }, context) {
    const fault = requireProfiles(document, profiles, 'profiles');
    if (fault) return fault;
    let up = height;
    if (to) {
      const plane = frameOfProfiles(document, profiles);
      if (to.kind !== 'plane') return refuse('face.flat-raised', {}, 'to');
      const normal = turnBack(plane.turn, to.normal);
      if (Math.hypot(normal[0], normal[1]) > LEVEL_SINE) return refuse('face.level', {}, 'to');
      up = carryBack(plane, to.at)[2];
    }
    if (up === undefined) return refuse('missing.how-high', {}, 'height');
    const isBelow = valueOf(up) < 0;
    if (valueOf(down) < 0) return refuse('negative.down', {}, 'down');
    if (ends === 'open' && how !== 'new') return refuse('surface.ends', {}, 'ends');
    return addBody(
      document,
      {
        name: as ?? 'Raised',
        base: {
          kind: 'raise',
          profiles: [...profiles],
          regions: plainRegions(regions),
          height: isBelow ? 0 : up,
          down: isBelow ? Math.max(-valueOf(up), valueOf(down)) : down,
          draft,
          ends: endsOf(ends),
        },
        profiles,
        how,
        into,
      },
      context,
    );
  },
});
