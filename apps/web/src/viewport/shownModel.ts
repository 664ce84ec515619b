/** The model as the views show it: what is built of the document, where section planes cut it, and what is left out of patterns. */
import {
  NO_SCENE,
  castOnScene,
  boxPoint,
  boxSize,
  rayThrough,
  groupedScene,
  snapScene,
  unionBoxes,
  type Box,
  type ItemId,
  type SectionView,
  type SnapScene,
  type Vec3,
} from '@kadrel/core';
import { NO_PREVIEW, type Preview } from '../session/preview.ts';
import { isChanged, type Statement } from '../session/statement.ts';
import { shownDocument, type Session } from '../session/store.ts';
import { Cuttings, type Cutting } from './cuttings.ts';
import { Formed } from './formed.ts';
import { boxOf } from './gripSet.ts';
import { Model, type ShownItem } from './model.ts';
import { omittedOf, type Omitted } from './omitted.ts';
import type { Pane } from './pane.ts';
import type { Picture } from './picture.ts';

/** What an empty scene is taken for, mm. */
const EMPTY_SIZE: Vec3 = [100, 100, 100];

/** What is shown of the document. */
export class ShownModel {
  private readonly model = new Model();
  private readonly formed = new Formed();
  private readonly sections = new Cuttings();
  private shown: readonly ShownItem[] = [];
  /** Members that are left out, while they are chosen. */
  private ghosts: readonly Omitted[] = [];
  private ghostScene: SnapScene = NO_SCENE;
  private snaps: SnapScene = NO_SCENE;
  private wholeBox: Box | undefined;

  constructor(
    private readonly session: Session,
    private readonly picture: Picture,
    private readonly invalidate: () => void,
  ) {}

  /** What can be met and caught, apart from what section planes take away in a view. */
  get scene(): SnapScene {
    return this.snaps;
  }

  /** The box round all of it; undefined where there is nothing. */
  get box(): Box | undefined {
    return this.wholeBox;
  }

  /** Shows what the document and the kernel say now. */
  show(): void {
    const state = this.session.store.getState();
    const document = shownDocument(state);
    this.shown = this.model.show(document, state.built);
    this.picture.place(NO_PREVIEW);
    this.picture.show(document, this.shown, state.built.factsOf);
    this.snaps = groupedScene(this.shown.map(({ instances }) => instances));
    this.sections.begin(document);
    this.wholeBox = unionBoxes(this.shown.flatMap(({ part }) => boxOf(state, part.id) ?? []));
    this.showOmitted();
    this.invalidate();
  }

  /** Solids in the form that a statement would give them. */
  showFormed(): void {
    if (this.formed.show(this.session.store.getState(), this.shown, this.picture)) this.invalidate();
  }

  /** The members of a pattern that clicks leave out, as ghosts, so that they can be put back. */
  showOmitted(): void {
    const { omitting, document, built } = this.session.store.getState();
    const ghosts = omitting === null ? [] : omittedOf(document, omitting, built);
    if (this.ghosts.length === 0 && ghosts.length === 0) return;
    this.ghosts = ghosts;
    this.ghostScene = snapScene(ghosts.map(({ instance }) => instance));
    this.place(NO_PREVIEW);
    this.invalidate();
  }

  /** Where a preview puts things. */
  place(preview: Preview): void {
    const { ghosts } = this;
    const copies = ghosts.length === 0 ? preview.copies : [...preview.copies, ...ghosts];
    const isCutMoved = this.sections.place(preview.placed);
    if (this.picture.place({ ...preview, copies }) || isCutMoved) this.invalidate();
  }

  /** The model as a section plane cuts it that is being typed. */
  showCuts(statement: Statement | null): void {
    const isShown = statement && (statement.phase === 'open' || isChanged(statement));
    const cut = isShown ? this.session.cutAs(statement) : undefined;
    if (this.sections.show(cut ?? shownDocument(this.session.store.getState()))) this.invalidate();
  }

  /** What section planes do in a view, where they are dragged to now. */
  cutting(view: SectionView): Cutting {
    const { shown, snaps: scene, session } = this;
    return this.sections.of(view, { shown, scene, boxOf: (id) => boxOf(session.store.getState(), id) });
  }

  /** The member of a pattern under a pixel, left out or not. */
  memberAt(pane: Pane, part: ItemId, [x, y]: readonly [number, number]): string | null {
    const ray = rayThrough(pane.camera, x, y);
    const standing = castOnScene(pane.scene, ray, Infinity, (of) => of === part);
    const hit = castOnScene(this.ghostScene, ray, standing?.distance) ?? standing;
    return hit?.instance.member?.split('.')[0] ?? null;
  }
}

/** How far what is in a box reaches from where a view looks, mm. */
export function reachFrom(box: Box | undefined, target: Vec3): number {
  if (!box) return Math.hypot(...EMPTY_SIZE);
  const middle = boxPoint(box, [0, 0, 0]);
  return Math.hypot(...boxSize(box)) + Math.hypot(...middle.map((n, i) => n - target[i]!));
}
