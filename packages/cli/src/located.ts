/** What statements may ask of built geometry, answered by a kernel in this process. */
import {
  locatePoint,
  refuse,
  worldFromPart,
  carry,
  type ItemId,
  type KadrelDocument,
  type NamedPoint,
  type Refusal,
  type Vec3,
  type World,
} from '@kadrel/core';
import { BuildError, type Evaluator } from '@kadrel/kernel';

/** The world of one statement: the document as it stands before it. */
export function worldOf(document: KadrelDocument, kernel: Evaluator, newId: () => ItemId): World {
  return {
    newId,
    boxOf(part) {
      try {
        return kernel.facts(document, part).measures.box;
      } catch (error) {
        if (error instanceof BuildError) return undefined;
        throw error;
      }
    },
    locate(part: ItemId, point: NamedPoint): Vec3 | Refusal {
      try {
        const found = locatePoint(kernel.facts(document, part).snaps, point, document);
        return 'refused' in found ? found : carry(worldFromPart(document, part), found);
      } catch (error) {
        if (error instanceof BuildError) return refuse('not-built', `${error.reason} ${error.remedy}`);
        throw error;
      }
    },
  };
}
