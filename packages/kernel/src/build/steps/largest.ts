/** The largest value that a step could have: said beside a refusal, so that one need not try. */
import { withRemedy } from '@kadrel/core';
import { BuildError } from '../../occt/occt.ts';

/** Halvings of the span between what fits and what does not: to a thousandth of what was asked for. */
const HALVINGS = 10;

/** Largest value below `value` with which `fits`; undefined where even a thousandth of it does not. */
export function largestThatFits(value: number, fits: (value: number) => boolean): number | undefined {
  let [least, most] = [0, value];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (least + most) / 2;
    if (fits(middle)) least = middle;
    else most = middle;
  }
  return least > 0 ? least : undefined;
}

/** Rounded down to three digits, so that it fits too. */
export function roundedDown(value: number): string {
  const digits = Math.max(0, 2 - Math.floor(Math.log10(value)));
  const step = 10 ** Math.min(digits, 6);
  return String(Math.floor(value * step) / step);
}

interface Telling<T> {
  readonly what: 'radius' | 'radii' | 'width' | 'thickness' | 'distance' | 'clearance' | 'angle';
  /** With a space before it where there is one. */
  readonly unit?: string;
  readonly giveBack: (made: T) => void;
}

/** Runs `build`; where it fails, says the largest value that does not. Throws BuildError. */
export function buildOrTellLargest<T>(
  value: number,
  build: (value: number) => T,
  { what, unit = ' mm', giveBack }: Telling<T>,
): T {
  try {
    return build(value);
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    const fits = largestThatFits(value, (smaller) => isBuilt(() => giveBack(build(smaller))));
    if (fits === undefined) throw error;
    const fault = withRemedy(error.fault, `largest.${what}`, { size: `${roundedDown(fits)}${unit}` });
    throw new BuildError(fault, error.places, error.detail);
  }
}

function isBuilt(work: () => void): boolean {
  try {
    work();
    return true;
  } catch (error) {
    if (error instanceof BuildError) return false;
    throw error;
  }
}
