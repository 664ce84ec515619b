/** Traverses: legs as they are booked → the curves that they come to, with the closing error. */
import { reasonOf, type Reason } from '../language/reason.ts';
import { valueOf } from '../recipes/numbers.ts';
import { cosDegrees, degrees, sinDegrees, turnWithin } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import { cleanLength } from '../space/rounding.ts';
import {
  add2,
  cross2,
  distance2,
  dot2,
  left2,
  length2,
  scale2,
  subtract2,
  unit2,
  type Vec2,
} from '../space/vector2.ts';
import { SAME_POINT_MM, line, type Curve } from '../curves/curve.ts';
import type { FigureOf, Leg } from '../recipes/figures/index.ts';
import type { NamedCurve } from './path.ts';

/** The way from a point to another: how far, and where to. */
export interface Course {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  /** Degrees clockwise from +Y, in [0, 360). */
  readonly bearing: number;
}

/** A leg of a traverse as it was walked. */
export interface Booked {
  readonly name: string;
  readonly from: Vec2;
  readonly to: Vec2;
  readonly course: Course;
  /** How much it turns to the right from the way the last one ended; of the first, from +Y. */
  readonly turn: number;
  /** The way in which it ends, degrees clockwise from +Y. */
  readonly ends: number;
  /** Degrees from start to end, positive to the left; 0 of a straight one. */
  readonly sweep: number;
}

/** All legs, and by how much they miss the start. */
export interface Traverse {
  readonly legs: readonly Booked[];
  /** Legs that close it, after those that were given. */
  readonly closing: readonly Booked[];
  readonly closed: boolean;
  /** From the start to the end of the last leg given, before anything closes it. */
  readonly error: Course;
  /** Why corners cannot be as they are given, by leg. */
  readonly faults: readonly Reason[];
  readonly curves: readonly NamedCurve[];
}

/** Length and bearing from point to point. */
export function courseOf(from: Vec2, to: Vec2): Course {
  const [x, y] = subtract2(to, from);
  const bearing = x === 0 && y === 0 ? 0 : turnWithin(cleanDegrees(degrees(Math.atan2(x, y))));
  return { x, y, length: length2([x, y]), bearing };
}

/** Legs one by one, as given; spread legs and closing ones are not among them. */
export function bookLegs(figure: FigureOf<'traverse'>): Booked[] {
  const booked: Booked[] = [];
  let from: Vec2 = [valueOf(figure.start[0]), valueOf(figure.start[1])];
  let heading = 0;
  figure.legs.forEach((leg, i) => {
    const next = bookLeg(leg, leg.name ?? `leg${i + 1}`, { from, heading });
    booked.push(next);
    from = next.to;
    heading = next.ends;
  });
  return booked;
}

function bookLeg(
  leg: Leg,
  name: string,
  { from, heading }: { readonly from: Vec2; readonly heading: number },
): Booked {
  const to = endOfLeg(leg, from, heading);
  const course = courseOf(from, to);
  const bend =
    leg.bend === 'tangent' ? tangentSweep(heading, course.bearing) : leg.bend ? valueOf(leg.bend.sweep) : 0;
  // An arc begins half its sweep to the right of its chord, where it sweeps to the left, and ends as much to the left.
  const begins = course.bearing + bend / 2;
  return {
    name,
    from,
    to,
    course,
    turn: signedTurn(begins - heading),
    ends: turnWithin(course.bearing - bend / 2),
    sweep: bend,
  };
}

function endOfLeg(leg: Leg, from: Vec2, heading: number): Vec2 {
  if ('to' in leg) return [valueOf(leg.to[0]), valueOf(leg.to[1])];
  if ('by' in leg) return [sum(from[0], valueOf(leg.by[0])), sum(from[1], valueOf(leg.by[1]))];
  const bearing = 'bearing' in leg ? valueOf(leg.bearing) : heading + valueOf(leg.turn);
  const size = valueOf(leg.length);
  return [sum(from[0], size * sinDegrees(bearing)), sum(from[1], size * cosDegrees(bearing))];
}

const sum = (a: number, b: number) => cleanLength(a + b, Math.abs(a) + Math.abs(b));

/** An arc that leaves in a direction and ends at the end of a chord: twice the angle between the two. */
const tangentSweep = (heading: number, chord: number) => 2 * signedTurn(heading - chord);

/** Into (−180, 180]. */
function signedTurn(turn: number): number {
  const within = turnWithin(cleanDegrees(turn));
  return within > 180 ? within - 360 : within;
}

/** Books the legs of a figure. */
export function traverseOf(figure: FigureOf<'traverse'>): Traverse {
  const booked = bookLegs(figure);
  const start = booked[0]!.from;
  const end = booked.at(-1)!.to;
  const error = courseOf(start, end);
  const meets = error.length <= SAME_POINT_MM && booked.length > 1;
  const legs = figure.closing === 'spread' && !meets ? spread(booked, error) : booked;
  const closing =
    meets || figure.closing === 'open' || figure.closing === 'spread' ? [] : closed(figure, booked);
  const isClosed = meets || figure.closing !== 'open';
  const all = [...legs, ...closing];
  const { curves, faults } = withCorners(figure.legs, all, { isClosed });
  return { legs, closing, closed: isClosed, error, faults, curves };
}

/**
 * Every corner takes its share of the error, in proportion to the length walked up to it.
 * Source: compass (Bowditch) rule of surveying textbooks, from memory.
 */
