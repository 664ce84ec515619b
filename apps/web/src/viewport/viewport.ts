/** One view: camera, picture, overlay, and the pointer. It draws only when something changed. */
import {
  boxPoint,
  carry,
  cameraOf,
  carryBox,
  castOnScene,
  datumInPart,
  fitted,
  project,
  rayThrough,
  resolveSnap,
  unionBoxes,
  visibleParts,
  worldFromPart,
  boxSize,
  type Box,
  type Camera,
  type ItemId,
  type Snap,
  type SnapInstance,
  type Vec3,
  type ViewState,
} from '@kadrel/core';
import { THEME_CHANGED } from '../common/theme.ts';
import { factsOfPart, shownDocument, type Session } from '../session/store.ts';
import { Overlay } from './overlay.ts';
import { Picture } from './picture.ts';
import { HOME, about, between, orbited, panned, zoomed, type NamedView } from './view.ts';

/** How near the pointer must be to what it catches, pixels. */
const REACH_PX = 11;
const ANIMATION_MS = 220;
const CARD_MARGIN = 1.25;
const GROUND = { point: [0, 0, 0], normal: [0, 0, 1] } as const;
const EMPTY_VIEW: ViewState = {
  target: [0, 0, 0],
  bearing: HOME.bearing,
  altitude: HOME.altitude,
  height: 260,
  projection: 'perspective',
};

export class Viewport {
  readonly overlay: Overlay;
  readonly picture: Picture;
  private state: ViewState = EMPTY_VIEW;
  private current: Camera;
  private frame = 0;
  private animation: { from: ViewState; to: ViewState; started: number } | null = null;
  private readonly cameraListeners = new Set<(camera: Camera) => void>();
  private snapInstances: SnapInstance[] = [];
  private sceneBox: Box | undefined;
  private hovered: ItemId | null = null;
  private readonly undo: (() => void)[] = [];
  private wasFitted = false;
  private readonly views: ViewState[] = [];

  constructor(
    private readonly host: HTMLElement,
    canvas: HTMLCanvasElement,
    readonly session: Session,
  ) {
    this.picture = new Picture(canvas);
    this.overlay = new Overlay(host);
    this.current = cameraOf(this.state, 1, 1);
    const observer = new ResizeObserver(() => this.resize());
    observer.observe(host);
    const repaint = () => {
      this.picture.applyTheme();
      this.invalidate();
    };
    window.addEventListener(THEME_CHANGED, repaint);
    const { store } = session;
    this.undo.push(
      () => observer.disconnect(),
      () => window.removeEventListener(THEME_CHANGED, repaint),
      store.subscribe((now, before) => {
        if (
          now.built !== before.built ||
          now.document !== before.document ||
          now.lookingAt !== before.lookingAt
        )
          this.showModel();
        if (now.selection !== before.selection || now.built !== before.built) this.showMarks();
        if (now.display !== before.display) {
          this.picture.setDisplay(now.display);
          this.invalidate();
        }
        if (
          now.statement !== before.statement ||
          now.selection !== before.selection ||
          now.built !== before.built
        )
          this.showGrips();
      }),
    );
    this.resize();
    this.showModel();
  }

  get camera(): Camera {
    return this.current;
  }

  get view(): ViewState {
    return this.animation?.to ?? this.state;
  }

  get instances(): readonly SnapInstance[] {
    return this.snapInstances;
  }

  onCamera(listener: (camera: Camera) => void): () => void {
    this.cameraListeners.add(listener);
    listener(this.current);
    return () => this.cameraListeners.delete(listener);
  }

  invalidate(): void {
    this.frame ||= requestAnimationFrame((now) => this.draw(now));
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.undo.forEach((undo) => undo());
    this.overlay.dispose();
    this.picture.dispose();
  }

  /** Looks this way, with a short turn of the camera that reduced motion leaves out. */
  look({ bearing, altitude }: Pick<NamedView, 'bearing' | 'altitude'>): void {
    this.go({ ...this.view, bearing, altitude });
  }

  setProjection(projection: ViewState['projection']): void {
    this.go({ ...this.view, projection });
  }

  /** All of the picture is filled by the selection, or by everything; the view orbits about it from then on. */
  fit(what: 'selection' | 'all'): void {
    const box = (what === 'selection' ? this.selectionBox() : undefined) ?? this.sceneBox;
    if (box) this.go(fitted(this.view, box, this.current.width / this.current.pixelHeight));
    else this.go({ ...EMPTY_VIEW, projection: this.view.projection });
  }

  /** Back to the view before the last jump. */
  previousView(): void {
    const last = this.views.pop();
    if (last) this.go(last, false);
  }

  orbit(dx: number, dy: number): void {
    this.move(orbited(this.state, dx, dy));
  }

  pan(dx: number, dy: number): void {
    this.move(panned(this.current, dx, dy));
  }

  zoom(x: number, y: number, factor: number): void {
    this.move(zoomed(this.current, x, y, factor));
  }

  /** The view turns about the selection, or else about what is under the pointer. */
  orbitAbout(x: number, y: number): void {
    const box = this.selectionBox();
    const ray = rayThrough(this.current, x, y);
    const hit = box ? undefined : castOnScene(this.snapInstances, ray);
    const target = box
      ? boxPoint(box, [0, 0, 0])
      : hit && ([0, 1, 2].map((i) => ray.from[i]! + ray.direction[i]! * hit.distance) as unknown as Vec3);
    if (target) this.move(about(this.state, target));
  }

