/** What is marked over the picture: docks, where lofts begin, and measures. */
import {
  add,
  carry,
  carryBack,
  column,
  exactStyle,
  formatLengthWithUnit,
  isGroup,
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

/** A tag for each dock, as it stands. */
export function dockTags(document: KadrelDocument, docks: readonly DockPlace[]): ShownDock[] {
  const taken = takenDocks(document);
  return docks.map(({ end, dock, pose, lost }) => ({
    at: pose.shift,
    out: column(pose.turn, 2),
    name: dock.name,
    isTaken: taken(end),
    isLost: lost !== undefined,
  }));
}

/** Tags where what is in hand would take their parts; the others are the same ones. Asked at every move of the pointer. */
export function movedTags(
  document: KadrelDocument,
  { docks, tags }: { readonly docks: readonly DockPlace[]; readonly tags: readonly ShownDock[] },
  placed: Preview['placed'],
): readonly ShownDock[] {
  if (placed.size === 0) return tags;
  return tags.map((tag, i) => {
    const moving = moverOf(document, docks[i]!.part, placed);
    if (moving === undefined) return tag;
    const { linear, shift } = placed.get(moving)!;
    const from = worldFromPart(document, moving);
    return {
      ...tag,
      at: add(turnVector(linear, carryBack(from, tag.at)), shift),
      out: turnVector(linear, turnBack(from.turn, tag.out)),
    };
  });
}

/** A group goes as what stands in it does. */
function moverOf(document: KadrelDocument, part: ItemId, placed: Preview['placed']): ItemId | undefined {
  if (placed.has(part)) return part;
  const item = document.items[part];
  return item && isGroup(item) ? [...standingOf(document, [part])].find((id) => placed.has(id)) : undefined;
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
