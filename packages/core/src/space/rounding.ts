/** Lengths are kept to this many decimals of a millimetre, so that a move there and back returns the same bits. */
const LENGTH_DECIMALS = 10;

/** From here on a double is coarser than the decimal grid, and rounding would only add noise. */
const COARSE_FROM_MM = 1e5;

/**
 * The nearest double to `mm` rounded to 1e-10 mm. Typed decimals, inches and their binary fractions to 1/64 all stand
 * on this decimal grid, so sums of them do not drift; the rounding is 20 times finer than the 1e-9 mm promised.
 */
export function roundLength(mm: number): number {
  if (!Number.isFinite(mm) || Math.abs(mm) >= COARSE_FROM_MM) return mm;
  const rounded = Number(mm.toFixed(LENGTH_DECIMALS));
  return rounded === 0 ? 0 : rounded;
}

/** The noise of a few operations on doubles, relative to the largest of them. */
const RELATIVE_NOISE = 1e-15;
const MIN_NOISE_MM = 1e-12;

/**
 * A computed length: without its noise where it stands on the decimal grid, and untouched elsewhere.
 * @param size the largest number that went into it, mm
 */
export function cleanLength(mm: number, size = Math.abs(mm)): number {
  const rounded = roundLength(mm);
  return Math.abs(rounded - mm) <= MIN_NOISE_MM + RELATIVE_NOISE * size ? rounded : mm;
}

/** Angles are kept to 1e-12°, so that a turn there and back returns the typed decimals: 2e-14 rad, far below any size. */
export function roundAngle(degrees: number): number {
  const rounded = Number(degrees.toFixed(12));
  return rounded === 0 ? 0 : rounded;
}
