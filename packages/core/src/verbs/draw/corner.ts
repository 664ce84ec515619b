import { cornersOf, nearestCorner } from '../../profiles/corners.ts';
import { pathsOf } from '../../document/drawn.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { profileBlank, addEdit, inProfile } from '../shared/curveSteps.ts';

export const corner = declareVerb({
  id: 'corner',
  name: 'Corner',
  group: 'draw',
  about: 'Rounds a corner of a profile by a radius, or cuts it off: the one you pick, or all of them.',
  words: ['fillet', 'chamfer', 'round', 'bevel', 'radius', 'blunt'],
  blanks: {
    profile: profileBlank,
    at: optional('point', 'at', 'The corner, or a point near it; without one all corners.'),
    how: needed('choice', 'how', 'Rounded, or cut off straight.', {
      default: 'round',
      choices: { round: 'fillet', bevel: 'chamfer' },
    }),
    size: needed('length', 'size', 'The radius, or how far from the corner it is cut off.', {
      positive: true,
    }),
  },
  sentence: 'Corner of {profile}[ at {at}], {how} by {size}',
  apply(draft, { profile, at, how, size }) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    const near = at && inProfile(draft, profile, at);
    const found = near && nearestCorner(cornersOf(pathsOf(draft, profile)), near);
    if (near && !found) return refuse('no-corner', {}, 'profile');
    return addEdit(draft, profile, {
      edit: {
        kind: 'corner',
        where: near && found ? { near: [...found.at], between: [...found.between] } : 'all',
        how: how === 'bevel' ? 'bevel' : 'round',
        size,
      },
      blank: 'size',
    });
  },
});
