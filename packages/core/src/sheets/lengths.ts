/** Lengths: from point to point, square between edges and faces that are parallel, and across round things seen from the side. */
import { degrees } from '../space/angle.ts';
import type { Geometry } from '../space/geometry.ts';
import { column } from '../space/matrix.ts';
import { along, cross, distance, dot, length, type Vec3 } from '../space/vector.ts';
import { add2, cross2, dot2, left2, length2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { isPictorial, onPaper } from './looks.ts';
import { ARROW_ROOM, LETTERS, arrow, stroke, textWidth, type Mark, type TextMark } from './marks.ts';
import {
  EXTENSION,
  SQUARE,
  TEXT_GAP,
  numberText,
  type Measured,
  type TiedDimension,
  type NotMeasured,
} from './measuring.ts';

/** Points nearer than this are one, mm of the model. */
const SAME_MM = 1e-9;

/** Between what a length goes, and which way. */
export interface Span {
  readonly stops: readonly Stop[];
  /** Of the dimension line, on paper; length 1. */
  readonly way: Vec2;
  /** Before the number. */
  readonly sign: string;
  /** Seen at a slant: the true lengths between the points are told. */
  readonly isTilted: boolean;
}

interface Stop {
  /** On paper. */
  readonly at: Vec2;
  /** In the world. */
  readonly point: Vec3;
  /** Both ends of an edge, on paper, from which extension lines may begin. */
  readonly ends: readonly Vec2[];
}

/** What a length or a diameter from the side is measured between. */
export function spanOf(tied: TiedDimension): Span | NotMeasured {
  if (tied.dimension.kind === 'diameter') return spanAcross(tied);
  const { dimension, document, view } = tied;
  const isTilted = isPictorial(document, view);
  if (isTilted && dimension.kind !== 'along')
    return { words: 'this view looks at a slant: only lengths along points can be told in it' };
  const square = dimension.kind === 'along' && !isTilted ? squareSpan(tied) : undefined;
  if (square) return square;
  const points = measuredPoints(tied.places);
  if (points.length < 2) return { words: 'it needs two points, or a straight edge' };
  const map = onPaper(tied.frame, view);
  const stops = points.map((point): Stop => ({ at: map(point), point, ends: [map(point)] }));
  if (dimension.kind !== 'along')
    return { stops, way: dimension.kind === 'horizontal' ? [1, 0] : [0, 1], sign: '', isTilted };
  const whole = subtract2(stops.at(-1)!.at, stops[0]!.at);
  if (length2(whole) < SAME_MM) return { words: 'its points lie behind one another in this view' };
  return { stops, way: unit2(whole), sign: '', isTilted };
}

/** A straight edge by itself is measured from end to end. */
function measuredPoints(places: readonly Geometry[]): Vec3[] {
  const [only] = places;
  if (places.length !== 1 || only?.kind !== 'line' || only.length === undefined)
    return places.map(({ at }) => at);
  return [-1, 1].map((side) => along(only.at, only.direction, (side * only.length!) / 2));
}

/** Undefined where nothing is parallel, and where all lie in one line. */
function squareSpan(tied: TiedDimension): Span | undefined {
  const { places, frame } = tied;
  if (places.length < 2) return undefined;
  const stops = places.map((place) => stopOf(tied, place));
  const ways = places.map((place) => wayOnPaper(frame, place)).filter((way) => way !== undefined);
  const [first] = ways;
  if (!first || ways.some((way) => Math.abs(cross2(way, first)) > SQUARE)) return undefined;
  const across = left2(first);
  const heights = stops.map(({ at }) => dot2(at, across));
  if (Math.max(...heights) - Math.min(...heights) < SAME_MM) return undefined;
  const way = heights.at(-1)! < heights[0]! ? scale2(across, -1) : across;
  return { stops, way, sign: '', isTilted: false };
}

function stopOf({ frame, view }: TiedDimension, place: Geometry): Stop {
  const map = onPaper(frame, view);
  const at = map(place.at);
  if (place.kind !== 'line') return { at, point: place.at, ends: [at] };
  const half = (place.length ?? 0) / 2;
  const ends = [-half, half].map((by) => map(along(place.at, place.direction, by)));
  return { at, point: place.at, ends };
}

/** Which way a straight edge or a flat face runs, where it is seen as a line in its true length; of length 1. */
export function wayOnPaper({ turn }: TiedDimension['frame'], place: Geometry): Vec2 | undefined {
  const towards = column(turn, 2);
  if (place.kind !== 'line' && place.kind !== 'plane') return undefined;
  const square = place.kind === 'line' ? place.direction : place.normal;
  if (Math.abs(dot(square, towards)) > SQUARE) return undefined;
  const direction = place.kind === 'line' ? square : cross(square, towards);
  return unit2([dot(direction, column(turn, 0)), dot(direction, column(turn, 1))]);
}

/** A diameter of what is seen from the side: across, through its place on the axis. */
function spanAcross(tied: TiedDimension): Span | NotMeasured {
  const [place] = tied.places;
  if (place?.kind !== 'axis') return { words: 'it needs a round edge or a round face' };
  const towards = column(tied.frame.turn, 2);
  const across = cross(place.direction, towards);
  if (Math.abs(length(across) - 1) > SQUARE)
    return { words: 'the circle is seen neither squarely nor from the side in this view' };
  const map = onPaper(tied.frame, tied.view);
  const stops = [-1, 1].map((side): Stop => {
    const point = along(place.at, across, side * place.radius);
    return { at: map(point), point, ends: [map(point)] };
  });
  return { stops, way: unit2(subtract2(stops[1]!.at, stops[0]!.at)), sign: 'Ø', isTilted: false };
}

/** A length as it is drawn: its extension lines, its dimension line and its number. */
export function lengthDimension(tied: TiedDimension): Measured | NotMeasured {
  const { dimension, view } = tied;
  const span = spanOf(tied);
  if ('words' in span) return span;
  const { way, sign, isTilted } = span;
  const stops = [...span.stops].sort((a, b) => dot2(a.at, way) - dot2(b.at, way));
  const value = (a: Stop, b: Stop) =>
    isTilted ? distance(a.point, b.point) : Math.abs(dot2(way, subtract2(b.at, a.at))) / view.scale;
  const line = layLine(stops, { way, offset: dimension.offset });
  const pieces =
    dimension.run === 'running'
      ? stops.slice(1).map((stop, i) => [stops[0]!, stop, i] as const)
      : stops.slice(1).map((stop, i) => [stops[i]!, stop, 0] as const);
  const marks = pieces.flatMap(([a, b, row]) =>
    lineOf(line.at(a, row), line.at(b, row), numberText(tied, value(a, b), sign)),
  );
  const rows = dimension.run === 'running' ? Math.max(0, stops.length - 2) : 0;
  const legs = stops.flatMap((stop) => line.leg(stop, rows));
  return { value: value(stops[0]!, stops.at(-1)!), marks: [...legs, ...marks] };
}

/** Between the rows of running dimensions, mm. */
const ROW = 8;

/** The line that dimensions stand on, beside all points: to the left of the way where the offset is more than 0. */
function layLine(stops: readonly Stop[], { way, offset }: { readonly way: Vec2; readonly offset: number }) {
  const out = left2(way);
  const side = offset < 0 ? -1 : 1;
  const foremost = (places: readonly Vec2[]) => side * Math.max(...places.map((at) => side * dot2(at, out)));
  const base = foremost(stops.flatMap(({ ends }) => ends)) + offset;
  const at = (stop: Stop, row: number): Vec2 =>
    add2(scale2(way, dot2(stop.at, way)), scale2(out, base + side * row * ROW));
  const leg = (stop: Stop, rows: number): Mark[] => {
    const [from, to] = [
      foremost(stop.ends) + side * EXTENSION.gap,
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
