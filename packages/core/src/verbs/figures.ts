/** The Draw verbs of figures that are told by a few numbers. */
import type { WayCurve } from '../recipes/layouts/index.ts';
import { missingLetters } from '../profiles/text.ts';
import { degrees } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import { cleanLength } from '../space/rounding.ts';
import {
  add2,
  cross2,
  distance2,
  dot2,
  left2,
  mix2,
  scale2,
  subtract2,
  type Vec2,
} from '../space/vector2.ts';
import type { Pose } from '../space/pose.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from './declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from './drawing.ts';
import { inPlane } from './planes.ts';
import { ACROSS, isSides } from '../recipes/regular.ts';

const centreBlank = needed('point', 'centre', 'Where its centre stands.', { default: ['0', '0', '0'] });

/** Corner to corner, by two sizes from a corner, or about a centre. */
export const rectangle = declareVerb({
  id: 'rectangle',
  name: 'Rectangle',
  group: 'draw',
  about: 'By two corners, or by width and height from a corner or a centre.',
  words: ['square', 'rect', 'room', 'plate', 'frame'],
  blanks: {
    width: optional('length', 'width', 'Along the X of the plane.', { positive: true }),
    height: optional('length', 'height', 'Along the Y of the plane.', { positive: true }),
    at: needed('point', 'at', 'A corner, or the centre.', { default: ['0', '0', '0'] }),
    to: optional('point', 'to', 'The opposite corner, instead of width and height.', { rare: true }),
    from: needed('choice', 'from', 'What stands at the point.', {
      default: 'corner',
      choices: { corner: 'its corner', centre: 'its centre' },
    }),
    round: needed('length', 'corner radius', 'Of its corners; 0 leaves them sharp.', {
      default: '0',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence:
    'Rectangle[ {width} by {height}] with {from} at {at}[ and its opposite corner at {to}][, corner radius {round}] on {on}[ named {as}]',
  apply(draft, { width, height, at, to, from, round, on, as }, context) {
    const corner = footOf(on, at);
    const draw = (w: typeof width, h: typeof height, place: Vec2) =>
      drawFigure(draft, context, {
        name: as ?? 'Rectangle',
        figure: { kind: 'rectangle', width: w!, height: h!, round, centred: from === 'centre' && !to },
        plane: on,
        at: place,
        exact: place === corner ? at : undefined,
      });
    if (to) {
      const opposite = footOf(on, to);
      const size = subtract2(opposite, corner);
      if (size[0] === 0 || size[1] === 0) return refuse('flat', 'The two corners stand in one line.', 'to');
      const least: Vec2 = [Math.min(corner[0], opposite[0]), Math.min(corner[1], opposite[1])];
      return draw(cleanLength(Math.abs(size[0])), cleanLength(Math.abs(size[1])), least);
    }
    if (width === undefined) return refuse('missing', 'Say how wide, or give the opposite corner.', 'width');
    if (height === undefined)
      return refuse('missing', 'Say how high, or give the opposite corner.', 'height');
    return draw(width, height, corner);
  },
});

/** By centre and diameter, or through two or three points. */
export const circle = declareVerb({
  id: 'circle',
  name: 'Circle',
  group: 'draw',
  about: 'By centre and diameter, or through two or three points.',
  words: ['round', 'disc', 'hole', 'ring'],
  blanks: {
    diameter: optional('length', 'diameter', 'Across it.', { positive: true, excludes: 'through' }),
    at: centreBlank,
    through: optional('path', 'through', 'Two points across it, or three on it.', {
      excludes: 'diameter',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Circle[ of {diameter} about {at}][ through {through}] on {on}[ named {as}]',
  apply(draft, { diameter, at, through, on, as }, context) {
    if (through) {
      const round = circleThrough(pointsOn(on, through));
      if (isRefusal(round)) return { ...round, blank: 'through' };
      return drawFigure(draft, context, {
        name: as ?? 'Circle',
        figure: { kind: 'circle', diameter: 2 * round.radius },
        plane: on,
        at: round.centre,
      });
    }
    if (diameter === undefined)
      return refuse('missing', 'Say how wide, or give points that it goes through.', 'diameter');
    return drawFigure(draft, context, {
      name: as ?? 'Circle',
      figure: { kind: 'circle', diameter },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});

function pointsOn(plane: Pose, way: WayCurve): Vec2[] {
  return way.kind === 'points' ? way.points.map((point) => inPlane(plane, point)) : [];
}

/** Source: the circumcircle from its perpendicular bisectors; two points are the ends of a diameter. */
function circleThrough(points: readonly Vec2[]): { centre: Vec2; radius: number } | Refusal {
  const [a, b, c] = points;
  if (!a || !b || points.length > 3)
    return refuse('points', 'A circle goes through two points across it, or three points on it.');
  if (!c) return { centre: mix2(a, b, 0.5), radius: distance2(a, b) / 2 };
  const [u, v] = [subtract2(b, a), subtract2(c, a)];
  const twice = 2 * cross2(u, v);
  if (Math.abs(twice) < 1e-12 * (dot2(u, u) + dot2(v, v)))
    return refuse('points', 'These three points stand in one line.');
  const toCentre = scale2(subtract2(scale2(left2(v), -dot2(u, u)), scale2(left2(u), -dot2(v, v))), 1 / twice);
  const centre = add2(a, toCentre);
  return {
    centre: [cleanLength(centre[0]), cleanLength(centre[1])],
    radius: cleanLength(distance2(centre, a)),
  };
}

/** By centre, radius and angles, or through three points. */
export const arc = declareVerb({
  id: 'arc',
  name: 'Arc',
  group: 'draw',
  about: 'Part of a circle: by centre, radius and angles, or through three points.',
  words: ['curve', 'bow', 'segment', 'round'],
  blanks: {
    radius: optional('length', 'radius', 'Of its circle.', { positive: true, excludes: 'through' }),
    at: centreBlank,
    first: needed('angle', 'from', 'Where it begins, from X towards Y.', { default: '0' }),
    sweep: needed('angle', 'sweep', 'How far it goes; less than zero is clockwise.', { default: '90' }),
    through: optional('path', 'through', 'Three points: its start, one on it, its end.', {
      excludes: 'radius',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence:
    'Arc[ of radius {radius} about {at} from {first} by {sweep}][ through {through}] on {on}[ named {as}]',
  apply(draft, { radius, at, first, sweep, through, on, as }, context) {
    if (through) {
      const points = pointsOn(on, through);
      if (points.length !== 3) return refuse('points', 'An arc goes through three points.', 'through');
      const round = circleThrough(points);
      if (isRefusal(round)) return { ...round, blank: 'through' };
      const [start, , end] = points.map((point) => {
        const out = subtract2(point, round.centre);
        return cleanDegrees(degrees(Math.atan2(out[1], out[0])));
      });
      // It turns to the side on which the middle point lies.
      const isClockwise = cross2(subtract2(points[1]!, points[0]!), subtract2(points[2]!, points[0]!)) < 0;
      const turn = (((end! - start!) % 360) + 360) % 360;
      return drawFigure(draft, context, {
        name: as ?? 'Arc',
        figure: { kind: 'arc', radius: round.radius, first: start!, sweep: isClockwise ? turn - 360 : turn },
        plane: on,
        at: round.centre,
      });
    }
    if (radius === undefined)
      return refuse('missing', 'Say the radius, or give three points that it goes through.', 'radius');
    return drawFigure(draft, context, {
      name: as ?? 'Arc',
      figure: { kind: 'arc', radius, first, sweep },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});

export const ellipse = declareVerb({
  id: 'ellipse',
  name: 'Ellipse',
  group: 'draw',
  about: 'By its two widths along the axes of the plane.',
  words: ['oval', 'round'],
  blanks: {
    width: needed('length', 'width', 'Along the X of the plane.', { positive: true }),
    height: needed('length', 'height', 'Along the Y of the plane.', { positive: true }),
    at: centreBlank,
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Ellipse {width} by {height} about {at} on {on}[ named {as}]',
  apply: (draft, { width, height, at, on, as }, context) =>
    drawFigure(draft, context, {
      name: as ?? 'Ellipse',
      figure: { kind: 'ellipse', width, height },
      plane: on,
      at: footOf(on, at),
      exact: at,
    }),
});

export const polygon = declareVerb({
  id: 'polygon',
  name: 'Polygon',
  group: 'draw',
  about: 'Equal sides: how many, and its width across corners, across flats, or of one side.',
  words: ['hexagon', 'triangle', 'pentagon', 'octagon', 'sides', 'nut'],
  blanks: {
    sides: needed('count', 'sides', 'How many, 3 or more.', { default: '6' }),
    width: needed('length', 'width', 'Across corners, across flats, or of one side.', { positive: true }),
    across: needed('choice', 'measured', 'What the width says.', { default: 'corners', choices: ACROSS }),
    at: centreBlank,
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Polygon of {sides} sides, {width} {across}, about {at} on {on}[ named {as}]',
  apply(draft, { sides, width, across, at, on, as }, context) {
    if (!isSides(sides)) return refuse('count', 'Sides: a whole number from 3 to 1000.', 'sides');
    return drawFigure(draft, context, {
      name: as ?? 'Polygon',
      figure: { kind: 'polygon', sides, across: across as keyof typeof ACROSS, size: width },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});

export const curve = declareVerb({
  id: 'curve',
  name: 'Curve',
  group: 'draw',
  about: 'A smooth curve through points, or drawn towards them.',
  words: ['spline', 'smooth', 'freeform', 'bezier', 'wave'],
  blanks: {
    points: needed('path', 'points', 'One after another.'),
    how: needed('choice', 'how', 'Whether it goes through the points.', {
      default: 'through',
      choices: { through: 'through the points', control: 'drawn towards the points' },
    }),
    closed: needed('choice', 'end', 'Whether it comes back to its start.', {
      default: 'no',
      choices: { no: 'open', yes: 'closed' },
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Curve {how} {points}[, {closed}] on {on}[ named {as}]',
  apply(draft, { points, how, closed, on, as }, context) {
    const on2 = pointsOn(on, points);
    const least = closed === 'yes' ? 3 : 2;
    if (on2.length < least)
      return refuse('too-few', `A curve like this needs ${least} points or more.`, 'points');
    return drawFigure(draft, context, {
      name: as ?? 'Curve',
      figure: {
        kind: 'curve',
        points: on2.map(([x, y]) => [x, y]),
        how: how === 'control' ? 'control' : 'through',
        closed: closed === 'yes',
      },
      plane: on,
      at: [0, 0],
    });
  },
});

export const text = declareVerb({
  id: 'text',
  name: 'Text',
  group: 'draw',
  about: 'Letters as outlines, to raise or to engrave.',
  words: ['letters', 'label', 'name', 'engrave', 'font', 'sign'],
  blanks: {
    text: needed('text', 'text', 'What it says; a new line begins after \\n.'),
    height: needed('length', 'height', 'Of the capital letters.', { positive: true }),
    at: needed('point', 'at', 'Where its first line begins, ends or has its middle.', {
      default: ['0', '0', '0'],
    }),
    align: needed('choice', 'alignment', 'What stands at the point.', {
      default: 'left',
      choices: { left: 'from the left', centre: 'about the middle', right: 'to the right' },
    }),
    spacing: needed('length', 'spacing', 'Added between letters.', { default: '0', rare: true }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Text {text}, {height} high, {align} at {at}[, spaced {spacing}] on {on}[ named {as}]',
  apply(draft, { text: words, height, at, align, spacing, on, as }, context) {
    const told = words.replaceAll('\\n', '\n');
    const missing = missingLetters(told);
    if (missing.length > 0)
      return refuse('letters', `The font has no ${missing.map((one) => `“${one}”`).join(', ')}.`, 'text');
    if (told.trim() === '') return refuse('missing', 'A text of nothing but spaces draws nothing.', 'text');
    return drawFigure(draft, context, {
      name: as ?? (told.split('\n')[0]!.trim().slice(0, 40) || 'Text'),
      figure: { kind: 'text', text: told, height, spacing, align: align as 'left' | 'centre' | 'right' },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});
