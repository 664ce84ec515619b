import { valueOf } from '../../document/items.ts';
import { aboutBlank, axisBlank, readAxis, throughBlank } from '../shared/axes.ts';
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
import { declareVerb, isRefusal, needed, refuse } from '../../statement/declare.ts';
import { frameOfProfiles, requireProfiles } from '../shared/drawing.ts';

export const HALVES = { whole: 'all of it', left: 'the half on the left', right: 'the half on the right' };

/** Regions of profiles, turned about a line of their plane. Away from the line they leave a bore. */
export const revolve = declareVerb({
  id: 'revolve',
  name: 'Revolve',
  group: 'draw',
  about: 'Turns half a cross-section about a line; away from the line it leaves a bore.',
  words: ['lathe', 'turn', 'spin', 'rotate', 'bore', 'bottle', 'ring', 'round'],
  blanks: {
    profiles: profilesBlank,
    regions: regionsBlank,
    axis: axisBlank,
    about: aboutBlank,
    through: throughBlank,
    angle: needed('angle', 'angle', 'How far round; 360° is a whole turn.', { default: '360' }),
    half: needed('choice', 'half', 'Which side of the line is turned, where the profile lies on both.', {
      default: 'whole',
      choices: HALVES,
      rare: true,
    }),
    ends: endsBlank,
    how: howBlank,
    into: intoBlank,
    as: asBlank,
  },
  sentence:
    'Revolve {profiles}[, {regions},] about {axis}[ {about}][ {through}] by {angle}[, {half}][, {ends}][, {how} {into}][ named {as}]',
  apply(draft, { profiles, regions, axis, about, through, angle, half, ends, how, into, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    const turn = Math.abs(valueOf(angle));
    if (!(turn > 0 && turn <= 360)) return refuse('angle', {}, 'angle');
    if (endsOf(ends) === 'open' && half !== 'whole') return refuse('half', {}, 'half');
    const line = readAxis(frameOfProfiles(draft, profiles), { axis, about, through });
    if (isRefusal(line)) return line;
    return addBody(
      draft,
      {
        name: as ?? 'Turned',
        base: {
          kind: 'revolve',
          profiles: [...profiles],
          regions: plainRegions(regions),
          axis: line,
          angle,
          half: half as keyof typeof HALVES,
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
