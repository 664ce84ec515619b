/** Curves end to end, by the names that faces and edges take from them. */
import type { Curve } from '../curves/curve.ts';

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
