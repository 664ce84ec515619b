/** Racks on the page: shown, drawn, and held against what was taken from them. */
import { gatheredPart, isRefusal, madeItems, type DrawnView, type ItemId, type RackPart } from '@kadrel/core';
import { performAsking } from './asking.ts';
import type { SessionCore } from './core.ts';
import { SHEET, VIEW, drawingOf, drawnDocument, type RackDrawing } from './rackDrawing.ts';

/** What another version would make of something that was taken. */
export interface Difference {
  /** mm³, before and after. */
  readonly volumes: readonly [number, number];
  /** Names of docks that are not there any more. */
  readonly lostDocks: readonly string[];
  /** Names of sizes that are new, or gone. */
  readonly sizes: readonly string[];
}

/** How long one waits before asking again whether the kernel is free, ms. */
const WAIT_MS = 150;

/** What can be done with racks. */
export function racking(core: SessionCore, closeFit: () => void) {
  const { get, set, host } = core;
  const free = async () => {
    while (!host.isIdle) await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
  };
  return {
    ...comparing(core),
    openRacks(): void {
      closeFit();
      set({ isRackOpen: true });
    },
    closeRacks: () => set({ isRackOpen: false }),
    /** Drawn when nothing else is to be done; null for what cannot be drawn. Rejects as the kernel’s host does. */
    async rackDrawing(part: RackPart): Promise<RackDrawing | null> {
      const made = madeItems(part, {});
      if (isRefusal(made)) return null;
      await free();
      const document = drawnDocument(made);
      const view = (await host.ask({
        ask: 'answer',
        document,
        question: { ask: 'drawn', sheet: SHEET, view: VIEW },
      })) as DrawnView;
      return drawingOf(view);
    },
    /** A part of this project as a part of a rack. */
    gatheredForRack: (part: ItemId, gathering: Parameters<typeof gatheredPart>[2]) =>
      gatheredPart(get().document, part, gathering),
    newRackId: () => crypto.randomUUID().replaceAll('-', ''),
  };
}

/** What a newer version would make of what was taken. */
function comparing(core: SessionCore) {
  const { get, host } = core;
  return {
    /** What a newer version of a rack part would change of an item that was taken from it. Rejects as the kernel’s host does. */
    async rackDifference(item: ItemId, to: RackPart): Promise<Difference | string> {
      const { document } = get();
      const done = await performAsking(
        core.worlds,
        { verb: 'update-taken', typed: { parts: [item], to } },
        document,
      );
      if (isRefusal(done)) return done.message;
      const [before, after] = [
        await host.ask({ ask: 'measure', document, part: item }),
        await host.ask({ ask: 'measure', document: done.document, part: item }),
      ];
      const kept = document.rackParts[document.items[item]!.taken!.from]!;
      return {
        volumes: [before.volume, after.volume],
        lostDocks: namesWithout(docksOf(kept), docksOf(to)),
        sizes: [...namesWithout(sizesOf(kept), sizesOf(to)), ...namesWithout(sizesOf(to), sizesOf(kept))],
      };
    },
  };
}

const docksOf = ({ items }: RackPart): string[] =>
  Object.values(items).flatMap(({ docks }) => Object.values(docks ?? {}).map(({ name }) => name));
const sizesOf = ({ sizes }: RackPart): string[] => sizes.map(({ name }) => name);
const namesWithout = (names: readonly string[], others: readonly string[]): string[] =>
  names.filter((name) => !others.includes(name));
