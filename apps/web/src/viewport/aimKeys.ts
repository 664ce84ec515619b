/** Keys that belong to the pointer: what else is within reach, one kind for once, a distance along a guide, the part behind. */
import type { Guide, Vec3 } from '@kadrel/core';
import { FORCING_KEYS } from '../session/manner.ts';
import type { Hand } from './hand.ts';
import { blankInHand, take } from './picking.ts';
import { snapWords } from './telling.ts';
import { fitView } from './viewing.ts';

/** The space bar held for this long opens the list. */
const HOLD_MS = 350;

/** What is drawn, where the next place is a point of its own: a number along a guide gives it. */
export interface PlaceInHand {
  readonly isAsked: () => boolean;
  readonly give: (point: Vec3) => void;
}

/** Keys that belong to the pointer. */
export class AimKeys {
  private spaceTimer = 0;

  constructor(
    private readonly hand: Hand,
    /** Looks again at what is under the pointer. */
    private readonly follow: () => void,
    private readonly drawing: PlaceInHand,
  ) {}

  private get catcher() {
    return this.hand.stage.catcher;
  }

  /** Whether the key was one of these. @param isAiming something is picked, dragged or drawn */
  take(event: KeyboardEvent, { isAiming }: { readonly isAiming: boolean }): boolean {
    const { catcher, hand } = this;
    const { list, typing } = catcher.lists.shown.getState();
    if (typing) return false;
    if (event.key === 'Escape') {
      if (list) catcher.lists.close();
      else if (catcher.touches.drop()) this.follow();
      else return false;
      return true;
    }
    if (list && /^[1-9]$/.test(event.key)) {
      if (Number(event.key) <= list.rows.length) list.choose(Number(event.key) - 1);
      return true;
    }
    if (!catcher.isFresh || event.ctrlKey) return false;
    if (isAiming && this.takeAiming(event)) return true;
    return event.key === ' ' && (isAiming || !hand.openStatement()) && this.space(event, { isAiming });
  }

  private takeAiming(event: KeyboardEvent): boolean {
    const { catcher, hand } = this;
    const key = event.key.length === 1 ? event.key.toUpperCase() : event.key;
    if (key === 'Tab' && !event.shiftKey) {
      // After the last within reach Tab walks on to the next blank.
      const isNext = catcher.next();
      this.follow();
      return isNext;
    }
    if (key === 'F') return (fitView(hand.stage.panes.active, event.shiftKey ? 'all' : 'selection'), true);
    if (event.shiftKey && (key === 'Y' || FORCING_KEYS[key])) {
      const { forced } = hand.state();
      if (key === 'Y') catcher.toggleStay();
      else hand.session.set({ forced: forced === FORCING_KEYS[key] ? null : FORCING_KEYS[key]! });
      this.follow();
      return true;
    }
    return (
      /^[\d.-]$/.test(key) &&
      (blankInHand(hand) !== null || this.drawing.isAsked()) &&
      catcher.lists.typeAlong(hand.pane, { caught: catcher.caught, text: key }, (guide, mm) =>
        this.takeAlong(guide, mm),
      )
    );
  }

  /** Tapped, the next within reach or behind; held, the list of them. */
  private space(event: KeyboardEvent, { isAiming }: { readonly isAiming: boolean }): boolean {
    const { catcher, hand } = this;
    if (event.repeat || this.spaceTimer !== 0) return true;
    this.spaceTimer = window.setTimeout(
      () =>
        isAiming
          ? catcher.openList(hand.pane, (snap) => snapWords(hand, snap))
          : catcher.lists.openParts(hand.pane),
      HOLD_MS,
    );
    const onUp = (up: KeyboardEvent) => {
      if (up.key !== ' ') return;
      window.removeEventListener('keyup', onUp, true);
      window.clearTimeout(this.spaceTimer);
      this.spaceTimer = 0;
      // The list stays until something is chosen from it, or the pointer goes away.
      if (catcher.lists.shown.getState().list) return;
      if (isAiming) catcher.next();
      else catcher.lists.selectBehind(hand.pane, hand.last.x, hand.last.y);
      this.follow();
    };
    window.addEventListener('keyup', onUp, true);
    return true;
  }

  /** A distance typed along a guide: the point there goes into the blank. */
  private takeAlong({ from, direction }: Guide, mm: number): void {
    const point = [0, 1, 2].map((i) => from[i]! + direction[i]! * mm) as unknown as Vec3;
    const asked = blankInHand(this.hand);
    if (!asked) return this.drawing.give(point);
    take(this.hand, asked.statement, asked.blank, { point, snap: null });
  }
}
