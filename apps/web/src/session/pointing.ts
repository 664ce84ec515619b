/** What is pointed at of a part: faces, edges and corners that are selected, and steps. */
import {
  softenedBy,
  type EdgeFacts,
  type FaceFacts,
  type ItemId,
  type MadeFaces,
  type Question,
} from '@kadrel/core';
import type { SessionCore } from './core.ts';
import { edgesIn, facesIn, shownPlaces, type SelectedPlaces } from './places.ts';

interface AskedStep {
  readonly part: ItemId;
  /** Counted from 0. */
  readonly step: number;
}

/** What can be done with faces, edges and corners. */
export function pointing(
  { get, set, host, worlds }: SessionCore,
  select: (parts: readonly ItemId[]) => void,
) {
  return {
    /** Selects faces, edges and corners of one part; null leaves the part selected. */
    selectPlaces(places: SelectedPlaces | null): void {
      if (places) select([places.part]);
      set({ places });
    },
    /** Sizes of what is selected of a part, from the kernel. */
    async placeFacts(places: SelectedPlaces): Promise<{ face?: FaceFacts; edges?: EdgeFacts }> {
      const { document } = get();
      const { part } = places;
      const names = facesIn(places);
      const edges = edgesIn(places, document, worlds.of(document));
      const ask = (question: Question) => host.ask({ ask: 'answer', document, question });
      return {
        ...(names.length > 0 ? { face: (await ask({ ask: 'face', part, names })) as FaceFacts } : {}),
        ...(edges.length > 0 ? { edges: (await ask({ ask: 'edges', part, edges })) as EdgeFacts } : {}),
      };
    },
    shownPlaces(places: SelectedPlaces) {
      const { document } = get();
      return shownPlaces(places, document, worlds.of(document));
    },
    /** Both ends of each edge of the cage of a softened part, in its own frame, mm; none where it has none. */
    async cageOf(part: ItemId): Promise<readonly number[]> {
      const { document } = get();
      if (softenedBy(document, document.items[part]!) === undefined) return [];
      try {
        const question = { ask: 'cage', part } as const;
        return (await host.ask({ ask: 'answer', document, question })) as readonly number[];
      } catch (error) {
        // A cage that cannot be built is reported where the part is.
        if ((error as { code?: string }).code === undefined) throw error;
        return [];
      }
    },
  };
}

/** What can be done with steps. */
export function pointingAtSteps({ get, set, host }: SessionCore) {
  let stepAsked: AskedStep | null = null;
  return {
    /** Marks in the views what a step of a part has made; null takes it off again. */
    async showStep(asked: AskedStep | null): Promise<void> {
      stepAsked = asked;
      if (get().stepShown) set({ stepShown: null });
      const { document } = get();
      // What is worked on comes first: pointing at a step is no reason to wait.
      if (!asked || !host.isIdle) return;
      try {
        const question = { ask: 'made', ...asked } as const;
        const { corners } = (await host.ask({ ask: 'answer', document, question })) as MadeFaces;
        if (stepAsked === asked && get().document === document)
          set({ stepShown: { part: asked.part, corners } });
      } catch (error) {
        // A step that cannot be done has made nothing.
        if ((error as { code?: string }).code === undefined) throw error;
      }
    },
  };
}
