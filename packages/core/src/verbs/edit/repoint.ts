import { valueOf } from '../../document/items.ts';
import type { Num } from '../../document/schema.ts';
import { cleanLength } from '../../space/rounding.ts';
import { declareVerb, isRefusal, needed, optional, refuse, refuseFor } from '../../statement/declare.ts';
import { figureFault } from '../shared/drawing.ts';
import { baseOf } from '../shared/tables.ts';

/** Other points for a curve that is there. */
export const repoint = declareVerb({
  id: 'repoint',
  name: 'Change points',
  group: 'edit',
  about: 'Gives a curve other points, in its own plane; what is made from it follows.',
  words: ['curve', 'spline', 'points', 'edit', 'table', 'coordinates'],
  blanks: {
    profile: needed('part', 'curve', 'Which one.'),
    points: optional('rows', 'points', 'All of them, as they are to be.', {
      columns: {
        x: { label: 'X', kind: 'length', needed: true },
        y: { label: 'Y', kind: 'length', needed: true },
      },
    }),
    how: optional('choice', 'how', 'Whether it goes through the points.', {
      choices: { through: 'through the points', control: 'drawn towards the points' },
    }),
    closed: optional('choice', 'end', 'Whether it comes back to its start.', {
      choices: { no: 'open', yes: 'closed' },
    }),
  },
  sentence: 'Change points of {profile}[ to {points}][, {how}][, {closed}]',
  apply(draft, { profile, points, how, closed }) {
    const base = baseOf(draft, profile, { kind: 'profile', words: 'profile', blank: 'profile' });
    if (isRefusal(base)) return base;
    if (base.kind !== 'profile' || base.figure.kind !== 'curve')
      return refuse('no-curve', { name: draft.items[profile]!.name }, 'profile');
    const { figure } = base;
    if (points)
      figure.points = points.map(({ x, y }) => [
        cleanLength(valueOf(x as Num)),
        cleanLength(valueOf(y as Num)),
      ]);
    if (how) figure.how = how === 'control' ? 'control' : 'through';
    if (closed) figure.closed = closed === 'yes';
    const min = figure.closed ? 3 : 2;
    if (figure.points.length < min) return refuse('too-few.points', { least: min }, 'points');
    const fault = figureFault(figure);
    return fault ? refuseFor(fault, 'points') : { select: [profile] };
  },
});
