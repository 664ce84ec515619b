/** Where a dimension is put so that it passes through a place on paper. */
import type { Dimension } from '../document/sheet.ts';
import { degrees } from '../space/angle.ts';
import { column } from '../space/matrix.ts';
import { cross, length } from '../space/vector.ts';
import { distance2, dot2, left2, type Vec2 } from '../space/vector2.ts';
import { spanOf } from './lengths.ts';
import { onPaper } from './looks.ts';
import { SQUARE, type TiedDimension } from './measuring.ts';

/** Nearer to what is measured nothing can be read, mm. */
const NEAREST_MM = 1;

/** A dimension with nothing typed about where it stands; as it was where it cannot be measured. Places on paper in mm. */
export function placedThrough(tied: TiedDimension, place: Vec2): Pick<Dimension, 'offset' | 'bearing'> {
  const { dimension, frame, view, places } = tied;
  const { offset, bearing } = dimension;
  const [first] = places;
  if (!first) return { offset, bearing };
  const from = onPaper(frame, view)(first.at);
  const away = distance2(place, from);
  switch (dimension.kind) {
    case 'level':
      return { bearing, offset: atLeast(place[0] - from[0]) };
    case 'arc':
      return { bearing, offset: away - (first.kind === 'axis' ? first.radius * view.scale : 0) };
    case 'angle':
      return { bearing, offset: away };
    case 'radius':
    case 'diameter':
      return isFacing(tied) ? leaderThrough(tied, place) : { bearing, offset: besideSpan(tied, place) };
    default:
      return { bearing, offset: besideSpan(tied, place) };
  }
}

function leaderThrough({ frame, view, places: [first] }: TiedDimension, place: Vec2) {
  const centre = onPaper(frame, view)(first!.at);
  const rim = first?.kind === 'axis' ? first.radius * view.scale : 0;
  const bearing = degrees(Math.atan2(place[1] - centre[1], place[0] - centre[0]));
  return { bearing, offset: Math.max(NEAREST_MM, distance2(place, centre) - rim) };
}

/** Whether a round edge or face is looked at along its axis. */
function isFacing({ frame, places: [place] }: TiedDimension): boolean {
  return place?.kind === 'axis' && length(cross(place.direction, column(frame.turn, 2))) <= SQUARE;
}

function besideSpan(tied: TiedDimension, place: Vec2): number {
  const span = spanOf(tied);
  if ('words' in span) return tied.dimension.offset;
  const out = left2(span.way);
  const heights = span.stops.flatMap(({ ends }) => ends).map((at) => dot2(at, out));
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const at = dot2(place, out);
  return at > (low + high) / 2 ? Math.max(NEAREST_MM, at - high) : Math.min(-NEAREST_MM, at - low);
}

const atLeast = (mm: number): number => (mm < 0 ? Math.min(-NEAREST_MM, mm) : Math.max(NEAREST_MM, mm));
