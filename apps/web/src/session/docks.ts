/** The docks of the document on show: found once for each state of it and of what is built. */
import {
  docksIn,
  docksReport,
  isSameEnd,
  matches,
  takenDocks,
  valueOf,
  verbNamed,
  type DockPlace,
  type DockReport,
  type JointReport,
  type ItemId,
  type Joint,
  type KadrelDocument,
  type SnapQuery,
} from '@kadrel/core';
import type { Built } from './built.ts';
import type { SessionCore } from './core.ts';
import type { SessionState } from './state.ts';
import type { Statement } from './statement.ts';

/** Docks as they stand, and what is open or has drifted. */
export interface DocksNow {
  readonly report: DockReport;
  /** Of what can be seen. */
  readonly places: readonly DockPlace[];
}

const NO_DOCKS: DocksNow = { report: { open: [], joints: [], lost: [] }, places: [] };

/** What can be done with docks. */
export function docking(core: SessionCore, update: (change: (statement: Statement) => Statement) => void) {
  let known: { document: KadrelDocument; built: Built; now: DocksNow } | null = null;

  function docksNow(): DocksNow {
    const { document, built } = core.get();
    if (known?.document === document && known.built === built) return known.now;
    const now = hasDocks(document) ? found(document) : NO_DOCKS;
    known = { document, built, now };
    return now;
  }

  function found(document: KadrelDocument): DocksNow {
    const world = core.worlds.of(document);
    const shapeOf = (part: ItemId, variant?: Parameters<typeof world.shapeOf>[1]) =>
      world.shapeOf(part, variant);
    return {
      report: docksReport(document, shapeOf),
      places: docksIn(document, shapeOf, 'visible'),
    };
  }

  return {
    docksNow,
    /** Hides the docks of a part, or shows them again. */
    toggleDocks(part: ItemId): void {
      const { hiddenDocks } = core.get();
      const without = hiddenDocks.filter((id) => id !== part);
      core.set({ hiddenDocks: without.length < hiddenDocks.length ? without : [...hiddenDocks, part] });
    },
    ...turning(update, docksNow, () => core.get().document),
  };
}

type Update = (change: (statement: Statement) => Statement) => void;

/** What keys do to the statement that joins docks. */
function turning(update: Update, docksNow: () => DocksNow, document: () => KadrelDocument) {
  return {
    /** Goes on to the next free dock of what moves, or of what it is joined to. */
    nextDock(blank: 'dock' | 'onto'): void {
      update((statement) => withNextDock(statement, blank, docksNow().places, document()));
    },
    /** Quarter turns about an axis of the joint in hand. */
    quarterTurn(blank: 'turn' | 'tiltX' | 'tiltY', quarters: 1 | -1): void {
      update((statement) => {
        const joint = Object.values(document().joints).find(({ name }) => name === statement.typed.joint);
        const now = Number(statement.typed[blank] ?? (joint ? turnOf(joint, blank) : 0));
        const turned = Number.isFinite(now) ? (now + 90 * quarters + 360) % 360 : 90 * quarters;
        // Of a joint that is changed what is not said stays as it is.
        const text = turned === 0 && !joint ? undefined : String(turned);
        return { ...statement, typed: { ...statement.typed, [blank]: text }, refusal: null };
      });
    },
  };
}

const turnOf = ({ turn, tilt: [tiltX, tiltY] }: Joint, blank: 'turn' | 'tiltX' | 'tiltY'): number =>
  valueOf({ turn, tiltX, tiltY }[blank]);

const hasDocks = ({ items, joints }: KadrelDocument): boolean =>
  Object.keys(joints).length > 0 || Object.values(items).some(({ docks }) => docks !== undefined);

/** Joints that are known to have come apart. */
export const driftedIn = ({ joints }: Pick<DockReport, 'joints'>): JointReport[] =>
  joints.filter(({ isClosed, unknown }) => !isClosed && unknown === undefined);

/** Whether the statement in hand has a blank for a dock. */
export const asksForDock = (statement: Statement | null): boolean =>
  statement?.phase === 'open' &&
  Object.values(verbNamed(statement.verb)!.blanks).some(({ type }) => type === 'dock');

/** Whether other docks are to be shown than before, of the same model. */
export const areOtherDocks = (now: SessionState, before: SessionState): boolean =>
  now.document !== before.document ||
  now.areDocksShown !== before.areDocksShown ||
  now.hiddenDocks !== before.hiddenDocks ||
  asksForDock(now.statement) !== asksForDock(before.statement);

/** A dock as it is written into a blank. */
export const typedDock = ({ part, end, dock }: DockPlace) => ({
  on: part,
  dock: dock.name,
  ...(end.member === undefined ? {} : { member: end.member }),
  ...(end.of === part ? {} : { of: end.of }),
});

type SnapDock = NonNullable<SnapQuery['docks']>[number];
const packed = new WeakMap<readonly DockPlace[], readonly SnapDock[]>();

/** As the snaps want them: asked at every move of the pointer, made once. */
export function snapDocks(places: readonly DockPlace[]): readonly SnapDock[] {
  const known = packed.get(places);
  if (known) return known;
  const made = places.map(({ part, end, dock, pose }) => ({
    part,
    dock: dock.name,
    at: pose.shift,
    ...(end.member === undefined ? {} : { member: end.member }),
    ...(end.of === part ? {} : { leaf: end.of }),
  }));
  packed.set(places, made);
  return made;
}

/** The dock that stands in a blank; undefined where a part alone does. */
export function dockIn(typed: unknown, places: readonly DockPlace[]): DockPlace | undefined {
  if (typeof typed !== 'object' || typed === null) return undefined;
  const { on, dock, member = '', of } = typed as Readonly<Record<string, unknown>>;
  return places.find(
    (one) =>
      one.part === on &&
      one.dock.name === dock &&
      (one.end.member ?? '') === member &&
      (of === undefined || one.end.of === of),
  );
}

/** The next free dock of the same part that matches the other blank, round and round. */
export function withNextDock(
  statement: Statement,
  blank: 'dock' | 'onto',
  places: readonly DockPlace[],
  document: KadrelDocument,
): Statement {
  const typed = statement.typed[blank];
  const now = dockIn(typed, places);
  const part =
    now?.part ?? (typeof typed === 'object' && typed !== null ? (typed as { on?: string }).on : typed);
  const other = dockIn(statement.typed[blank === 'dock' ? 'onto' : 'dock'], places);
  const taken = takenDocks(document);
  const free = places.filter(
    (one) => one.part === part && !taken(one.end) && (!other || matches(one.dock, other.dock)),
  );
  const at = free.findIndex((one) => now && isSameEnd(one.end, now.end));
  const next = free[(at + 1) % free.length];
  if (!next) return statement;
  return { ...statement, typed: { ...statement.typed, [blank]: typedDock(next) }, refusal: null };
}
