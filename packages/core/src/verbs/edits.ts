/** Changes of drawn profiles that are kept as steps: they follow when the figure changes, and can be taken out again. */
import { definitionOf, vectorOf, worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument, NumVector } from '../document/schema.ts';
import type { CurveStep } from '../recipes/steps/index.ts';
import { cornersOf, nearestCorner } from '../profiles/corners.ts';
import { drawnOf, pathsOf } from '../profiles/together.ts';
import { carryBack } from '../space/pose.ts';
import { declareVerb, needed, optional, refuse, type Outcome, type Refusal } from './declare.ts';
import { requireProfiles } from './drawing.ts';

const profileBlank = needed('part', 'profile', 'A drawn profile.');

/** Puts an edit after those that are there; refused where it cannot be made, or where one before it cannot. */
function addEdit(draft: KadrelDocument, id: ItemId, edit: CurveStep, blank: string): Outcome | Refusal {
  const item = draft.items[id]!;
  if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'profile');
  definitionOf(draft, item).recipe.steps.push(edit);
  const { fault, paths } = drawnOf(draft, id);
  if (fault) return refuse('edit', fault.message, blank);
  if (paths.length === 0) return refuse('edit', 'Nothing of the profile would be left.', blank);
  return { select: [id] };
}

const inProfile = (draft: KadrelDocument, id: ItemId, at: NumVector): [number, number] => {
  const [x, y] = carryBack(worldFromPart(draft, id), vectorOf(at));
  return [x, y];
};

/** The profiles that an edit asks for, without the edited one itself. */
const besides = (id: ItemId, others: readonly ItemId[] | undefined) =>
  (others ?? []).filter((other) => other !== id);

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
    if (near && !found) return refuse('no-corner', 'The profile has no corners.', 'profile');
    return addEdit(
      draft,
      profile,
      {
        kind: 'corner',
        where: near && found ? { near: [...found.at], between: [...found.between] } : 'all',
        how: how === 'bevel' ? 'bevel' : 'round',
        size,
      },
      'size',
    );
  },
});

export const trim = declareVerb({
  id: 'trim',
  name: 'Trim',
  group: 'draw',
  about: 'Takes out the piece of a profile that you point at, as far as other curves cross it.',
  words: ['cut', 'remove', 'clean', 'crossing'],
  blanks: {
    profile: profileBlank,
    at: needed('point', 'at', 'A point of the piece that goes.'),
    by: optional('parts', 'by', 'Profiles that cut it; without them only its own curves do.'),
  },
  sentence: 'Trim {profile} at {at}[ by {by}]',
  apply(draft, { profile, at, by }) {
    const fault = requireProfiles(draft, [profile, ...(by ?? [])], 'profile');
    if (fault) return fault;
    const near = inProfile(draft, profile, at);
    return addEdit(draft, profile, { kind: 'trim', near, profiles: besides(profile, by) }, 'at');
  },
});

export const extend = declareVerb({
  id: 'extend',
  name: 'Extend',
  group: 'draw',
  about: 'Lets the free end nearest to a point go on to the first curve that it meets.',
  words: ['lengthen', 'meet', 'reach', 'stretch'],
  blanks: {
    profile: profileBlank,
    at: needed('point', 'at', 'Near the free end.'),
    to: optional('parts', 'to', 'Profiles that it goes on to; without them only its own curves count.'),
  },
  sentence: 'Extend {profile} at {at}[ to {to}]',
  apply(draft, { profile, at, to }) {
    const fault = requireProfiles(draft, [profile, ...(to ?? [])], 'profile');
    if (fault) return fault;
    const near = inProfile(draft, profile, at);
    return addEdit(draft, profile, { kind: 'extend', near, profiles: besides(profile, to) }, 'to');
  },
});

export const split = declareVerb({
  id: 'split',
  name: 'Split profile',
  group: 'draw',
  about: 'Cuts a profile at the point of its curves that is nearest; a closed one opens there.',
  words: ['break', 'divide', 'open', 'cut'],
  blanks: { profile: profileBlank, at: needed('point', 'at', 'A point on it.') },
  sentence: 'Split profile {profile} at {at}',
  apply(draft, { profile, at }) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    return addEdit(draft, profile, { kind: 'split', near: inProfile(draft, profile, at) }, 'at');
  },
});

export const reverse = declareVerb({
  id: 'reverse',
  name: 'Reverse',
  group: 'draw',
  about: 'Lets profiles run the other way: their start becomes their end, their left their right.',
  words: ['direction', 'turn round', 'flip', 'backwards'],
  blanks: { profiles: needed('parts', 'profiles', 'Drawn profiles.', { least: 1 }) },
  sentence: 'Reverse {profiles}',
  apply(draft, { profiles }) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    for (const id of profiles) {
      const { steps } = definitionOf(draft, draft.items[id]!).recipe;
      // Twice round is not at all.
      if (steps.at(-1)?.kind === 'reverse') steps.pop();
      else {
        const done = addEdit(draft, id, { kind: 'reverse' }, 'profiles');
        if ('refused' in done) return done;
      }
    }
    return { select: profiles };
  },
});

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
    if (count === undefined && tolerance === undefined)
      return refuse('missing', 'Say how many points, or how far it may depart.', 'tolerance');
    if (count !== undefined && !(Number.isInteger(count) && count >= 2 && count <= 5000))
      return refuse('count', 'Points: a whole number from 2 to 5000.', 'count');
    for (const id of profiles) {
      const by = tolerance === undefined ? { count: count! } : { tolerance };
      const done = addEdit(
        draft,
        id,
        { kind: 'resample', by, as: drawn === 'lines' ? 'lines' : 'curve' },
        tolerance === undefined ? 'count' : 'tolerance',
      );
      if ('refused' in done) return done;
    }
    return { select: profiles };
  },
});
