/** Looks at how parts stand to one another, and again after each edit; one look at a time, and only of what is there now. */
import {
  USUAL_SCOPE,
  fitReport,
  judgeMeasure,
  makeReport,
  standingOf,
  surveyChecks,
  surveyFit,
  surveyMaking,
  type Asking,
  type KadrelDocument,
  type MeasuredKind,
  type Scene,
  type Scope,
  type Surveyed,
} from '@kadrel/core';
import { documentKey } from '@kadrel/kernel';
import type { SessionCore } from './core.ts';
import type { FitState, ShownCheck } from './fitState.ts';
import type { SessionState } from './state.ts';

/** After an edit this long nothing else must come, ms: a number that is being typed would be looked at letter by letter. */
const SETTLED_MS = 250;

/** What kept measures and wanted fits of a document came to. */
export interface Checked {
  readonly of: KadrelDocument;
  readonly surveyed: Surveyed;
}

/** Another look has begun. */
class Over extends Error {}

/** Kept measures and wanted fits are looked at always; all pairs once that was asked for. */
export class FitWatch {
  private turn = 0;
  private isWatching = false;
  private readonly unsubscribe: () => void;

  /** What the first look may find known. */
  private known: Readonly<Record<string, Surveyed>> | undefined;
  private last: Checked | undefined;

  /** @param known what kept measures and wanted fits came to on another day, by the keys of documents */
  constructor(
    private readonly core: SessionCore,
    known: Readonly<Record<string, Surveyed>> = {},
  ) {
    this.known = known;
    const { store, get } = core;
    this.unsubscribe = store.subscribe((now, before) => {
      const isAsked = this.isWatching || hasChecks(now.document) || hasChecks(before.document);
      if (isMatter(now, before) && isAsked) this.lookAgain();
    });
    if (hasChecks(get().document)) this.lookAgain();
  }

  stop(): void {
    this.turn += 1;
    this.unsubscribe();
  }

  change(fit: Partial<FitState>): void {
    const { get, set } = this.core;
    set({ fit: { ...get().fit, ...fit } });
  }

  /** From now on all pairs. */
  watch(): void {
    this.isWatching = true;
    this.change({ working: 0 });
    this.lookAgain();
  }

  /** Leaves off; what was found before stays. */
  cancel(): void {
    this.turn += 1;
    this.isWatching = false;
    this.change({ working: null });
  }

  /** Null for what is refused: what is gone is reported as gone. */
  readonly ask: Asking = async (question) => {
    const own = this.turn;
    const { document } = this.core.get();
    return this.asking(document, own)(question);
  };

  private asking(document: KadrelDocument, own: number): Asking {
    return async (question) => {
      if (own !== this.turn) throw new Over();
      try {
        const answer = await this.core.host.ask({ ask: 'answer', document, question });
        if (own !== this.turn) throw new Over();
        return answer as never;
      } catch (error) {
        if ((error as { code?: string }).code === 'refused') return null;
        throw error;
      }
    };
  }

  private lookAgain(): void {
    const own = ++this.turn;
    setTimeout(() => {
      if (own !== this.turn) return;
      if (this.isWatching) this.change({ working: 0 });
      this.look(own).catch((error: unknown) => this.leftOff(error, own));
    }, SETTLED_MS);
  }

  private leftOff(error: unknown, own: number): void {
    if (error instanceof Over || own !== this.turn) return;
    // Work that was cancelled for something else is no trouble.
    const isTrouble = (error as { code?: string }).code !== 'cancelled';
    this.change({ working: null, trouble: isTrouble ? String((error as Error).message) : null });
  }

  private async look(own: number): Promise<void> {
    const { document, fit } = this.core.get();
    const scope = scopeOf(document, fit);
    const ask = this.asking(document, own);
    const onDone = (working: number) => own === this.turn && this.change({ working });
    const isMaking = this.isWatching && fit.kind === 'make';
    if (isMaking) await this.lookAtMaking({ document, fit, ask, onDone });
    const surveyed =
      this.isWatching && !isMaking
        ? await surveyFit(document, scope, { ask, onDone })
        : await this.checks(document, ask);
    if (own !== this.turn) return;
    const report = fitReport(document, surveyed, scope);
    const now = this.core.get().fit;
    const listed = isMaking ? now.makeReport! : report;
    const shown = listed.findings.find(({ id }) => id === now.shown?.id) ?? null;
    const measures = shownMeasures(surveyed, document.scene);
    this.change({ report, working: null, trouble: null, shown, measures });
  }

  /** What has been looked at before is not looked at again. */
  private async checks(document: KadrelDocument, ask: Asking): Promise<Surveyed> {
    const known = this.known?.[documentKey(document)];
    const surveyed = known ?? (await surveyChecks(document, ask));
    // The key of a great document takes a while; after an edit it is never found.
    this.known = undefined;
    this.last = { of: document, surveyed };
    return surveyed;
  }

  /** What kept measures and wanted fits came to last. */
  get lastChecks(): Checked | undefined {
    return this.last;
  }

  private async lookAtMaking({ document, fit, ask, onDone }: Look): Promise<void> {
    const { limits } = fit;
    const { among } = scopeOf(document, fit);
    const scope = { overhang: limits.overhang, ...(among ? { parts: among } : {}) };
    const surveyed = await surveyMaking(document, scope, { ask, onDone });
    // Colours of what has changed are of no use any more.
    this.change({ makeReport: makeReport(document, surveyed, limits), walls: null });
  }
}

/** Groups are all that stands in them. */
function scopeOf(document: KadrelDocument, { reach, pairs, chosen, limits }: FitState): Scope {
  const scope = { ...USUAL_SCOPE, reach, ...(limits.bed ? { site: limits.bed } : {}) };
  if (pairs === 'all') return scope;
  if (pairs === 'chosen against the rest') return { ...scope, among: [...standingOf(document, chosen)] };
  return { ...scope, between: chosen.map((id) => [...standingOf(document, [id])]) };
}

/** One look at a document. */
interface Look {
  readonly document: KadrelDocument;
  readonly fit: FitState;
  readonly ask: Asking;
  readonly onDone: (share: number) => void;
}

const hasChecks = ({ measures, fits }: KadrelDocument) =>
  Object.keys(measures).length > 0 || Object.keys(fits).length > 0;

const ROOTS = ['items', 'measures', 'fits', 'meant', 'scene'] as const;
const isMatter = (now: SessionState, before: SessionState) =>
  now.document !== before.document && ROOTS.some((root) => now.document[root] !== before.document[root]);

/** The other measures stand at a place, as words alone. */
const HAVE_LINES: ReadonlySet<MeasuredKind> = new Set(['distance', 'thickness']);

function shownMeasures({ measures }: Surveyed, scene: Scene): ShownCheck[] {
  return measures.flatMap(({ measure, facts }) => {
    const { state, words } = judgeMeasure(measure, facts, scene);
    const isLine = HAVE_LINES.has(measure.what);
    const from = (isLine ? facts?.from : undefined) ?? facts?.at ?? facts?.from;
    if (!from) return [];
    const shortened = state === 'missed' ? words : (words.split(/, (?:at|between) /)[0] ?? words);
    return [
      {
        from,
        to: (isLine ? facts?.to : undefined) ?? from,
        words: `${measure.name}: ${shortened.replace(/\.$/, '')}`,
        isBad: state !== 'met',
      },
    ];
  });
}
