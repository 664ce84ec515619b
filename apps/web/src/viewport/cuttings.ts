/** What section planes do in each view. */
import {
  cutsIn,
  isParted,
  worldFromPart,
  type Box,
  type Cut,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type SectionView,
  type SnapScene,
} from '@kadrel/core';
import type { Preview } from '../session/preview.ts';
import type { ShownItem } from './model.ts';

/** What section planes do in a view. */
export interface Cutting {
  readonly cuts: readonly Cut[];
  /** Items that lie on both sides of a cut. */
  readonly parted: ReadonlySet<ItemId>;
  /** What can be met and caught. */
  readonly scene: SnapScene;
}

interface Around {
  readonly shown: readonly ShownItem[];
  readonly scene: SnapScene;
  readonly boxOf: (id: ItemId) => Box | undefined;
}

/** The cuts of all views: found once for each until the model or what is dragged changes. */
export class Cuttings {
  private document: KadrelDocument | null = null;
  private readonly known = new Map<SectionView, Cutting>();
  /** Where section planes are dragged to. */
  private placed: ReadonlyMap<ItemId, Pose> = new Map();

  /** Another model is shown. */
  begin(document: KadrelDocument): void {
    this.placed = new Map();
    this.document = document;
    this.known.clear();
  }

  /** The document whose section planes cut; whether it is another one than before. */
  show(document: KadrelDocument): boolean {
    if (document === this.document) return false;
    this.document = document;
    this.known.clear();
    return true;
  }

  /** Section planes among what a statement would place; whether any is, or was, elsewhere than the document says. */
  place(placed: Preview['placed']): boolean {
    const moved = [...placed].filter(([id]) => this.document?.items[id]?.recipe.base.kind === 'section');
    if (moved.length === 0 && this.placed.size === 0) return false;
    this.placed = new Map(moved.map(([id, { linear, shift }]) => [id, { turn: linear, shift }]));
    this.known.clear();
    return true;
  }

  of(view: SectionView, { shown, scene, boxOf }: Around): Cutting {
    const known = this.known.get(view);
    if (known) return known;
    const { document, placed } = this;
    const cuts = document
      ? cutsIn(document, view, (id) => placed.get(id) ?? worldFromPart(document, id))
      : [];
    const isBetween = (id: ItemId) => {
      const box = boxOf(id);
      return box !== undefined && isParted(cuts, id, box);
    };
    const parted = cuts.length === 0 ? [] : shown.filter(({ part }) => isBetween(part.id));
    const cutting = { cuts, parted: new Set(parted.map(({ part }) => part.id)), scene: { ...scene, cuts } };
    this.known.set(view, cutting);
    return cutting;
  }
}
