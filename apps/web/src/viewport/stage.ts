/**
 * What all views share: the picture, the model, what can be caught, the marks and the preview. It shows anew only what has changed in
 * the state of the session.
 */
import { standingOf, visibleParts, type ItemId, type KadrelDocument } from '@kadrel/core';
import { THEME_CHANGED } from '../common/theme.ts';
import { areOtherDocks } from '../session/docks.ts';
import type { Session, SessionState } from '../session/store.ts';
import { Catcher } from './catching.ts';
import { ChosenMarks } from './chosenMarks.ts';
import { OverlapMarks } from './overlapMarks.ts';
import { boxOf } from './gripSet.ts';
import type { Pane } from './pane.ts';
import { Panes } from './panes.ts';
import { Picture } from './picture.ts';
import { Previews } from './previews.ts';
import { RegionPick } from './regionPick.ts';
import { SessionMarks } from './sessionMarks.ts';
import { ShownModel, reachFrom } from './shownModel.ts';
import { inFocus } from './shownMarks.ts';
import { isInSight } from './underPixel.ts';
import { fitView, frameBox } from './viewing.ts';

/** Of more new parts than this, some are looked for in the picture. */
const MAX_NEW = 100;

/** What the pointer lends to the stage while it is there. */
export interface PointerOnStage {
  /** Where it is in the view that it is in, pixels. */
  at: { readonly x: number; readonly y: number } | null;
  /** Has it look again at what is under it. */
  follow: (() => void) | null;
  /** The keys that its situation takes for itself. */
  onKey: ((event: KeyboardEvent) => boolean) | null;
}

/** What all views share: the canvas, the model and the pointer. */
export class Stage {
  readonly picture: Picture;
  readonly model: ShownModel;
  readonly panes: Panes;
  readonly marks: SessionMarks;
  readonly previews: Previews;
  readonly catcher: Catcher;
  readonly regionPick: RegionPick;
  readonly pointer: PointerOnStage = { at: null, follow: null, onKey: null };
  private hovered: ItemId | null = null;
  private readonly chosenMarks: ChosenMarks;
  private readonly overlapMarks: OverlapMarks;
  private readonly undo: (() => void)[] = [];

  constructor(
    readonly canvas: HTMLCanvasElement,
    readonly session: Session,
  ) {
    const invalidate = () => this.panes.invalidate();
    this.picture = new Picture(canvas);
    this.panes = new Panes(this, (pane, now) => this.draw(pane, now));
    this.model = new ShownModel(session, this.picture, invalidate);
    this.marks = new SessionMarks(this);
    this.previews = new Previews(this);
    this.catcher = new Catcher(this);
    this.chosenMarks = new ChosenMarks(session, this.picture, invalidate);
    this.overlapMarks = new OverlapMarks(session, this.picture, invalidate);
    this.regionPick = new RegionPick(session, this.picture.extras.sketching, invalidate);
    this.listen();
    this.resize();
    this.showModel();
    void this.overlapMarks.show();
  }

  private listen(): void {
    const observer = new ResizeObserver(() => this.resize());
    observer.observe(this.canvas);
    const repaint = () => {
      this.picture.applyTheme();
      this.panes.invalidate();
    };
    window.addEventListener(THEME_CHANGED, repaint);
    this.session.watchView(() => this.firstActive?.travel.view);
    this.undo.push(
      () => observer.disconnect(),
      () => window.removeEventListener(THEME_CHANGED, repaint),
      this.session.store.subscribe((now, before) => this.followState(now, before)),
    );
  }

  dispose(): void {
    this.undo.forEach((undo) => undo());
    this.panes.dispose();
    this.picture.dispose();
  }

  /** The item under the pointer is shown in another tone. */
  hover(part: ItemId | null): void {
    if (part === this.hovered) return;
    this.hovered = part;
    this.showTones();
  }

  /** Undefined before there is any view. */
  private get firstActive(): Pane | undefined {
    return this.panes.all.length === 0 ? undefined : this.panes.active;
  }

