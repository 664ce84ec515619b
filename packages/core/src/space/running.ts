/** Edges that run on into one another without a bend. */
import { cross, distance, dot, length, type Vec3 } from './vector.ts';

/** Where an edge ends. */
export interface EdgeEnd {
  readonly at: Vec3;
  /** Out of the edge, length 1. */
  readonly out: Vec3;
}

/** Ends nearer to each other than this (mm) are one corner: ten times as far as the kernel lets edges end from it. */
const SAME_MM = 1e-6;

/**
 * Some of all edges, and all that run on from them, one after another.
 * @param smoothSine directions at their ends that differ by less than this go on into each other
 */
export function runningOn<T>(
  all: readonly T[],
  from: readonly T[],
  { endsOf, smoothSine }: { readonly endsOf: (one: T) => readonly EdgeEnd[]; readonly smoothSine: number },
): T[] {
  const ends = new Map(all.map((one) => [one, endsOf(one)]));
  const isOneRun = (a: EdgeEnd, b: EdgeEnd) =>
    distance(a.at, b.at) < SAME_MM && dot(a.out, b.out) < 0 && length(cross(a.out, b.out)) < smoothSine;
  const found = new Set(from);
  for (const one of found)
    for (const other of all)
      if (!found.has(other) && ends.get(one)!.some((a) => ends.get(other)!.some((b) => isOneRun(a, b))))
        found.add(other);
  return [...found];
}
