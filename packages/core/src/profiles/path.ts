/** Curves end to end, by the names that faces and edges take from them. */
import type { Curve, DrawnPath } from '../curves/curve.ts';

/** A curve of an outline, and what it is called. */
export interface NamedCurve {
  /** What the face that it sweeps is called. */
  readonly name: string;
  readonly curve: Curve;
}

/** Curves each of which begins where the last one ended. */
export interface Path {
  readonly closed: boolean;
  readonly curves: readonly NamedCurve[];
}

/** Drawn paths with names for their curves: the number of the path and of the curve in it. */
export const namedPaths = (paths: readonly DrawnPath[]): Path[] =>
  paths.map(({ closed, curves }, i) => ({
    closed,
    curves: curves.map((curve, k) => ({ name: `${i}.${k}`, curve })),
  }));