  /** Shows anew what has changed. */
  private followState(now: SessionState, before: SessionState): void {
    const isOther = (...keys: readonly (keyof SessionState)[]) =>
      keys.some((key) => now[key] !== before[key]);
    const isModel = isOther('built', 'document', 'lookingAt');
    const isStatement = isOther('statement');
    const { marks, model, chosenMarks, overlapMarks } = this;
    if (isModel) this.showModel();
    if (isModel && isOther('edits')) this.bringIntoView(before.document, now.document);
    if (isOther('selection', 'built', 'openGroup')) this.showTones();
    if (isOther('builtPreview')) model.showFormed();
    if (isOther('omitting')) model.showOmitted();
    if (isStatement) this.previews.show(now.statement);
    if (isOther('fit')) this.showFit(now, before);
    if (isStatement || isModel) marks.showFaults();
    if (isModel || isStatement || isOther('places')) chosenMarks.show();
    if (isOther('stepShown')) chosenMarks.showStep();
    if (isModel || isOther('selection')) void chosenMarks.showCage();
    if (isModel) void overlapMarks.show();
    if (isModel || isStatement || isOther('selection', 'gripScale', 'isSelectOnly', 'places', 'frames'))
      marks.showGrips();
    if (isOther('document', 'selection', 'arePinsShown')) marks.showPins();
    if (isOther('document')) marks.showHeights();
    if (isModel || areOtherDocks(now, before)) marks.showDocks();
  }

  private showModel(): void {
    this.model.show();
    this.showTones();
  }

  private showTones(): void {
    const state = this.session.store.getState();
    const { selection, document } = state;
    const inside = inFocus(state);
    const dimmed = inside ? visibleParts(document).filter(({ id }) => !inside.has(id)) : [];
    this.picture.mark({
      // Operands that are selected are not shown by themselves; a group is what stands in it.
      selected: standingOf(document, selection),
      hovered: standingOf(document, this.hovered === null ? [] : [this.hovered]),
      dimmed: new Set(dimmed.map(({ id }) => id)),
    });
    this.panes.invalidate();
  }

  /** What was just made and is nowhere in the picture: the view moves out until it is seen. */
  private bringIntoView(before: KadrelDocument, now: KadrelDocument): void {
    const pane = this.firstActive;
    const state = this.session.store.getState();
    const made = Object.keys(now.items).filter((id) => !before.items[id]);
    const boxes = made.slice(0, MAX_NEW).flatMap((id) => boxOf(state, id) ?? []);
    if (pane && boxes.length > 0 && !boxes.some((box) => isInSight(pane, box))) fitView(pane, 'all');
  }

  /** Kept measures, and the place of the finding that is looked at. */
  private showFit({ fit, statement }: SessionState, before: SessionState): void {
    this.marks.showMeasure(statement?.phase === 'open' ? statement : null);
    if (fit.shown !== before.fit.shown) this.showTones();
    const { firstActive } = this;
    if (firstActive && fit.shown && fit.shown.id !== before.fit.shown?.id)
      frameBox(firstActive, fit.shown.box);
    if (fit.walls === before.fit.walls) return;
    this.picture.extras.walls.show(fit.walls);
    this.panes.invalidate();
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    this.picture.resize(Math.max(1, clientWidth), Math.max(1, clientHeight));
    this.panes.invalidate();
  }

  private draw(
    pane: Pane,
    { time, isMoving }: { readonly time: number; readonly isMoving: boolean },
  ): boolean {
    const area = pane.step(time);
    if (pane.isStale) this.panes.requestFrame();
    if (!area) return false;
    const { camera } = pane;
    const isThinned = this.picture.render(camera, area, {
      display: pane.display,
      gridStep: this.session.store.getState().document.scene.grid,
      sceneRadius: reachFrom(this.model.box, camera.state.target),
      isMoving,
      ...this.model.cutting(pane.name),
    });
    pane.drawn();
    return isThinned;
  }
}
