/** The fit report: opened, narrowed, looked through, left off. */
import {
  carryBack,
  worldFromPart,
  type Finding,
  type ItemId,
  type KadrelDocument,
  type MadeFaces,
} from '@kadrel/core';
import type { PrebuiltSolids } from '@kadrel/kernel';
import type { SessionCore } from './core.ts';
import type { FitState } from './fitState.ts';
import { FitWatch, type Checked } from './fitWatch.ts';
import { measuring } from './measuring.ts';

type Checks = PrebuiltSolids['checks'];

/** What can be done with the reports. @param known what checks need not be looked at again */
export function fitting(
  core: SessionCore,
  {
    select,
    known,
  }: { readonly select: (parts: readonly ItemId[]) => void; readonly known: Checks | undefined },
) {
  const { set } = core;
  const watch = new FitWatch(core, known);
  return {
    /** From then on the report is kept up to date. */
    openFit(): void {
      set({ isRackOpen: false });
      watch.change({ isOpen: true });
      watch.watch();
    },
    closeFit(): void {
      watch.change({ isOpen: false, shown: null, walls: null });
      set({ stepShown: null });
    },
    setFitScope(scope: Partial<Pick<FitState, 'reach' | 'pairs' | 'chosen'>>): void {
      watch.change(scope);
      watch.watch();
    },
    ...making(core, watch),
    cancelFit: () => watch.cancel(),
    lookAtFit: () => watch.watch(),
    showFinding: showingFinding(core, { select, watch }),
    ...measuring(core, (inHand) => watch.change({ inHand })),
    /** What kept measures and wanted fits came to last. */
    lastChecks: (): Checked | undefined => watch.lastChecks,
    stopFitting: () => watch.stop(),
  };
}

interface Showing {
  readonly select: (parts: readonly ItemId[]) => void;
  readonly watch: FitWatch;
}

/** Selects what a finding is about, and shows its place. */
const showingFinding =
  ({ get, set }: SessionCore, { select, watch }: Showing) =>
  async (shown: Finding | null): Promise<void> => {
    watch.change({ shown, walls: null });
    set({ stepShown: null });
    if (!shown) return;
    const { document } = get();
    select(shown.items.filter((id) => document.items[id]));
    const [part] = shown.items;
    if (!shown.pair || !part || !OVERLAPPING.has(shown.kind)) return;
    const found = await watch.ask<'common'>({ ask: 'common', pair: shown.pair }).catch(() => null);
    if (found && get().fit.shown === shown)
      set({ stepShown: { part, corners: cornersIn(document, part, found), seen: 'through' } });
  };

/** The report about making. */
function making({ get }: SessionCore, watch: FitWatch) {
  return {
    /** Another report, or another measure of what can be made. */
    setMaking(change: Partial<Pick<FitState, 'kind' | 'limits'>>): void {
      watch.change({ ...change, shown: null, walls: null });
      watch.watch();
    },
    /** Shows how thick a solid of a finding is all over, or leaves off. */
    async showWalls(finding: Finding | null): Promise<void> {
      watch.change({ walls: null });
      if (finding?.solid === undefined) return;
      const map = await watch.ask<'walls'>({ ask: 'walls', solid: finding.solid }).catch(() => null);
      const { shown, limits } = get().fit;
      if (map && shown?.id === finding.id) watch.change({ walls: { map, limit: limits.wall } });
    },
  };
}

/** What two have in common is shown of these. */
const OVERLAPPING: ReadonlySet<Finding['kind']> = new Set(['overlap', 'inside']);

/** Corners in the world → in the frame of a part, as what is shown of a step is kept. */
function cornersIn(document: KadrelDocument, part: ItemId, { corners }: MadeFaces): number[] {
  const pose = worldFromPart(document, part);
  const own: number[] = [];
  for (let i = 0; i + 2 < corners.length; i += 3)
    own.push(...carryBack(pose, [corners[i]!, corners[i + 1]!, corners[i + 2]!]));
  return own;
}
