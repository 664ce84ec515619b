/** Lengths along circular edges, and the arcs that they and angles are drawn with. */
import { column } from '../space/matrix.ts';
import { cosDegrees, degrees, radians, sinDegrees } from '../space/angle.ts';
import { cross, dot, length } from '../space/vector.ts';
import { add2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import { onPaper } from './looks.ts';
import { ARROW_ROOM, LETTERS, arrow, stroke, textWidth, type Mark } from './marks.ts';
import {
  EXTENSION,
  SQUARE,
  TEXT_GAP,
  numberText,
  type Measured,
  type TiedDimension,
  type NotMeasured,
} from './measuring.ts';

/** On paper: mm, and degrees counter-clockwise from the right. */
export interface Arc2 {
  readonly centre: Vec2;
  readonly radius: number;
  readonly first: number;
  readonly sweep: number;
}

const wayAt = (angle: number): Vec2 => [cosDegrees(angle), sinDegrees(angle)];
const pointOn = ({ centre, radius }: Arc2, angle: number): Vec2 => add2(centre, scale2(wayAt(angle), radius));

/** The middle of a text that stands outside the middle of an arc, clear of it. @param above what stands over its letters, mm */
function textMiddle({ centre, radius, first, sweep }: Arc2, text: string, above: number): Vec2 {
  const way = wayAt(first + sweep / 2);
  const [width, height] = [textWidth(text, LETTERS.usual), LETTERS.usual + 2 * above];
  const half = (Math.abs(way[0]) * width + Math.abs(way[1]) * height) / 2;
  return add2(centre, scale2(way, radius + TEXT_GAP + half));
}

/** An arc with arrows at its ends, and a text outside its middle. @param above what stands over its letters, mm */
export function arcLine(arc: Arc2, text: string, above = 0): Mark[] {
  const { first, sweep } = arc;
  const last = first + sweep;
  const [x, y] = textMiddle(arc, text, above);
  const side = Math.sign(sweep) * 90;
  return [
    { kind: 'path', stroke: 'dimension', closed: false, curves: [{ kind: 'arc', ...arc }] },
    arrow(pointOn(arc, first), first - side),
    arrow(pointOn(arc, last), last + side),
    { kind: 'text', text, at: [x, y - LETTERS.usual / 2], align: 'middle', height: LETTERS.usual, turn: 0 },
  ];
}

/** Of a circular edge that is seen squarely: its length, on an arc beside it, under an arc as the sign of it. Source: ISO 129-1, from memory. */
export function arcDimension(tied: TiedDimension): Measured | NotMeasured {
  const { dimension, frame, view, places } = tied;
  const [place, other] = places;
  if (place?.kind !== 'axis' || !place.arc || other) return { words: 'it needs one round edge' };
  const towards = column(frame.turn, 2);
  if (length(cross(place.direction, towards)) > SQUARE)
    return { words: 'the arc is not seen squarely in this view' };
  const { from, sweep } = place.arc;
  const value = place.radius * radians(Math.abs(sweep));
  const rim = place.radius * view.scale;
  const map = onPaper(frame, view);
  const centre = map(place.at);
  const [x, y] = subtract2(map(from), centre);
  const first = degrees(Math.atan2(y, x));
  const turn = dot(place.direction, towards) < 0 ? -sweep : sweep;
  const radius = Math.max(rim + dimension.offset, ARROW_ROOM);
  const arc = { centre, radius, first, sweep: turn };
  const text = numberText(tied, value);
  const ends = Math.abs(sweep) < WHOLE ? [first, first + turn] : [first];
  const legs = ends.map((angle) => legAt(arc, angle, rim));
  return { value, marks: [...legs, ...arcLine(arc, text, SIGN_ROOM), arcSign(arc, text)] };
}
/** Degrees from which an arc is a whole circle, which has one end. */
const WHOLE = 360 - 1e-6;

/** From the edge to beyond the dimension line. */
function legAt({ centre, radius }: Arc2, angle: number, rim: number): Mark {
  const side = radius < rim ? -1 : 1;
  const at = (r: number) => add2(centre, scale2(wayAt(angle), r));
  return stroke('dimension', at(rim + side * EXTENSION.gap), at(radius + side * EXTENSION.beyond));
}

/** Of the sign over the number: its height and what it stands above the letters, mm; its width as a part of the text. Common practice, no source. */
const SIGN = { height: 1.2, gap: 0.7, width: 0.8 } as const;
const SIGN_ROOM = SIGN.height + SIGN.gap;

function arcSign(arc: Arc2, text: string): Mark {
  const [x, y] = textMiddle(arc, text, SIGN_ROOM);
  const half = (SIGN.width * textWidth(text, LETTERS.usual)) / 2;
  const radius = (half ** 2 + SIGN.height ** 2) / (2 * SIGN.height);
  const reach = degrees(Math.asin(Math.min(1, half / radius)));
  const centre: Vec2 = [x, y + LETTERS.usual / 2 + SIGN_ROOM - radius];
  const bow = { centre, radius, first: 90 - reach, sweep: 2 * reach };
  return { kind: 'path', stroke: 'dimension', closed: false, curves: [{ kind: 'arc', ...bow }] };
}
