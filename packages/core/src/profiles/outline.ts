/** Figures → outlines: named curves end to end, in the profile's own plane. */
import { valueOf } from '../recipes/numbers.ts';
import { prismCorners } from '../recipes/regular.ts';
import { distance2, type Affine2, type Vec2 } from '../space/vector2.ts';
import {
  SAME_POINT_MM,
  carryCurve,
  circle,
  curveLength,
  endOf,
  line,
  startOf,
  type Curve,
} from '../curves/curve.ts';
import { areaBelow, boxOfCurves, flattened, type Box2 } from '../curves/flattened.ts';
import type { Figure, FigureOf } from '../recipes/figures/index.ts';
import { throughPoints, towardsPoints } from '../curves/splines.ts';
import { textPaths } from './text.ts';
import type { NamedCurve, Path } from './path.ts';
import { traverseOf, arcOnChord } from './traverse.ts';

export type { NamedCurve, Path } from './path.ts';

/** The curves of a figure, in its own plane. */
export function outlineOf(figure: Figure): Path[] {
  switch (figure.kind) {
    case 'traverse': {
      const { closed, curves } = traverseOf(figure);
      return [{ closed, curves }];
    }
    case 'rectangle':
      return [{ closed: true, curves: rectangleCurves(figure) }];
    case 'circle':
      return [
        { closed: true, curves: [{ name: 'round', curve: circle([0, 0], valueOf(figure.diameter) / 2) }] },
      ];
    case 'ellipse':
      return [{ closed: true, curves: [{ name: 'round', curve: ellipseCurve(figure) }] }];
    case 'polygon': {
      const corners = prismCorners(figure);
      return [{ closed: true, curves: polygonCurves(corners, (i) => `side${i + 1}`) }];
    }
    case 'arc':
      return [arcPath(figure)];
    case 'curve': {
      const make = figure.how === 'through' ? throughPoints : towardsPoints;
      const curves = make(figure).map((curve) => ({ name: 'curve', curve }));
      return [{ closed: figure.closed, curves }];
    }
    case 'text':
      return textPaths(figure).map((path, i) => named(path, `letter${i + 1}`));
    case 'paths':
      return figure.paths.map((path, i) => named(path, `path${i + 1}`));
  }
}

const named = ({ closed, curves }: { closed: boolean; curves: readonly Curve[] }, stem: string): Path => ({
  closed,
  curves: curves.map((curve, i) => ({ name: curves.length === 1 ? stem : `${stem}c${i + 1}`, curve })),
});

/** Straight curves from corner to corner, and back to the first. */
export const polygonCurves = (corners: readonly Vec2[], name: (i: number) => string): NamedCurve[] =>
  corners.map((from, i) => ({ name: name(i), curve: line(from, corners[(i + 1) % corners.length]!) }));

function rectangleCurves({ width, height, round, centred }: FigureOf<'rectangle'>): NamedCurve[] {
  const [w, h, r] = [valueOf(width), valueOf(height), valueOf(round)];
  const curves = cornerRectangle(w, h, r);
  if (!centred) return curves;
  const shifted: Affine2 = { x: [1, 0], y: [0, 1], shift: [-w / 2, -h / 2] };
  return curves.map(({ name, curve }) => ({ name, curve: carryCurve(shifted, curve) }));
}

function cornerRectangle(w: number, h: number, r: number): NamedCurve[] {
  const SIDES = ['front', 'right', 'back', 'left'] as const;
  if (r === 0)
    return polygonCurves(
      [
        [0, 0],
        [w, 0],
        [w, h],
        [0, h],
      ],
      (i) => SIDES[i]!,
    );
  const ends: readonly (readonly [Vec2, Vec2])[] = [
    [
      [r, 0],
      [w - r, 0],
    ],
    [
      [w, r],
      [w, h - r],
    ],
    [
      [w - r, h],
      [r, h],
    ],
    [
      [0, h - r],
      [0, r],
    ],
  ];
  return ends.flatMap(([from, to], i) => [
    ...(distance2(from, to) > SAME_POINT_MM ? [{ name: SIDES[i]!, curve: line(from, to) }] : []),
    { name: `corner${i + 1}`, curve: arcOnChord(to, ends[(i + 1) % 4]![0], 90) },
  ]);
}

