/** Sines and cosines of degrees without noise: exact at multiples of 90°, and exactly ½ where they are ½. */

/** The angle brought into [0, 360). Exact for whole degrees. */
export function turnWithin(degrees: number): number {
  const rest = degrees % 360;
  return rest < 0 ? rest + 360 : rest + 0;
}

const EXACT_SINES: Readonly<Record<number, number>> = {
  0: 0,
  30: 0.5,
  90: 1,
  150: 0.5,
  180: 0,
  210: -0.5,
  270: -1,
  330: -0.5,
};

/** The sine of an angle in degrees, exact where it is 0, ½ or 1. */
export function sinDegrees(degrees: number): number {
  const within = turnWithin(degrees);
  // Looking up a number that is no index writes it out as text, which costs more than the sine.
  const exact = within % 30 === 0 ? EXACT_SINES[within] : undefined;
  if (exact !== undefined) return exact;
  // Folding into the first eighth makes sin 40° and sin 140°, or sin 40° and cos 50°, the same bits.
  const folded = within > 180 ? -1 : 1;
  const half = within > 180 ? within - 180 : within;
  const quarter = half > 90 ? 180 - half : half;
  return folded * (quarter > 45 ? Math.cos(radians(90 - quarter)) : Math.sin(radians(quarter)));
}

/** The cosine of an angle in degrees, exact where it is 0, ½ or 1. */
export function cosDegrees(degrees: number): number {
  return sinDegrees(90 - Math.abs(degrees % 360));
}

/** Infinite at odd multiples of 90°. */
export function tanDegrees(degrees: number): number {
  const within = turnWithin(degrees) % 180;
  if (within === 45) return 1;
  if (within === 135) return -1;
  return within === 90 ? Infinity : sinDegrees(degrees) / cosDegrees(degrees);
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (radians: number): number => (radians * 180) / Math.PI;
