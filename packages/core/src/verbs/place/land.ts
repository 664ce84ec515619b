import { datumInWorld } from '../../document/datum.ts';
import { standingOf, valueOf } from '../../document/items.ts';
import { NO_TURN } from '../../space/pose.ts';
import { along as pointAlong, subtract } from '../../space/vector.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { FACINGS, turnToFace } from '../shared/landing.ts';
import { lockedRefusal, shiftPart, turnPart, withoutNested } from '../shared/placing.ts';

/** Puts the datum of every part onto the surface that it meets along a direction, each by itself. */
export const land = declareVerb({
  id: 'land',
  name: 'Land',
  group: 'place',
  about:
    'Each part with its datum on the surface under itself, along an axis or the view; turned to face out of it.',
  words: ['project', 'drop', 'onto the surface', 'face outward', 'scatter', 'stick on'],
  blanks: {
    parts: needed('parts', 'parts', 'What lands.', { least: 1 }),
    along: needed('direction', 'along', 'The way down to the surface.', { default: '-z' }),
    facing: needed('choice', 'facing', 'Which of its own axes turns to point out of the surface.', {
      default: 'as-is',
      choices: FACINGS,
    }),
    gap: optional('length', 'gap', 'How far off the surface the datum stays.'),
  },
  sentence: 'Land {parts} along {along}[, turning {facing} outward][, {gap} off]',
  apply(draft, { parts, along, facing, gap }, context) {
    const chosen = withoutNested(draft, parts);
    const locked = lockedRefusal(draft, chosen);
    if (locked) return locked;
    const direction = worldDirection(along, NO_TURN);
    const without = standingOf(draft, chosen);
    for (const id of chosen) {
      const part = draft.items[id]!;
      const datum = datumInWorld(draft, part, (one) => context.boxOf(one));
      if (!datum) return refuse('no-box.parts', { name: part.name }, 'parts');
      const met = context.firstSurface(datum, direction, without);
      if (!met) return refuse('nothing-there.along', { name: part.name }, 'along');
      const place = pointAlong(met.point, met.normal, gap === undefined ? 0 : valueOf(gap));
      shiftPart(draft, part, subtract(place, datum));
      const turn = turnToFace(draft, id, { facing, normal: met.normal });
      if (turn) turnPart(draft, part, { turn, about: place });
    }
    return { select: parts };
  },
});
