/**
 * `npm run torture -- pages [COUNT] [SEED]`: two pages of one person work on one project, by the page's own code for saving, against a
 * server of its own (`KADREL_ADDRESS`). They lose the server, miss its answers, are loaded again at any moment, and undo. In the end
 * every edit that was made stands exactly once: in the project, in the project that a conflict was kept as, or set aside.
 */
import { setTimeout as wait } from 'node:timers/promises';
import {
  applyEdit,
  DOCUMENT_VERSION,
  isRefusal,
  perform,
  plainWorld,
  stepBack,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';
import { api } from '../../../apps/web/src/api/client.ts';
import { workshopApi } from '../../../apps/web/src/api/workshop.ts';
import { editsSince } from '../../../apps/web/src/session/earlier.ts';
import { resume } from '../../../apps/web/src/session/resume.ts';
import { openSaving, rebased, type Saving, type Shown } from '../../../apps/web/src/session/saving.ts';
import type { SaveReport } from '../../../apps/web/src/session/saveQueue.ts';
import { holdsOnly, putTogether, type Kept, type Shelf } from '../../../apps/web/src/session/shelf.ts';
import { numbers } from '@kadrel/testing';
import { clock, printTable, say, type Outcome } from './table.ts';

const STEPS = 24;
/** Waits of the page, which are meant for people, are cut short by this. */
const FASTER = 50;
/** A person whose pages do not settle within so many tries has lost something. */
const MAX_TRIES = 6000;

type Random = () => number;

/** The way to the server, as one page has it. */
interface Line {
  isOffline: boolean;
  /** How often an answer is lost on its way back. */
  losing: number;
}

let cookie = '';
let line: Line | undefined;
let random: Random = Math.random;

/** The page asks by paths alone; a line may be down, or lose answers. Returns what undoes it. */
function layLines(address: string): () => void {
  const ask = globalThis.fetch;
  globalThis.fetch = async (path, options) => {
    const asking = line;
    if (asking?.isOffline) throw new TypeError('The network is down.');
    const answer = await ask(`${address}${String(path)}`, {
      ...options,
      headers: { ...(options?.headers as Record<string, string>), cookie },
    });
    if (asking && random() < asking.losing) throw new TypeError('The answer was lost.');
    const [set] = answer.headers.getSetCookie();
    if (set) cookie = set.split(';')[0]!;
    return answer;
  };
  return () => {
    globalThis.fetch = ask;
  };
}

/** Calls of the API ask at once, so that each is on the line that it was made on. */
function on<T>(one: Line, call: () => T): T {
  line = one;
  try {
    return call();
  } finally {
    line = undefined;
  }
}

/** A browser's database, which all pages of a person share. */
class MemoryShelf implements Shelf {
  private readonly places = new Map<string, Kept>();
  left(projectId: string) {
    const mine = [...this.places].filter(([place]) => place.includes(projectId));
    return Promise.resolve(putTogether(mine));
  }
  async keep(place: string, kept: Kept): Promise<void> {
    await wait(1);
    this.places.set(place, structuredClone(kept));
  }
  async forget(place: string): Promise<void> {
    await wait(1);
    this.places.delete(place);
  }
  async forgetTaken(places: readonly string[], taken: readonly Edit[]): Promise<void> {
    await wait(1);
    for (const place of places) if (holdsOnly(this.places.get(place), taken)) this.places.delete(place);
  }
}

/** One page on one project. */
class Page {
  readonly line: Line = { isOffline: false, losing: 0 };
  private shown!: Shown;
  private saving!: Saving;
  report: SaveReport = { state: 'saved', revision: 0, aside: [], isKept: true, wantsSignIn: false };

  constructor(
    private readonly project: string,
    private readonly shelf: Shelf,
    private readonly made: Map<string, Edit>,
  ) {}

  async load(): Promise<void> {
    const [opened, left] = await Promise.all([
      workshopApi.openProject(this.project),
      this.shelf.left(this.project),
    ]);
    const page = { ...opened, edits: await editsSince(opened, left?.base), left };
    const resumed = resume(page);
    this.shown = { document: resumed.document, edits: [...page.edits, ...resumed.edits] };
    this.report = { state: 'saved', revision: opened.revision, aside: [], isKept: true, wantsSignIn: false };
    this.saving = on(this.line, () =>
      openSaving({
        projectId: this.project,
        revision: opened.revision,
        shelf: this.shelf,
        left,
        resumed,
        onState: (report) => (this.report = report),
        onMissed: (missed, ours) => {
          const shown = missed.length === 0 ? this.shown : rebased(this.shown, missed, ours);
          if (shown) this.shown = shown;
          return shown !== undefined;
        },
        later: (work, ms) => setTimeout(() => on(this.line, work), ms / FASTER),
      }),
    );
  }

  /** As a browser does: what is being kept is kept, what is being sent may arrive. */
  async reload(): Promise<void> {
    await this.saving.kept();
    this.saving.stop();
    await this.load();
  }

  say(verb: string, typed: Typed): void {
    const { document } = this.shown;
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => crypto.randomUUID().slice(0, 8)),
    );
    if (isRefusal(done)) return;
    const { patches, inverses, title } = done;
    const stated = { verb, values: { ...typed }, title, author: 'Ada', time: Date.now() };
    this.adopt(done.document, {
      id: crypto.randomUUID(),
      kind: 'do',
      version: DOCUMENT_VERSION,
      patches,
      inverses,
      line: stated,
    });
  }

  undo(kind: 'undo' | 'redo'): void {
    const edit = stepBack(this.shown.edits, kind, {
      id: crypto.randomUUID(),
      time: Date.now(),
      author: 'Ada',
    });
    if (edit) this.adopt(applyEdit(this.shown.document, edit), edit);
  }

  private adopt(document: KadrelDocument, edit: Edit): void {
    this.made.set(edit.id, edit);
    this.shown = { document, edits: [...this.shown.edits, edit] };
    on(this.line, () => this.saving.add(edit));
  }

  get names(): string[] {
    return Object.values(this.shown.document.items).map(({ name }) => name);
  }

  get isSettled(): boolean {
    return this.report.state === 'conflict' || this.saving.unsaved().length === 0;
  }

  keepMine(): Promise<string[]> {
    return this.saving.keepMine('Bench');
  }

  /** Waits for what is being kept. */
  kept(): Promise<void> {
    return this.saving.kept();
  }

  close(): void {
    this.saving.stop();
  }
}

