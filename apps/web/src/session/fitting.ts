/** How parts stand to one another: looked at while nothing else is at work, and again for what has changed. */
import {
  MEASURED,
  USUAL_SCOPE,
  measureWords,
  measuredValue,
  type MeasuredKind,
  carryBack,
  fitReport,
  judgeMeasure,
  surveyChecks,
  surveyFit,
  worldFromPart,
  type Asking,
  type Finding,
  type ItemId,
  type KadrelDocument,
  type MadeFaces,
  type MeasuredFacts,
  type Scene,
  type Scope,
  type Surveyed,
  type Target,
} from '@kadrel/core';
import type { SessionCore } from './core.ts';
import { resolvedTargets } from './measuring.ts';
import type { FitState, ShownCheck } from './fitState.ts';
import type { SessionState } from './state.ts';
import type { Statement } from './statement.ts';

/** After an edit this long nothing else must come, ms: a number that is being typed would be looked at letter by letter. */
const SETTLED_MS = 250;

class Over extends Error {}

interface FittingTools {
  readonly select: (parts: readonly ItemId[]) => void;
  readonly later: (work: () => void, ms: number) => void;
}

export function fitting(core: SessionCore, { select, later }: FittingTools) {
  const { get, set } = core;
  let turn = 0;
  let isWatching = false;
  let measuring = 0;
  const change = (fit: Partial<FitState>) => set({ fit: { ...get().fit, ...fit } });

  /** Refusals of the kernel are nothing to tell: what is gone is told as gone. */
  const askFor =
    (document: KadrelDocument, own: number): Asking =>
    async (question) => {
      if (own !== turn) throw new Over();
      try {
        const answer = await core.host.ask({ ask: 'answer', document, question });
        if (own !== turn) throw new Over();
        return answer as never;
      } catch (error) {
        if ((error as { code?: string }).code === 'refused') return null;
        throw error;
      }
    };

  async function measured(
    document: KadrelDocument,
    from: Target,
    to: Target | undefined,
  ): Promise<MeasuredFacts | null> {
    const question = { ask: 'measured', from, ...(to ? { to } : {}) } as const;
    try {
      return (await core.host.ask({ ask: 'answer', document, question })) as MeasuredFacts;
    } catch (error) {
      if ((error as { code?: string }).code === undefined) throw error;
      return null;
    }
  }

  async function look(own: number): Promise<void> {
    const { document, fit } = get();
    const scope: Scope = { ...USUAL_SCOPE, reach: fit.reach, ...(fit.among ? { among: fit.among } : {}) };
    const ask = askFor(document, own);
    const onDone = (working: number) => own === turn && change({ working });
    const surveyed = isWatching
      ? await surveyFit(document, scope, { ask, onDone })
      : await surveyChecks(document, ask);
    if (own !== turn) return;
    const report = fitReport(document, surveyed, scope);
    const shown = report.findings.find(({ id }) => id === fit.shown?.id) ?? null;
    change({
      report,
      working: null,
      trouble: null,
      shown,
      measures: shownMeasures(surveyed, document.scene),
    });
  }

  function lookAgain(): void {
    const own = ++turn;
    later(() => {
      if (own !== turn) return;
      if (isWatching) change({ working: 0 });
      look(own).catch((error: unknown) => {
        if (error instanceof Over || own !== turn) return;
        change({ working: null, trouble: error instanceof Error ? error.message : String(error) });
      });
    }, SETTLED_MS);
  }

  const stop = core.store.subscribe((now, before) => {
    if (isMatter(now, before) && (isWatching || hasChecks(now.document) || hasChecks(before.document)))
      lookAgain();
  });
  if (hasChecks(get().document)) lookAgain();
  return {
    /** Opens the fit report, which from then on is kept up to date. */
    openFit(isOpen: boolean): void {
      change({ isOpen, shown: null });
      set({ stepShown: null });
      if (!isOpen || isWatching) return;
      isWatching = true;
      lookAgain();
    },
    setFitScope(scope: Partial<Pick<FitState, 'reach' | 'among'>>): void {
      change(scope);
      lookAgain();
    },
    /** Leaves off; what was found before stays. */
    cancelFit(): void {
      turn += 1;
      isWatching = false;
      change({ working: null });
    },
    lookAtFit(): void {
      isWatching = true;
      lookAgain();
    },
    /** Selects what a finding is about, and shows its place. */
    async showFinding(shown: Finding | null): Promise<void> {
      change({ shown });
      set({ stepShown: null });
      if (!shown) return;
      const { document } = get();
      select(shown.items.filter((id) => document.items[id]));
      const [part] = shown.items;
      if ((shown.kind !== 'overlap' && shown.kind !== 'inside') || !shown.pair || !part) return;
      const found = await askFor(document, turn)({ ask: 'common', pair: shown.pair }).catch(() => null);
      if (found && get().fit.shown === shown)
        set({ stepShown: { part, corners: cornersIn(document, part, found) } });
    },
    /** All that can be measured of what is picked for Measure so far, in words; the views show the distance. */
    async measureInHand(statement: Pick<Statement, 'verb' | 'typed'> | null): Promise<readonly string[]> {
      const { document } = get();
      const own = ++measuring;
      const [from, to] = statement ? resolvedTargets(statement, document, core.worlds.of(document)) : [];
      const facts = from ? await measured(document, from, to) : null;
      if (own !== measuring) return [];
      const ends = facts?.from && facts.to ? { from: facts.from, to: facts.to } : undefined;
      const words = facts ? readings(facts, document.scene) : [];
      change({ inHand: ends && words[0] !== undefined ? { ...ends, words: words[0], isBad: false } : null });
      return words;
    },
    stopFitting: stop,
  };
}

/** Every measure that there is of it, each in words. */
const readings = (facts: MeasuredFacts, scene: Scene): string[] =>
  (Object.keys(MEASURED) as MeasuredKind[]).flatMap((kind) => {
    const value = measuredValue(kind, facts);
    return value === undefined ? [] : [`${MEASURED[kind]} ${measureWords(kind, value, scene)}`];
  });

const hasChecks = ({ measures, fits }: KadrelDocument) =>
  Object.keys(measures).length > 0 || Object.keys(fits).length > 0;

const ROOTS = ['items', 'measures', 'fits', 'meant', 'scene'] as const;
const isMatter = (now: SessionState, before: SessionState) =>
  now.document !== before.document && ROOTS.some((root) => now.document[root] !== before.document[root]);

function shownMeasures({ measures }: Surveyed, scene: Scene): ShownCheck[] {
  return measures.flatMap(({ measure, facts }) => {
    const { state, words } = judgeMeasure(measure, facts, scene);
    const from = facts?.from ?? facts?.at;
    if (!from) return [];
    const told = state === 'missed' ? words : (words.split(', at ')[0] ?? words);
    return [
      {
        from,
        to: facts?.to ?? from,
        words: `${measure.name}: ${told.replace(/\.$/, '')}`,
        isBad: state !== 'met',
      },
    ];
  });
}

/** Corners in the world → in the frame of a part, as what is shown of a step is told. */
function cornersIn(document: KadrelDocument, part: ItemId, { corners }: MadeFaces): number[] {
  const pose = worldFromPart(document, part);
  const own: number[] = [];
  for (let i = 0; i + 2 < corners.length; i += 3)
    own.push(...carryBack(pose, [corners[i]!, corners[i + 1]!, corners[i + 2]!]));
  return own;
}
