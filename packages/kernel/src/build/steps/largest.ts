/** The largest value that a step could have: said beside a refusal, so that one need not try. */
import { withRemedy, type Fault, type FaultCode } from '@kadrel/core';
import { BuildError } from '../../occt/occt.ts';

/** What is tried first, as parts of what was asked for: where not even the least of them fits, nothing is told. */
const COARSE = [1 / 32, 1 / 1024] as const;
/** Halvings of the span between what fits and what does not: to a thousandth of what was asked for. */
const HALVINGS = 10;
/** Where a single try takes long, what is known after this time (ms) will do: it is only a hint. */
const PATIENCE_MS = 4000;

/** Largest value below `value` with which `fits`, nearly; undefined where even a thousandth of it does not. */
export function largestThatFits(value: number, fits: (value: number) => boolean): number | undefined {
  const begun = performance.now();
  const start = COARSE.findIndex((part) => fits(value * part));
  if (start < 0) return undefined;
  let [least, most] = [value * COARSE[start]!, start === 0 ? value : value * COARSE[start - 1]!];
  const near = Math.abs(value) / 2 ** HALVINGS;
  while (Math.abs(most - least) > near && performance.now() - begun < PATIENCE_MS) {
    const middle = (least + most) / 2;
    if (fits(middle)) least = middle;
    else most = middle;
  }
  return least;
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
    throw new BuildError(withLargest(error.fault, fits, { what, unit }), error.places, error.detail);
  }
}

function withLargest(fault: Fault, fits: number | undefined, { what, unit }: Said): Fault {
  if (fits !== undefined)
    return withRemedy(fault, `largest.${what}`, { size: `${roundedDown(fits)}${unit}` });
  return OF_SIZE.has(fault.code) ? withRemedy(fault, 'largest.none', {}) : fault;
}
type Said = Required<Pick<Telling<unknown>, 'what' | 'unit'>>;

/** Faults whose own remedy is to take less. */
const OF_SIZE: ReadonlySet<string> = new Set<FaultCode>([
  'rounding.size',
  'shell.too-thick',
  'push.too-far',
  'offset.inward',
  'offset.outward',
  'draft.angle',
]);

function isBuilt(work: () => void): boolean {
  try {
    work();
    return true;
  } catch (error) {
    if (error instanceof BuildError) return false;
    throw error;
  }
}
