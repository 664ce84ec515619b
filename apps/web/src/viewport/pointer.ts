/**
 * What the pointer does in the views. One situation at a time, shared by all views; each press, move and release leads
 * to the next. Navigation with the other buttons and the wheel works in every situation and never ends one.
 */
import { isGroup, isWhole, verbNamed, type ItemId } from '@kadrel/core';
import { selectedWith, selectingBy } from '../session/manner.ts';
import { AimKeys } from './aimKeys.ts';
import { drag, letGo, takeHold, type Gripping } from './gripping.ts';
import { dragFigure, isFiguring, startFigure, type Figuring } from './figures.ts';
import { Hand } from './hand.ts';
import { dragPoint, letPointGo, takePoint, type Handling } from './handles.ts';
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
import {
  beginRegion,
  drawnTo,
  selectionAfter,
  showRegion,
  takenBy,
  withCorner,
  withoutCorner,
  type Drawing,
} from './regions.ts';
import { RegionPick } from './regionPick.ts';
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
  | { readonly at: 'region'; readonly drawing: Drawing }
  /** Between the clicks that set the corners of a fence. */
  | { readonly at: 'fence'; readonly drawing: Drawing; readonly x: number; readonly y: number }
  | { readonly at: 'gripping'; readonly gripping: Gripping }
  /** A figure is drawn by one drag. */
  | { readonly at: 'figure'; readonly figuring: Figuring }
  /** One of the points of a profile is dragged. */
  | { readonly at: 'point'; readonly handling: Handling }
  | { readonly at: 'base'; readonly basing: Basing }
  | { readonly at: 'height'; readonly raising: Raising };

export class Pointer {
  private readonly hand: Hand;
  private readonly aimKeys: AimKeys;
  private situation: Situation = { at: 'idle' };
  private hoverFrame = 0;
  private readonly undo: (() => void)[] = [];

  constructor(private readonly stage: Stage) {
    this.hand = new Hand(stage);
    this.aimKeys = new AimKeys(this.hand, () => this.follow());
    this.undo.push(stage.session.store.subscribe((now, before) => this.onStatement(now, before)));
    stage.follow = () => this.follow();
    stage.onKey = (event) => this.onKey(event);
    this.undo.push(() => {
      stage.follow = null;
      stage.onKey = null;
    });
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
    on('dblclick', () => this.doubleClick());
    on('pointerleave', (event) => this.leave(event));
    on('wheel', (event) => this.wheel(event), { passive: false });
    on('contextmenu', (event) => event.preventDefault());
  }

  dispose(): void {
    cancelAnimationFrame(this.hoverFrame);
    this.undo.forEach((undo) => undo());
  }

