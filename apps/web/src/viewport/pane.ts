/** One view on the stage: where it looks from, what stands over it, and what lies under one of its pixels. */
import {
  cameraOf,
  fitted,
  type Camera,
  type SectionView,
  type SnapScene,
  type ViewState,
} from '@kadrel/core';
import { Overlay } from './overlay.ts';
import type { Area, Display } from './picture.ts';
import type { Stage } from './stage.ts';
import { HOME } from './standard.ts';
import { Travel } from './travel.ts';

/** A view narrower than this part of its height is fitted as if it were so wide. */
const MIN_ASPECT = 0.2;
/** The plane of the bed. */
export const GROUND = { point: [0, 0, 0], normal: [0, 0, 1] } as const;
/** Before there is anything to be seen. */
export const EMPTY_VIEW: ViewState = {
  target: [0, 0, 0],
  bearing: HOME.bearing,
  altitude: HOME.altitude,
  height: 260,
  projection: 'perspective',
};

/** One view with its camera and what stands over it. */
export class Pane {
  readonly overlay: Overlay;
  display: Display = 'edges';
  /** To be drawn at the next frame. */
  isStale = true;
  readonly travel: Travel;
  private current: Camera;
  private readonly cameraListeners = new Set<(camera: Camera) => void>();
  /** Everything was shown once: when the view first had something to show. */
  private isFitted = false;

  constructor(
    readonly stage: Stage,
    readonly host: HTMLElement,
    /** Which of the views it is, for section planes that cut in some only. */
    readonly name: SectionView,
    first: Partial<ViewState> = {},
  ) {
    this.overlay = new Overlay(host);
    this.travel = new Travel(
      { ...EMPTY_VIEW, ...first },
      { changed: () => this.invalidate(), movedByHand: () => stage.panes.moved() },
    );
    this.current = cameraOf(this.travel.view, 1, 1);
  }

  get camera(): Camera {
    return this.current;
  }

  /** What can be met and caught in this view. */
  get scene(): SnapScene {
    return this.stage.model.cutting(this.name).scene;
  }

  /** Follows this view's camera. */
  onCamera(listener: (camera: Camera) => void): () => void {
    this.cameraListeners.add(listener);
    listener(this.current);
    return () => this.cameraListeners.delete(listener);
  }

  /** After the view was drawn: what stands over it follows. */
  drawn(): void {
    this.overlay.follow(this.current);
    for (const listener of this.cameraListeners) listener(this.current);
  }

  invalidate(): void {
    this.isStale = true;
    this.stage.panes.requestFrame();
  }

  /** Moves the camera on and returns where to draw; null while the view is not on show. */
  step(now: number): Area | null {
    const { hasMoved, isOnTheWay } = this.travel.advance(now);
    if (hasMoved) this.stage.panes.moved();
    this.isStale = isOnTheWay;
    const { clientWidth, clientHeight } = this.host;
    if (clientWidth === 0 || clientHeight === 0) return null;
    this.fitFirst(Math.max(MIN_ASPECT, clientWidth / clientHeight));
    this.current = cameraOf(this.travel.state, clientWidth, clientHeight);
    const { left, top } = this.host.getBoundingClientRect();
    const origin = this.stage.canvas.getBoundingClientRect();
    return { left: left - origin.left, top: top - origin.top, width: clientWidth, height: clientHeight };
  }

  /** Once there is something to be seen, all of it is. */
  private fitFirst(aspect: number): void {
    const { box } = this.stage.model;
    if (this.isFitted || !box) return;
    this.isFitted = true;
    this.travel.set(fitted(this.travel.state, box, aspect));
  }
}
