/** What the state of the session puts over all views: grips, docks, pins, measures, faults. */
import { contourHeightsIn, formatLength, pinsOf, vectorOf, type DockPlace } from '@kadrel/core';
import type { Preview } from '../session/preview.ts';
import type { Statement } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import { frameAxes, gripSetOf } from './gripSet.ts';
import { handleSet } from './handles.ts';
import type { ShownDock } from './marks.ts';
import type { Pane } from './pane.ts';
import { dockTags, docksToShow, loftStartsOf, measuresToShow, movedTags } from './shownMarks.ts';
import type { Stage } from './stage.ts';

/** Over all views alike. */
export class SessionMarks {
  private readonly session: Session;
  private docks: readonly DockPlace[] = [];
  private tags: readonly ShownDock[] = [];
  private areDocksMoved = false;

  constructor(private readonly stage: Stage) {
    this.session = stage.session;
  }

  private get panes(): readonly Pane[] {
    return this.stage.panes.all;
  }

  /** Everything that does not go with the statement, for a view that is new. */
  showAll(): void {
    this.showPins();
    this.showHeights();
    this.showDocks();
    this.showGrips();
    this.showFaults();
  }

  /** Grips, handles and the axes of the frame. They stand over the picture, which is not drawn anew for them. */
  showGrips(): void {
    const state = this.session.store.getState();
    const handles = handleSet(state);
    const set = gripSetOf(this.session, this.stage.model.scene.instances);
    const axes = frameAxes(this.session);
    for (const { overlay } of this.panes) {
      overlay.tripod.show(axes);
      overlay.marks.handles.showSet(handles);
      overlay.grips.show(set, state.gripScale);
    }
  }

  /** Docks that can be caught now: the pointer asks at every move. */
  get shownDocks(): readonly DockPlace[] {
    return this.docks;
  }

  showDocks(): void {
    this.docks = docksToShow(this.session);
    this.tags = dockTags(this.session.store.getState().document, this.docks);
    for (const { overlay } of this.panes) overlay.marks.docks.show(this.tags);
  }

  /** The tags of docks, where what is in hand would take them. */
  placeDocks({ placed }: Preview): void {
    if (this.tags.length === 0 || (placed.size === 0 && !this.areDocksMoved)) return;
    const { document } = this.session.store.getState();
    const tags = movedTags(document, { docks: this.docks, tags: this.tags }, placed);
    this.areDocksMoved = placed.size > 0;
    for (const { overlay } of this.panes) overlay.marks.docks.place(tags);
  }

  showPins(): void {
    const state = this.session.store.getState();
    const { document, arePinsShown } = state;
    const pins = arePinsShown ? pinsOf(document).map(({ name, at }) => ({ name, at: vectorOf(at) })) : [];
    const starts = loftStartsOf(state);
    for (const { overlay } of this.panes) {
      overlay.marks.pins.show(pins);
      overlay.marks.starts.show(starts);
    }
  }

  /** Beside contours, in scene units. */
  showHeights(): void {
    const { document } = this.session.store.getState();
    const heights = contourHeightsIn(document).map(({ at, height }) => ({
      at,
      name: formatLength(height, document.scene),
    }));
    for (const { overlay } of this.panes) overlay.marks.heights.show(heights);
  }

  /** Where the statement in hand, or a part that stands, cannot be built. */
  showFaults(): void {
    const { statement, built } = this.session.store.getState();
    const places = [
      ...(statement?.refusal?.places ?? []),
      ...built.failures.flatMap((failure) => failure.places),
    ].map((at) => ({ at }));
    for (const { overlay } of this.panes) overlay.marks.faults.show(places);
  }

  /** Kept measures, what the statement measures, and the place of the finding that is looked at. */
  showMeasure(statement: Statement | null): void {
    const measures = measuresToShow(this.session, statement);
    for (const { overlay } of this.panes) overlay.marks.measures.show(measures);
  }
}