  private enter(pane: Pane, event: MouseEvent): void {
    // A drag belongs to the view that it began in.
    if (this.hand.pane !== pane) {
      this.hand.overlay.showSnap(null);
      // A fence stands on the picture of its view, and ends with it.
      if (this.situation.at === 'fence') this.dropFence();
    }
    this.hand.pane = pane;
    this.hand.place(event);
    this.stage.pointer = this.hand.last;
    if (event.type === 'pointermove') this.stage.catcher.isFresh = true;
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

  private click(): void {
    const { last, pane, session } = this.hand;
    const { omitting } = this.state();
    const omitted = omitting === null ? null : this.stage.memberAt(pane, omitting, last.x, last.y);
    if (omitting !== null && omitted !== null) return void session.toggleMember(omitting, omitted);
    const instance = pane.instanceAt(last.x, last.y);
    const blank = this.partsBlank();
    // Outside the open group one works in the whole scene again.
    if (instance && blank === null && !this.hand.isInOpenGroup(instance.part)) session.openGroup(null);
    const part = instance ? this.hand.selectable(instance.part) : null;
    const { selection, statement, manner } = this.state();
    if (blank !== null) {
      if (part) session.choose(blank, part);
      return;
    }
    if (statement?.phase === 'done' || (statement && part)) session.leave();
    const how = selectingBy(last, manner.selecting);
    const isAlone = part !== null && selection.length === 1 && selection[0] === part;
    if (isAlone && !statement && how === 'replace') return this.clickFace(part);
    // A click beside everything lets go of what is selected, unless parts are being gathered.
    session.select(part ? selectedWith(selection, [part], how) : how === 'replace' ? [] : selection);
    const isPattern = part !== null && this.state().document.items[part]?.recipe.base.kind === 'pattern';
    if (isPattern && instance?.member && this.state().selection.length === 1)
      session.set({ member: { part, label: instance.member.split('.')[0]! } });
  }

  /** A click on what is selected already goes on to its face under the pointer, and back. */
  private clickFace(part: ItemId): void {
    const { pane, last, session } = this.hand;
    const { face, document } = this.state();
    const name = isWhole(document, document.items[part]!) ? undefined : pane.faceAt(last.x, last.y, part);
    const isSame = name !== undefined && face?.names.length === 1 && face.names[0] === name;
    session.selectFace(name === undefined || isSame ? null : { part, names: [name] });
  }

  /** A double click opens the group under the pointer for work inside; beside everything it closes the open one. */
  private doubleClick(): void {
    const { last, pane, session } = this.hand;
    if (this.hand.openStatement() || this.situation.at !== 'idle') return;
    const instance = pane.instanceAt(last.x, last.y);
    const part = instance && this.hand.selectable(instance.part);
    if (!instance) session.openGroup(null);
    else if (part && isGroup(this.state().document.items[part]!)) session.openGroup(part);
  }

  private endRegion(drawing: Drawing): void {
    const { hand } = this;
    this.situation = { at: 'idle' };
    showRegion(hand, null);
    const found = takenBy(hand, drawing);
    const blank = this.partsBlank();
    if (blank !== null) found.forEach((part) => hand.session.choose(blank, part, 'add'));
    else {
      hand.session.leave();
      hand.session.select(selectionAfter(hand, found));
    }
  }

  /** A click sets a corner; one on the first corner, or a second one in the same place, ends the fence. */
  private setCorner(now: Situation & { at: 'fence' }): void {
    const next = withCorner(this.hand, now.drawing);
    const last = now.drawing.way.at(-1)!;
    const isDouble = Math.hypot(last[0] - this.hand.last.x, last[1] - this.hand.last.y) < CLICK_PX;
    if (!next || (isDouble && now.drawing.way.length > 2)) return this.endRegion(now.drawing);
    this.situation = { ...now, drawing: isDouble ? now.drawing : next };
    showRegion(this.hand, this.situation.drawing);
  }

  private dropFence(): void {
    this.situation = { at: 'idle' };
    showRegion(this.hand, null);
  }

  // --- Keys -----------------------------------------------------------------------------------------------------------

  private onKey(event: KeyboardEvent): boolean {
    const { situation, hand } = this;
    if (situation.at === 'fence') {
      if (event.key === 'Enter') this.endRegion(situation.drawing);
      else if (event.key === 'Backspace') {
        const drawing = withoutCorner(situation.drawing);
        this.situation = drawing ? { ...situation, drawing } : { at: 'idle' };
        showRegion(hand, drawing);
      } else if (event.key === 'Escape') this.dropFence();
      else return false;
      return true;
    }
    const isAiming = blankInHand(hand) !== null || situation.at === 'gripping' || situation.at === 'base';
    return this.aimKeys.take(event, isAiming);
  }

  // --- Events -------------------------------------------------------------------------------------------------------

  private down(event: PointerEvent): void {
    (document.activeElement as HTMLElement | null)?.blur?.();
    const { hand } = this;
    const { x, y, shift } = hand.last;
    this.stage.catcher.closeList();
    hand.pane.host.setPointerCapture(event.pointerId);
    if (event.button === 1 || event.button === 2) {
      event.preventDefault();
      if (!shift) hand.pane.orbitAbout(x, y);
      this.situation = { at: 'navigating', how: shift ? 'pan' : 'orbit', x, y, then: this.situation };
      return;
    }
    const { statement, lookingAt, isSelectOnly } = this.state();
    if (event.button !== 0 || statement?.phase === 'working' || lookingAt !== null) return;
    if (this.situation.at === 'base' || this.situation.at === 'height' || this.situation.at === 'fence')
      return;
    if (isMaking(hand.openStatement())) {
      const basing = startBase(hand);
      if (basing) this.situation = { at: 'base', basing };
      return;
    }
    if (isFiguring(hand.openStatement()) && !blankInHand(hand)) {
      const figuring = startFigure(hand);
      if (figuring) this.situation = { at: 'figure', figuring };
      return;
    }
    const isFree = !isSelectOnly && (!blankInHand(hand) || statement?.verb === 'point');
    const index = isFree ? hand.overlay.handleAt(x, y) : -1;
    const handling = index < 0 ? null : takePoint(hand, index);
    if (handling) {
      this.situation = { at: 'point', handling };
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
        this.situation = { at: 'region', drawing: beginRegion(this.hand, now.x, now.y) };
        return;
      }
      case 'fence':
        showRegion(this.hand, now.drawing);
        return;
      case 'region':
        this.situation = { at: 'region', drawing: drawnTo(this.hand, now.drawing) };
        showRegion(this.hand, this.situation.drawing);
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
    if (now.at === 'figure') return dragFigure(hand, now.figuring);
    if (now.at === 'point') return dragPoint(hand, now.handling);
    if (now.at === 'base') return drawBase(hand, now.basing);
    if (now.at === 'height') return drawHeight(hand, now.raising);
    if (now.at !== 'idle') return;
    if (RegionPick.blank(this.state().statement)) {
      hand.pane.host.style.cursor = 'pointer';
      hand.showCaught(null);
      stage.regionPick.hover(hand.ray());
      return stage.hover(null);
    }
    const asked = blankInHand(hand);
    if (asked) {
      hand.pane.host.style.cursor = 'crosshair';
      return hoverPick(hand, asked.statement, asked.blank);
    }
    if (isMaking(hand.openStatement()) || isFiguring(hand.openStatement())) {
      hand.showCaught(hand.catchPoint());
      stage.hover(null);
      return;
    }
    hand.showCaught(null);
    const { x, y } = hand.last;
    const grip = this.state().isSelectOnly ? null : hand.overlay.gripAt(x, y);
    const isOnPoint = !this.state().isSelectOnly && hand.overlay.handleAt(x, y) >= 0;
    hand.pane.host.style.cursor = grip || isOnPoint ? 'grab' : '';
    const { omitting } = this.state();
    if (omitting !== null)
      return stage.hover(stage.memberAt(hand.pane, omitting, x, y) === null ? null : omitting);
    const under = grip ? null : hand.pane.instanceAt(x, y);
    stage.hover(under ? hand.selectable(under.part) : null);
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
      case 'figure': {
        this.situation = { at: 'idle' };
        hand.showCaught(null);
        // A press that goes nowhere draws nothing.
        if (Math.hypot(last.x - now.figuring.x, last.y - now.figuring.y) >= CLICK_PX)
          void hand.session.commit();
        return;
      }
      case 'point':
        this.situation = { at: 'idle' };
        return letPointGo(hand);
      case 'region': {
        if (now.drawing.shape !== 'fence') return this.endRegion(now.drawing);
        // A fence goes on by clicks.
        const drawing = withCorner(hand, now.drawing) ?? now.drawing;
        this.situation = { at: 'fence', drawing, x: last.x, y: last.y };
        return showRegion(hand, drawing);
      }
      case 'fence':
        return this.setCorner(now);
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
        if (RegionPick.blank(this.state().statement)) return this.stage.regionPick.click(hand.ray());
        const asked = blankInHand(hand);
        if (asked) pick(hand, asked.statement, asked.blank);
        else this.click();
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

  private leave({ relatedTarget }: PointerEvent): void {
    this.stage.hover(null);
    // The list at the pointer is no other place.
    if (relatedTarget instanceof Element && relatedTarget.closest('[data-within-reach]')) return;
    this.stage.catcher.closeList();
    this.stage.catcher.isFresh = false;
    if (this.situation.at === 'idle') this.hand.showCaught(null);
  }

  /** Leaving the statement leaves no trace of what was being drawn. */
  private onStatement(now: ReturnType<Hand['state']>, before: ReturnType<Hand['state']>): void {
    if (now.statement === before.statement) return;
    const { situation, hand } = this;
    const isDrawing =
      situation.at === 'point' ||
      situation.at === 'figure' ||
      situation.at === 'gripping' ||
      situation.at === 'base' ||
      situation.at === 'height';
    const ended =
      now.statement === null ||
      now.statement.phase === 'done' ||
      now.statement.verb !== before.statement?.verb;
    if (now.statement?.focus?.blank !== before.statement?.focus?.blank) this.stage.catcher.nextPick();
    if (!ended) {
      // What is drawn on a plane follows the pointer alone.
      if (isDrawing && situation.at !== 'point' && situation.at !== 'figure') this.follow();
      return;
    }
    if (this.stage.picture.ghost(null)) this.stage.invalidate();
    hand.showCaught(null);
    this.stage.catcher.reset();
    hand.overlay.showRubber(null, null);
    if (isDrawing && (situation.at !== 'gripping' || now.statement === null)) this.situation = { at: 'idle' };
  }
}
