/** Saving one open project: what former visits left, what is being sent, and what is done where the server and the page part ways. */
import { afterEdits, isEditFault, type Edit, type KadrelDocument } from '@kadrel/core';
import { workshopApi } from '../api/workshop.ts';
import type { Resumed } from './resume.ts';
import type { Others } from './following.ts';
import { SaveQueue, type SaveReport } from './saveQueue.ts';
import { placeOf, type Kept, type Left, type Shelf } from './shelf.ts';

/** What saving needs of a session. */
export interface SavingOptions {
  readonly projectId: string;
  /** Of the server's document that the page was opened with. */
  readonly revision: number;
  readonly shelf: Shelf;
  /** What former visits left unsaved. */
  readonly left: Left | undefined;
  readonly resumed: Resumed;
  /** Others' edits have arrived and go before ours. False where they do not go together. */
  readonly onMissed: (missed: readonly Edit[], ours: readonly Edit[]) => boolean;
  readonly onState: (report: SaveReport) => void;
  readonly later: (work: () => void, ms: number) => void;
  /** Has the page look for others’ edits when there may be some. */
  readonly follow?: (look: () => void) => Others;
}

/** Names of projects are at most this long. */
const MAX_NAME = 120;
const MINE = ' (mine)';

export type Saving = ReturnType<typeof openSaving>;

/** Everything that saves one open project. */
export function openSaving({ projectId, revision, shelf, left, resumed, ...options }: SavingOptions) {
  const place = placeOf(projectId, crypto.randomUUID());
  let isKept = true;
  const onState = (report: SaveReport) => {
    ({ isKept } = report);
    options.onState(report);
  };
  const { onMissed, later } = options;
  const onSaved = () => others?.saved();
  const ways = { ...between(projectId, shelf, place), onState, onMissed, later, onSaved };
  const queue = new SaveQueue(ways, revision);
  const others: Others | undefined = options.follow?.(() => void queue.look());
  /** What former pages kept and the server has not, where it cannot go on here. */
  let stranded: readonly Pick<Kept, 'base' | 'edits'>[] | undefined;

  async function forget(): Promise<void> {
    await queue.drop();
    await shelf.forget(place);
    if (left) await shelf.forgetTaken(left.places, left.edits);
  }

  if (resumed.fits) void takeOver(left, resumed.unsaved, { queue, shelf, isKept: () => isKept });
  else {
    stranded = strandedOf(left, resumed.unsaved);
    queue.conflict('Edits of your last visit were not saved, and somebody changed the same numbers since.');
  }
  return {
    add: (...edits: readonly Edit[]) => queue.add(...edits),
    unsaved: () => queue.unsaved,
    kept: () => queue.kept(),
    /** Gives up all that is not saved. */
    forget,
    /** Gives up the statements that the server will not take. */
    dropAside: () => queue.dropAside(),
    keepMine: mineKeeping(projectId, { parts: () => partsOf(queue, stranded), forget }),
    stop() {
      others?.stop();
      queue.stop();
    },
  };
}

type Stretch = Pick<Kept, 'base' | 'edits'>;

/** What is here, and what lies stranded elsewhere. */
function partsOf({ base, unsaved }: SaveQueue, stranded: readonly Stretch[] | undefined): readonly Stretch[] {
  const here = { base, edits: unsaved };
  return [...(stranded ?? []), ...(!stranded || here.edits.length > 0 ? [here] : [])];
}

interface Mine {
  /** What is to be kept, each as a project of its own. */
  readonly parts: () => readonly Pick<Kept, 'base' | 'edits'>[];
  readonly forget: () => Promise<void>;
}

/**
 * Makes exactly what is here, with its history, a project of its own. Where several pages left what does not go together,
 * each becomes one. Returns their ids.
 */
function mineKeeping(projectId: string, { parts, forget }: Mine): (name: string) => Promise<string[]> {
  /** Made already: where one fails, the next try goes on with that one. */
  const made: string[] = [];
  return async (name) => {
    const mine = `${name.slice(0, MAX_NAME - MINE.length)}${MINE}`;
    for (const { base, edits } of parts().slice(made.length))
      made.push((await workshopApi.keepProject(projectId, { name: mine, base, edits })).id);
    await forget();
    return made;
  };
}

interface Taking {
  readonly queue: SaveQueue;
  readonly shelf: Shelf;
  readonly isKept: () => boolean;
}

/** From now on it is this page's to save; where it lay before is given back once it is kept here. */
async function takeOver(
  left: Left | undefined,
  unsaved: readonly Edit[],
  { queue, shelf, isKept }: Taking,
): Promise<void> {
  if (!left) return;
  if (left.aside.length > 0) queue.takeAside(left.aside);
  if (unsaved.length > 0) queue.add(...unsaved);
  await queue.kept();
  if (isKept()) await shelf.forgetTaken(left.places, allOf(left));
}

/** The browser’s own store, and the server. */
const between = (projectId: string, shelf: Shelf, place: string) => ({
  keep: (kept: Kept) => shelf.keep(place, kept),
  forget: () => shelf.forget(place),
  send: (base: number, edits: readonly Edit[]) => workshopApi.appendEdits(projectId, base, edits),
  since: async (after: number) => (await workshopApi.edits(projectId, after)).edits,
});

const allOf = ({ edits, aside }: Kept): Edit[] => [...edits, ...aside.map(({ edit }) => edit)];

/** The places whose edits are not all saved, nor all in another place. */
function strandedOf(left: Left | undefined, unsaved: readonly Edit[]): Pick<Kept, 'base' | 'edits'>[] {
  const open = new Set(unsaved.map(({ id }) => id));
  const parts = (left?.parts ?? []).filter(({ edits }) => edits.some(({ id }) => open.has(id)));
  const isWithin = (edits: readonly Edit[], other: Kept) => {
    const there = new Set(other.edits.map(({ id }) => id));
    return edits.every(({ id }) => there.has(id));
  };
  return parts.filter(
    ({ edits }, i) =>
      !parts.some(
        (other, k) => k !== i && isWithin(edits, other) && (k < i || !isWithin(other.edits, parts[i]!)),
      ),
  );
}

/** What a page shows, and how it came about. */
export interface Shown {
  readonly document: KadrelDocument;
  readonly edits: readonly Edit[];
}

/** The same with others' edits before our unsaved ones; undefined where they do not go together. */
export function rebased(
  { document, edits }: Shown,
  missed: readonly Edit[],
  ours: readonly Edit[],
): Shown | undefined {
  const own = new Set(ours.map((edit) => edit.id));
  const backwards = ours.toReversed().map((edit) => ({ ...edit, patches: edit.inverses }));
  const next = afterEdits(document, [...backwards, ...missed, ...ours]);
  if (isEditFault(next)) return undefined;
  return { document: next, edits: [...edits.filter((edit) => !own.has(edit.id)), ...missed, ...ours] };
}
