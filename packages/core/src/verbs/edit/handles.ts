import { definitionOf, valueOf, vectorOf, worldFromParent, worldFromPart } from '../../document/items.ts';
import { handlesOf, movedHandle, standsAsDrawn } from '../../profiles/handles.ts';
import { drawnOf } from '../../document/drawn.ts';
import { carryBack, turnBack, turnVector } from '../../space/pose.ts';
import { cleanLength } from '../../space/rounding.ts';
import { declareVerb, needed, refuse, refuseFor } from '../../statement/declare.ts';
import { figureFault, requireProfiles } from '../shared/drawing.ts';

/** Moves one of the points that a profile is drawn by. */
export const movePoint = declareVerb({
  id: 'point',
  handling: 'points',
  name: 'Move point',
  group: 'edit',
  about:
    'Moves a point of a drawn profile: an end of a leg, a corner, a radius; the others stay. Drag one, or say where.',
  words: ['edit', 'vertex', 'handle', 'drag', 'reshape', 'node'],
  blanks: {
    profile: needed('part', 'profile', 'A drawn profile.'),
    point: needed('count', 'point', 'Which one, counted from 1: of a traverse the start is the first.', {
      default: '1',
    }),
    to: needed('point', 'to', 'Where it goes.'),
  },
  sentence: 'Move point {point} of {profile} to {to}',
  apply(draft, { profile, point, to }) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    const item = draft.items[profile]!;
    if (item.locked) return refuse('locked', { name: item.name }, 'profile');
    const { recipe } = definitionOf(draft, item);
    if (recipe.base.kind !== 'profile') return refuse('no-profile.profile', { name: item.name }, 'profile');
    if (!standsAsDrawn(recipe.steps)) return refuse('resized', { name: item.name }, 'profile');
    const handles = handlesOf(recipe.base.figure);
    if (!(Number.isInteger(point) && point >= 1 && point <= handles.length))
      return handles.length === 0
        ? refuse('no-point.points-own', { name: item.name }, 'point')
        : refuse('no-point.points', { name: item.name, handles: handles.length }, 'point');
    const pose = worldFromPart(draft, profile);
    const [x, y] = carryBack(pose, vectorOf(to));
    const moved = movedHandle(recipe.base.figure, point - 1, [cleanLength(x), cleanLength(y)]);
    const wrong = moved && figureFault(moved.figure);
    if (!moved || wrong) return wrong ? refuseFor(wrong, 'to') : refuse('figure.no-size', {}, 'to');
    recipe.base.figure = moved.figure;
    const world = turnVector(pose.turn, [moved.shift[0], moved.shift[1], 0]);
    const shift = turnBack(worldFromParent(draft, profile).turn, world);
    item.placement.origin = item.placement.origin.map((n, i) =>
      shift[i] === 0 ? n : cleanLength(valueOf(n) + shift[i]!),
    ) as typeof item.placement.origin;
    const edits = drawnOf(draft, profile).fault;
    if (edits) return refuseFor(edits.why, 'to');
    return { select: [profile] };
  },
});
