/** The views on the stage: which of them one works in, and when they are drawn. */
import type { Camera, SectionView, ViewState } from '@kadrel/core';
import { Pane } from './pane.ts';
import type { Stage } from './stage.ts';

/** A view that has not moved for so long stands still. */
const STILL_MS = 200;

/** All views, drawn together in one frame. */
export class Panes {
  readonly all: Pane[] = [];
  private activePane: Pane | null = null;
  private frame = 0;
  private movedAt = -Infinity;
  private stillTimer = 0;
  private readonly cameraListeners = new Set<(camera: Camera) => void>();
  private readonly observers: ResizeObserver[] = [];

  constructor(
    private readonly stage: Stage,
    /** Draws one view; whether something was left out because it moves. */
    private readonly drawPane: (
      pane: Pane,
      now: { readonly time: number; readonly isMoving: boolean },
    ) => boolean,
  ) {}

  /** A view on an element over the canvas. */
  add(host: HTMLElement, name: SectionView, first?: Partial<ViewState>): Pane {
    const pane = new Pane(this.stage, host, name, first);
    const observer = new ResizeObserver(() => pane.invalidate());
    observer.observe(host);
    this.observers.push(observer);
    this.all.push(pane);
    this.activePane ??= pane;
    this.stage.marks.showAll();
    pane.invalidate();
    return pane;
  }

  /** The view that one works in; throws before there is one. */
  get active(): Pane {
    if (!this.activePane) throw new Error('There is no view yet.');
    return this.activePane;
  }

  activate(pane: Pane): void {
    if (pane === this.activePane) return;
    this.activePane = pane;
    for (const one of this.all) one.host.dataset.active = String(one === pane);
    for (const listener of this.cameraListeners) listener(pane.camera);
    this.stage.marks.showGrips();
  }

  /** Follows the camera of the active view. */
  onCamera(listener: (camera: Camera) => void): () => void {
    this.cameraListeners.add(listener);
    if (this.activePane) listener(this.activePane.camera);
    return () => this.cameraListeners.delete(listener);
  }

  /** Nothing moves, and nothing waits to be drawn. */
  get isAtRest(): boolean {
    return this.frame === 0 && this.stillTimer === 0;
  }

  /** All views are to be drawn anew. */
  invalidate(): void {
    for (const pane of this.all) pane.isStale = true;
    this.requestFrame();
  }

  requestFrame(): void {
    this.frame ||= requestAnimationFrame((now) => this.draw(now));
  }

  /** The camera of a view has moved. */
  moved(): void {
    this.movedAt = performance.now();
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    window.clearTimeout(this.stillTimer);
    this.observers.forEach((observer) => observer.disconnect());
    this.all.forEach((pane) => pane.overlay.dispose());
  }

  private draw(time: number): void {
    this.frame = 0;
    // The canvas keeps nothing from frame to frame, since keeping costs more than drawing: all views on show are drawn.
    if (!this.all.some((pane) => pane.isStale)) return;
    for (const pane of this.all) {
      const isThinned = this.drawPane(pane, { time, isMoving: time - this.movedAt < STILL_MS });
      if (isThinned) this.drawWhenStill();
      if (pane === this.activePane) for (const listener of this.cameraListeners) listener(pane.camera);
    }
  }

  /** Draws what was left out, once the views stand still. */
  private drawWhenStill(): void {
    window.clearTimeout(this.stillTimer);
    this.stillTimer = window.setTimeout(() => {
      this.stillTimer = 0;
      this.invalidate();
    }, STILL_MS);
  }
}
