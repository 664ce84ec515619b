/** Profiles from others and from solids: parallels, outlines cut by a plane, and curves put end to end. */
import { definitionOf, isFlatPart, valueOf, worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import type { DrawnPath } from '../formats/drawing.ts';
import { endOf, line, reversed, startOf, type Curve } from '../profiles/curve.ts';
import type { FigureOf } from '../recipes/figures/index.ts';
import { pathArea } from '../profiles/outline.ts';
import { parallelPath } from '../profiles/parallel.ts';
import { pathsOf, pathsOnPlane } from '../profiles/together.ts';
import type { Pose } from '../space/pose.ts';
import { distance2 } from '../space/vector2.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Outcome,
  type Refusal,
  type VerbContext,
} from './declare.ts';
import { drawFigure, frameOfProfiles, namedAs, onPlane, requireProfiles } from './drawing.ts';

type Paths = FigureOf<'paths'>['paths'];

/** A profile of curves on a plane. */
export function drawPaths(
  draft: KadrelDocument,
  context: VerbContext,
  { name, paths, plane }: { name: string; paths: readonly DrawnPath[]; plane: Pose },
): Outcome | Refusal {
  // Plain copies: what the kernel answered is shared.
  const plain = JSON.parse(JSON.stringify(paths)) as Paths;
  return drawFigure(draft, context, { name, figure: { kind: 'paths', paths: plain }, plane, at: [0, 0] });
}

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
    if (by === 0) return refuse('zero', 'The distance is not zero.', 'distance');
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

/** The outline of a wall along a profile: both its sides, and square ends where it is open. */
export const wallOutline = declareVerb({
  id: 'band',
  name: 'Wall outline',
  group: 'draw',
  about:
    'The outline of a wall along a profile: as thick as you say, left, right or centred, with square ends.',
  words: ['offset', 'parallel', 'thickness', 'thicken', 'double line', 'strip', 'path'],
  blanks: {
    profile: needed('part', 'profile', 'A profile in one piece, open or closed.'),
    thickness: needed('length', 'thickness', 'Square to the profile.', { positive: true }),
    side: needed('choice', 'side', 'Where it lies, seen along the profile.', {
      default: 'centred',
      choices: { left: 'on the left', right: 'on the right', centred: 'centred' },
    }),
    as: namedAs,
  },
  sentence: 'Wall outline of {profile}, {thickness} thick, {side}[ named {as}]',
  apply(draft, { profile, thickness, side, as }, context) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    const [path, ...others] = pathsOf(draft, profile);
    if (!path || others.length > 0)
      return refuse('pieces', 'A wall lies along a profile in one piece.', 'profile');
    const wide = valueOf(thickness);
    const [left, right] = side === 'left' ? [wide, 0] : side === 'right' ? [0, -wide] : [wide / 2, -wide / 2];
    const beside = (by: number): readonly DrawnPath[] => {
      const exact = by === 0 ? path : parallelPath(path, by);
      if (exact) return [{ closed: exact.closed, curves: exact.curves.map(({ curve }) => curve) }];
      // The kernel counts outward of closed outlines, and to the left of open ones.
      const out = path.closed && pathArea(path) > 0 ? -by : by;
      return context.ask<'offset'>({ ask: 'offset', profile, by: out, corners: 'square' });
    };
    const [a, b] = [beside(left), beside(right)];
    const paths = path.closed ? [...a, ...b] : [ringOf(a[0]!.curves, b[0]!.curves)];
    return drawPaths(draft, context, {
      name: as ?? `${draft.items[profile]!.name} wall`,
      paths,
      plane: worldFromPart(draft, profile),
    });
  },
});

/** Along one side, across its end, back along the other, and across the start. */
function ringOf(left: readonly Curve[], right: readonly Curve[]): DrawnPath {
  const isSameWay =
    distance2(startOf(left[0]!), startOf(right[0]!)) <= distance2(startOf(left[0]!), endOf(right.at(-1)!));
  const back = isSameWay ? turned(right) : right;
  const across = (from: Curve, to: Curve) => line(endOf(from), startOf(to));
  return {
    closed: true,
    curves: [...left, across(left.at(-1)!, back[0]!), ...back, across(back.at(-1)!, left[0]!)],
  };
}

