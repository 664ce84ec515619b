/** What is built of the items of a document: shapes, measures and solids, of parts, patterns and groups. All throw BuildError. */
import {
  AT_ORIGIN,
  buildName,
  carry,
  isWhole,
  placedOf,
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type Variant,
} from '@kadrel/core';
import { contentOf, type Content } from './content/content.ts';
import { keyOf } from './content/key.ts';
import type { Measures } from './facts/measure.ts';
import { inFrame, wholeMeasures, type Solid } from './facts/wholes.ts';
import type { NamedShape } from './naming/named.ts';
import type { ShapeFacts, Shapes } from './shapes.ts';

/** Measures of a part as the headless runner tells them. */
export interface PartMeasure extends Measures {
  readonly faceted: boolean;
}

/** What was built of a part. */
export interface BuiltPart {
  readonly key: string;
  readonly content: Content;
  readonly named: NamedShape;
}

/** Items of documents, as they are built. */
export class Parts {
  constructor(readonly shapes: Shapes) {}

  /** The shape of a part, built where it is not there yet. Throws BuildError. */
  built(document: KadrelDocument, id: ItemId, variant?: Variant): BuiltPart {
    const content = contentOf(document, id, variant);
    const used = new Set<string>();
    const named = this.shapes.shapeOf(content, used);
    this.shapes.builder.cache.dropUnused(used);
    return { key: keyOf(content), content, named };
  }

  /** Measures of a part in the world; of a pattern or a group, of all that it consists of. Throws BuildError. */
  measure(document: KadrelDocument, id: ItemId): PartMeasure {
    if (isWhole(document, document.items[id]!))
      return { ...this.wholeIn(document, id, AT_ORIGIN), faceted: false };
    const { content } = this.built(document, id);
    const own = this.shapes.measuresOf(content);
    const pose = worldFromPart(document, id);
    return {
      ...own,
      centroid: carry(pose, own.centroid),
      box: this.shapes.boxAt(content, pose),
      faceted: false,
    };
  }

  /** Measures of what a pattern or a group consists of, in a frame. */
  wholeIn(document: KadrelDocument, id: ItemId, frameFromWorld: Pose): Measures {
    return wholeMeasures(inFrame(this.solidsOf(document, id), frameFromWorld), this.shapes.range);
  }

  /** The built solids of an item in the world. Throws BuildError. */
  solidsOf(document: KadrelDocument, id: ItemId): Solid[] {
    const built = new Map<string, Omit<Solid, 'pose'>>();
    return placedOf(document, id).map((one) => {
      const name = buildName(one);
      let solid = built.get(name);
      if (!solid) {
        const { content, named } = this.built(document, one.leaf, one);
        solid = { named, measures: this.shapes.measuresOf(content) };
        built.set(name, solid);
      }
      return { ...solid, pose: one.pose };
    });
  }

  /** Facts of one solid, whether shown or not. Throws BuildError. */
  facts(document: KadrelDocument, id: ItemId, variant?: Variant): ShapeFacts {
    return this.shapes.factsOf(this.built(document, id, variant).content);
  }
}