  /** The snap under a pixel, by the settings of the session. */
  snapAt(x: number, y: number, without?: ReadonlySet<ItemId>): Snap | null {
    const { snapKinds, seeThrough, document } = this.session.store.getState();
    const instances = this.snapInstances.filter(({ part }) => document.items[part]?.snappable);
    return resolveSnap({
      pointer: [x, y],
      camera: this.current,
      instances,
      settings: {
        kinds: snapKinds,
        seeThrough,
        reachPx: REACH_PX,
        gridStep: document.scene.grid,
        plane: GROUND,
      },
      ...(without ? { without } : {}),
    });
  }

  partAt(x: number, y: number): ItemId | null {
    return castOnScene(this.snapInstances, rayThrough(this.current, x, y))?.instance.part ?? null;
  }

  hover(part: ItemId | null): void {
    if (part === this.hovered) return;
    this.hovered = part;
    this.showMarks();
  }

  screenOf(point: Vec3): readonly [number, number] {
    const { left, top } = this.host.getBoundingClientRect();
    const [x, y] = project(this.current, point);
    return [left + x, top + y];
  }

  /** Where the grips stand: the datum of one part, the middle of the underside of several. */
  anchor(): Vec3 | null {
    const { selection, document } = this.session.store.getState();
    const [only, ...others] = selection;
    const part = only === undefined ? undefined : document.items[only];
    if (part && others.length === 0) {
      const inPart = datumInPart(part, (id) => factsOfPart(this.session.store.getState(), id)?.measures.box);
      if (inPart) return carry(worldFromPart(document, part.id), inPart);
    }
    const box = this.selectionBox();
    return box ? boxPoint(box, [0, 0, -1]) : null;
  }

  boxOf(id: ItemId): Box | undefined {
    const state = this.session.store.getState();
    const facts = factsOfPart(state, id);
    return facts && carryBox(worldFromPart(state.document, id), facts.measures.box);
  }

  showGrips(): void {
    const { statement, selection, lookingAt, document } = this.session.store.getState();
    const idle = statement === null || statement.phase === 'done' || statement.verb === 'move';
    const movable =
      selection.length > 0 && selection.every((id) => document.items[id] && !document.items[id].locked);
    // Grips stand over the picture, which is not drawn anew for them.
    this.overlay.setGrips(idle && movable && lookingAt === null ? this.anchor() : null);
  }

  private selectionBox(): Box | undefined {
    const { selection } = this.session.store.getState();
    return unionBoxes(selection.flatMap((id) => this.boxOf(id) ?? []));
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.host;
    this.picture.resize(Math.max(1, clientWidth), Math.max(1, clientHeight));
    this.invalidate();
  }

  private showModel(): void {
    const state = this.session.store.getState();
    const document = shownDocument(state);
    const shown = visibleParts(document).filter((part) => state.built.parts[part.id]);
    this.picture.show(
      document,
      new Map(shown.map(({ id }) => [id, state.built.parts[id]!.key])),
      state.built.factsOf,
    );
    this.snapInstances = shown.flatMap(({ id }) => {
      const facts = factsOfPart(state, id);
      return facts ? [{ part: id, pose: worldFromPart(document, id), shape: facts.snaps }] : [];
    });
    this.sceneBox = unionBoxes(shown.flatMap(({ id }) => this.boxOf(id) ?? []));
    if (!this.wasFitted && this.sceneBox) {
      this.wasFitted = true;
      this.state = fitted(
        this.state,
        this.sceneBox,
        Math.max(0.2, this.host.clientWidth / Math.max(1, this.host.clientHeight)),
      );
    }
    this.showMarks();
    this.showGrips();
  }

  private showMarks(): void {
    const { selection } = this.session.store.getState();
    this.picture.mark({ selected: new Set(selection), hovered: this.hovered });
    this.invalidate();
  }

  private go(to: ViewState, remember = true): void {
    if (remember) this.views.push(this.view);
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    if (still) this.state = to;
    else this.animation = { from: this.state, to, started: performance.now() };
    this.invalidate();
  }

  private move(to: ViewState): void {
    this.animation = null;
    this.state = to;
    this.invalidate();
  }

  private draw(now: number): void {
    this.frame = 0;
    if (this.animation) {
      const progress = Math.min(1, Math.max(0, (now - this.animation.started) / ANIMATION_MS));
      this.state = between(this.animation.from, this.animation.to, progress);
      if (progress >= 1) this.animation = null;
      else this.invalidate();
    }
    const { clientWidth, clientHeight } = this.host;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.current = cameraOf(this.state, clientWidth, clientHeight);
    const size = this.sceneBox ? boxSize(this.sceneBox) : ([100, 100, 100] as const);
    const reach =
      Math.hypot(...size) +
      (this.sceneBox
        ? Math.hypot(...boxPoint(this.sceneBox, [0, 0, 0]).map((n, i) => n - this.state.target[i]!))
        : 0);
    this.picture.render(this.current, this.session.store.getState().document.scene.grid, reach);
    this.overlay.update(this.current);
    for (const listener of this.cameraListeners) listener(this.current);
  }

  /** A picture for the project's card: everything in sight, looked at as now. */
  thumbnail(): Promise<Blob | null> {
    const { clientWidth, clientHeight } = this.host;
    const state = this.state;
    if (this.sceneBox && clientHeight > 0) {
      const all = fitted(state, this.sceneBox, clientWidth / clientHeight);
      // The card is flatter than the view, and cuts off its top and bottom.
      this.state = { ...all, height: all.height * CARD_MARGIN };
    }
    this.animation = null;
    this.draw(0);
    const picture = this.picture.thumbnail(480, 300);
    this.state = state;
    this.invalidate();
    return picture;
  }
}
