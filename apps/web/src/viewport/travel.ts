/** Where a view looks from: its moves by hand, its jumps with their short animation, and the way back. */
import type { ViewState } from '@kadrel/core';
import { between } from './standard.ts';

const ANIMATION_MS = 220;
/** Turns of the wheel that follow one another this quickly are one gesture. */
const ONE_ZOOM_MS = 600;
/** Views that can be gone back to. */
const MAX_VIEWS = 200;

/** The state of one view over time. */
export class Travel {
  private current: ViewState;
  private animation: { from: ViewState; to: ViewState; started: number } | null = null;
  private readonly earlier: ViewState[] = [];
  private readonly later: ViewState[] = [];
  /** The view before a gesture that has not moved it yet. */
  private before: ViewState | null = null;
  private zoomedAt = -Infinity;

  constructor(
    first: ViewState,
    private readonly telling: {
      /** It is elsewhere, or on its way there. */
      readonly changed: () => void;
      /** And it was moved by hand. */
      readonly movedByHand: () => void;
    },
  ) {
    this.current = first;
  }

  /** Where it looks from now. */
  get state(): ViewState {
    return this.current;
  }

  /** Where it looks from, or will when it has come to rest. */
  get view(): ViewState {
    return this.animation?.to ?? this.current;
  }

  /** A jump to a view, with a short turn of the camera that reduced motion leaves out; it can be taken back. */
  go(to: ViewState): void {
    this.remember(this.view);
    this.travel(to);
  }

  /** A gesture begins that may move the view: the one before it can be gone back to. */
  beginGesture(): void {
    this.before = this.view;
  }

  /** Turns of the wheel that follow one another quickly are one gesture. */
  beginZoom(): void {
    const now = performance.now();
    if (now - this.zoomedAt > ONE_ZOOM_MS) this.beginGesture();
    this.zoomedAt = now;
  }

  /** A move by hand, at once. */
  move(to: (state: ViewState) => ViewState): void {
    if (this.before) this.remember(this.before);
    this.before = null;
    this.animation = null;
    this.current = to(this.current);
    this.telling.movedByHand();
    this.telling.changed();
  }

  /** Another state, which is no move that could be taken back. */
  set(to: ViewState): void {
    this.current = to;
  }

  /** Back to the view before the last jump or gesture, and forth again. */
  back(): void {
    const view = this.earlier.pop();
    if (!view) return;
    this.later.push(this.view);
    this.travel(view);
  }

  forth(): void {
    const view = this.later.pop();
    if (!view) return;
    this.earlier.push(this.view);
    this.travel(view);
  }

  /** Goes on to where it is at a time, ms: whether it moved by itself, and whether it will go on. */
  advance(now: number): { readonly hasMoved: boolean; readonly isOnTheWay: boolean } {
    if (!this.animation) return { hasMoved: false, isOnTheWay: false };
    const progress = Math.min(1, Math.max(0, (now - this.animation.started) / ANIMATION_MS));
    this.current = between(this.animation.from, this.animation.to, progress);
    if (progress >= 1) this.animation = null;
    return { hasMoved: true, isOnTheWay: progress < 1 };
  }

  private remember(view: ViewState): void {
    this.earlier.push(view);
    if (this.earlier.length > MAX_VIEWS) this.earlier.shift();
    this.later.length = 0;
  }

  private travel(to: ViewState): void {
    const isStill = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    if (isStill) this.current = to;
    else this.animation = { from: this.current, to, started: performance.now() };
    this.telling.changed();
  }
}
