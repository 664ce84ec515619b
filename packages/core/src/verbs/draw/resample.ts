import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';
import { addEdit } from '../shared/curveSteps.ts';

export const resample = declareVerb({
  id: 'resample',
  name: 'Resample',
  group: 'draw',
  about: 'Draws a profile anew through so many points, or through as few as keep within a tolerance.',
  words: ['simplify', 'reduce', 'points', 'smooth', 'rebuild', 'tolerance'],
  blanks: {
    profiles: needed('parts', 'profiles', 'Drawn profiles.', { least: 1 }),
    count: optional('count', 'points', 'How many, along all of it.', { excludes: 'tolerance' }),
    tolerance: optional('length', 'tolerance', 'How far it may depart from what it was.', {
      positive: true,
      excludes: 'count',
    }),
    drawn: needed('choice', 'as', 'What is drawn through the points.', {
      default: 'curve',
      choices: { curve: 'smooth curves', lines: 'straight lines' },
    }),
  },
  sentence: 'Resample {profiles}[ to {count} points][ within {tolerance}] as {drawn}',
  apply(draft, { profiles, count, tolerance, drawn }) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    if (count === undefined && tolerance === undefined) return refuse('missing.tolerance', {}, 'tolerance');
    if (count !== undefined && !(Number.isInteger(count) && count >= 2 && count <= 5000))
      return refuse('count.points', {}, 'count');
    for (const id of profiles) {
      const by = tolerance === undefined ? { count: count! } : { tolerance };
      const done = addEdit(draft, id, {
        edit: { kind: 'resample', by, as: drawn === 'lines' ? 'lines' : 'curve' },
        blank: tolerance === undefined ? 'count' : 'tolerance',
      });
      if ('refused' in done) return done;
    }
    return { select: profiles };
  },
});