/** Where a plane cuts a part, as a profile; on a face of it the outline of the face. */
export const outline = declareVerb({
  id: 'outline',
  name: 'Outline of',
  group: 'draw',
  about: 'The outline of a part as a profile: where a plane cuts it, of a flat face, or its silhouette.',
  words: ['section', 'cut', 'trace', 'face', 'edges', 'project', 'convert', 'silhouette', 'shadow'],
  blanks: {
    part: needed('part', 'part', 'A solid.'),
    how: needed(
      'choice',
      'what',
      'Where the plane cuts it, its whole shadow on the plane, or its face there.',
      {
        default: 'cut',
        choices: {
          cut: 'where the plane cuts it',
          shadow: 'its silhouette',
          face: 'the edges of its face there',
        },
      },
    ),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Outline of {part}[, {how}] on {on}[ named {as}]',
  apply(draft, { part, how, on, as }, context) {
    if (isFlatPart(draft, draft.items[part]!))
      return refuse('flat', `${draft.items[part]!.name} is no solid.`, 'part');
    if (how === 'face' && on.face === undefined)
      return refuse('face', 'Pick a flat face of the part as the plane.', 'on');
    const { turn, shift, face } = on;
    const paths = context.ask<'cut'>({
      ask: 'cut',
      part,
      plane: { turn, shift },
      how: how === 'face' ? { face: face! } : how === 'shadow' ? 'shadow' : 'cut',
    });
    return drawPaths(draft, context, {
      name: as ?? `Outline of ${draft.items[part]!.name}`,
      paths,
      plane: on,
    });
  },
});

/** Profiles put end to end across gaps up to a size. */
export const join = declareVerb({
  id: 'join',
  name: 'Join ends',
  group: 'draw',
  about: 'Puts profiles of one plane end to end into one; gaps up to a size are closed by straight lines.',
  words: ['close', 'gap', 'connect', 'merge', 'weld', 'polyline'],
  blanks: {
    profiles: needed('parts', 'profiles', 'What is joined; the first gives its name and its plane.', {
      least: 1,
    }),
    gap: needed('length', 'gap', 'Ends nearer than this are joined.', { default: '0.1 mm' }),
    keep: needed('choice', 'profiles', 'What becomes of the ones it is made from.', {
      default: 'hide',
      choices: { hide: 'hidden', show: 'kept in sight' },
    }),
    as: optional('name', 'name', 'What the joined profile is called.'),
  },
  sentence: 'Join ends of {profiles} across gaps up to {gap}[, the old ones {keep}][ named {as}]',
  apply(draft, { profiles, gap, keep, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    if (valueOf(gap) < 0) return refuse('negative', 'A gap is 0 or more.', 'gap');
    const found = pathsOnPlane(draft, profiles);
    if (!found) return refuse('planes', 'These profiles do not lie in one plane.', 'profiles');
    const drawn = found.map(({ closed, curves }) => ({ closed, curves: curves.map(({ curve }) => curve) }));
    const paths = joinedAcross(drawn, valueOf(gap));
    const plane = frameOfProfiles(draft, profiles);
    const name = as ?? `${draft.items[profiles[0]!]!.name} joined`;
    if (keep === 'hide') hide(draft, profiles);
    return drawPaths(draft, context, { name, paths, plane });
  },
});

function hide(draft: KadrelDocument, ids: readonly ItemId[]): void {
  for (const id of ids) {
    const { base } = definitionOf(draft, draft.items[id]!).recipe;
    if (base.kind === 'profile') draft.items[id]!.visible = false;
  }
}

/** Open chains put end to end, the nearest ends first; a chain whose own ends are near enough is closed. */
export function joinedAcross(paths: readonly DrawnPath[], gap: number): DrawnPath[] {
  const closed = paths.filter((path) => path.closed);
  let open = paths.filter((path) => !path.closed).map(({ curves }) => [...curves]);
  for (;;) {
    let best: { a: number; b: number; turnA: boolean; turnB: boolean; size: number } | undefined;
    for (let a = 0; a < open.length; a++)
      for (let b = a + 1; b < open.length; b++)
        for (const turnA of [false, true])
          for (const turnB of [false, true]) {
            const size = distance2(
              turnA ? startOf(open[a]![0]!) : endOf(open[a]!.at(-1)!),
              turnB ? endOf(open[b]!.at(-1)!) : startOf(open[b]![0]!),
            );
            if (size <= gap && (!best || size < best.size)) best = { a, b, turnA, turnB, size };
          }
    if (!best) break;
    const { a, b } = best;
    const head = best.turnA ? turned(open[a]!) : open[a]!;
    const tail = best.turnB ? turned(open[b]!) : open[b]!;
    open = [...open.filter((_, i) => i !== a && i !== b), bridged(head, tail)];
  }
  const chains = open.map((curves): DrawnPath => {
    const [from, to] = [endOf(curves.at(-1)!), startOf(curves[0]!)];
    const size = distance2(from, to);
    if (size > gap || curves.length < 2) return { closed: false, curves };
    return { closed: true, curves: size > 0 ? [...curves, line(from, to)] : curves };
  });
  return [...closed, ...chains];
}

const turned = (curves: readonly Curve[]): Curve[] => [...curves].reverse().map(reversed);

function bridged(head: readonly Curve[], tail: readonly Curve[]): Curve[] {
  const [from, to] = [endOf(head.at(-1)!), startOf(tail[0]!)];
  return distance2(from, to) > 0 ? [...head, line(from, to), ...tail] : [...head, ...tail];
}
