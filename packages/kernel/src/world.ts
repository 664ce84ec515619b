/** What statements may ask of built geometry, answered by a kernel in this process. */
import {
  Unanswerable,
  refuse,
  type BuiltShape,
  type ItemId,
  type KadrelDocument,
  type Question,
  type Refusal,
  type Replies,
  type World,
  starterPart,
} from '@kadrel/core';
import type { Evaluator } from './evaluate.ts';
import { BuildError } from './occt/occt.ts';

/** The world of one statement: the document as it stands before it. */
export function worldOf(document: KadrelDocument, kernel: Evaluator, newId: () => ItemId): World {
  return {
    newId,
    rackPart: starterPart,
    shapeOf(part, variant): BuiltShape | Refusal {
      return unlessNotBuilt(
        () => {
          const { measures, snaps } = kernel.facts(document, part, variant);
          return { box: measures.box, snaps };
        },
        (refusal) => refusal,
      );
    },
    ask(question: Question): Replies[Question['ask']] {
      return unlessNotBuilt(
        () => kernel.answer(document, question),
        (refusal) => {
          throw new Unanswerable(refusal);
        },
      );
    },
  };
}

function unlessNotBuilt<T, R>(work: () => T, otherwise: (refusal: Refusal) => R): T | R {
  try {
    return work();
  } catch (error) {
    if (error instanceof BuildError) {
      const { reason, remedy } = error.fault;
      return otherwise(refuse('not-built.kernel', { reason, remedy }));
    }
    throw error;
  }
}
