/**
 * What all views share: the picture, what can be caught, the marks, the grips and the preview. It draws only what changed.
 * Long, since it is where the state of the session becomes what the views show.
 */
import {
  boxPoint,
  boxSize,
  castOnScene,
  rayThrough,
  standingOf,
  isRefusal,
  pinsOf,
  type DockPlace,
  project,
  unionBoxes,
  vectorOf,
  visibleParts,
  type Box,
  type Camera,
  type ItemId,
  type KadrelDocument,
  type SectionView,
  NO_SCENE,
  snapScene,
  type SnapScene,
  type Turn,
  type Vec3,
  type ViewState,
} from '@kadrel/core';
import { THEME_CHANGED } from '../common/theme.ts';
import { areOtherDocks } from '../session/docks.ts';
import { NO_PREVIEW, hasPreview, type Preview } from '../session/preview.ts';
import { handleSet } from './handles.ts';
import { doesDraw } from '../session/sketch.ts';
import { isChanged, type Statement } from '../session/statement.ts';
import { shownDocument, type Session, type SessionState } from '../session/store.ts';
import type { GripSet } from './grips.ts';
import { cardPicture } from './cardPicture.ts';
import { Catcher } from './catching.ts';
import { Cuttings, type Cutting } from './cuttings.ts';
import { ChosenMarks } from './chosenMarks.ts';
import { Formed } from './formed.ts';
import { Model, type ShownItem } from './model.ts';
import { omittedOf, type Omitted } from './omitted.ts';
import { anchorOf, boxOf, frameAxes, gripSetOf, selectionBox } from './gripSet.ts';
import type { ShownDock } from './marks.ts';
import { dockTags, docksToShow, inFocus, loftStartsOf, measuresToShow, movedTags } from './shownMarks.ts';
import { Pane } from './pane.ts';
import { Picture } from './picture.ts';
import { RegionPick } from './regionPick.ts';

/** Of more new parts than this, some are looked for in the picture. */
const MAX_NEW = 100;
const NO_LINES = new Float32Array();
/** A view that has not moved for so long stands still. */
const STILL_MS = 200;

/** What all views share: the canvas, the model and the pointer. */
export class Stage {
  private docksShown: readonly DockPlace[] = [];
  private dockTags: readonly ShownDock[] = [];
  private areDocksMoved = false;
  readonly picture: Picture;
  readonly panes: Pane[] = [];
  sceneBox: Box | undefined;
  scene: SnapScene = NO_SCENE;
  readonly catcher = new Catcher(this);
  readonly regionPick: RegionPick;
  private readonly model = new Model();
  private readonly formed = new Formed();
  private shown: readonly ShownItem[] = [];
  /** Members that are left out, while they are chosen. */
  private ghosts: readonly Omitted[] = [];
  private ghostScene: SnapScene = NO_SCENE;
  /** Where the pointer is in the view that it is in, pixels. */
  pointer: { readonly x: number; readonly y: number } | null = null;
  /** Has the pointer look again at what is under it. */
  follow: (() => void) | null = null;
  /** The keys that the pointer's situation takes for itself. */
  onKey: ((event: KeyboardEvent) => boolean) | null = null;
  private activePane: Pane | null = null;
  private frame = 0;
  private movedAt = -Infinity;
  private stillTimer = 0;
  private hovered: ItemId | null = null;
  private readonly sections = new Cuttings();
  private readonly cameraListeners = new Set<(camera: Camera) => void>();
  private readonly undo: (() => void)[] = [];
  private readonly chosenMarks: ChosenMarks;

  constructor(
    readonly canvas: HTMLCanvasElement,
    readonly session: Session,
  ) {
    this.picture = new Picture(canvas);
    this.chosenMarks = new ChosenMarks(session, this.picture, () => this.invalidate());
    this.regionPick = new RegionPick(session, this.picture.sketching, () => this.invalidate());
    const observer = new ResizeObserver(() => this.resize());
    observer.observe(canvas);
    const repaint = () => {
      this.picture.applyTheme();
      this.invalidate();
    };
    window.addEventListener(THEME_CHANGED, repaint);
    session.watchView(() => this.activePane?.view);
    this.undo.push(
      () => observer.disconnect(),
      () => window.removeEventListener(THEME_CHANGED, repaint),
      session.store.subscribe((now, before) => this.followState(now, before)),
    );
    this.resize();
    this.showModel();
  }

