/**
 * `window.kadrel`: a small read-only API for the browser's console, and what the browser tests aim the mouse with.
 * Lengths in mm. docs/architecture.md describes it.
 */
import type { KadrelDocument, Vec3 } from '@kadrel/core';
import { partNamed } from '@kadrel/core';
import type { PartMeasure } from '@kadrel/kernel';
import type { Session } from '../session/store.ts';
import type { Stage } from '../viewport/stage.ts';

export interface KadrelConsole {
  /** A copy of the document. */
  readonly document: KadrelDocument;
  /** Names of the selected parts. */
  readonly selection: readonly string[];
  /** Where a world point stands in the window, in the view that one works in, CSS pixels. */
  screenOf(point: Vec3): readonly [x: number, y: number];
  /** Measures of a part, by name or id, in the world. */
  facts(part: string): Promise<PartMeasure>;
  /** Nothing is being built and nothing waits to be built; no view moves. */
  readonly isIdle: boolean;
  /** Edits that the server has not acknowledged. */
  readonly unsaved: number;
}

declare global {
  interface Window {
    kadrel?: KadrelConsole;
  }
}

export function offerConsole(session: Session, stage: Stage): () => void {
  const state = () => session.store.getState();
  window.kadrel = Object.freeze<KadrelConsole>({
    get document() {
      return structuredClone(state().document);
    },
    get selection() {
      const { selection, document } = state();
      return selection.map((id) => document.items[id]!.name);
    },
    screenOf: (point) => stage.active.screenOf(point),
    facts(part) {
      const found = partNamed(state().document, part);
      return found ? session.measure(found.id) : Promise.reject(new Error(`There is no part named ${part}.`));
    },
    get isIdle() {
      return session.isIdle() && state().statement?.phase !== 'working' && stage.isAtRest;
    },
    get unsaved() {
      return session.unsaved();
    },
  });
  return () => delete window.kadrel;
}
