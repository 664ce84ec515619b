import { valueOf, worldFromPart } from '../../document/items.ts';
import type { DrawnPath } from '../../curves/curve.ts';
import { endOf, line, startOf, type Curve } from '../../curves/curve.ts';
import { pathArea } from '../../profiles/outline.ts';
import { parallelPath } from '../../profiles/parallel.ts';
import { pathsOf } from '../../document/drawn.ts';
import { distance2 } from '../../space/vector2.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { namedAs, requireProfiles } from '../shared/drawing.ts';
import { drawPaths, turned } from '../shared/outlines.ts';

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
    if (!path || others.length > 0) return refuse('pieces', {}, 'profile');
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
