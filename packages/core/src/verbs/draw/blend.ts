import { vectorOf, worldFromPart } from '../../document/items.ts';
import { curvatureAt, endOf, startOf, velocityAt, type Curve } from '../../curves/curve.ts';
import { pathsOnPlane } from '../../document/drawn.ts';
import { carryBack } from '../../space/pose.ts';
import { add2, distance2, left2, scale2, unit2, type Vec2 } from '../../space/vector2.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { drawPaths } from '../shared/outlines.ts';
import { frameOfProfiles, namedAs, requireProfiles } from '../shared/drawing.ts';

/** A free end: where it is, which way it goes on, and how it bends to the left there, 1/mm. */
interface End {
  readonly at: Vec2;
  readonly way: Vec2;
  readonly bend: number;
}

/** A smooth curve from the end of one profile to the end of another. */
export const blend = declareVerb({
  id: 'blend',
  name: 'Blend',
  group: 'draw',
  about: 'A smooth curve from a free end to another, going on as they end.',
  words: ['connect', 'smooth', 'bridge', 'tangent', 'curvature', 'continuous'],
  blanks: {
    profiles: needed('parts', 'profiles', 'One open profile or two, in one plane.', { least: 1 }),
    from: optional(
      'point',
      'from',
      'Near the end where it begins; without it the ends nearest to each other.',
    ),
    to: optional('point', 'to', 'Near the end where it ends.'),
    how: needed('choice', 'how', 'How smoothly it goes on from both.', {
      default: 'tangent',
      choices: { tangent: 'in their direction', curvature: 'in their direction and bend' },
    }),
    as: namedAs,
  },
  sentence: 'Blend {profiles}[ from {from}][ to {to}], {how}[ named {as}]',
  apply(draft, { profiles, from, to, how, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    const paths = pathsOnPlane(draft, profiles);
    if (!paths) return refuse('planes', {}, 'profiles');
    const ends = paths
      .filter(({ closed, curves }) => !closed && curves.length > 0)
      .flatMap(({ curves }) => [beginning(curves[0]!.curve), ending(curves.at(-1)!.curve)]);
    const plane = worldFromPart(draft, profiles[0]!);
    const near = [from, to].map((point): Vec2 | undefined => {
      if (!point) return undefined;
      const [x, y] = carryBack(plane, vectorOf(point));
      return [x, y];
    });
    const pair = chosenEnds(ends, near[0], near[1]);
    if (!pair) return refuse('ends', {}, 'profiles');
    const curve = blended(...pair, how);
    return drawPaths(draft, context, {
      name: as ?? 'Blend',
      paths: [{ closed: false, curves: [curve] }],
      plane: frameOfProfiles(draft, profiles),
    });
  },
});

const ending = (curve: Curve): End => ({
  at: endOf(curve),
  way: unit2(velocityAt(curve, 1)),
  bend: curvatureAt(curve, 1),
});
/** Seen from the start, the curve goes on backwards: what bends to the left bends to the right. */
const beginning = (curve: Curve): End => ({
  at: startOf(curve),
  way: scale2(unit2(velocityAt(curve, 0)), -1),
  bend: -curvatureAt(curve, 0),
});

function chosenEnds(ends: readonly End[], from?: Vec2, to?: Vec2): [End, End] | undefined {
  const off = (end: End, near: Vec2 | undefined) => (near ? distance2(end.at, near) : 0);
  const pairs = ends.flatMap((a, i) =>
    ends.flatMap((b, j) => (i === j || distance2(a.at, b.at) === 0 ? [] : [[a, b] as [End, End]])),
  );
  const cost = ([a, b]: [End, End]) => off(a, from) + off(b, to) + 1e-3 * distance2(a.at, b.at);
  return pairs.reduce<[End, End] | undefined>(
    (best, pair) => (!best || cost(pair) < cost(best) ? pair : best),
    undefined,
  );
}

/** Of the distance between the ends: how long the handles are. Common practice, no source. */
const HANDLE = 0.4;

/**
 * A Bézier curve of degree 3, or of degree 5 where it has to bend as the ends do.
 * Source: ends of a Bézier curve of degree n, e.g. Farin, Curves and Surfaces for CAGD: b′ = n·(p1 − p0), and the bend is
 * (n − 1)/n times the distance of p2 from the tangent over the square of that of p1 from p0; from memory.
 */
export function blended(a: End, b: End, how: string): Curve {
  const handle = HANDLE * distance2(a.at, b.at);
  if (how !== 'curvature') {
    const points = [a.at, add2(a.at, scale2(a.way, handle)), add2(b.at, scale2(b.way, handle)), b.at];
    return { kind: 'bezier', points };
  }
  const length = 0.6 * handle;
  const second = (end: End): Vec2 =>
    add2(
      add2(end.at, scale2(end.way, 2 * length)),
      scale2(left2(end.way), (end.bend * length * length * 5) / 4),
    );
  const first = (end: End): Vec2 => add2(end.at, scale2(end.way, length));
  return { kind: 'bezier', points: [a.at, first(a), second(a), second(b), first(b), b.at] };
}
