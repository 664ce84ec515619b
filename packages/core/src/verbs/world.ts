/** What statements may know of built geometry. */
import { baseBox, definitionOf, worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { placedOf, type Variant } from '../patterns/placed.ts';
import { carryBox, unionBoxes, type Box } from '../space/box.ts';
import { AT_ORIGIN, chain, inverse } from '../space/pose.ts';
import { snapShape, type SnapShape } from '../snapping/shape.ts';
import { refuse, type Question, type Refusal, type Replies } from './declare.ts';

/** What is known of a built part, in its own frame. */
export interface BuiltShape {
  readonly box: Box;
  readonly snaps: SnapShape;
}

/** What must be known of built geometry, of the document that a statement begins with, and where ids come from. */
export interface World {
  newId(): ItemId;
  /** Facts of a solid, or why there are none. */
  shapeOf(part: ItemId, variant?: Variant): BuiltShape | Refusal;
  /** The kernel's reply, or undefined while it has none. */
  ask(question: Question): Replies[Question['ask']] | undefined;
}

/** A world without a kernel: it knows the boxes of plain solids from their recipes, and no corners, edges or faces. */
export const plainWorld = (document: KadrelDocument, newId: () => ItemId): World => ({
  newId,
  shapeOf(part) {
    const box = baseBox(document.items[part]!.recipe.base);
    return box
      ? { box, snaps: NO_FEATURES }
      : refuse('no-kernel', 'There is no kernel here: give points by number.');
  },
  ask(question) {
    if (question.ask !== 'box') return undefined;
    const { part, frame } = question;
    const toFrame = frame === 'own' ? inverse(worldFromPart(document, part)) : AT_ORIGIN;
    const boxes = placedOf(document, part).map(({ leaf, pose }) => {
      const { base } = definitionOf(document, document.items[leaf]!).recipe;
      // Every corner of a box is a corner of the box round it, however it is turned.
      return base.kind === 'box' ? carryBox(chain(toFrame, pose), baseBox(base)!) : undefined;
    });
    return boxes.every((box) => box !== undefined) ? unionBoxes(boxes) : undefined;
  },
});

const NO_FEATURES: SnapShape = snapShape({
  points: new Float64Array(),
  pointKind: new Uint8Array(),
  pointName: new Uint32Array(),
  curveKind: new Uint8Array(),
  curves: new Float64Array(),
  curveName: new Uint32Array(),
  polyline: new Float64Array(),
  faceKind: new Uint8Array(),
  faces: new Float64Array(),
  faceName: new Uint32Array(),
  names: [],
  positions: new Float32Array(),
  triangles: new Uint32Array(),
  faceOfTriangle: new Uint32Array(),
  chordMm: 0,
});
