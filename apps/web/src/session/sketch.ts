/** What a Draw statement would draw, without a kernel: the figure, and its curves in the world. */
import {
  carry,
  flattened,
  gapsOf,
  isRefusal,
  pathsOf,
  perform,
  verbNamed,
  worldFromPart,
  type Figure,
  type KadrelDocument,
  type Refusal,
  type Vec3,
  type World,
} from '@kadrel/core';
import type { Statement } from './statement.ts';

/** What a Draw statement would draw. */
export interface Sketch {
  /** The figure of the last profile that it draws or changes. */
  readonly figure: Figure;
  /** 6·L: ends of pieces, mm. */
  readonly lines: Float32Array;
  /** Ends that nothing meets, mm. */
  readonly loose: readonly Vec3[];
}

const EDITS: ReadonlySet<string> = new Set([
  'relay',
  'repoint',
  'point',
  'corner',
  'trim',
  'extend',
  'split',
  'resample',
  'blend',
  'join',
]);

/** Verbs that draw something, or change what is drawn. */
export const doesDraw = (verb: string): boolean => {
  const { group, blanks } = verbNamed(verb)!;
  return EDITS.has(verb) || (group === 'draw' && blanks.on !== undefined);
};

/** Undefined where a statement draws no profile. */
export function sketchOf(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  before: KadrelDocument,
  world: World,
): Sketch | Refusal | undefined {
  const done = perform(verbNamed(verb)!, typed, before, world);
  if (isRefusal(done)) return done;
  const lines: number[] = [];
  const loose: Vec3[] = [];
  let figure: Figure | undefined;
  for (const [id, item] of Object.entries(done.document.items)) {
    const { base } = item.recipe;
    if (base.kind !== 'profile' || before.items[id]?.recipe === item.recipe) continue;
    figure = base.figure;
    const pose = worldFromPart(done.document, id);
    const paths = pathsOf(done.document, id);
    for (const { curve } of paths.flatMap(({ curves }) => curves)) {
      const points = flattened(curve).map(([x, y]) => carry(pose, [x, y, 0]));
      for (let i = 1; i < points.length; i++) lines.push(...points[i - 1]!, ...points[i]!);
    }
    for (const { at, to } of gapsOf(paths))
      for (const [x, y] of to ? [at, to] : [at]) loose.push(carry(pose, [x, y, 0]));
  }
  return figure && { figure, lines: Float32Array.from(lines), loose };
}
