/** What every situation of the pointer needs: the view it is in, where it is, and the statement in hand. */
import { lineage, selectableOf, type ItemId, type Vec3 } from '@kadrel/core';
import type { Statement } from '../session/statement.ts';
import { Aim } from './aim.ts';
import type { Pane } from './pane.ts';
import type { Stage } from './stage.ts';

/** What tools share: the pointer, what it catches, and the statement in hand. */
export class Hand {
  pane: Pane;
  last = { x: 0, y: 0, ctrl: false, shift: false, alt: false };
  /** Entries of the bar that show what the pointer makes of them. */
  readonly filled = new Set<string>();

  /** What is under the pointer. */
  readonly aim = new Aim(this);

  constructor(readonly stage: Stage) {
    this.pane = stage.panes.active;
  }

  get session() {
    return this.stage.session;
  }

  get overlay() {
    return this.pane.overlay;
  }

  state() {
    return this.session.store.getState();
  }

  place(event: MouseEvent): void {
    const { left, top } = this.pane.host.getBoundingClientRect();
    this.last = {
      x: event.clientX - left,
      y: event.clientY - top,
      ctrl: event.ctrlKey || event.metaKey,
      shift: event.shiftKey,
      alt: event.altKey,
    };
  }

  openStatement(): Statement | null {
    const { statement } = this.state();
    return statement?.phase === 'open' ? statement : null;
  }
}

/** A point as it is typed or picked, by number; null for what is given by names. */
export function pointOf(hand: Hand, value: unknown): Vec3 | null {
  if (!Array.isArray(value) || value.length !== 3) return null;
  const numbers = value.map((text) => hand.session.readLength(String(text)));
  return numbers.every((n) => n !== undefined) ? (numbers as unknown as Vec3) : null;
}

/** What a click on a standing item means: the item, or the closed group that it is in. */
export function selectable(hand: Hand, part: ItemId): ItemId {
  const { document, openGroup } = hand.state();
  return selectableOf(document, part, openGroup);
}

/** Whether a part is in the group that is open; everything is, where none is. */
export function isInOpenGroup(hand: Hand, part: ItemId): boolean {
  const { document, openGroup } = hand.state();
  return openGroup === null || lineage(document, part).includes(openGroup);
}
