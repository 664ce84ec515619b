/** Dimensions as they are drawn: measured in the model, laid out on paper. */
import type { Dimension } from '../document/sheet.ts';
import { formatLength } from '../quantity/format.ts';
import { degrees } from '../space/angle.ts';
import type { Geometry } from '../space/geometry.ts';
import { column } from '../space/matrix.ts';
import { along, cross, distance, dot, length, type Vec3 } from '../space/vector.ts';
import { add2, dot2, left2, length2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { arcDimension, arcLine } from './arcDimension.ts';
import { isPictorial, onPaper } from './looks.ts';
import { levelMark } from './levelMark.ts';
import {
  EXTENSION,
  SQUARE,
  TEXT_GAP,
  numberText,
  type Measured,
  type Measuring,
  type NotMeasured,
} from './measuring.ts';
import { ARROW_ROOM, LETTERS, arrow, stroke, textWidth, type Mark, type TextMark } from './marks.ts';

/** Points nearer than this are one, mm of the model. */
const SAME_MM = 1e-9;

/** What a dimension comes to. */
export function measured(measuring: Measuring): Measured | NotMeasured {
  switch (measuring.dimension.kind) {
    case 'radius':
    case 'diameter':
      return roundDimension(measuring);
    case 'arc':
      return arcDimension(measuring);
    case 'angle':
      return angleDimension(measuring);
    case 'level':
      return levelDimension(measuring);
    default:
      return linearDimension(measuring);
  }
}

// Lengths.

function linearDimension(measuring: Measuring): Measured | NotMeasured {
  const { document, dimension, view } = measuring;
  const points = measuredPoints(measuring.places);
  if (points.length < 2) return { words: 'it needs two points, or a straight edge' };
  const drawn = points.map(onPaper(measuring.frame, view));
  const isAlong = dimension.kind === 'along';
  const isTilted = isPictorial(document, view);
  if (isTilted && !isAlong)
    return { words: 'this view looks at a slant: only lengths along points can be told in it' };
  const whole = subtract2(drawn.at(-1)!, drawn[0]!);
  if (isAlong && length2(whole) < SAME_MM) return { words: 'its points lie behind one another in this view' };
  const way: Vec2 = isAlong ? unit2(whole) : dimension.kind === 'horizontal' ? [1, 0] : [0, 1];
  const order = inOrderAlong(drawn, way);
  const stops = order.map((i) => ({ at: drawn[i]!, point: points[i]! }));
  const value = (a: Stop, b: Stop) =>
    isTilted ? distance(a.point, b.point) : Math.abs(dot2(way, subtract2(b.at, a.at))) / view.scale;
  const line = layLine(stops, { way, offset: dimension.offset });
  const pieces =
    dimension.run === 'running'
      ? stops.slice(1).map((stop, i) => [stops[0]!, stop, i] as const)
      : stops.slice(1).map((stop, i) => [stops[i]!, stop, 0] as const);
  const marks = pieces.flatMap(([a, b, row]) =>
    lineOf(line.at(a, row), line.at(b, row), numberText(measuring, value(a, b))),
  );
  const rows = dimension.run === 'running' ? Math.max(0, stops.length - 2) : 0;
  const legs = stops.flatMap((stop) => line.leg(stop, rows));
  return { value: value(stops[0]!, stops.at(-1)!), marks: [...legs, ...marks] };
}

interface Stop {
  /** On paper. */
  readonly at: Vec2;
  /** In the world. */
  readonly point: Vec3;
}

/** A straight edge by itself is measured from end to end. */
function measuredPoints(places: readonly Geometry[]): Vec3[] {
  const [only] = places;
  if (places.length !== 1 || only?.kind !== 'line' || only.length === undefined)
    return places.map(({ at }) => at);
  return [-1, 1].map((side) => along(only.at, only.direction, (side * only.length!) / 2));
}

/** Indices of points in the order along a way; the way is turned so that the first is given first. */
const inOrderAlong = (points: readonly Vec2[], way: Vec2): number[] =>
  [...points.keys()].sort((a, b) => dot2(points[a]!, way) - dot2(points[b]!, way));

/** Between the rows of running dimensions, mm. */
const ROW = 8;

/** The line that dimensions stand on, beside all points: to the left of the way where the offset is more than 0. */
function layLine(stops: readonly Stop[], { way, offset }: { readonly way: Vec2; readonly offset: number }) {
  const out = left2(way);
  const side = offset < 0 ? -1 : 1;
  const heights = stops.map(({ at }) => dot2(at, out));
  const base = (side > 0 ? Math.max(...heights) : Math.min(...heights)) + offset;
  const at = (stop: Stop, row: number): Vec2 =>
    add2(scale2(way, dot2(stop.at, way)), scale2(out, base + side * row * ROW));
  const leg = (stop: Stop, rows: number): Mark[] => {
    const [from, to] = [
      dot2(stop.at, out) + side * EXTENSION.gap,
      base + side * (rows * ROW + EXTENSION.beyond),
    ];
    const foot = scale2(way, dot2(stop.at, way));
    const isThere = side * (to - from) > 0;
    return isThere ? [stroke('dimension', add2(foot, scale2(out, from)), add2(foot, scale2(out, to)))] : [];
  };
  return { at, leg };
}

/** A dimension line between two points, with arrows and its number above it; a narrow one has its arrows outside. */
function lineOf(from: Vec2, to: Vec2, text: string): Mark[] {
  const room = length2(subtract2(to, from));
  if (room < SAME_MM) return [];
  const way = scale2(subtract2(to, from), 1 / room);
  const bearing = degrees(Math.atan2(way[1], way[0]));
  const isNarrow = room < 2.5 * ARROW_ROOM;
  const isOutside = isNarrow || room < textWidth(text, LETTERS.usual) + 1;
  const reach = scale2(way, 2 * ARROW_ROOM);
  const line = isNarrow
    ? stroke('dimension', subtract2(from, reach), add2(to, reach))
    : stroke('dimension', from, to);
  const arrows = isNarrow
    ? [arrow(from, bearing), arrow(to, bearing + 180)]
    : [arrow(from, bearing + 180), arrow(to, bearing)];
  return [line, ...arrows, ...numberOn(from, to, { text, isOutside })];
}

interface NumberPlace {
  readonly text: string;
  /** There is no room for it between the arrows. */
  readonly isOutside: boolean;
}

/** Read from below or from the right. Source: ISO 129-1, from memory. */
function numberOn(from: Vec2, to: Vec2, { text, isOutside }: NumberPlace): Mark[] {
  const way = unit2(subtract2(to, from));
  const isBack = way[0] < -SQUARE || (Math.abs(way[0]) <= SQUARE && way[1] < 0);
  const reading = isBack ? scale2(way, -1) : way;
  const turn = degrees(Math.atan2(reading[1], reading[0]));
  const up = left2(reading);
  const half = length2(subtract2(to, from)) / 2;
  const middle = scale2(add2(from, to), 0.5);
  const beyond = half + 2 * ARROW_ROOM + textWidth(text, LETTERS.usual) / 2;
  const place = isOutside ? add2(middle, scale2(reading, beyond)) : middle;
  const at = add2(place, scale2(up, TEXT_GAP));
  const shelf = isOutside
    ? [
        stroke(
          'dimension',
          isBack ? from : to,
          add2(place, scale2(reading, textWidth(text, LETTERS.usual) / 2)),
        ),
      ]
    : [];
  const mark: TextMark = { kind: 'text', text, at, align: 'middle', height: LETTERS.usual, turn };
  return [...shelf, mark];
}

// Round ones.

function roundDimension(measuring: Measuring): Measured | NotMeasured {
  const { dimension, frame, view, places } = measuring;
  const [place] = places;
  if (place?.kind !== 'axis') return { words: 'it needs a round edge or a round face' };
  const towards = column(frame.turn, 2);
  if (length(cross(place.direction, towards)) > SQUARE)
    return { words: 'the circle is not seen squarely in this view' };
  const isRadius = dimension.kind === 'radius';
  const value = isRadius ? place.radius : 2 * place.radius;
  const text = numberText(measuring, value, isRadius ? 'R' : 'Ø');
  const centre = onPaper(frame, view)(place.at);
  return { value, marks: leaderOf(centre, place.radius * view.scale, { dimension, text, isRadius }) };
}

interface Leader {
  readonly dimension: Dimension;
  readonly text: string;
  readonly isRadius: boolean;
}

/** From the rim outwards, with the number on a level shelf; through the circle for a diameter. */
function leaderOf(centre: Vec2, radius: number, { dimension, text, isRadius }: Leader): Mark[] {
  const angle = (dimension.bearing * Math.PI) / 180;
  const way: Vec2 = [Math.cos(angle), Math.sin(angle)];
  const rim = add2(centre, scale2(way, radius));
  const far = add2(rim, scale2(way, Math.max(Math.abs(dimension.offset), 2 * ARROW_ROOM)));
  const side = way[0] < 0 ? -1 : 1;
  const width = textWidth(text, LETTERS.usual);
  const end: Vec2 = [far[0] + side * (width + 1), far[1]];
  const at: Vec2 = [far[0] + side * (width / 2 + 0.5), far[1] + TEXT_GAP];
  const other = subtract2(centre, scale2(way, radius));
  return [
    stroke('dimension', isRadius ? centre : other, far, end),
    ...(isRadius ? [] : [arrow(other, dimension.bearing + 180)]),
    arrow(rim, dimension.bearing),
    { kind: 'text', text, at, align: 'middle', height: LETTERS.usual, turn: 0 },
  ];
}

// Levels.

function levelDimension(measuring: Measuring): Measured | NotMeasured {
  const { places, frame, view, dimension } = measuring;
  const [place, other] = places;
  if (!place || other) return { words: 'a level is that of one place' };
  // What is zero to the digits of the scene is zero, whatever the noise of its doubles.
  const isZero = !/[1-9]/.test(formatLength(place.at[2], measuring.document.scene));
  const value = isZero ? 0 : place.at[2];
  const text = numberText(measuring, value, isZero ? '±' : value > 0 ? '+' : '');
  return { value, marks: levelMark(onPaper(frame, view)(place.at), dimension.offset, text) };
}

// Angles.

function angleDimension(measuring: Measuring): Measured | NotMeasured {
  const [a, b] = measuring.places;
  const towards = column(measuring.frame.turn, 2);
  if (a?.kind !== 'line' || b?.kind !== 'line') return { words: 'it needs two straight edges' };
  if ([a, b].some((edge) => Math.abs(dot(edge.direction, towards)) > SQUARE))
    return { words: 'the edges do not lie in the plane of this view' };
  const map = onPaper(measuring.frame, measuring.view);
  const [p, q] = [map(a.at), map(b.at)];
  const [u, v] = [a, b].map((edge) =>
    unit2(subtract2(map(along(edge.at, edge.direction, 1)), map(edge.at))),
  ) as [Vec2, Vec2];
  const turned = u[0] * v[1] - u[1] * v[0];
  if (Math.abs(turned) < SQUARE) return { words: 'the edges are parallel' };
  const d = subtract2(q, p);
  const apex = add2(p, scale2(u, (d[0] * v[1] - d[1] * v[0]) / turned));
  const away = (at: Vec2, way: Vec2) => (dot2(subtract2(at, apex), way) < 0 ? scale2(way, -1) : way);
  return arcBetween(measuring, apex, [away(p, u), away(q, v)]);
}

function arcBetween(measuring: Measuring, apex: Vec2, [u, v]: readonly [Vec2, Vec2]): Measured {
  const radius = Math.max(Math.abs(measuring.dimension.offset), 2 * ARROW_ROOM);
  const [first, last] = [u, v].map(([x, y]) => degrees(Math.atan2(y, x))) as [number, number];
  const sweep = ((last - first + 540) % 360) - 180;
  const value = Math.abs(sweep);
  const legs = [u, v].map((way) =>
    stroke('dimension', apex, add2(apex, scale2(way, radius + EXTENSION.beyond))),
  );
  const arc = { centre: apex, radius, first, sweep };
  return { value, marks: [...arcLine(arc, numberText(measuring, value)), ...legs] };
}
