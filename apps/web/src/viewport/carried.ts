import { carry, type Pose } from '@kadrel/core';

/** Points as one list of numbers, from the frame of a part into the world. */
export const carriedTo = (pose: Pose, points: readonly number[]): Float32Array =>
  Float32Array.from(
    points.flatMap((x, i) => (i % 3 === 0 ? carry(pose, [x, points[i + 1]!, points[i + 2]!]) : [])),
  );
