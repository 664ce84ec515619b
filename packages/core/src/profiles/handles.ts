/** The points of a figure that can be taken hold of, and what it becomes when one of them is somewhere else. */
import { valueOf, type Num } from '../recipes/numbers.ts';
import { degrees } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import { cleanLength } from '../space/rounding.ts';
import { add2, distance2, length2, subtract2, type Vec2 } from '../space/vector2.ts';
import { prismCorners } from '../recipes/regular.ts';
import { endOf, startOf } from '../curves/curve.ts';
import type { Figure, FigureOf, Leg } from '../recipes/figures/index.ts';
import { outlineOf } from './outline.ts';
import { bookLegs, courseOf, type Booked } from './traverse.ts';

/** What a dragged handle makes of the numbers of a figure. */
export interface Moved {
  readonly figure: Figure;
  /** How far its own origin goes, in its own axes, mm. */
  readonly shift: Vec2;
}

/** What was mirrored or resized no longer stands where its figure says: its points are not taken hold of. */
export const standsAsDrawn = (
  steps: readonly { readonly kind: string; readonly off?: true | undefined }[],
): boolean => !steps.some(({ kind, off }) => !off && (kind === 'mirror' || kind === 'scale'));

/** In the profile's own plane. Text and curves of files have none. */
export function handlesOf(figure: Figure): Vec2[] {
  switch (figure.kind) {
    case 'traverse': {
      const legs = bookLegs(figure);
      return [legs[0]!.from, ...legs.map(({ to }) => to)];
    }
    case 'curve':
      return figure.points.map(([x, y]) => [x, y]);
    case 'rectangle':
      return cornersOf(figure);
    case 'circle':
      return [[valueOf(figure.diameter) / 2, 0]];
    case 'ellipse':
      return [
        [valueOf(figure.width) / 2, 0],
        [0, valueOf(figure.height) / 2],
      ];
    case 'polygon':
      return [prismCorners(figure)[0]!];
    case 'arc': {
      const { curve } = outlineOf(figure)[0]!.curves[0]!;
      return [startOf(curve), endOf(curve)];
    }
    default:
      return [];
  }
}

/** The figure with a handle at another point; undefined where it would have no size. @param index counted from 0 */
export function movedHandle(figure: Figure, index: number, to: Vec2): Moved | undefined {
  const stays = (made: Figure): Moved => ({ figure: made, shift: [0, 0] });
  switch (figure.kind) {
    case 'traverse':
      return stays(withPoint(figure, index, to));
    case 'curve': {
      const points = figure.points.map((point, i): [number, number] => (i === index ? [...to] : [...point]));
      return stays({ ...figure, points });
    }
    case 'rectangle':
      return withCornerAt(figure, index, to);
    case 'circle':
      return isSize(length2(to)) ? stays({ ...figure, diameter: cleanLength(2 * length2(to)) }) : undefined;
    case 'ellipse': {
      const half = Math.abs(to[index as 0 | 1]);
      if (!isSize(half)) return undefined;
      const size = cleanLength(2 * half);
      return stays(index === 0 ? { ...figure, width: size } : { ...figure, height: size });
    }
    case 'polygon': {
      // All sizes grow as the corner goes out.
      const was = length2(handlesOf(figure)[0]!);
      return isSize(length2(to))
        ? stays({ ...figure, size: cleanLength((valueOf(figure.size) * length2(to)) / was) })
        : undefined;
    }
    case 'arc':
      return withArcEnd(figure, index, to);
    default:
      return undefined;
  }
}

/** Smaller than this (mm) is no size that a hand could mean. */
const isSize = (mm: number) => mm > 1e-6;

function cornersOf({ width, height, centred }: FigureOf<'rectangle'>): Vec2[] {
  const [w, h] = [valueOf(width), valueOf(height)];
  const [x, y] = centred ? [-w / 2, -h / 2] : [0, 0];
  return [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
}

/** The opposite corner stays where it is. */
function withCornerAt(figure: FigureOf<'rectangle'>, index: number, to: Vec2): Moved | undefined {
  const fixed = cornersOf(figure)[(index + 2) % 4]!;
  const size = subtract2(to, fixed);
  if (!isSize(Math.abs(size[0])) || !isSize(Math.abs(size[1]))) return undefined;
  const [width, height] = [cleanLength(Math.abs(size[0])), cleanLength(Math.abs(size[1]))];
  const min: Vec2 = [Math.min(fixed[0], to[0]), Math.min(fixed[1], to[1])];
  const shift: Vec2 = figure.centred ? add2(min, [width / 2, height / 2]) : min;
  return { figure: { ...figure, width, height }, shift };
}

/** The other end stays; the radius is that to the point. */
function withArcEnd(figure: FigureOf<'arc'>, index: number, to: Vec2): Moved | undefined {
  const radius = length2(to);
  if (!isSize(radius)) return undefined;
  const angle = cleanDegrees(degrees(Math.atan2(to[1], to[0])));
  const [first, sweep] = [valueOf(figure.first), valueOf(figure.sweep)];
  const turned = (from: number, end: number) => {
    const turn = (((end - from) % 360) + 360) % 360;
    return cleanDegrees(sweep < 0 ? turn - 360 : turn) || Math.sign(sweep) * 360;
  };
  const ends =
    index === 0
      ? { first: angle, sweep: turned(angle, first + sweep) }
      : { first, sweep: turned(first, angle) };
  return { figure: { ...figure, radius: cleanLength(radius), ...ends }, shift: [0, 0] };
}

/** All other points stay: the legs beside it, and turns given after them, are given anew, each in its own way. */
function withPoint(figure: FigureOf<'traverse'>, index: number, to: Vec2): Figure {
  const booked = bookLegs(figure);
  const points = [booked[0]!.from, ...booked.map((leg) => leg.to)].map((point, i) =>
    i === index ? to : point,
  );
  const legs: Leg[] = [];
  let heading = 0;
  figure.legs.forEach((leg, i) => {
    const [from, end] = [points[i]!, points[i + 1]!];
    const last = lastLeg(figure, [...legs, leg], points[0]!);
    const isThere = distance2(last.from, from) < 1e-9 && distance2(last.to, end) < 1e-9;
    legs.push(isThere ? leg : ledTo(leg, { from, to: end }, heading));
    heading = lastLeg(figure, legs, points[0]!).ends;
  });
  return { ...figure, start: [...points[0]!], legs };
}

const lastLeg = (figure: FigureOf<'traverse'>, legs: readonly Leg[], start: Vec2): Booked =>
  bookLegs({ ...figure, start: [...start], legs: [...legs] }).at(-1)!;

function ledTo(leg: Leg, { from, to }: { readonly from: Vec2; readonly to: Vec2 }, heading: number): Leg {
  const { x, y, length, bearing } = courseOf(from, to);
  const common = {
    ...(leg.name === undefined ? {} : { name: leg.name }),
    ...(leg.corner ? { corner: leg.corner } : {}),
    ...(leg.bend ? { bend: leg.bend } : {}),
  };
  const clean = (n: number): Num => cleanLength(n);
  if ('by' in leg) return { by: [clean(x), clean(y)], ...common };
  if ('to' in leg) return { to: [to[0], to[1]], ...common };
  if ('bearing' in leg) return { length: clean(length), bearing: cleanDegrees(bearing), ...common };
  const turn = (((cleanDegrees(bearing - heading) % 360) + 540) % 360) - 180;
  return { length: clean(length), turn: cleanDegrees(turn), ...common };
}
