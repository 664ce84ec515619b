/** What was built and has passed its check, by the keys of contents. It is bounded: what is not in use is given back, oldest first. */
import type { Notice } from './combine/combination.ts';
import type { Content } from './content/content.ts';
import type { Measures } from './facts/measure.ts';
import type { Mesh } from './facts/mesh.ts';
import type { Sample } from './facts/samples.ts';
import type { NamedShape } from './naming/named.ts';
import { release, type BuildError, type Occt } from './occt/occt.ts';
import type { Field } from './verify/distance.ts';

/** A step that could not be done: what stands instead is what it was to be done to. */
export interface FailedStep {
  /** Of the content that the step would have made. */
  readonly key: string;
  readonly error: BuildError;
}

/** What has passed its check, and what is known of it so far. */
export interface Held {
  readonly failed: readonly FailedStep[];
  readonly content: Content;
  readonly named: NamedShape;
  readonly notices: readonly Notice[];
  measures?: Measures;
  /** Facets for display, until they are handed over. */
  mesh?: Mesh | undefined;
  /** Of what section planes cut, which they do again and again; never handed over. */
  facets?: Mesh;
  samples?: readonly Sample[];
  /** By the facets, where no formula is known. */
  field?: Field | undefined;
}

/** Shapes kept beyond what the present document needs, so that undo and previews find them. */
const SPARE_SHAPES = 400;

/** Owns the shapes that it holds. */
export class SolidCache {
  private readonly held = new Map<string, Held>();

  constructor(private readonly occt: Occt) {}

  has(key: string): boolean {
    return this.held.has(key);
  }

  get size(): number {
    return this.held.size;
  }

  /** What is asked for moves to the young end. */
  get(key: string): Held | undefined {
    const known = this.held.get(key);
    if (known) {
      this.held.delete(key);
      this.held.set(key, known);
    }
    return known;
  }

  set(key: string, held: Held): void {
    this.held.set(key, held);
  }

  /** Gives back what has not been used for long. @param used keys that are in use */
  dropUnused(used: ReadonlySet<string>): void {
    let spare = this.held.size - used.size - SPARE_SHAPES;
    for (const [key, { named }] of this.held) {
      if (spare <= 0) return;
      if (used.has(key)) continue;
      release(this.occt, named.shape);
      this.held.delete(key);
      spare -= 1;
    }
  }
}
