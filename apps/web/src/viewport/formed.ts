/** Which solids a statement would give another form, and which it would take away. */
import type { ItemId } from '@kadrel/core';
import type { SessionState } from '../session/store.ts';
import { Model, isDrawnAlike, type ShownItem } from './model.ts';
import type { Picture } from './picture.ts';

/** The form that a statement would give. */
export class Formed {
  private readonly model = new Model();

  /** Shows them instead of what stands. Returns whether anything changed. */
  show({ builtPreview, built }: SessionState, standing: readonly ShownItem[], picture: Picture): boolean {
    const formed = builtPreview ? this.model.show(builtPreview.document, builtPreview.built) : [];
    const stays = new Map<ItemId, ShownItem>(formed.map((item) => [item.part.id, item]));
    const before = new Map<ItemId, ShownItem>(standing.map((item) => [item.part.id, item]));
    const changed = formed.filter((item) => !isDrawnAlike(item, before.get(item.part.id)));
    const gone = builtPreview ? [...before.keys()].filter((id) => !stays.has(id)) : [];
    const veiled = new Set([...changed.map(({ part }) => part.id), ...gone]);
    const factsOf = (key: string) => builtPreview?.built.factsOf(key) ?? built.factsOf(key);
    return picture.showFormed(changed, veiled, factsOf);
  }
}