function ellipseCurve({ width, height }: FigureOf<'ellipse'>): Curve {
  const [a, b] = [valueOf(width) / 2, valueOf(height) / 2];
  if (a === b) return circle([0, 0], a);
  const [x, y]: [Vec2, Vec2] =
    a > b
      ? [
          [a, 0],
          [0, b],
        ]
      : [
          [0, b],
          [-a, 0],
        ];
  return { kind: 'ellipse', centre: [0, 0], x, y, first: 0, sweep: 360 };
}

function arcPath({ radius, first, sweep }: FigureOf<'arc'>): Path {
  const turn = valueOf(sweep);
  const curve: Curve = {
    kind: 'arc',
    centre: [0, 0],
    radius: valueOf(radius),
    first: valueOf(first),
    sweep: turn,
  };
  return { closed: Math.abs(turn) === 360, curves: [{ name: 'arc', curve }] };
}

/** The box round a figure, in the profile's frame; undefined when it has no curves. */
export const boxOfFigure = (figure: Figure): Box2 | undefined =>
  boxOfCurves(outlineOf(figure).flatMap(({ curves }) => curves.map(({ curve }) => curve)));

/** Signed area of a closed path, mm²: positive when it runs counter-clockwise. Source: Green's theorem. */
export const pathArea = ({ curves }: Path): number =>
  curves.reduce((sum, { curve }) => sum + areaBelow(curve), 0);

/** The length of a path, mm. */
export const pathLength = ({ curves }: Path): number =>
  curves.reduce((sum, { curve }) => sum + curveLength(curve), 0);

/** How many closed paths have a point inside, counted on their flattened curves. */
export function depthAt(paths: readonly Path[], point: Vec2): number {
  return paths.filter((path) => path.closed && isInside(path, point)).length;
}

/**
 * By the even-odd rule. Each curve begins at the very point where the last one ended: ends that differ in their last digit would
 * let a level ray slip through between them. Source: ray crossing, as in any textbook of computational geometry.
 */
function isInside({ curves }: Path, [x, y]: Vec2): boolean {
  const points = curves.flatMap(({ curve }) => flattened(curve).slice(0, -1));
  let inside = false;
  points.forEach(([bx, by], i) => {
    const [ax, ay] = points.at(i - 1)!;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}

/** An end that no other end meets, with the nearest other one. */
export interface Gap {
  readonly at: Vec2;
  /** The nearest end that is free too; undefined when there is none. */
  readonly to?: Vec2;
  readonly size?: number;
}

/** The loose ends of open paths: each pair of ends that are nearest to each other once. */
export function gapsOf(paths: readonly Path[]): Gap[] {
  const ends = paths
    .filter(({ closed, curves }) => !closed && curves.length > 0)
    .flatMap(({ curves }) => [startOf(curves[0]!.curve), endOf(curves.at(-1)!.curve)]);
  const loose = ends.filter(
    (end, i) => !ends.some((other, j) => j !== i && distance2(end, other) <= SAME_POINT_MM),
  );
  const pairs = loose
    .flatMap((at, i) => loose.slice(i + 1).map((to) => ({ at, to, size: distance2(at, to) })))
    .sort((a, b) => a.size - b.size);
  const reported = new Set<Vec2>();
  const gaps: Gap[] = [];
  for (const gap of pairs) {
    if (reported.has(gap.at) || reported.has(gap.to)) continue;
    reported.add(gap.at).add(gap.to);
    gaps.push(gap);
  }
  return [...gaps, ...loose.filter((end) => !reported.has(end)).map((at) => ({ at }))];
}

/** The area that the even-odd rule fills, of closed paths that keep clear of each other, mm². */
export function clearArea(paths: readonly Path[]): number {
  const closed = paths.filter((path) => path.closed && path.curves.length > 0);
  return closed.reduce((sum, path) => {
    const others = closed.filter((other) => other !== path);
    const sign = depthAt(others, startOf(path.curves[0]!.curve)) % 2 === 0 ? 1 : -1;
    return sum + sign * Math.abs(pathArea(path));
  }, 0);
}