  /** Shows anew what has changed. */
  private followState(now: SessionState, before: SessionState): void {
    const isOther = (...keys: readonly (keyof SessionState)[]) =>
      keys.some((key) => now[key] !== before[key]);
    const isModel = isOther('built', 'document', 'lookingAt');
    const isStatement = isOther('statement');
    if (isModel) this.showModel();
    if (isModel && isOther('edits')) this.bringIntoView(before.document, now.document);
    if (isOther('selection', 'built', 'openGroup')) this.showMarks();
    if (isOther('builtPreview') && this.formed.show(now, this.shown, this.picture)) this.invalidate();
    if (isOther('omitting')) this.showOmitted();
    if (isStatement) this.showPreview(now.statement);
    if (isOther('fit')) this.showFit(now, before);
    if (now.fit.shown !== before.fit.shown) this.showMarks();
    if (isStatement || isModel) this.showFaults();
    if (isModel || isStatement || isOther('places')) this.chosenMarks.show();
    if (isOther('stepShown')) this.chosenMarks.showStep();
    if (isModel || isOther('selection')) void this.chosenMarks.showCage();
    if (isModel || isStatement || isOther('selection', 'gripScale', 'isSelectOnly', 'places', 'frames'))
      this.showGrips();
    if (isOther('document', 'selection', 'arePinsShown')) this.showPins();
    if (isModel || areOtherDocks(now, before)) this.showDocks();
  }

  /** A view on an element over the canvas. */
  addPane(host: HTMLElement, name: SectionView, first?: Partial<ViewState>): Pane {
    const pane = new Pane(this, host, name, first);
    const observer = new ResizeObserver(() => pane.invalidate());
    observer.observe(host);
    this.undo.push(() => observer.disconnect());
    this.panes.push(pane);
    this.activePane ??= pane;
    this.showPins();
    this.showDocks();
    this.showGrips();
    this.showFaults();
    pane.invalidate();
    return pane;
  }

  /** Nothing moves, and nothing waits to be drawn. */
  get isAtRest(): boolean {
    return this.frame === 0 && this.stillTimer === 0;
  }

  /** The view that one works in. */
  get active(): Pane {
    return this.activePane!;
  }

  activate(pane: Pane): void {
    if (pane === this.activePane) return;
    this.activePane = pane;
    for (const one of this.panes) one.host.dataset.active = String(one === pane);
    for (const listener of this.cameraListeners) listener(pane.camera);
    this.showGrips();
  }

  /** Follows the camera of the active view. */
  onCamera(listener: (camera: Camera) => void): () => void {
    this.cameraListeners.add(listener);
    if (this.activePane) listener(this.activePane.camera);
    return () => this.cameraListeners.delete(listener);
  }

  invalidate(): void {
    for (const pane of this.panes) pane.isStale = true;
    this.requestFrame();
  }

  requestFrame(): void {
    this.frame ||= requestAnimationFrame((now) => this.draw(now));
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    window.clearTimeout(this.stillTimer);
    this.undo.forEach((undo) => undo());
    this.panes.forEach((pane) => pane.dispose());
    this.picture.dispose();
  }

  /** What section planes do in a view, where they are dragged to now. */
  cutting(view: SectionView): Cutting {
    const { shown, scene } = this;
    return this.sections.of(view, { shown, scene, boxOf: (id) => this.boxOf(id) });
  }

  hover(part: ItemId | null): void {
    if (part === this.hovered) return;
    this.hovered = part;
    this.showMarks();
  }

  boxOf(id: ItemId): Box | undefined {
    return boxOf(this.session.store.getState(), id);
  }

  selectionBox(): Box | undefined {
    return selectionBox(this.session.store.getState());
  }

  /** Boxes of the parts that have their middle in a view. */
  boxesInView(pane: Pane, may: (part: ItemId) => boolean): Box[] {
    const { camera } = pane;
    const parts = [...new Set(this.scene.instances.map(({ part }) => part))];
    return parts.flatMap((part) => {
      const box = may(part) ? this.boxOf(part) : undefined;
      if (!box) return [];
      const [x, y, depth] = project(camera, boxPoint(box, [0, 0, 0]));
      const isIn = x >= 0 && x <= camera.width && y >= 0 && y <= camera.pixelHeight;
      return isIn && (camera.state.projection === 'parallel' || depth > 0) ? [box] : [];
    });
  }

  /** What was just made and is nowhere in the picture: the view moves out until it is seen. */
  private bringIntoView(before: KadrelDocument, now: KadrelDocument): void {
    const pane = this.activePane;
    const made = Object.keys(now.items).filter((id) => !before.items[id]);
    const boxes = made.slice(0, MAX_NEW).flatMap((id) => this.boxOf(id) ?? []);
    if (pane && boxes.length > 0 && !boxes.some((box) => pane.shows(box))) pane.fit('all');
  }

  /** The axes of the frame that the grips and the tripods show: that of the verb in hand, or else of Move. */
  frameAxes(): Turn {
    return frameAxes(this.session);
  }