const chosen = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const whole = (max: number) => 1 + Math.floor(random() * max);

/** One thing that happens to a page. */
async function happen(page: Page): Promise<void> {
  const roll = random();
  if (roll < 0.35) page.say('box', { size: [whole(9), whole(9), whole(9)], at: [whole(50), 0, 0] });
  else if (roll < 0.5 && page.names.length > 0)
    page.say('rename', { part: chosen(page.names), to: `n${whole(999)}` });
  else if (roll < 0.58) page.say('variable', { name: `v${whole(4)}`, value: `${whole(99)} mm` });
  else if (roll < 0.66) page.undo('undo');
  else if (roll < 0.7) page.undo('redo');
  else if (roll < 0.78) page.line.isOffline = !page.line.isOffline;
  else if (roll < 0.84) page.line.losing = page.line.losing > 0 ? 0 : 0.5;
  else if (roll < 0.9) await page.reload();
  else await wait(20 * random());
}

/** Everything on its way is let through; where the pages cannot agree, theirs becomes a project of its own. */
async function settle(pages: readonly Page[]): Promise<string[]> {
  const kept: string[] = [];
  for (const page of pages) Object.assign(page.line, { isOffline: false, losing: 0 });
  for (const page of pages) {
    for (let tries = 0; !page.isSettled && tries < MAX_TRIES; tries++) await wait(10);
    if (!page.isSettled)
      throw new Error(`A page does not settle: ${page.report.reason ?? page.report.state}`);
    if (page.report.state === 'conflict') kept.push(...(await page.keepMine()));
    await page.kept();
  }
  return kept;
}

async function trial(seed: number): Promise<string | undefined> {
  random = numbers(seed);
  const made = new Map<string, Edit>();
  const shelf = new MemoryShelf();
  const { id } = await api.createProject('Bench', {});
  const pages = [new Page(id, shelf, made), new Page(id, shelf, made)];
  for (const page of pages) await page.load();
  for (let step = 0; step < STEPS; step++) await happen(chosen(pages));
  const kept = await settle(pages);
  // Somebody who comes back later finds nothing left to do.
  const later = new Page(id, shelf, made);
  await later.load();
  kept.push(...(await settle([later])));
  pages.push(later);
  const ledgers = await Promise.all(
    [id, ...kept].map(async (one) => (await workshopApi.edits(one, 0)).edits),
  );
  const aside = pages.flatMap(({ report }) => report.aside.map(({ edit }) => edit.id));
  for (const page of pages) page.close();
  return faultOf(made, ledgers, { aside, shelf: await shelf.left(id) });
}

function faultOf(
  made: ReadonlyMap<string, Edit>,
  ledgers: readonly (readonly Edit[])[],
  { aside, shelf }: { aside: readonly string[]; shelf: Kept | undefined },
): string | undefined {
  for (const ledger of ledgers)
    if (new Set(ledger.map(({ id }) => id)).size !== ledger.length)
      return 'An edit stands twice in one project.';
  const stored = new Set(ledgers.flat().map(({ id }) => id));
  const lost = [...made.keys()].filter((id) => !stored.has(id) && !aside.includes(id));
  if (lost.length > 0) return `${lost.length} of ${made.size} edits are nowhere.`;
  if (aside.length > 0) return `${aside.length} edits were set aside, which the server should take.`;
  return shelf && shelf.edits.length > 0 ? 'Something is left on the shelf.' : undefined;
}

const signUp = () =>
  api.signUp({ email: `${crypto.randomUUID()}@kadrel.example`, name: 'Ada', password: 'hive lantern oboe' });
/** One account may have a thousand projects. */
const TRIALS_OF_ACCOUNT = 200;

/** Trials one after another, each with what went wrong in it. */
export async function* pageTrials(address: string, first: number): AsyncGenerator<string | undefined> {
  const restore = layLines(address);
  try {
    for (let seed = first; ; seed++) {
      if ((seed - first) % TRIALS_OF_ACCOUNT === 0) await signUp();
      yield await trial(seed).catch((error: unknown) => {
        if (error instanceof Error) return error.message;
        throw error;
      });
    }
  } finally {
    restore();
  }
}

export async function runPages([count = '1000', start = '1']: readonly string[]): Promise<void> {
  const address = process.env.KADREL_ADDRESS;
  if (!address) throw new Error('KADREL_ADDRESS is missing.');
  const outcomes: Outcome[] = [];
  const isTimeLeft = clock();
  const began = performance.now();
  for await (const fault of pageTrials(address, Number(start))) {
    outcomes.push({ class: 'pages', outcome: fault === undefined ? 'right' : 'wrong' });
    if (fault !== undefined) say(`wrong: seed ${Number(start) + outcomes.length - 1}: ${fault}`);
    if (outcomes.length >= Number(count) || !isTimeLeft()) break;
  }
  printTable(['pages'], outcomes, new Map([['pages', performance.now() - began]]));
  if (outcomes.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
