/** What statements may know of built geometry. */
import { baseBox, definitionOf, valueOf, worldFromPart } from '../document/items.ts';
import type { RackPart } from '../document/rack.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { pathsOnPlane } from '../document/drawn.ts';
import { placedOf, type Variant } from '../patterns/placed.ts';
import { carryBox, unionBoxes, type Box } from '../space/box.ts';
import { AT_ORIGIN, chain, inverse, isQuarterTurn } from '../space/pose.ts';
import { snapShape, type SnapShape } from '../snapping/shape.ts';
import { refuse, type Question, type Refusal, type Replies } from './declare.ts';

/** What is known of a built part, in its own frame. */
export interface BuiltShape {
  readonly box: Box;
  readonly snaps: SnapShape;
}

/** What must be known of built geometry, of the document that a statement begins with, and where ids come from. */
export interface World {
  /** It knows no corners, edges and faces. */
  readonly isBlind?: true;
  /** Variables do not follow what is measured: at every move of the pointer that would have to be asked anew. */
  readonly isPreview?: true;
  newId(): ItemId;
  /** Facts of a solid, or why there are none. */
  shapeOf(part: ItemId, variant?: Variant): BuiltShape | Refusal;
  /** A part of a rack that is at hand, by its name. */
  rackPart?(name: string): RackPart | undefined;
  /** The kernel's reply, or undefined while it has none. */
  ask(question: Question): Replies[Question['ask']] | undefined;
}

/** A world without a kernel: it knows the boxes of plain solids from their recipes, and no corners, edges or faces. */
export const plainWorld = (document: KadrelDocument, newId: () => ItemId): World => ({
  isBlind: true,
  newId,
  shapeOf(part) {
    const box = plainBox(document, document.items[part]!);
    return box ? { box, snaps: NO_FEATURES } : refuse('no-kernel.points', {});
  },
  ask(question) {
    if (question.ask !== 'box') return undefined;
    const { part, frame } = question;
    const toFrame = frame === 'own' ? inverse(worldFromPart(document, part)) : AT_ORIGIN;
    const boxes = placedOf(document, part).map(({ leaf, pose }) => {
      const part = definitionOf(document, document.items[leaf]!);
      const box = plainBox(document, part);
      const placed = chain(toFrame, pose);
      // Every corner of a box is a corner of the box round it, however it is turned; of others only by quarter turns.
      return box && (part.recipe.base.kind === 'box' || isQuarterTurn(placed.turn))
        ? carryBox(placed, box)
        : undefined;
    });
    return boxes.every((box) => box !== undefined) ? unionBoxes(boxes) : undefined;
  },
});

/** The box of a plain solid, or of whole profiles raised upright. */
function plainBox(document: KadrelDocument, part: Part): Box | undefined {
  const { base, steps } = part.recipe;
  if (steps.length > 0) return undefined;
  if (base.kind !== 'raise' || base.regions !== 'all' || valueOf(base.draft) !== 0) return baseBox(base);
  const paths = pathsOnPlane(document, base.profiles) ?? [];
  const flat = boxOfCurves(
    paths.filter(({ closed }) => closed).flatMap(({ curves }) => curves.map(({ curve }) => curve)),
  );
  return flat && { min: [...flat.min, -valueOf(base.down)], max: [...flat.max, valueOf(base.height)] };
}

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
