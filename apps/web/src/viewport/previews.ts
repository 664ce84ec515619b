/** What the statement in hand would come to, shown before it is carried out. */
import { isRefusal } from '@kadrel/core';
import { NO_PREVIEW, hasPreview, type Preview } from '../session/preview.ts';
import { doesDraw } from '../session/sketch.ts';
import { isChanged, type Statement } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import type { Stage } from './stage.ts';

const NO_LINES = new Float32Array();

/** Previews on all views. */
export class Previews {
  private readonly session: Session;

  constructor(private readonly stage: Stage) {
    this.session = stage.session;
  }

  /** Shows what a statement comes to so far; what the kernel must be asked first is asked, and then shown. */
  show(statement: Statement | null): void {
    const { marks, model, regionPick } = this.stage;
    this.sketch(statement);
    model.showCuts(statement);
    regionPick.follow(statement);
    const isShown = statement && (statement.phase === 'open' || isChanged(statement));
    if (!isShown || !hasPreview(statement.verb)) {
      // What is being carried out stays in sight until it is done.
      if (statement?.phase !== 'working') this.place(NO_PREVIEW);
      marks.showMeasure(statement?.phase === 'open' ? statement : null);
      return;
    }
    marks.showMeasure(statement);
    const found = this.session.preview(statement);
    if (!isRefusal(found)) return this.place(found);
    this.place(NO_PREVIEW);
    if (!found.wants) return;
    void this.session.find(found.wants, statement).then((isFound) => {
      if (isFound && this.session.store.getState().statement === statement) this.show(statement);
    });
  }

  /** The lines that a Draw statement would leave. */
  sketch(statement: Statement | null): void {
    const isShown =
      statement && doesDraw(statement.verb) && (statement.phase === 'open' || isChanged(statement));
    const found = isShown ? this.session.sketch(statement) : undefined;
    const sketch = found && !isRefusal(found) ? found : undefined;
    const { picture, panes } = this.stage;
    if (picture.extras.sketching.draw(sketch?.lines ?? NO_LINES, sketch?.loose ?? [])) panes.invalidate();
  }

  /** Things where a statement would put them. */
  place(preview: Preview): void {
    this.stage.model.place(preview);
    this.stage.marks.placeDocks(preview);
  }
}
