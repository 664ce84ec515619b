/**
 * The pointer in the views: what happens goes through `situation.ts`, and what that says is done here. One for all views.
 * Long, since every effect of a situation is carried out here.
 */
import { isHandled } from '../session/statement.ts';
import type { Vec3 } from '@kadrel/core';
import { gestureOf, isComplete, isSettled, nextStep } from '../session/gesture.ts';
import { gatheringBlank } from '../session/waiting.ts';
import { AimKeys } from './aimKeys.ts';
import { click, doubleClick } from './clicking.ts';
import { clearDrawn, finish, focusOn, follow, give, type GestureSoFar } from './gesturing.ts';
import { drag, letGo, takeHold, type Gripping } from './gripping.ts';
import { Hand, selectable } from './hand.ts';
import { dragPoint, letPointGo, takePoint, type Handling } from './handles.ts';
import type { Pane } from './pane.ts';
import { blankInHand, hoverPick, pick } from './picking.ts';
import { placesMeant, takePlaces } from './placeRegions.ts';
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
import {
  CLICK_PX,
  step,
  type Effect,
  type Facts,
  type PointerEventData,
  type Situation,
} from './situation.ts';
import { instanceAt } from './underPixel.ts';
import { orbit, orbitAbout, pan, zoom } from './viewing.ts';
import { showCaught } from './telling.ts';
import type { Stage } from './stage.ts';

const ZOOM_PER_WHEEL = 1.0015;

/** Turns what the pointer does into situations and effects. */
export class Pointer {
  private readonly hand: Hand;
  private readonly aimKeys: AimKeys;
  private situation: Situation = { at: 'idle' };
  private drawing: GestureSoFar | null = null;
  private region: Drawing | null = null;
  private gripping: Gripping | null = null;
  private handling: Handling | null = null;
  private hoverFrame = 0;
  /** Taking hold starts a statement, which ends nothing. */
  private isTaking = false;
  private readonly undo: (() => void)[] = [];

