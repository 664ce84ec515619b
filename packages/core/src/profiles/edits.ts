/** Outlines with their edits made, one after another. */
import { reasonOf } from '../language/reason.ts';
import { valueOf } from '../recipes/numbers.ts';
import { EditFault, cornersOf, nearestCorner, withCorner } from './corners.ts';
import type { Curve } from '../curves/curve.ts';
import { extended, reversedPath, splitAt, trimmed } from './cutting.ts';
import type { CurveStep, CurveStepOf } from '../recipes/steps/index.ts';
import type { Path } from './outline.ts';
import { departure, resampled } from './resample.ts';

/** @param others curves of the profiles that the edit names, in the same frame. Throws EditFault. */
export function edited(paths: readonly Path[], edit: CurveStep, others: readonly Curve[]): Path[] {
  switch (edit.kind) {
    case 'corner':
      return withCorners(paths, edit);
    case 'trim':
      return trimmed(paths, edit.near, others);
    case 'extend':
      return extended(paths, edit.near, others);
    case 'split':
      return splitAt(paths, edit.near);
    case 'reverse':
      return paths.map(reversedPath);
    case 'resample':
      return paths.map((path) => resampled(path, edit));
  }
}

function withCorners(paths: readonly Path[], { where, how, size }: CurveStepOf<'corner'>): Path[] {
  const corners = cornersOf(paths);
  const chosen =
    where === 'all' ? corners : [nearestCorner(corners, where.near, where.between)].filter((one) => !!one);
  if (chosen.length === 0) throw new EditFault(reasonOf('edit.no-corners', {}));
  return paths.map((path, p) =>
    // From the last to the first, so that the places of those before stay.
    chosen
      .filter((corner) => corner.path === p)
      .toSorted((a, b) => b.curve - a.curve)
      .reduce((made, { curve }) => withCorner(made, curve, { how, size: valueOf(size) }), path),
  );
}

/** The greatest distance between outlines before and after, either way, mm. */
export function greatestDeviation(before: readonly Path[], after: readonly Path[]): number {
  const [a, b] = [before, after].map((paths) =>
    paths.flatMap(({ curves }) => curves.map(({ curve }) => curve)),
  );
  return Math.max(departure(a!, b!), departure(b!, a!));
}
