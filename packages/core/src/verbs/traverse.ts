import { definitionOf } from '../document/items.ts';
import type { Num } from '../document/schema.ts';
import { QuantityError } from '../quantity/lexer.ts';
import { CLOSINGS, type FigureOf, type Leg } from '../recipes/figures/index.ts';
import { vectorOf } from '../recipes/numbers.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Row,
  type VerbContext,
} from './declare.ts';
import { drawFigure, figureFault, namedAs, onPlane } from './drawing.ts';
import { CLOSING_WORDS, LEG_COLUMNS, legOf } from './legs.ts';
import { inPlane } from './planes.ts';

type Closing = (typeof CLOSINGS)[number];

function readLegs(rows: readonly Row[], context: VerbContext): Leg[] | Refusal {
  if (rows.length === 0) return refuse('missing', 'A traverse has one leg or more.', 'legs');
  const angle = (text: string): Num | Refusal => {
    try {
      return context.read(text, 'angle');
    } catch (error) {
      if (error instanceof QuantityError) return refuse(error.code, `the arc: ${error.message}`, 'legs');
      throw error;
    }
  };
  const legs = rows.map((row, i) => legOf(row, i, angle));
  return legs.find(isRefusal) ?? (legs as Leg[]);
}

const legsBlank = {
  columns: LEG_COLUMNS,
};

/** An outline booked leg by leg. */
export const traverse = declareVerb({
  id: 'traverse',
  name: 'Traverse',
  group: 'draw',
  about:
    'An outline leg by leg: by ΔX and ΔY, length and bearing (clockwise from +Y), length and turn to the right, or to X and Y.',
  words: ['polyline', 'outline', 'legs', 'survey', 'room', 'draw', 'line', 'path', 'bearing'],
  blanks: {
    legs: needed('rows', 'legs', 'Typed, pasted from a spreadsheet, or clicked point by point.', legsBlank),
    at: needed('point', 'start', 'Where the first leg begins.', { default: ['0', '0', '0'] }),
    closing: needed('choice', 'end', 'How it comes back to its start.', {
      default: 'open',
      choices: CLOSING_WORDS,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Traverse of {legs} from {at}[, {closing}] on {on}[ named {as}]',
  apply(draft, { legs: rows, at, closing, on, as }, context) {
    const legs = readLegs(rows, context);
    if (isRefusal(legs)) return legs;
    const start = inPlane(on, vectorOf(at));
    const figure: FigureOf<'traverse'> = {
      kind: 'traverse',
      start: [...start],
      legs,
      closing: closing as Closing,
    };
    return drawFigure(draft, context, { name: as ?? 'Traverse', figure, plane: on, at: [0, 0] });
  },
});

/** A straight line between two points. */
export const line = declareVerb({
  id: 'line',
  name: 'Line',
  group: 'draw',
  about: 'A straight line between two points.',
  words: ['segment', 'edge', 'straight'],
  blanks: {
    from: needed('point', 'from', 'Where it begins.'),
    to: needed('point', 'to', 'Where it ends.'),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Line from {from} to {to} on {on}[ named {as}]',
  apply(draft, { from, to, on, as }, context) {
    const [start, end] = [inPlane(on, vectorOf(from)), inPlane(on, vectorOf(to))];
    const figure: FigureOf<'traverse'> = {
      kind: 'traverse',
      start: [...start],
      legs: [{ to: [...end] }],
      closing: 'open',
    };
    return drawFigure(draft, context, { name: as ?? 'Line', figure, plane: on, at: [0, 0] });
  },
});

/** Other legs for a traverse that is there; what is made from it follows. */
export const relay = declareVerb({
  id: 'relay',
  name: 'Change legs',
  group: 'edit',
  about: 'Gives a traverse other legs or another end; what is made from it follows.',
  words: ['traverse', 'legs', 'edit', 'close', 'spread', 'outline'],
  blanks: {
    profile: needed('part', 'traverse', 'Which one.'),
    legs: optional('rows', 'legs', 'All of them, as they are to be.', legsBlank),
    closing: optional('choice', 'end', 'How it comes back to its start.', { choices: CLOSING_WORDS }),
  },
  sentence: 'Change legs of {profile}[ to {legs}][, {closing}]',
  apply(draft, { profile, legs: rows, closing }, context) {
    const item = draft.items[profile]!;
    const { base } = definitionOf(draft, item).recipe;
    if (base.kind !== 'profile' || base.figure.kind !== 'traverse')
      return refuse('no-traverse', `${item.name} is no traverse.`, 'profile');
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'profile');
    if (rows) {
      const legs = readLegs(rows, context);
      if (isRefusal(legs)) return legs;
      base.figure.legs = legs;
    }
    if (closing) base.figure.closing = closing as Closing;
    const fault = figureFault(base.figure);
    return fault ? refuse('figure', fault.message, fault.blank) : { select: [profile] };
  },
});
