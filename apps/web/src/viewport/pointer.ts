/**
 * What the pointer does in the views. One situation at a time, shared by all views; each press, move and release leads
 * to the next. Navigation with the other buttons and the wheel works in every situation and never ends one.
 */
import { partsInRectangle, verbNamed } from '@kadrel/core';
import { drag, letGo, takeHold, type Gripping } from './gripping.ts';
import { Hand } from './hand.ts';
import {
  drawBase,
  drawHeight,
  endBase,
  endHeight,
  isMaking,
  startBase,
  type Basing,
  type Raising,
} from './making.ts';
import type { Pane } from './pane.ts';
import { blankInHand, hoverPick, pick } from './picking.ts';
import type { Stage } from './stage.ts';

/** A press that moves less than this is a click. */
const CLICK_PX = 4;
const ZOOM_PER_WHEEL = 1.0015;

type Situation =
  | { readonly at: 'idle' }
  | {
      readonly at: 'navigating';
      readonly how: 'orbit' | 'pan';
      readonly x: number;
      readonly y: number;
      readonly then: Situation;
    }
  | { readonly at: 'pressed'; readonly x: number; readonly y: number }
  | { readonly at: 'rectangle'; readonly x: number; readonly y: number }
  | { readonly at: 'gripping'; readonly gripping: Gripping }
  | { readonly at: 'base'; readonly basing: Basing }
  | { readonly at: 'height'; readonly raising: Raising };

export class Pointer {
  private readonly hand: Hand;
  private situation: Situation = { at: 'idle' };
  private hoverFrame = 0;
  private readonly undo: (() => void)[] = [];

  constructor(private readonly stage: Stage) {
    this.hand = new Hand(stage);
    this.undo.push(stage.session.store.subscribe((now, before) => this.onStatement(now, before)));
  }

  /** Listens to a view. */
  connect(pane: Pane): void {
    const { host } = pane;
    const on = <K extends keyof HTMLElementEventMap>(
      type: K,
      work: (event: HTMLElementEventMap[K]) => void,
      options?: AddEventListenerOptions,
    ) => {
      const listener = (event: HTMLElementEventMap[K]) => {
        // What stands in the view's own corner, its caption, is not drawn on.
        if (event.target instanceof Element && event.target.closest('[data-caption]')) return;
        this.enter(pane, event as MouseEvent);
        work(event);
      };
      host.addEventListener(type, listener, options);
      this.undo.push(() => host.removeEventListener(type, listener));
    };
    on('pointerdown', (event) => this.down(event));
    on('pointermove', () => this.move());
    on('pointerup', (event) => this.up(event));
    on('pointerleave', () => this.leave());
    on('wheel', (event) => this.wheel(event), { passive: false });
    on('contextmenu', (event) => event.preventDefault());
  }

  dispose(): void {
    cancelAnimationFrame(this.hoverFrame);
    this.undo.forEach((undo) => undo());
  }

  private enter(pane: Pane, event: MouseEvent): void {
    // A drag belongs to the view that it began in.
    if (this.hand.pane !== pane) this.hand.overlay.showSnap(null);
    this.hand.pane = pane;
    this.hand.place(event);
    if (event.type === 'pointerdown' || event.type === 'wheel') this.stage.activate(pane);
  }

  private state() {
    return this.hand.state();
  }

  // --- Selecting ----------------------------------------------------------------------------------------------------

  /** The blank for parts that clicks fill while it has the focus. */
  private partsBlank(): string | null {
    const statement = this.hand.openStatement();
    const blank = statement?.focus && verbNamed(statement.verb)?.blanks[statement.focus.blank];
    return blank?.type === 'parts' || blank?.type === 'part' ? statement!.focus!.blank : null;
  }

  private click(toggle: boolean): void {
    const { last, pane, session } = this.hand;
    const part = pane.partAt(last.x, last.y);
    const { selection, statement } = this.state();
    const blank = this.partsBlank();
    if (blank !== null) {
      if (part) session.choose(blank, part);
      return;
    }
    if (statement?.phase === 'done' || (statement && part)) session.leave();
    if (!part) session.select(toggle ? selection : []);
    else if (toggle)
      session.select(selection.includes(part) ? selection.filter((id) => id !== part) : [...selection, part]);
    else session.select([part]);
  }

  private corners(start: { x: number; y: number }) {
    const { last } = this.hand;
    return {
      left: Math.min(start.x, last.x),
      right: Math.max(start.x, last.x),
      top: Math.min(start.y, last.y),
      bottom: Math.max(start.y, last.y),
    };
  }

  private endRectangle(start: { x: number; y: number }): void {
    const { pane, last, session } = this.hand;
    const { selection, regionRule } = this.state();
    const found = partsInRectangle(this.stage.instances, pane.camera, this.corners(start), regionRule);
    this.hand.overlay.showRectangle(null);
    const blank = this.partsBlank();
    if (blank !== null) found.forEach((part) => session.choose(blank, part, 'add'));
    else {
      session.leave();
      session.select(last.shift || last.ctrl ? [...new Set([...selection, ...found])] : found);
    }
  }

  // --- Events -------------------------------------------------------------------------------------------------------