  /** What the grips are for, and where they stand; null while there is nothing to hold. */
  gripSet(): GripSet | null {
    return gripSetOf(this.session, this.scene.instances);
  }

  /** Where the grips stand: the datum of one part, the middle of the underside of several. */
  anchor(): Vec3 | null {
    return anchorOf(this.session.store.getState());
  }

  showGrips(): void {
    const handles = handleSet(this.session.store.getState());
    const set = this.gripSet();
    const axes = this.frameAxes();
    const { gripScale } = this.session.store.getState();
    // Grips stand over the picture, which is not drawn anew for them.
    for (const pane of this.panes) {
      pane.overlay.setFrame(axes);
      pane.overlay.setHandles(handles);
      pane.overlay.setGrips(set, gripScale);
    }
  }

  /** Docks that can be caught now: the pointer asks at every move. */
  get shownDocks(): readonly DockPlace[] {
    return this.docksShown;
  }

  private showDocks(): void {
    this.docksShown = docksToShow(this.session);
    this.dockTags = dockTags(this.session.store.getState().document, this.docksShown);
    for (const pane of this.panes) pane.overlay.setDocks(this.dockTags);
  }

  /** The tags of docks, where what is in hand would take them. */
  private placeDocks({ placed }: Preview): void {
    if (this.dockTags.length === 0 || (placed.size === 0 && !this.areDocksMoved)) return;
    const { document } = this.session.store.getState();
    const tags = movedTags(document, { docks: this.docksShown, tags: this.dockTags }, placed);
    this.areDocksMoved = placed.size > 0;
    for (const pane of this.panes) pane.overlay.placeDocks(tags);
  }

  private showPins(): void {
    const { document, arePinsShown } = this.session.store.getState();
    const pins = arePinsShown ? pinsOf(document).map(({ name, at }) => ({ name, at: vectorOf(at) })) : [];
    const starts = loftStartsOf(this.session.store.getState());
    for (const pane of this.panes) {
      pane.overlay.setPins(pins);
      pane.overlay.setStarts(starts);
    }
  }

  /** Shows what a statement comes to so far; what the kernel must be asked first is asked, and then shown. */
  showPreview(statement: Statement | null): void {
    this.showSketch(statement);
    this.showCuts(statement);
    this.regionPick.follow(statement);
    const isShown = statement && (statement.phase === 'open' || isChanged(statement));
    if (!isShown || !hasPreview(statement.verb)) {
      // What is being carried out stays in sight until it is done.
      if (statement?.phase !== 'working') this.placePreview(NO_PREVIEW);
      this.showMeasure(statement?.phase === 'open' ? statement : null);
      return;
    }
    this.showMeasure(statement);
    const found = this.session.preview(statement);
    if (!isRefusal(found)) return this.placePreview(found);
    this.placePreview(NO_PREVIEW);
    if (!found.wants) return;
    void this.session.find(found.wants, statement).then((isFound) => {
      if (isFound && this.session.store.getState().statement === statement) this.showPreview(statement);
    });
  }

  /** The model as a section plane cuts it that is being told. */
  private showCuts(statement: Statement | null): void {
    const isShown = statement && (statement.phase === 'open' || isChanged(statement));
    const told = isShown ? this.session.cutAs(statement) : undefined;
    const document = told ?? shownDocument(this.session.store.getState());
    if (this.sections.show(document)) this.invalidate();
  }

  /** The lines that a Draw statement would leave. */
  showSketch(statement: Statement | null): void {
    const isShown =
      statement && doesDraw(statement.verb) && (statement.phase === 'open' || isChanged(statement));
    const found = isShown ? this.session.sketch(statement) : undefined;
    const sketch = found && !isRefusal(found) ? found : undefined;
    const { sketching } = this.picture;
    if (sketching.draw(sketch?.lines ?? NO_LINES, sketch?.loose ?? [])) this.invalidate();
  }

  placePreview(preview: Preview): void {
    const { ghosts } = this;
    const copies = ghosts.length === 0 ? preview.copies : [...preview.copies, ...ghosts];
    const isCutMoved = this.sections.place(preview.placed);
    this.placeDocks(preview);
    if (this.picture.place({ ...preview, copies }) || isCutMoved) this.invalidate();
  }

  /** Where the statement in hand, or a part that stands, cannot be built. */
  private showFaults(): void {
    const { statement, built } = this.session.store.getState();
    const places = [
      ...(statement?.refusal?.places ?? []),
      ...built.failures.flatMap((failure) => failure.places),
    ];
    for (const pane of this.panes) pane.overlay.showFaults(places);
  }

