/** One view on the stage: where it looks from, what stands over it, and what lies under one of its pixels. */
import {
  boxSize,
  boxPoint,
  cameraOf,
  castOnScene,
  curveUnder,
  fitted,
  project,
  rayThrough,
  type Box,
  type Camera,
  type SectionView,
  type SnapInstance,
  type SnapScene,
  type ItemId,
  type Vec3,
  type ViewState,
} from '@kadrel/core';
import { Overlay } from './overlay.ts';
import type { Area, Display } from './picture.ts';
import type { Stage } from './stage.ts';
import { HOME, about, between, orbited, panned, zoomed, type NamedView } from './standard.ts';

/** A place that is framed has so much of its own size round it, and is taken for at least so large a part of all there is. */
const FRAME_ROUND = 0.5;
const MIN_FRAME = 0.25;
const ANIMATION_MS = 220;
/** Turns of the wheel that follow one another this quickly are one gesture. */
const ONE_ZOOM_MS = 600;
/** Views that can be gone back to. */
const MAX_VIEWS = 200;
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

/** What is met by its lines alone. */
const DRAWN: ReadonlySet<string> = new Set(['profile', 'section']);

/** One view with its camera and what stands over it. */
export class Pane {
  readonly overlay: Overlay;
  display: Display = 'edges';
  /** To be drawn at the next frame. */
  isStale = true;
  private state: ViewState;
  private current: Camera;
  private animation: { from: ViewState; to: ViewState; started: number } | null = null;
  private readonly cameraListeners = new Set<(camera: Camera) => void>();
  private readonly earlier: ViewState[] = [];
  private readonly later: ViewState[] = [];
  /** The view before a gesture that has not moved it yet. */
  private before: ViewState | null = null;
  private zoomedAt = -Infinity;
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
    this.state = { ...EMPTY_VIEW, ...first };
    this.current = cameraOf(this.state, 1, 1);
  }

  get camera(): Camera {
    return this.current;
  }

  /** Where it looks from, or will when it has come to rest. */
  get view(): ViewState {
    return this.animation?.to ?? this.state;
  }

  /** What can be met and caught in this view. */
  get scene(): SnapScene {
    return this.stage.cutting(this.name).scene;
  }

  get isShown(): boolean {
    return this.host.clientWidth > 0 && this.host.clientHeight > 0;
  }

  /** Follows this view's camera. */
  onCamera(listener: (camera: Camera) => void): () => void {
    this.cameraListeners.add(listener);
    listener(this.current);
    return () => this.cameraListeners.delete(listener);
  }

  /** After the view was drawn: what stands over it follows. */
  drawn(): void {
    this.overlay.update(this.current);
    for (const listener of this.cameraListeners) listener(this.current);
  }

  invalidate(): void {
    this.isStale = true;
    this.stage.requestFrame();
  }

  /** Looks this way, with a short turn of the camera that reduced motion leaves out. */
  look({ bearing, altitude }: Pick<NamedView, 'bearing' | 'altitude'>): void {
    this.go({ ...this.view, bearing, altitude });
  }

  setProjection(projection: ViewState['projection']): void {
    this.go({ ...this.view, projection });
  }

  setDisplay(display: Display): void {
    this.display = display;
    this.invalidate();
  }

  /** All of the picture is filled by the selection, or by everything; the view orbits about it from then on. */
  fit(what: 'selection' | 'all'): void {
    const box = (what === 'selection' ? this.stage.selectionBox() : undefined) ?? this.stage.sceneBox;
    const { width, pixelHeight } = this.current;
    if (box) this.go(fitted(this.view, box, width / pixelHeight));
    else
      this.go({
        ...EMPTY_VIEW,
        bearing: this.view.bearing,
        altitude: this.view.altitude,
        projection: this.view.projection,
      });
  }

  /** A place and what is round it fill the picture. */
  frame({ min, max }: Box): void {
    const scene = this.stage.sceneBox;
    const least = scene ? Math.hypot(...boxSize(scene)) * MIN_FRAME : 1;
    const size = Math.max(least, ...max.map((n, i) => n - min[i]!));
    const { width, pixelHeight } = this.current;
    const grown = {
      min: min.map((n) => n - size * FRAME_ROUND) as unknown as Vec3,
      max: max.map((n) => n + size * FRAME_ROUND) as unknown as Vec3,
    };
    this.go(fitted(this.view, grown, width / pixelHeight));
  }

  /** A gesture begins that may move the view: the one before it can be gone back to. */
  beginGesture(): void {
    this.before = this.view;
  }

  /** Back to the view before the last jump or gesture, and forth again. */
  previousView(): void {
    const view = this.earlier.pop();
    if (!view) return;
    this.later.push(this.view);
    this.travel(view);
  }

  nextView(): void {
    const view = this.later.pop();
    if (!view) return;
    this.earlier.push(this.view);
    this.travel(view);
  }

  /** A jump to a view, which can be taken back. */
  go(to: ViewState): void {
    this.remember(this.view);
    this.travel(to);
  }

  private remember(view: ViewState): void {
    this.earlier.push(view);
    if (this.earlier.length > MAX_VIEWS) this.earlier.shift();
    this.later.length = 0;
  }

  private travel(to: ViewState): void {
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    if (still) this.state = to;
    else this.animation = { from: this.state, to, started: performance.now() };
    this.invalidate();
  }

  orbit(dx: number, dy: number): void {
    this.move(orbited(this.state, dx, dy));
  }

  pan(dx: number, dy: number): void {
    this.move(panned(this.current, dx, dy));
  }

  zoom(x: number, y: number, factor: number): void {
    const now = performance.now();
    if (now - this.zoomedAt > ONE_ZOOM_MS) this.beginGesture();
    this.zoomedAt = now;
    this.move(zoomed(this.current, x, y, factor));
  }

  /** The view turns about the selection, or else about what is under the pointer. */
  orbitAbout(x: number, y: number): void {
    const box = this.stage.selectionBox();
    const ray = rayThrough(this.current, x, y);
    const hit = box ? undefined : castOnScene(this.scene, ray);
    const target = box
      ? boxPoint(box, [0, 0, 0])
      : hit && ([0, 1, 2].map((i) => ray.from[i]! + ray.direction[i]! * hit.distance) as unknown as Vec3);
    if (target) this.state = about(this.state, target);
  }

  private move(to: ViewState): void {
    if (this.before) this.remember(this.before);
    this.before = null;
    this.animation = null;
    this.state = to;
    this.stage.moved();
    this.invalidate();
  }

  instanceAt(x: number, y: number): SnapInstance | null {
    const hit = castOnScene(this.scene, rayThrough(this.current, x, y));
    // A drawn curve has no face to meet: it is caught within reach of the pointer, before what lies behind it.
    const { document } = this.stage.session.store.getState();
    const isDrawn = ({ part }: SnapInstance) => DRAWN.has(document.items[part]?.recipe.base.kind ?? '');
    return curveUnder(this.current, [x, y], this.scene, isDrawn, hit?.distance) ?? hit?.instance ?? null;
  }

  /** The name of the face of a part that is in front under the pointer. */
  faceAt(x: number, y: number, part: ItemId): string | undefined {
    const hit = castOnScene(this.scene, rayThrough(this.current, x, y));
    if (!hit || hit.instance.part !== part || hit.instance.leaf !== undefined) return undefined;
    const { names, faceName } = hit.instance.shape;
    return names[faceName[hit.face]!];
  }

  /** Whether a corner or the middle of a box is in the picture, or is where the view goes. */
  shows(box: Box): boolean {
    const { width, pixelHeight } = this.current;
    const camera = cameraOf(this.view, width, pixelHeight);
    const sides = [-1, 0, 1] as const;
    return sides.some((x) =>
      sides.some((y) =>
        sides.some((z) => {
          const [u, v, depth] = project(camera, boxPoint(box, [x, y, z]));
          const isBefore = camera.state.projection === 'parallel' || depth > 0;
          return isBefore && u >= 0 && u <= width && v >= 0 && v <= pixelHeight;
        }),
      ),
    );
  }

  screenOf(point: Vec3): readonly [number, number] {
    const { left, top } = this.host.getBoundingClientRect();
    const [x, y] = project(this.current, point);
    return [left + x, top + y];
  }

  /** Moves the camera on and returns where to draw; null while the view is not on show. */
  step(now: number): Area | null {
    if (this.animation) {
      const progress = Math.min(1, Math.max(0, (now - this.animation.started) / ANIMATION_MS));
      this.state = between(this.animation.from, this.animation.to, progress);
      if (progress >= 1) this.animation = null;
      this.stage.moved();
    }
    this.isStale = this.animation !== null;
    const { clientWidth, clientHeight } = this.host;
    if (clientWidth === 0 || clientHeight === 0) return null;
    if (!this.isFitted && this.stage.sceneBox) {
      this.isFitted = true;
      this.state = fitted(this.state, this.stage.sceneBox, Math.max(0.2, clientWidth / clientHeight));
    }
    this.current = cameraOf(this.state, clientWidth, clientHeight);
    const { left, top } = this.host.getBoundingClientRect();
    const origin = this.stage.canvas.getBoundingClientRect();
    return { left: left - origin.left, top: top - origin.top, width: clientWidth, height: clientHeight };
  }

  dispose(): void {
    this.overlay.dispose();
  }
}
