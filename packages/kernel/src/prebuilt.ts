/**
 * What is known of solids that the same kernel has built before, in another worker, on another day, or on another machine: they are
 * shown as they are, and one is built only where something is done to it.
 */
import type { Surveyed } from '@kadrel/core';
import type { Notice } from './combine/combination.ts';
import type { Measures } from './facts/measure.ts';
import type { ShapeFacts } from './shapes.ts';

/** All that is kept of what was built, as plain data and typed arrays. */
export interface PrebuiltSolids {
  readonly facts: readonly ShapeFacts[];
  /** Measures of patterns and groups in their own frames, by `wholeKey`. */
  readonly wholes: Readonly<Record<string, Measures>>;
  /** What the measures and fits of documents came to, by `documentKey`. */
  readonly checks: Readonly<Record<string, Surveyed>>;
}

/** What an evaluation needs of it. */
export interface Prebuilt {
  /** Notices of solids, by their keys. */
  readonly solids: ReadonlyMap<string, readonly Notice[]>;
  readonly wholes: ReadonlyMap<string, Measures>;
}

/** A solid without one of its steps is built each time, so that what it lacks is told. */
const isComplete = ({ failedSteps }: ShapeFacts): boolean => failedSteps === 0;

export const completeOnes = (facts: Iterable<ShapeFacts>): ShapeFacts[] => [...facts].filter(isComplete);