  /** Kept measures, and the place of the finding that is looked at. */
  private showFit({ fit, statement }: SessionState, before: SessionState): void {
    this.showMeasure(statement?.phase === 'open' ? statement : null);
    if (fit.shown && fit.shown.id !== before.fit.shown?.id) this.activePane?.frame(fit.shown.box);
    if (fit.walls === before.fit.walls) return;
    this.picture.walls.show(fit.walls);
    this.invalidate();
  }

  private showMeasure(statement: Statement | null): void {
    const measures = measuresToShow(this.session, statement);
    for (const pane of this.panes) pane.overlay.showMeasures(measures);
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    this.picture.resize(Math.max(1, clientWidth), Math.max(1, clientHeight));
    this.invalidate();
  }

  private showModel(): void {
    const state = this.session.store.getState();
    const document = shownDocument(state);
    const shown = this.model.show(document, state.built);
    this.shown = shown;
    this.picture.place(NO_PREVIEW);
    this.picture.show(document, shown, state.built.factsOf);
    this.scene = snapScene(shown.flatMap(({ instances }) => instances));
    this.sections.begin(document);
    this.sceneBox = unionBoxes(shown.flatMap(({ part }) => this.boxOf(part.id) ?? []));
    this.showMarks();
    this.showOmitted();
  }

  private showMarks(): void {
    const { selection, document } = this.session.store.getState();
    const inside = inFocus(this.session.store.getState());
    const dimmed = inside ? visibleParts(document).filter(({ id }) => !inside.has(id)) : [];
    this.picture.mark({
      // Operands that are selected are not shown by themselves; a group is what stands in it.
      selected: standingOf(document, selection),
      hovered: standingOf(document, this.hovered === null ? [] : [this.hovered]),
      dimmed: new Set(dimmed.map(({ id }) => id)),
    });
    this.invalidate();
  }

  /** The members of a pattern that clicks leave out, as ghosts, so that they can be put back. */
  private showOmitted(): void {
    const { omitting, document, built } = this.session.store.getState();
    const ghosts = omitting === null ? [] : omittedOf(document, omitting, built);
    if (this.ghosts.length === 0 && ghosts.length === 0) return;
    this.ghosts = ghosts;
    this.ghostScene = snapScene(ghosts.map(({ instance }) => instance));
    this.placePreview(NO_PREVIEW);
    this.invalidate();
  }

  /** The member of a pattern under a pixel, left out or not. */
  memberAt(pane: Pane, part: ItemId, x: number, y: number): string | null {
    const ray = rayThrough(pane.camera, x, y);
    const standing = castOnScene(pane.scene, ray, Infinity, (of) => of === part);
    const hit = castOnScene(this.ghostScene, ray, standing?.distance) ?? standing;
    return hit?.instance.member?.split('.')[0] ?? null;
  }

  /** How far the scene reaches from where a view looks. */
  private reachFrom(target: Vec3): number {
    const box = this.sceneBox;
    const size = box ? boxSize(box) : ([100, 100, 100] as const);
    return (
      Math.hypot(...size) + (box ? Math.hypot(...boxPoint(box, [0, 0, 0]).map((n, i) => n - target[i]!)) : 0)
    );
  }

  private draw(now: number): void {
    this.frame = 0;
    const { grid } = this.session.store.getState().document.scene;
    // The canvas keeps nothing from frame to frame, since keeping costs more than drawing: all views on show are drawn.
    if (!this.panes.some((pane) => pane.isStale)) return;
    for (const pane of this.panes) {
      const area = pane.step(now);
      if (pane.isStale) this.requestFrame();
      if (!area) continue;
      const isMoving = now - this.movedAt < STILL_MS;
      const isThinned = this.picture.render(pane.camera, area, {
        display: pane.display,
        gridStep: grid,
        sceneRadius: this.reachFrom(pane.camera.state.target),
        isMoving,
        ...this.cutting(pane.name),
      });
      if (isThinned) this.drawWhenStill();
      pane.drawn();
      if (pane === this.activePane) for (const listener of this.cameraListeners) listener(pane.camera);
    }
  }

  /** The camera of a view has moved. */
  moved(): void {
    this.movedAt = performance.now();
  }

  /** Draws what was left out, once the views stand still. */
  private drawWhenStill(): void {
    window.clearTimeout(this.stillTimer);
    this.stillTimer = window.setTimeout(() => {
      this.stillTimer = 0;
      this.invalidate();
    }, STILL_MS);
  }

  /** A picture for the project's card: everything in sight, looked at as the active view does, drawn small. */
  thumbnail(): Promise<Blob | null> {
    const picture = cardPicture(this, (target) => this.reachFrom(target));
    this.invalidate();
    return picture;
  }
}
