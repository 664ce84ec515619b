/** Asks the kernel where parts overlap at the section planes that are on, and shows it. */
import { isSection, sectionsIn, worldFromPart, type ItemId, type Part } from '@kadrel/core';
import type { Session } from '../session/store.ts';
import { carriedTo } from './carried.ts';
import { BESIDE_MM } from './cutShader.ts';
import type { Picture } from './picture.ts';

interface Known {
  /** What the section plane was built as: its key names all that is cut. */
  readonly key: string;
  /** Corners of facets in its frame, mm; undefined while they are asked for. */
  corners?: readonly number[];
}

/** Overlaps are asked for once for each form of what is cut. */
export class OverlapMarks {
  private readonly known = new Map<ItemId, Known>();

  constructor(
    private readonly session: Session,
    private readonly picture: Picture,
    private readonly invalidate: () => void,
  ) {}

  /** The model has changed. */
  async show(): Promise<void> {
    const { document, built } = this.session.store.getState();
    const sections = sectionsIn(document).flatMap(({ id }) => {
      const key = built.parts[id]?.key;
      return key === undefined ? [] : [{ id, key }];
    });
    for (const id of this.known.keys()) if (!sections.some((one) => one.id === id)) this.known.delete(id);
    this.draw();
    await Promise.all(sections.map(({ id, key }) => this.find(id, key)));
  }

  private async find(id: ItemId, key: string): Promise<void> {
    if (this.known.get(id)?.key === key) return;
    const asked: Known = { key };
    this.known.set(id, asked);
    try {
      const { overlaps } = await this.session.sectionFacts(id);
      asked.corners = overlaps.flatMap(({ corners }) => corners);
    } catch (error) {
      // What cannot be cut is reported where the section plane is; when the model has moved on, it is asked again.
      if ((error as { code?: string }).code === undefined) throw error;
      if (this.known.get(id) === asked) this.known.delete(id);
    }
    if (this.known.get(id) === asked) this.draw();
  }

  private draw(): void {
    const { document } = this.session.store.getState();
    const found = [...this.known].flatMap(([id, { corners }]) =>
      corners && corners.length > 0 && document.items[id]
        ? [[id, carriedTo(worldFromPart(document, id), beforeCut(document.items[id], corners))] as const]
        : [],
    );
    if (this.picture.extras.overlaps.show(new Map(found))) this.invalidate();
  }
}

/** What is not cut away reaches a little before the plane; overlaps are drawn before that. */
function beforeCut(part: Part, corners: readonly number[]): readonly number[] {
  const side = isSection(part) && part.recipe.base.shows === 'before' ? -1 : 1;
  return corners.map((n, i) => (i % 3 === 2 ? n + 2 * side * BESIDE_MM : n));
}
