/** Profiles from others and from solids: parallels, outlines cut by a plane, and curves put end to end. */
import type { KadrelDocument } from '../../document/schema.ts';
import type { DrawnPath } from '../../curves/curve.ts';
import { endOf, line, reversed, startOf, type Curve } from '../../curves/curve.ts';
import type { FigureOf } from '../../recipes/figures/index.ts';
import type { Pose } from '../../space/pose.ts';
import { distance2 } from '../../space/vector2.ts';
import { type Outcome, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { drawFigure } from './drawing.ts';

export type Paths = FigureOf<'paths'>['paths'];

/** A profile of curves on a plane. */
export function drawPaths(
  draft: KadrelDocument,
  context: VerbContext,
  { name, paths, plane }: { name: string; paths: readonly DrawnPath[]; plane: Pose },
): Outcome | Refusal {
  // Plain copies: what the kernel answered is shared.
  const plain = JSON.parse(JSON.stringify(paths)) as Paths;
  return drawFigure(draft, context, { name, figure: { kind: 'paths', paths: plain }, plane, at: [0, 0] });
}

/** Open chains put end to end, the nearest ends first; a chain whose own ends are near enough is closed. */
export function joinedAcross(paths: readonly DrawnPath[], gap: number): DrawnPath[] {
  const closed = paths.filter((path) => path.closed);
  let open = paths.filter((path) => !path.closed).map(({ curves }) => [...curves]);
  for (;;) {
    const best = nearestEnds(open, gap);
    if (!best) break;
    const { a, b } = best;
    const head = best.turnA ? turned(open[a]!) : open[a]!;
    const tail = best.turnB ? turned(open[b]!) : open[b]!;
    open = [...open.filter((_, i) => i !== a && i !== b), bridged(head, tail)];
  }
  const chains = open.map((curves): DrawnPath => {
    const [from, to] = [endOf(curves.at(-1)!), startOf(curves[0]!)];
    const size = distance2(from, to);
    if (size > gap || curves.length < 2) return { closed: false, curves };
    return { closed: true, curves: size > 0 ? [...curves, line(from, to)] : curves };
  });
  return [...closed, ...chains];
}

interface Ends {
  readonly a: number;
  readonly b: number;
  readonly turnA: boolean;
  readonly turnB: boolean;
  readonly size: number;
}

const WAYS = [
  { turnA: false, turnB: false },
  { turnA: false, turnB: true },
  { turnA: true, turnB: false },
  { turnA: true, turnB: true },
] as const;

/** The two chains whose ends come nearest, and which of them must be turned for it; undefined where none is near enough. */
function nearestEnds(open: readonly (readonly Curve[])[], gap: number): Ends | undefined {
  let best: Ends | undefined;
  const consider = (a: number, b: number) => {
    for (const { turnA, turnB } of WAYS) {
      const size = distance2(
        turnA ? startOf(open[a]![0]!) : endOf(open[a]!.at(-1)!),
        turnB ? endOf(open[b]!.at(-1)!) : startOf(open[b]![0]!),
      );
      if (size <= gap && (!best || size < best.size)) best = { a, b, turnA, turnB, size };
    }
  };
  for (let a = 0; a < open.length; a++) for (let b = a + 1; b < open.length; b++) consider(a, b);
  return best;
}

export const turned = (curves: readonly Curve[]): Curve[] => [...curves].reverse().map(reversed);

export function bridged(head: readonly Curve[], tail: readonly Curve[]): Curve[] {
  const [from, to] = [endOf(head.at(-1)!), startOf(tail[0]!)];
  return distance2(from, to) > 0 ? [...head, line(from, to), ...tail] : [...head, ...tail];
}
