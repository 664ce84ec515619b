/** What a section that takes out a quarter leaves of a solid, and what of the solid it cuts across: by boxes that fill the quarter. */
import {
  AT_ORIGIN,
  chain,
  column,
  cross,
  dot,
  fromColumns,
  inverse,
  scale,
  subtract,
  NO_TURN,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import type { Content } from '../content/content.ts';

/** A solid, where it stands, and how far it reaches along directions of its own frame. */
export interface Quartered {
  readonly content: Content;
  readonly pose: Pose;
  readonly rangeAlong: (direction: Vec3) => readonly [low: number, high: number];
}

/** What is left, and what the plane across cuts of it; undefined for nothing. */
interface Left {
  readonly content: Content | undefined;
  /** What lies before the other plane, whose cut with the first one is seen. */
  readonly across: Content | undefined;
}

/** Solids that reach into the quarter by less than this, mm, are left whole. */
const NOTHING_MM = 1e-7;
/** How far a box that fills the quarter reaches beyond the solid, mm. */
const BEYOND_MM = 1;

/**
 * The frame of a quarter: it lies where X and Z are more than 0.
 * @param pose of the section plane @param towards the direction from which one looks at its cut, of length 1
 */
export function quarterFrame({ turn, shift }: Pose, towards: Vec3): Pose {
  const x = column(turn, 0);
  return { turn: fromColumns(x, cross(towards, x), towards), shift };
}

/** @param quarter its frame, in the world */
export function lessQuarter({ content, pose, rangeAlong }: Quartered, quarter: Pose): Left {
  const own = chain(inverse(pose), quarter);
  const [x, y, z] = [0, 1, 2].map((axis) => {
    const direction = column(own.turn, axis);
    return rangeAlong(direction).map((n) => n - dot(direction, own.shift)) as [number, number];
  }) as [[number, number], [number, number], [number, number]];
  if (x[1] < NOTHING_MM || z[1] < NOTHING_MM) return { content, across: undefined };
  const before = x[0] > -NOTHING_MM ? content : cutAt(content, beside(own), 'front');
  if (z[0] > -NOTHING_MM)
    return {
      content: x[0] > -NOTHING_MM ? undefined : cutAt(content, beside(own), 'behind'),
      across: undefined,
    };
  if (x[0] > -NOTHING_MM) return { content: cutAt(content, own, 'behind'), across: content };
  const corner = chain(own, { turn: NO_TURN, shift: [0, y[0] - BEYOND_MM, 0] });
  const size: Vec3 = subtract(
    [x[1] + BEYOND_MM, y[1] + BEYOND_MM, z[1] + BEYOND_MM],
    [0, y[0] - BEYOND_MM, 0],
  );
  const tool = { tag: 'quarter', pose: corner, content: { kind: 'box', size } as const };
  // Unlike a cut by a part, a subtraction may take nothing: a solid can reach round the quarter without reaching into it.
  const operands = [{ tag: '', pose: AT_ORIGIN, content }, tool];
  return { content: { kind: 'combine', how: 'subtract', operands }, across: before };
}

const cutAt = (of: Content, frame: Pose, keep: 'front' | 'behind'): Content => ({
  kind: 'cut',
  of,
  frame,
  keep,
});

/** A frame whose Z is the X of another one. */
const beside = ({ turn, shift }: Pose): Pose => ({
  turn: fromColumns(scale(column(turn, 2), -1), column(turn, 1), column(turn, 0)),
  shift,
});
