/** Dimensions as they are drawn: measured in the model, laid out on paper. */
import type { Dimension } from '../document/sheet.ts';
import { formatLength } from '../quantity/format.ts';
import { degrees } from '../space/angle.ts';
import { column } from '../space/matrix.ts';
import { cross, length } from '../space/vector.ts';
import { add2, cross2, dot2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import { arcDimension, arcLine } from './arcDimension.ts';
import { lengthDimension, wayOnPaper } from './lengths.ts';
import { levelMark } from './levelMark.ts';
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

/** What a dimension comes to. */
export function drawDimension(tied: TiedDimension): Measured | NotMeasured {
  switch (tied.dimension.kind) {
    case 'radius':
    case 'diameter':
      return roundDimension(tied);
    case 'arc':
      return arcDimension(tied);
    case 'angle':
      return angleDimension(tied);
    case 'level':
      return levelDimension(tied);
    default:
      return lengthDimension(tied);
  }
}

// Round ones.

function roundDimension(tied: TiedDimension): Measured | NotMeasured {
  const { dimension, frame, view, places } = tied;
  const [place] = places;
  if (place?.kind !== 'axis') return { words: 'it needs a round edge or a round face' };
  const towards = column(frame.turn, 2);
  const isRadius = dimension.kind === 'radius';
  if (length(cross(place.direction, towards)) > SQUARE)
    return isRadius ? { words: 'the circle is not seen squarely in this view' } : lengthDimension(tied);
  const value = isRadius ? place.radius : 2 * place.radius;
  const text = numberText(tied, value, isRadius ? 'R' : 'Ø');
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

function levelDimension(tied: TiedDimension): Measured | NotMeasured {
  const { places, frame, view, dimension } = tied;
  const [place, other] = places;
  if (!place || other) return { words: 'a level is that of one place' };
  // What is zero to the digits of the scene is zero, whatever the noise of its doubles.
  const isZero = !/[1-9]/.test(formatLength(place.at[2], tied.document.scene));
  const value = isZero ? 0 : place.at[2];
  const text = numberText(tied, value, isZero ? '±' : value > 0 ? '+' : '');
  return { value, marks: levelMark(onPaper(frame, view)(place.at), dimension.offset, text) };
}

// Angles.

function angleDimension(tied: TiedDimension): Measured | NotMeasured {
  const [a, b] = tied.places;
  const { frame, view } = tied;
  if (!a || !b || [a, b].some(({ kind }) => kind !== 'line' && kind !== 'plane'))
    return { words: 'it needs two straight edges or flat faces' };
  const [u, v] = [wayOnPaper(frame, a), wayOnPaper(frame, b)];
  if (!u || !v) return { words: 'the edges do not lie in the plane of this view' };
  const map = onPaper(frame, view);
  const [p, q] = [map(a.at), map(b.at)];
  const turned = cross2(u, v);
  if (Math.abs(turned) < SQUARE) return { words: 'the edges are parallel' };
  const d = subtract2(q, p);
  const apex = add2(p, scale2(u, cross2(d, v) / turned));
  const away = (at: Vec2, way: Vec2) => (dot2(subtract2(at, apex), way) < 0 ? scale2(way, -1) : way);
  return arcBetween(tied, apex, [away(p, u), away(q, v)]);
}

function arcBetween(tied: TiedDimension, apex: Vec2, [u, v]: readonly [Vec2, Vec2]): Measured {
  const radius = Math.max(Math.abs(tied.dimension.offset), 2 * ARROW_ROOM);
  const [first, last] = [u, v].map(([x, y]) => degrees(Math.atan2(y, x))) as [number, number];
  const sweep = ((last - first + 540) % 360) - 180;
  const value = Math.abs(sweep);
  const legs = [u, v].map((way) =>
    stroke('dimension', apex, add2(apex, scale2(way, radius + EXTENSION.beyond))),
  );
  const arc = { centre: apex, radius, first, sweep };
  return { value, marks: [...arcLine(arc, numberText(tied, value)), ...legs] };
}
