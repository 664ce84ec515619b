/**
 * `window.kadrel`: a small read-only API for the browser's console, and what the browser tests aim the mouse with.
 * Lengths in mm. docs/architecture.md describes it.
 */
import type { KadrelDocument, Vec3 } from '@kadrel/core';
import { partNamed } from '@kadrel/core';
import type { PartMeasure } from '@kadrel/kernel';
import type { Session, SessionState } from '../session/store.ts';
import { screenOf } from '../viewport/underPixel.ts';
import type { Stage } from '../viewport/stage.ts';

/** What the browser’s console may read. */
export interface KadrelConsole {
  /** A copy of the document. */
  readonly document: KadrelDocument;
  /** Names of the selected parts. */
  readonly selection: readonly string[];
  /** Where a world point stands in the window, in the view that one works in, CSS pixels. */
  screenOf(point: Vec3): readonly [x: number, y: number];
  /** Measures of a part, by name or id, in the world. */
  facts(part: string): Promise<PartMeasure>;
  /** Volumes (mm³) of the parts that the statement in hand would change, as the views show them, by name. */
  readonly preview: Readonly<Record<string, number>>;
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

/** Offers it, until what is returned is called. */
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
    screenOf: (point) => screenOf(stage.panes.active, point),
    facts(part) {
      const found = partNamed(state().document, part);
      return found ? session.measure(found.id) : Promise.reject(new Error(`There is no part named ${part}.`));
    },
    get preview() {
      return volumesAhead(state());
    },
    get isIdle() {
      return session.isIdle() && state().statement?.phase !== 'working' && stage.panes.isAtRest;
    },
    get unsaved() {
      return session.unsaved();
    },
  });
  return () => delete window.kadrel;
}

function volumesAhead({ builtPreview, built }: SessionState): Record<string, number> {
  if (!builtPreview) return {};
  const { parts, factsOf } = builtPreview.built;
  const changed = Object.entries(parts).filter(([name, { key }]) => built.parts[name]?.key !== key);
  return Object.fromEntries(
    changed.flatMap(([name, { key }]) => {
      const [item, facts] = [builtPreview.document.items[name], factsOf(key)];
      return item && facts ? [[item.name, facts.measures.volume]] : [];
    }),
  );
}
