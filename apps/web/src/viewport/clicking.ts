/** What a click means: it fills what the statement in hand waits for, and otherwise selects. */
import { MEETING, isGroup, isWhole, type ItemId, type SnapInstance } from '@kadrel/core';
import type { PickedPlace } from '../session/chosen.ts';
import { selectedWith, selectingBy, type Selecting } from '../session/manner.ts';
import { placesWith } from '../session/places.ts';
import { isChanged } from '../session/statement.ts';
import { gatheringBlank } from '../session/waiting.ts';
import { isInOpenGroup, selectable, type Hand } from './hand.ts';
import { PLACES, blankInHand, named, pick } from './picking.ts';
import { faceAt, instanceAt } from './underPixel.ts';
import { RegionPick } from './regionPick.ts';

/** What a click means where nothing is asked for. */
export function click(hand: Hand): void {
  const { last, pane, session, stage } = hand;
  const { statement, omitting } = hand.state();
  if (RegionPick.blank(statement)) return stage.regionPick.click(hand.aim.ray());
  const asked = blankInHand(hand);
  if (asked) return pick(hand, asked.statement, asked.blank);
  const omitted = omitting === null ? null : stage.model.memberAt(pane, omitting, [last.x, last.y]);
  if (omitting !== null && omitted !== null) return void session.toggleMember(omitting, omitted);
  const instance = instanceAt(pane, last.x, last.y);
  const blank = gatheringBlank(hand.openStatement());
  if (blank !== null) {
    if (instance) session.choose(blank, selectable(hand, instance.part));
    return;
  }
  // What is open is left by Esc, by Enter or by another verb, and never by a click.
  if (statement && (statement.phase === 'open' || isChanged(statement))) return session.sayWaiting();
  select(hand, instance);
}

function select(hand: Hand, instance: SnapInstance | null): void {
  const { last, session } = hand;
  // Outside the open group one works in the whole scene again.
  if (instance && !isInOpenGroup(hand, instance.part)) session.openGroup(null);
  const part = instance ? selectable(hand, instance.part) : null;
  const { selection, statement, manner } = hand.state();
  if (statement) session.leave();
  const how = selectingBy(last, manner.selecting);
  const isAlone = part !== null && selection.length === 1 && selection[0] === part;
  // Where places of it are selected, the keys that add and take away are about places.
  const isAboutPlaces = how === 'replace' || hand.state().places !== null;
  if (isAlone && !statement && isAboutPlaces) return selectPlace(hand, part, how);
  // A click beside everything lets go of what is selected, unless parts are being gathered.
  session.select(part ? selectedWith(selection, [part], how) : how === 'replace' ? [] : selection);
  const isPattern = part !== null && hand.state().document.items[part]?.recipe.base.kind === 'pattern';
  if (isPattern && instance?.member && hand.state().selection.length === 1)
    session.set({ member: { part, label: instance.member.split('.')[0]! } });
}

/** A click on what is selected already goes on to its corner, edge or face under the pointer, and back. */
function selectPlace(hand: Hand, part: ItemId, how: Selecting): void {
  const { session } = hand;
  const { places } = session.store.getState();
  const place = placeUnder(hand, part);
  if (!place) return how === 'replace' ? session.selectPlaces(null) : undefined;
  const taken = { part, list: [place] };
  const isSame = how === 'replace' && places !== null && placesWith(places, taken, 'toggle') === null;
  session.selectPlaces(isSame ? null : placesWith(places, taken, how));
}

function placeUnder(hand: Hand, part: ItemId): PickedPlace | null {
  const { pane, last, stage } = hand;
  const { document } = hand.state();
  if (isWhole(document, document.items[part]!)) return null;
  const snap = stage.catcher.snap(pane, last.x, last.y, { only: PLACES, touches: false });
  const picked = snap?.part === part && snap.leaf === undefined ? (named(hand, snap) as PickedPlace) : null;
  // At its seam a face meets itself.
  const faces = new Set(picked?.at.split(MEETING));
  if (picked && faces.size > 0) return { on: part, at: [...faces].join(MEETING), near: picked.near! };
  const at = faceAt(pane, [last.x, last.y], part);
  return at === undefined ? null : { on: part, at };
}

/** A double click opens the group under the pointer for work inside; beside everything it closes the open one. */
export function doubleClick(hand: Hand): void {
  const { last, pane, session } = hand;
  if (hand.openStatement()) return;
  const instance = instanceAt(pane, last.x, last.y);
  const part = instance && selectable(hand, instance.part);
  if (!instance) session.openGroup(null);
  else if (part && isGroup(hand.state().document.items[part]!)) session.openGroup(part);
}
