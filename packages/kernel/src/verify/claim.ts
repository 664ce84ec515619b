/** What a combination is said to be, and what it was made of. */
import type { CombineHow, Pose, Vec3 } from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import type { Mesh } from '../facts/mesh.ts';
import type { NamedShape } from '../naming/named.ts';
import type { Field } from './distance.ts';
import type { Facets } from './facets.ts';
import type { Sample } from '../facts/samples.ts';

/** An operand as it went in, verified before. */
export interface Part {
  /** Of the item that it is. */
  readonly id: string;
  /** Put before the names of its faces; none for the first. */
  readonly tag: string;
  readonly pose: Pose;
  /** In the frame of the whole; undefined where no formula is known. */
  readonly field: Field | undefined;
  /** In its own frame. */
  readonly measures: Measures;
  readonly faceNames: readonly string[];
  readonly samples: readonly Sample[];
  /** Laid out only where a volume is reckoned by them. */
  readonly facets: () => Facets | undefined;
}

/** What a combination says that it is. */
export interface Claim {
  readonly how: CombineHow;
  readonly parts: readonly Part[];
  readonly field: Field | undefined;
  readonly result: NamedShape;
  readonly measures: Measures;
  readonly samples: readonly Sample[];
  /** Facets of the result. */
  readonly mesh: Mesh;
  /** By formula, where the way that it was built knows it. */
  readonly volumeMm3?: number | undefined;
  /** How far (mm) surfaces may be off by the way that it was built. */
  readonly fuzzMm: number;
}

/** What is wrong, with places in the frame of the combination; undefined where nothing is. */
export interface ClaimFault {
  readonly what: 'unsound' | 'open' | 'bounds' | 'doubled' | 'misplaced' | 'missing' | 'facets' | 'loose';
  readonly places: readonly Vec3[];
}

/** Relative: volumes hold up to the integration of curved faces. */
export const SAME_VOLUME = 1e-6;
