/** Drawings from files. */
import { type DrawnPath } from '../curves/curve.ts';
import { boxOfCurves, type Box2 } from '../curves/flattened.ts';

/** Curves in mm, Y up. */
export interface Drawing {
  readonly paths: readonly DrawnPath[];
  readonly box: Box2;
  /** Sentences about what was left out. */
  readonly notes: readonly string[];
}

/** The box round drawn paths; undefined round none. */
export const boxOfPaths = (paths: readonly DrawnPath[]): Box2 | undefined =>
  boxOfCurves(paths.flatMap(({ curves }) => curves));
