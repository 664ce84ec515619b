/** Facts that the page has, by the keys of contents: of what is shown, and of about as much again. */
import type { KadrelDocument } from '@kadrel/core';
import type { Evaluation } from './evaluate.ts';
import { completeOnes, type Prebuilt, type PrebuiltSolids } from './prebuilt.ts';
import type { ShapeFacts } from './shapes.ts';

/** Kept beyond twice what is shown. */
const SPARE_FACTS = 50;

/** What was built of a document, with the facts of every part. */
export interface Shown extends Evaluation {
  readonly of: KadrelDocument;
  readonly factsOf: (key: string) => ShapeFacts | undefined;
}

/** The page's copies of facts. */
export class KnownFacts {
  private readonly facts = new Map<string, ShapeFacts>();
  private readonly wholes: Prebuilt['wholes'];
  /** Keys of what was evaluated to stay. */
  private standing: ReadonlySet<string> = new Set();

  constructor(prebuilt: Pick<PrebuiltSolids, 'facts' | 'wholes'> = { facts: [], wholes: {} }) {
    for (const shape of prebuilt.facts) this.facts.set(shape.key, shape);
    this.wholes = new Map(Object.entries(prebuilt.wholes));
  }

  get keys(): string[] {
    return [...this.facts.keys()];
  }

  /** What need not be built again. */
  get prebuilt(): Prebuilt {
    const complete = completeOnes(this.facts.values());
    return { solids: new Map(complete.map(({ key, notices }) => [key, notices])), wholes: this.wholes };
  }

  /** Takes in what came with an evaluation; only what is there to stay makes room. */
  shown(of: KadrelDocument, evaluation: Evaluation, { isPassing }: { readonly isPassing: boolean }): Shown {
    for (const shape of evaluation.shapes) this.facts.set(shape.key, shape);
    const shown = new Set(Object.values(evaluation.parts).map(({ key }) => key));
    if (!isPassing) this.standing = shown;
    this.forgetUnused(new Set([...this.standing, ...shown]));
    return { ...evaluation, of, factsOf: (key) => this.facts.get(key) };
  }

  private forgetUnused(shown: ReadonlySet<string>): void {
    for (const key of shown) {
      const fact = this.facts.get(key);
      if (fact) {
        this.facts.delete(key);
        this.facts.set(key, fact);
      }
    }
    for (const key of this.facts.keys()) {
      if (this.facts.size <= 2 * shown.size + SPARE_FACTS) return;
      if (!shown.has(key)) this.facts.delete(key);
    }
  }
}