  constructor(private readonly stage: Stage) {
    this.hand = new Hand(stage);
    this.aimKeys = new AimKeys(this.hand, () => this.follow(), {
      isAsked: () => this.asksForPlace(),
      give: (point) => this.giveAt(point),
    });
    this.undo.push(stage.session.store.subscribe((now, before) => this.onStatement(now, before)));
    stage.pointer.follow = () => this.follow();
    stage.pointer.onKey = (event) => this.onKey(event);
    this.undo.push(() => {
      stage.pointer.follow = null;
      stage.pointer.onKey = null;
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
    on('pointermove', () => this.take({ is: 'move', ...this.pixel() }));
    on('pointerup', ({ button }) =>
      this.state().isCarrying ? this.putDown() : this.take({ is: 'up', button, ...this.pixel() }),
    );
    on('dblclick', () => this.situation.at === 'idle' && doubleClick(this.hand));
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
      this.hand.overlay.reticle.hide();
      // A fence stands on the picture of its view, and ends with it.
      if (this.situation.at === 'fence') this.take({ is: 'key', key: 'Escape' });
    }
    this.hand.pane = pane;
    this.hand.place(event);
    this.stage.pointer.at = this.hand.last;
    if (event.type === 'pointermove') this.stage.catcher.isFresh = true;
    if (event.type === 'pointerdown' || event.type === 'wheel') this.stage.panes.activate(pane);
  }

  private state() {
    return this.hand.state();
  }

  private pixel = () => ({ x: this.hand.last.x, y: this.hand.last.y });

  // --- Situations ---------------------------------------------------------------------------------------------------

  private readonly facts: Facts = {
    isBusy: () => this.state().statement?.phase === 'working' || this.state().lookingAt !== null,
    drawsFrom: () => {
      const statement = this.hand.openStatement();
      const isDrawn = gestureOf(statement) && !blankInHand(this.hand) && gatheringBlank(statement) === null;
      return isDrawn ? nextStep(statement!, -1) : null;
    },
    nextStep: (from) => {
      const statement = this.hand.openStatement();
      return statement && gestureOf(statement) ? nextStep(statement, from) : null;
    },
    held: () => this.held(),
    takesRegions: () => {
      const statement = this.hand.openStatement();
      return !statement || gatheringBlank(statement) !== null || placesMeant(this.hand) !== null;
    },
    isFence: () => this.region?.shape === 'fence',
    isRoundDone: (at) => {
      const statement = this.hand.openStatement();
      return statement !== null && gestureOf(statement)?.repeatsFrom === at && isComplete(statement);
    },
  };

  private held(): 'grip' | 'handle' | 'other' {
    const { hand } = this;
    const { x, y } = hand.last;
    const { isSelectOnly, statement } = this.state();
    if (isSelectOnly) return 'other';
    const isPicking = blankInHand(hand) !== null;
    if ((!isPicking || isHandled(statement, 'points')) && hand.overlay.marks.handles.at(x, y) >= 0)
      return 'handle';
    return !isPicking && hand.overlay.grips.at(x, y) ? 'grip' : 'other';
  }

  private take(event: PointerEventData): boolean {
    const before = this.situation;
    const [next, effects] = step(before, event, this.facts);
    this.situation = next;
    for (const effect of effects) {
      const instead = this.perform(effect, before);
      if (!instead) continue;
      this.situation = instead;
      break;
    }
    return next !== before || effects.length > 0;
  }

  /** Does what a situation asks for. Returns what the pointer is at instead, where that cannot be done. */
  private perform(effect: Effect, before: Situation): Situation | undefined {
    const { hand } = this;
    switch (effect.do) {
      case 'look':
        hand.pane.travel.beginGesture();
        if (effect.how === 'orbit') orbitAbout(hand.pane, hand.last.x, hand.last.y);
        return undefined;
      case 'turn':
        return void orbit(hand.pane, effect.dx, effect.dy);
      case 'shift':
        return void pan(hand.pane, effect.dx, effect.dy);
      case 'give':
        return this.give(effect.step, before);
      case 'finish':
        this.drawing = null;
        clearDrawn(hand);
        return void finish(hand);
      case 'takeGrip':
      case 'takePoint':
        return this.takeHeld(effect);
      case 'letGo':
        if (this.gripping) letGo(hand, this.gripping);
        this.gripping = null;
        return undefined;
      case 'letPointGo':
        if (this.handling) letPointGo(hand, this.handling);
        this.handling = null;
        return undefined;
      case 'click':
        return void click(hand);
      case 'follow':
        return void this.followSoon();
      case 'clear':
        return void this.clear();
      default:
        return this.performRegion(effect);
    }
  }

  private performRegion(effect: Effect): Situation | undefined {
    const { hand } = this;
    if (effect.do === 'beginRegion') this.region = beginRegion(hand, effect.x, effect.y);
    if (!this.region) return undefined;
    if (effect.do === 'beginRegion' || effect.do === 'drawRegion') this.region = drawnTo(hand, this.region);
    if (effect.do === 'lastCornerBack') this.region = withoutCorner(this.region);
    if (effect.do === 'endRegion') return void this.endRegion();
    if (effect.do === 'fenceCorner' && !this.setCorner()) {
      this.endRegion();
      return { at: 'idle' };
    }
    showRegion(hand, this.region);
    return this.region ? undefined : { at: 'idle' };
  }

  /** Gives a place to a step; one that leaves it flat is not taken, and the drawing goes on as it was. */
  private give(at: number, before: Situation): Situation | undefined {
    const next = give(this.hand, this.drawing, at) ?? this.typedWhole(at);
    if (!next) return before.at === 'drawing' ? { ...before, press: null, isFirst: false } : { at: 'idle' };
    this.drawing = next;
    const following = this.situation.at === 'drawing' ? this.situation.step : null;
    if (following !== null) focusOn(this.hand, following);
    this.follow();
    return undefined;
  }

  /** Whether what is drawn waits for a place, which the focus is on too. */
  private asksForPlace(): boolean {
    const { situation } = this;
    const statement = this.hand.openStatement();
    const at =
      situation.at === 'drawing' ? situation.step : situation.at === 'idle' ? this.facts.drawsFrom() : null;
    const [reading] = at === null ? [] : (gestureOf(statement)?.steps[at] ?? []);
    return reading?.reads === 'place' && statement?.focus?.blank === reading.into;
  }

  /** Gives a place as by a click. */
  private giveAt(point: Vec3): void {
    this.hand.aim.given = point;
    this.take({ is: 'down', button: 0, shift: false, ...this.pixel() });
    this.take({ is: 'up', button: 0, ...this.pixel() });
    this.hand.aim.given = null;
  }

  /** Where all numbers of a step were typed, no place is asked for. */
  private typedWhole(at: number): GestureSoFar | null {
    const statement = this.hand.openStatement();
    const step = gestureOf(statement)?.steps[at];
    return statement && step && isSettled(statement, step) ? this.drawing : null;
  }

  /** Takes hold where the press was, so that nothing jumps. */
  private takeHeld({ do: what, x, y }: Extract<Effect, { do: 'takeGrip' | 'takePoint' | 'beginRegion' }>) {
    const { hand } = this;
    const { last } = hand;
    const grip = hand.overlay.grips.at(x, y);
    const handle = hand.overlay.marks.handles.at(x, y);
    hand.last = { ...last, x, y };
    this.isTaking = true;
    if (what === 'takeGrip') this.gripping = grip && takeHold(hand, grip);
    else this.handling = handle < 0 ? null : takePoint(hand, handle);
    this.isTaking = false;
    hand.last = last;
    const isTaken = what === 'takeGrip' ? this.gripping : this.handling;
    if (!isTaken) return { at: 'idle' } as const;
    this.follow();
    return undefined;
  }

  private clear(): void {
    const { hand, stage } = this;
    this.drawing = null;
    hand.filled.clear();
    clearDrawn(hand);
    if (this.region) showRegion(hand, (this.region = null));
    showCaught(hand, null);
    stage.catcher.reset();
    hand.overlay.reticle.showRubber(null, null);
  }

  // --- Regions ----------------------------------------------------------------------------------------------------

  private endRegion(): void {
    const { hand, region } = this;
    this.region = null;
    showRegion(hand, null);
    if (!region) return;
    const about = placesMeant(hand);
    if (about) return takePlaces(hand, about, region);
    const found = takenBy(hand, region);
    const blank = gatheringBlank(this.hand.openStatement());
    if (blank !== null) found.forEach((part) => hand.session.choose(blank, part, 'add'));
    else {
      hand.session.leave();
      hand.session.select(selectionAfter(hand, found));
    }
  }

  /** A click sets a corner of a fence; false where it ends it: on the first corner, or twice in one place. */
  private setCorner(): boolean {
    const region = this.region!;
    const next = withCorner(this.hand, region);
    const last = region.way.at(-1)!;
    const isDouble = Math.hypot(last[0] - this.hand.last.x, last[1] - this.hand.last.y) < CLICK_PX;
    if (!next || (isDouble && region.way.length > 2)) return false;
    if (!isDouble) this.region = next;
    return true;
  }

  // --- Events -------------------------------------------------------------------------------------------------------

  private onKey(event: KeyboardEvent): boolean {
    const { situation, hand } = this;
    // A distance along a guide is typed in a field of its own.
    if (this.stage.catcher.lists.shown.getState().typing) return false;
    if (situation.at === 'fence' || (situation.at === 'drawing' && event.key === 'Enter')) {
      if (this.take({ is: 'key', key: event.key })) return true;
    }
    // Words are typed where words belong, wherever the pointer is.
    const isWords = event.target instanceof Element && event.target.hasAttribute('data-words');
    const isDrawn =
      situation.at === 'drawing' || (situation.at === 'idle' && this.facts.drawsFrom() !== null);
    const isAiming = !isWords && (blankInHand(hand) !== null || situation.at === 'gripping' || isDrawn);
    return this.aimKeys.take(event, { isAiming });
  }

  private down(event: PointerEvent): void {
    (document.activeElement as HTMLElement | null)?.blur?.();
    const { hand } = this;
    this.stage.catcher.lists.close();
    hand.pane.host.setPointerCapture(event.pointerId);
    if (event.button === 1 || event.button === 2) event.preventDefault();
    this.take({ is: 'down', button: event.button, shift: hand.last.shift, ...this.pixel() });
  }

  /** What was dragged here from a rack stands where the button comes up, and that is all that is asked. */
  private putDown(): void {
    const asked = blankInHand(this.hand);
    if (!asked) return;
    (document.activeElement as HTMLElement | null)?.blur?.();
    pick(this.hand, asked.statement, asked.blank);
    void this.hand.session.commit();
  }

  /** The picture changes at most once a frame, and so does what is caught. */
  private followSoon(): void {
    this.hoverFrame ||= requestAnimationFrame(() => {
      this.hoverFrame = 0;
      this.follow();
    });
  }

  /** What follows the pointer. */
  private follow(): void {
    const { hand, situation } = this;
    if (situation.at === 'gripping') return void (this.gripping && drag(hand, this.gripping));
    if (situation.at === 'point') return void (this.handling && dragPoint(hand, this.handling));
    if (situation.at === 'drawing')
      return void (this.drawing && situation.step !== null && follow(hand, this.drawing, situation.step));
    if (situation.at === 'idle') this.hover();
  }

  /** What follows the pointer without a press. */
  private hover(): void {
    const { hand, stage } = this;
    if (RegionPick.blank(this.state().statement)) {
      hand.pane.host.style.cursor = 'pointer';
      showCaught(hand, null);
      stage.regionPick.hover(hand.aim.ray());
      return stage.hover(null);
    }
    const asked = blankInHand(hand);
    const first = asked ? null : this.facts.drawsFrom();
    if (asked || first !== null) hand.pane.host.style.cursor = 'crosshair';
    if (asked) return hoverPick(hand, asked.statement, asked.blank);
    if (first !== null) {
      // Before the first place is given the fields show what stands in them.
      showCaught(hand, hand.aim.catchPoint());
      return stage.hover(null);
    }
    showCaught(hand, null);
    const { x, y } = hand.last;
    const held = this.held();
    hand.pane.host.style.cursor = held === 'other' ? '' : 'grab';
    const { omitting } = this.state();
    if (omitting !== null)
      return stage.hover(stage.model.memberAt(hand.pane, omitting, [x, y]) === null ? null : omitting);
    const under = held === 'grip' ? null : instanceAt(hand.pane, x, y);
    stage.hover(under ? selectable(hand, under.part) : null);
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const lines = event.deltaMode === 1 ? 16 : 1;
    zoom(this.hand.pane, [this.hand.last.x, this.hand.last.y], ZOOM_PER_WHEEL ** (event.deltaY * lines));
  }

  private leave({ relatedTarget }: PointerEvent): void {
    this.stage.hover(null);
    // The list at the pointer is no other place.
    if (relatedTarget instanceof Element && relatedTarget.closest('[data-within-reach]')) return;
    this.stage.catcher.lists.close();
    this.stage.catcher.isFresh = false;
    if (this.situation.at === 'idle') showCaught(this.hand, null);
    // What was tried out under the pointer gives way to what is typed.
    this.hand.session.tryOut(null);
  }

  /** Leaving the statement leaves no trace of what was being drawn. */
  private onStatement(now: ReturnType<Hand['state']>, before: ReturnType<Hand['state']>): void {
    if (now.statement === before.statement || this.isTaking) return;
    const { situation } = this;
    if (now.statement?.focus?.blank !== before.statement?.focus?.blank) this.stage.catcher.nextPick();
    const { statement } = now;
    const isEnded =
      statement === null || statement.phase === 'done' || statement.verb !== before.statement?.verb;
    if (!isEnded) {
      // What is dragged follows what is typed meanwhile.
      if (situation.at === 'gripping' || situation.at === 'drawing') this.followSoon();
      return;
    }
    if (situation.at === 'gripping' && statement === null) this.situation = { at: 'idle' };
    if (this.situation.at === 'idle') this.gripping = null;
    this.take({ is: 'ended' });
  }
}