function spread(booked: readonly Booked[], error: Course): Booked[] {
  const whole = booked.reduce((all, { course }) => all + course.length, 0);
  let walked = 0;
  let from = booked[0]!.from;
  let heading = 0;
  return booked.map((leg, i) => {
    walked += leg.course.length;
    const share = -walked / whole;
    const to: Vec2 =
      i === booked.length - 1 ? booked[0]!.from : [leg.to[0] + error.x * share, leg.to[1] + error.y * share];
    const course = courseOf(from, to);
    const shifted: Booked = {
      ...leg,
      from,
      to,
      course,
      turn: signedTurn(course.bearing + leg.sweep / 2 - heading),
      ends: turnWithin(course.bearing - leg.sweep / 2),
    };
    from = to;
    heading = shifted.ends;
    return shifted;
  });
}

/** The legs back to the start: one, or two that are square to each other, the last of which is square to the first leg. */
function closed(figure: FigureOf<'traverse'>, booked: readonly Booked[]): Booked[] {
  const start = booked[0]!.from;
  const last = booked.at(-1)!;
  const bookedTo = (
    { from, to }: { readonly from: Vec2; readonly to: Vec2 },
    name: string,
    heading: number,
  ) => bookLeg({ to: [...to] as [number, number] }, name, { from, heading });
  if (figure.closing === 'straight') return [bookedTo({ from: last.to, to: start }, 'close', last.ends)];
  const first = unit2(subtract2(booked[0]!.to, start));
  const along = dot2(subtract2(start, last.to), first);
  const corner: Vec2 = [
    cleanLength(last.to[0] + first[0] * along),
    cleanLength(last.to[1] + first[1] * along),
  ];
  const legs: Booked[] = [];
  if (distance2(last.to, corner) > SAME_POINT_MM)
    legs.push(bookedTo({ from: last.to, to: corner }, 'close1', last.ends));
  if (distance2(corner, start) > SAME_POINT_MM)
    legs.push(bookedTo({ from: corner, to: start }, 'close2', legs.at(-1)?.ends ?? last.ends));
  return legs;
}

/** The curves of the legs, with corners rounded and bevelled where that is given. */
function withCorners(
  written: readonly Leg[],
  legs: readonly Booked[],
  { isClosed }: { readonly isClosed: boolean },
): Pick<Traverse, 'curves' | 'faults'> {
  const faults: Reason[] = [];
  const cuts = legs.map(() => ({ start: 0, end: 0 }));
  const corners = new Map<number, NamedCurve>();
  legs.forEach((leg, i) => {
    const corner = written[i]?.corner;
    if (!corner) return;
    const next = isClosed ? (i + 1) % legs.length : i + 1;
    const after = legs[next];
    const made = after && cornerBetween(leg, after, { corner, row: i + 1 });
    if (!made) return;
    if ('code' in made) {
      faults.push(made);
      return;
    }
    cuts[i]!.end = made.cut;
    cuts[next]!.start = made.cut;
    corners.set(i, made.curve);
  });
  const curves = legs.flatMap((leg, i): NamedCurve[] => {
    const { start, end } = cuts[i]!;
    const left = leg.course.length - start - end;
    if (left < -SAME_POINT_MM) faults.push(reasonOf('figure.leg-short', { row: i + 1, leg: leg.name }));
    const own = legCurve(leg, start, end);
    const corner = corners.get(i);
    return [
      ...(left > SAME_POINT_MM || leg.sweep !== 0 ? [{ name: leg.name, curve: own }] : []),
      ...(corner ? [corner] : []),
    ];
  });
  return { curves, faults };
}

function legCurve(leg: Booked, start: number, end: number): Curve {
  if (leg.sweep !== 0) return arcOnChord(leg.from, leg.to, leg.sweep);
  const way = unit2(subtract2(leg.to, leg.from));
  return line(
    start === 0 ? leg.from : add2(leg.from, scale2(way, start)),
    end === 0 ? leg.to : subtract2(leg.to, scale2(way, end)),
  );
}

/** The arc from one point to another that sweeps by degrees, positive to the left. Source: chord = 2r sin(sweep/2). */
export function arcOnChord(from: Vec2, to: Vec2, sweep: number): Curve {
  const chord = subtract2(to, from);
  const half = sweep / 2;
  const middle = scale2(add2(from, to), 0.5);
  // The centre lies to the left of a chord that sweeps to the left by less than a half turn.
  const centre = add2(middle, scale2(left2(chord), cosDegrees(half) / sinDegrees(half) / 2));
  const radius = cleanLength(length2(chord) / 2 / Math.abs(sinDegrees(half)));
  const out = subtract2(from, centre);
  return { kind: 'arc', centre, radius, first: cleanDegrees(degrees(Math.atan2(out[1], out[0]))), sweep };
}

function cornerBetween(
  leg: Booked,
  next: Booked,
  { corner, row }: { readonly corner: NonNullable<Leg['corner']>; readonly row: number },
): { cut: number; curve: NamedCurve } | Reason | undefined {
  const facts = { row, leg: leg.name, next: next.name };
  if (leg.sweep !== 0 || next.sweep !== 0) return reasonOf('figure.leg-bent', facts);
  const [a, b] = [unit2(subtract2(leg.to, leg.from)), unit2(subtract2(next.to, next.from))];
  const turn = degrees(Math.atan2(cross2(a, b), dot2(a, b)));
  const size = valueOf('round' in corner ? corner.round : corner.bevel);
  if (size === 0 || Math.abs(turn) < 1e-9) return undefined;
  if (Math.abs(turn) > 180 - 1e-9) return reasonOf('figure.leg-back', facts);
  const cut = 'round' in corner ? size * Math.tan((Math.abs(turn) * Math.PI) / 360) : size;
  const [from, to] = [subtract2(leg.to, scale2(a, cut)), add2(leg.to, scale2(b, cut))];
  const curve = 'round' in corner ? arcOnChord(from, to, cleanDegrees(turn)) : line(from, to);
  return { cut, curve: { name: `corner${row}`, curve } };
}