  private down(event: PointerEvent): void {
    (document.activeElement as HTMLElement | null)?.blur?.();
    const { hand } = this;
    const { x, y, shift } = hand.last;
    hand.pane.host.setPointerCapture(event.pointerId);
    if (event.button === 1 || event.button === 2) {
      event.preventDefault();
      if (!shift) hand.pane.orbitAbout(x, y);
      this.situation = { at: 'navigating', how: shift ? 'pan' : 'orbit', x, y, then: this.situation };
      return;
    }
    const { statement, lookingAt, isSelectOnly } = this.state();
    if (event.button !== 0 || statement?.phase === 'working' || lookingAt !== null) return;
    if (this.situation.at === 'base' || this.situation.at === 'height') return;
    if (isMaking(hand.openStatement())) {
      const basing = startBase(hand);
      if (basing) this.situation = { at: 'base', basing };
      return;
    }
    const grip = blankInHand(hand) || isSelectOnly ? null : hand.overlay.gripAt(x, y);
    const gripping = grip && takeHold(hand, grip);
    this.situation = gripping ? { at: 'gripping', gripping } : { at: 'pressed', x, y };
  }

  private move(): void {
    const { last, pane } = this.hand;
    const now = this.situation;
    switch (now.at) {
      case 'navigating':
        if (now.how === 'orbit') pane.orbit(last.x - now.x, last.y - now.y);
        else pane.pan(last.x - now.x, last.y - now.y);
        this.situation = { ...now, x: last.x, y: last.y };
        return;
      case 'pressed': {
        if (Math.hypot(last.x - now.x, last.y - now.y) < CLICK_PX) return;
        if (this.hand.openStatement() && this.partsBlank() === null) return;
        this.situation = { at: 'rectangle', x: now.x, y: now.y };
        return;
      }
      case 'rectangle':
        this.hand.overlay.showRectangle(this.corners(now), this.state().regionRule === 'touching');
        return;
      default:
        // The picture changes at most once a frame, and so does what is caught.
        this.hoverFrame ||= requestAnimationFrame(() => {
          this.hoverFrame = 0;
          this.follow();
        });
    }
  }

  /** What follows the pointer without a press. */
  private follow(): void {
    const { hand, stage } = this;
    const now = this.situation;
    if (now.at === 'gripping') return drag(hand, now.gripping);
    if (now.at === 'base') return drawBase(hand, now.basing);
    if (now.at === 'height') return drawHeight(hand, now.raising);
    if (now.at !== 'idle') return;
    const asked = blankInHand(hand);
    if (asked) {
      hand.pane.host.style.cursor = 'crosshair';
      return hoverPick(hand, asked.statement, asked.blank);
    }
    if (isMaking(hand.openStatement())) {
      hand.showCaught(hand.catchPoint());
      stage.hover(null);
      return;
    }
    hand.overlay.showSnap(null);
    const { x, y } = hand.last;
    const grip = this.state().isSelectOnly ? null : hand.overlay.gripAt(x, y);
    hand.pane.host.style.cursor = grip ? 'grab' : '';
    stage.hover(grip ? null : hand.pane.partAt(x, y));
  }

  private up(event: PointerEvent): void {
    const { hand } = this;
    const { last } = hand;
    const now = this.situation;
    if (now.at === 'navigating') {
      this.situation = now.then;
      this.follow();
      return;
    }
    if (event.button !== 0) return;
    switch (now.at) {
      case 'gripping':
        this.situation = { at: 'idle' };
        return letGo(hand, now.gripping);
      case 'rectangle':
        this.situation = { at: 'idle' };
        return this.endRectangle(now);
      case 'base': {
        const { basing } = now;
        const isClick = basing.held && Math.hypot(last.x - basing.x, last.y - basing.y) < CLICK_PX;
        // A click sets the first corner, and a second one the other; a drag does both.
        const raising = isClick ? null : endBase(hand, basing);
        if (raising) this.situation = { at: 'height', raising };
        else if (isClick) this.situation = { at: 'base', basing: { ...basing, held: false } };
        return;
      }
      case 'height':
        if (endHeight(hand, now.raising)) this.situation = { at: 'idle' };
        return;
      case 'pressed': {
        this.situation = { at: 'idle' };
        const asked = blankInHand(hand);
        if (asked) pick(hand, asked.statement, asked.blank);
        else this.click(last.shift || last.ctrl);
        return;
      }
      case 'idle':
    }
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const lines = event.deltaMode === 1 ? 16 : 1;
    this.hand.pane.zoom(this.hand.last.x, this.hand.last.y, ZOOM_PER_WHEEL ** (event.deltaY * lines));
  }

  private leave(): void {
    this.stage.hover(null);
    if (this.situation.at === 'idle') this.hand.overlay.showSnap(null);
  }

  /** Leaving the statement leaves no trace of what was being drawn. */
  private onStatement(now: ReturnType<Hand['state']>, before: ReturnType<Hand['state']>): void {
    if (now.statement === before.statement) return;
    const { situation, hand } = this;
    const isDrawing = situation.at === 'gripping' || situation.at === 'base' || situation.at === 'height';
    const ended =
      now.statement === null ||
      now.statement.phase === 'done' ||
      now.statement.verb !== before.statement?.verb;
    if (!ended) {
      if (isDrawing) this.follow();
      return;
    }
    if (this.stage.picture.ghost(null)) this.stage.invalidate();
    hand.overlay.showSnap(null);
    hand.overlay.showRubber(null, null);
    if (isDrawing && (situation.at !== 'gripping' || now.statement === null)) this.situation = { at: 'idle' };
  }
}
