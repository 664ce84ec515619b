/** Tells what the pointer comes to: in the view, in the entries of the bar, and as a preview. */
import {
  MEETING,
  alongGuide,
  formatLength,
  formatLengthFinely,
  readableName,
  type Snap,
  type Vec3,
} from '@kadrel/core';
import { live } from '../session/live.ts';
import type { Statement } from '../session/statement.ts';
import type { Caught } from './aim.ts';
import type { Hand } from './hand.ts';

/** Coordinates, in the unit of the scene. */
export function coordinates(hand: Hand, point: Vec3): string {
  const { scene } = hand.state().document;
  return point.map((n) => formatLengthFinely(n, { ...scene, trailingZeros: true })).join('  ');
}

function featureWords(hand: Hand, snap: Snap): string {
  return snap.feature === undefined
    ? ''
    : readableName(snap.feature, hand.state().document).replaceAll(MEETING, ' · ');
}

/** The name of what a snap is on: a pin, a part, a member of a pattern. */
export function nameOf(hand: Hand, snap: Snap): string {
  if (snap.pin !== undefined) return snap.pin;
  const name = snap.part === undefined ? '' : (hand.state().document.items[snap.part]?.name ?? '');
  return snap.member === undefined ? name : `${name} ${snap.member}`;
}

/** What was caught, and of the cut of a section plane also which part it is of. */
function ownerOf(hand: Hand, snap: Snap): string {
  const { items } = hand.state().document;
  const isCut = snap.part !== undefined && items[snap.part]?.recipe.base.kind === 'section';
  const cut = isCut && snap.feature !== undefined ? items[snap.feature.split('.')[0]!] : undefined;
  return cut ? `${cut.name} in ${nameOf(hand, snap)}` : nameOf(hand, snap);
}

/** What a pick is called in its blank; undefined where it is a place like any other. */
export function labelOf(hand: Hand, { snap }: Caught): string | undefined {
  if (!snap) return undefined;
  if (snap.pin !== undefined) return `pin ${snap.pin}`;
  if (snap.dock !== undefined) return `${snap.dock} of ${nameOf(hand, snap)}`;
  if (snap.part === undefined) return undefined;
  const kind = snap.kind === 'on face' ? 'face' : snap.kind === 'on edge' ? 'edge' : snap.kind;
  return `${kind} of ${ownerOf(hand, snap)}`;
}

/** The kind of a snap, and where it is, in words. */
export function snapWords(hand: Hand, snap: Snap): { title: string; detail: string } {
  const words = [nameOf(hand, snap), snap.words ?? featureWords(hand, snap)];
  return { title: snap.kind, detail: words.filter(Boolean).join(' · ') };
}

/** The reticle with its words, and the guides that are caught. */
export function showCaught(hand: Hand, caught: Caught | null): void {
  const { guide: along, meeting = [] } = caught?.snap ?? {};
  const guides = along ? [along] : meeting;
  hand.overlay.guides.showGuides(guides.map((guide) => ({ guide, to: caught!.point })));
  if (!caught) hand.overlay.reticle.hide();
  else if (caught.snap) {
    const { title, detail } = snapWords(hand, caught.snap);
    const { guide } = caught.snap;
    const far = guide && formatLength(alongGuide(guide, caught.point), hand.state().document.scene);
    const stays = hand.stage.catcher.touches.staysOn === null ? '' : ' · stays on this part';
    hand.overlay.reticle.show(caught.snap.point, {
      title,
      detail: detail + stays,
      numbers: `${coordinates(hand, caught.point)}${far === undefined ? '' : ` · ${far} along`}`,
    });
  } else
    hand.overlay.reticle.show(caught.point, {
      title: 'free',
      detail: '',
      numbers: coordinates(hand, caught.point),
    });
}

/** Tells the bar's fields what the drag makes of them; fields that were typed keep their text. */
export function tellNumbers(
  hand: Hand,
  { statement, blank }: { readonly statement: Statement; readonly blank: string },
  numbers: readonly number[],
): void {
  const { scene } = hand.state().document;
  numbers.forEach((n, axis) => {
    const key = numbers.length === 1 ? blank : `${blank}.${axis}`;
    if (!statement.held.has(key)) live.tell(key, formatLength(n, scene));
  });
}

/** Shows what a statement would come to, while the pointer moves. */
export function showPreviewOf(hand: Hand, statement: Statement): void {
  const found = hand.session.preview(statement);
  if ('placed' in found) hand.stage.previews.place(found);
}

/** Carries the statement out; where it is refused, the preview goes. */
export function carryOut(hand: Hand): void {
  void hand.session.commit().then((isDone) => {
    if (!isDone) hand.stage.previews.show(hand.state().statement);
  });
}
