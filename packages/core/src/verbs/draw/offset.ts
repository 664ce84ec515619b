import { valueOf, worldFromPart } from '../../document/items.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { namedAs, requireProfiles } from '../shared/drawing.ts';
import { drawPaths } from '../shared/outlines.ts';

/** An outline beside another, at a distance. */
export const offset = declareVerb({
  id: 'offset',
  name: 'Offset',
  group: 'draw',
  about:
    'An outline beside another at a distance: outward or inward, or on both sides, with round or square corners.',
  words: ['parallel', 'inset', 'outset', 'margin', 'border', 'clearance'],
  blanks: {
    profile: needed('part', 'outline', 'The profile that it lies beside.'),
    distance: needed(
      'length',
      'distance',
      'Outward; of an open one to the left. Less than zero is the other way.',
    ),
    both: needed('choice', 'sides', 'Whether it lies on both sides.', {
      default: 'no',
      choices: { no: 'on one side', yes: 'on both sides' },
    }),
    corners: needed('choice', 'corners', 'What becomes of its corners.', {
      default: 'square',
      choices: { square: 'square', round: 'round' },
    }),
    as: namedAs,
  },
  sentence: 'Offset {profile} by {distance}[, {both}], corners {corners}[ named {as}]',
  apply(draft, { profile, distance, both, corners, as }, context) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    const by = valueOf(distance);
    if (by === 0) return refuse('zero.distance', {}, 'distance');
    const ask = (mm: number) =>
      context.ask<'offset'>({
        ask: 'offset',
        profile,
        by: mm,
        corners: corners === 'round' ? 'round' : 'square',
      });
    const paths = both === 'yes' ? [...ask(by), ...ask(-by)] : ask(by);
    return drawPaths(draft, context, {
      name: as ?? `${draft.items[profile]!.name} offset`,
      paths,
      plane: worldFromPart(draft, profile),
    });
  },
});
