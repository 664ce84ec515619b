/** What is marked over the picture: docks, where lofts begin, and measures. */
import {
  add,
  carry,
  carryBack,
  column,
  exactStyle,
  formatLengthWithUnit,
  definitionOf,
  loftStarts,
  loftWays,
  sectionsOf,
  standingOf,
  takenDocks,
  turnBack,
  turnVector,
  valueOf,
  type DockPlace,
  type ItemId,
  type KadrelDocument,
  worldFromPart,
  type Vec3,
} from '@kadrel/core';
import type { Preview } from '../session/preview.ts';
import { shownChecks } from '../session/fitState.ts';
import type { ShownDock } from './marks.ts';
import { gapsInHand } from '../session/regions.ts';
import { isHandled, type Statement } from '../session/statement.ts';
import { asksForDock } from '../session/docks.ts';
import { type Session, type SessionState } from '../session/store.ts';

/** While a dock is to be chosen, all of them. */
export function docksToShow(session: Session): readonly DockPlace[] {
  const state = session.store.getState();
  const { places } = session.docksNow();
  if (asksForDock(state.statement)) return places;
  if (!state.areDocksShown) return [];
  const hidden = new Set(state.hiddenDocks);
  return hidden.size === 0
    ? places
    : places.filter(({ part, end }) => !hidden.has(part) && !hidden.has(end.of));
}

/** A tag for each dock, where what is in hand would take its part. */
export function dockTags(
  document: KadrelDocument,
  docks: readonly DockPlace[],
  placed: Preview['placed'],
): ShownDock[] {
  const taken = takenDocks(document);
  return docks.map(({ end, part, dock, pose, lost }) => {
    const { at, out } = movedWith(document, part, placed)({ at: pose.shift, out: column(pose.turn, 2) });
    return { at, out, name: dock.name, isTaken: taken(end), isLost: lost !== undefined };
  });
}

/** A place in the world, and a direction there. */
interface Pointer {
  readonly at: Vec3;
  readonly out: Vec3;
}

/** A group goes as what stands in it does. */
function movedWith(
  document: KadrelDocument,
  part: ItemId,
  placed: Preview['placed'],
): (pointer: Pointer) => Pointer {
  if (placed.size === 0) return (pointer) => pointer;
  const moving = placed.has(part) ? part : [...standingOf(document, [part])].find((id) => placed.has(id));
  const goal = moving === undefined ? undefined : placed.get(moving);
  if (moving === undefined || !goal) return (pointer) => pointer;
  const from = worldFromPart(document, moving);
  return ({ at, out }) => ({
    at: add(turnVector(goal.linear, carryBack(from, at)), goal.shift),
    out: turnVector(goal.linear, turnBack(from.turn, out)),
  });
}

/** Where the sides of the selected loft begin on each of its sections. */
export function loftStartsOf({ document, selection }: SessionState): { name: string; at: Vec3 }[] {
  const [only, ...others] = selection;
  const part = only === undefined ? undefined : document.items[only];
  const base = part && definitionOf(document, part).recipe.base;
  if (others.length > 0 || base?.kind !== 'loft') return [];
  const { sections, starts, closed } = loftWays(base);
  const pose = worldFromPart(document, part!.id);
  return loftStarts(sectionsOf(document, sections), { moved: starts.map(valueOf), closed }).map((at, i) => ({
    name: `start ${i + 1}`,
    at: carry(pose, at),
  }));
}

/** The distance of what is picked for Set distance, or the gaps that keep an area open; and the measures that are kept. */
export function measuresToShow(session: Session, statement: Statement | null) {
  const state = session.store.getState();
  const { document } = state;
  const gaps = statement?.phase === 'open' ? gapsInHand(statement, document) : [];
  const measure = statement && isHandled(statement, 'measures') ? session.measureOf(statement) : null;
  const words = (mm: number) => formatLengthWithUnit(mm, exactStyle(document.scene));
  return [
    ...(measure ? [measure] : gaps).map(({ from, to, distance }) => ({ from, to, words: words(distance) })),
    ...shownChecks(state),
  ];
}

/** What the rest is dimmed for: the solids of the finding that is looked at, or the group that one works in; null where nothing is. */
export function inFocus({ document, openGroup, fit }: SessionState): ReadonlySet<ItemId> | null {
  if (fit.shown && fit.shown.items.length > 0) return standingOf(document, fit.shown.items);
  return openGroup === null ? null : standingOf(document, [openGroup]);
}
