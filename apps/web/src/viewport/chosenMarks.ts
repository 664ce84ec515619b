/** What is marked in the views of solids: what a statement gathers, what is selected of a part, and what a step has made. */
import { carry, worldFromPart } from '@kadrel/core';
import { trianglesOf, type ChosenFace } from '../session/faces.ts';
import type { Session } from '../session/store.ts';
import type { Picture } from './picture.ts';

const NO_LINES = new Float32Array();

export class ChosenMarks {
  private faces: ChosenFace | null = null;

  constructor(
    private readonly session: Session,
    private readonly picture: Picture,
    private readonly invalidate: () => void,
  ) {}

  /** What a statement has gathered of a solid, or the plane that it cuts by; else what is selected of a part. */
  show(): void {
    const { statement, places } = this.session.store.getState();
    const gathered = statement?.phase === 'open' ? this.session.gathered(statement) : undefined;
    const choice = gathered ?? (places ? this.session.shownPlaces(places) : undefined);
    const faces = choice && choice.faces.length > 0 ? { part: choice.part, names: choice.faces } : null;
    // Mostly there are none: what is marked then stays as it is.
    if (faces || this.faces) this.mark(faces);
    if (this.picture.gathered.draw(choice?.lines ?? NO_LINES)) this.invalidate();
  }

  /** The faces that a step has made, while its row is pointed at. */
  showStep(): void {
    const { stepShown, document } = this.session.store.getState();
    if (!stepShown) return this.mark(this.faces);
    const pose = worldFromPart(document, stepShown.part);
    const { corners } = stepShown;
    const carried = corners.flatMap((x, i) =>
      i % 3 === 0 ? carry(pose, [x, corners[i + 1]!, corners[i + 2]!]) : [],
    );
    this.fill(Float32Array.from(carried));
  }

  private mark(faces: ChosenFace | null): void {
    this.faces = faces;
    const { built, document } = this.session.store.getState();
    this.fill(faces ? trianglesOf(faces, document, built) : undefined);
  }

  private fill(corners: Float32Array | undefined): void {
    this.picture.marking.fill(corners ? [corners] : []);
    this.picture.marking.shade(['chosen']);
    this.invalidate();
  }
}
