/** What is marked in the views of solids: what a statement gathers, what is selected of a part, and what a step has made. */
import type { ShownChoice } from '../session/chosen.ts';
import { trianglesOf, type ChosenFace } from '../session/faces.ts';
import type { StepShown } from '../session/state.ts';
import type { Session, SessionState } from '../session/store.ts';
import { wherever } from '../session/wherever.ts';
import type { Picture } from './picture.ts';

const NO_LINES = new Float32Array();

type Found = Pick<SessionState, 'places' | 'document' | 'built'> & {
  readonly choice: ShownChoice | undefined;
};

/** What is selected of a part, shown on it. */
export class ChosenMarks {
  private faces: ChosenFace | null = null;
  /** What of the selection was found last, and in which form of the model. */
  private found: Found | null = null;
  /** Of which part and form the cage was asked for, and what it is as far as it is known. */
  private caged: { readonly asked: string; readonly ends: readonly number[] } | null = null;

  constructor(
    private readonly session: Session,
    private readonly picture: Picture,
    private readonly invalidate: () => void,
  ) {}

  /** What a statement has gathered of a solid, or the plane that it cuts by; else what is selected of a part. */
  show(): void {
    const { statement } = this.session.store.getState();
    const gathered = statement?.phase === 'open' ? this.session.gathered(statement) : undefined;
    const choice = gathered ?? this.selected();
    const faces = choice && choice.faces.length > 0 ? { part: choice.part, names: choice.faces } : null;
    // Mostly there are none: what is marked then stays as it is.
    if (faces || this.faces) this.mark(faces);
    if (this.picture.extras.gathered.draw(choice?.lines ?? NO_LINES)) this.invalidate();
  }

  /** Found once for each selection and form: statements change at every key and many a move. */
  private selected(): ShownChoice | undefined {
    const { places, document, built } = this.session.store.getState();
    if (!places) return undefined;
    const { found } = this;
    if (found?.places === places && found.document === document && found.built === built) return found.choice;
    const choice = this.session.shownPlaces(places);
    this.found = { places, document, built, choice };
    return choice;
  }

  /** The cage of a softened part that is selected by itself, thin. */
  async showCage(): Promise<void> {
    const { selection, document, built } = this.session.store.getState();
    const part = selection.length === 1 ? document.items[selection[0]!] : undefined;
    const key = part && built.parts[part.id]?.key;
    const asked = key === undefined ? null : `${part!.id} ${key}`;
    if (asked === this.caged?.asked) return this.drawCage();
    this.caged = asked === null ? null : { asked, ends: [] };
    this.drawCage();
    if (!part || asked === null) return;
    const ends = await this.session.cageOf(part.id);
    if (this.caged?.asked !== asked) return;
    this.caged = { asked, ends };
    this.drawCage();
  }

  private drawCage(): void {
    const { selection, document } = this.session.store.getState();
    const ends = this.caged?.ends ?? [];
    const lines = ends.length === 0 ? NO_LINES : wherever(document, selection[0]!, ends);
    if (this.picture.extras.cage.draw(lines)) this.invalidate();
  }

  /** The faces that a step has made, while its row is pointed at. */
  showStep(): void {
    const { stepShown, document } = this.session.store.getState();
    if (!stepShown) return this.mark(this.faces);
    const corners = wherever(document, stepShown.part, stepShown.corners);
    this.fill(corners, stepShown.seen);
  }

  private mark(faces: ChosenFace | null): void {
    this.faces = faces;
    const { built, document } = this.session.store.getState();
    this.fill(faces ? trianglesOf(faces, document, built) : undefined);
  }

  private fill(corners: Float32Array | undefined, seen?: StepShown['seen']): void {
    this.picture.extras.marking.fill(corners ? [corners] : [], seen);
    this.picture.extras.marking.shade(['chosen']);
    this.invalidate();
  }
}
