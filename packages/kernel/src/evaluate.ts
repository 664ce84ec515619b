/**
 * Document → shapes, incrementally. Every part's content has a key; a cache maps keys to shapes, so that moving a part
 * builds nothing, and undo finds what it had. Failures are data. The cache is bounded: what the last documents did not
 * use is given back, oldest first.
 */
import {
  add,
  applyMatrix,
  determinant,
  frameAlong,
  length,
  scale,
  turnBack,
  NO_TURN,
  transposed,
  buildName,
  isFlatPart,
  isWhole,
  placedOf,
  inverse,
  variantsOf,
  visibleParts,
  worldFromPart,
  isQuarterTurn,
  carry,
  carryBox,
  snapShape,
  AT_ORIGIN,
  type Placed,
  type Variant,
  type Box,
  type ItemId,
  type Pose,
  type Turn,
  type KadrelDocument,
  type Question,
  type Replies,
  type SnapShape,
  type Vec3,
} from '@kadrel/core';
import { Answers } from './answers.ts';
import { contentOf, isStep, keyOf, type Content, type StepContent } from './content.ts';
import { writeStep } from './exchange/step.ts';
import { writeStl } from './exchange/stl.ts';
import { featuresOf } from './facts/features.ts';
import { drawnMeasures, exactBox, measureShape, type Measures } from './facts/measure.ts';
import { displayChord, meshShape, type Mesh } from './facts/mesh.ts';
import {
  BuildError,
  carryingPlaces,
  isFatal,
  moved,
  translated,
  type Occt,
  type TopoDS_Shape,
} from './occt/occt.ts';
import { buildFromOperands, buildSolid } from './shapes/build.ts';
import type { Operand } from './shapes/combine.ts';
import { buildDrilled, drillingOf } from './shapes/drilled.ts';
import { buildEmbossed } from './shapes/embossed.ts';
import { buildMirrored, buildScaled } from './shapes/mirrored.ts';
import { buildClosed, buildThickened } from './shapes/surfaces.ts';
import type { NamedShape } from './shapes/named.ts';
import { AXIS_DIRECTIONS, inFrame, wholeMeasures, type RangeOf, type Solid } from './facts/wholes.ts';
import { unstretched } from './shapes/unstretched.ts';

/** Why a part has no solid. `step` is null while the base itself is to blame. */
export interface Failure {
  readonly part: ItemId;
  readonly step: number | null;
  readonly reason: string;
  readonly remedy: string;
  /** Where it goes wrong, in the world, mm; none where that is no single place. */
  readonly places: readonly Vec3[];
}

/** Everything the page knows of a shape: measures, and packed arrays for drawing, picking and snapping. */
export interface ShapeFacts {
  readonly key: string;
  readonly measures: Measures;
  readonly snaps: SnapShape;
  /** 3·V, outward, beside `snaps.positions`. */
  readonly normals: Float32Array;
  /** 6·L: ends of the pieces of all outlines. */
  readonly outline: Float32Array;
}

export interface PartResult {
  readonly key: string;
}

export interface Evaluation {
  /** By the name of what is built: the part's id, or that of one of its variants. */
  readonly parts: Readonly<Record<string, PartResult>>;
  /** Of patterns and groups: the measures of all they consist of, the box and the centroid in their own frame. */
  readonly wholes: Readonly<Record<ItemId, Measures>>;
  readonly failures: readonly Failure[];
  /** Facts of the keys that the caller did not know. */
  readonly shapes: readonly ShapeFacts[];
  readonly heapBytes: number;
}

export interface PartMeasure extends Measures {
  readonly faceted: boolean;
}

/** A solid in a file: the part's name, and in a pattern or a group which one it is. */
function solidName(document: KadrelDocument, id: ItemId, { item, leaf, member }: Placed): string {
  const name = document.items[id]!.name;
  const own = item === id ? [] : [document.items[item]!.name];
  const more = item === leaf || member === '' ? [] : [member];
  return [name, ...own, ...more].join(' ');
}

/** What an item consists of, without drawn things that are no solids. */
const solidPlaced = (document: KadrelDocument, id: ItemId): Placed[] =>
  placedOf(document, id).filter(({ leaf }) => !isFlatPart(document, document.items[leaf]!));

/** Shapes kept beyond what the present document needs, so that undo and previews find them. */
const SPARE_SHAPES = 400;

export interface EvaluateOptions {
  /** Keys whose facts the caller has. */
  readonly known?: ReadonlySet<string>;
  /** Parts to build besides the visible ones: operands that are selected. */
  readonly also?: readonly ItemId[];
  /** Keys that stopped the kernel before: they are reported and not tried again. */
  readonly poisoned?: ReadonlyMap<string, string>;
  /** Called before each part that must be built. */
  readonly onPart?: (progress: { part: ItemId; key: string; done: number; of: number }) => void;
}

export class Evaluator {
  private readonly cache = new Map<string, NamedShape>();
  private readonly measured = new Map<string, Measures>();
  private readonly answers: Answers;

  constructor(private readonly occt: Occt) {
    this.answers = new Answers(occt, this);
  }

  /** Builds what the document shows. Throws only what makes the kernel unusable. */
  evaluate(document: KadrelDocument, options: EvaluateOptions = {}): Evaluation {
    const items = [
      ...new Set([...visibleParts(document).map((part) => part.id), ...(options.also ?? [])]),
    ].filter((id) => document.items[id]);
    const placed = new Map(items.map((id) => [id, placedOf(document, id)]));
    const wanted = [...variantsOf([...placed.values()].flat())];
    const parts: Record<string, PartResult> = {};
    const failures: Failure[] = [];
    const shapes: ShapeFacts[] = [];
    const used = new Set<string>();
    const sent = new Set(options.known);
    wanted.forEach(([name, variant], done) => {
      const { leaf } = variant;
      const content = contentOf(document, leaf, variant);
      const key = keyOf(content);
      try {
        const poison = options.poisoned?.get(key);
        if (poison !== undefined)
          throw new BuildError(poison, 'Change one of its sizes or places, or take a part out of it.');
        if (!this.cache.has(key) || !sent.has(key))
          options.onPart?.({ part: leaf, key, done, of: wanted.length });
        this.shapeOf(content, key, used);
        if (!sent.has(key)) shapes.push(this.factsOf(key));
        sent.add(key);
        parts[name] = { key };
      } catch (error) {
        failures.push(this.failure(document, leaf, error));
      }
    });
    const isBuilt = (one: Placed) => parts[buildName(one)] !== undefined;
    const wholes = Object.fromEntries(
      items
        .filter((id) => isWhole(document, document.items[id]!) && placed.get(id)!.every(isBuilt))
        .map((id) => [id, this.wholeIn(document, id, inverse(worldFromPart(document, id)))]),
    );
    this.dropUnused(used);
    return { parts, wholes, failures, shapes, heapBytes: this.occt.wasmMemory.buffer.byteLength };
  }

  /** Why a part cannot be built, or undefined. Builds it, and nothing for display. */
  problemOf(document: KadrelDocument, id: ItemId): Failure | undefined {
    for (const one of variantsOf(placedOf(document, id)).values())
      try {
        this.built(document, one.leaf, one);
      } catch (error) {
        return this.failure(document, one.leaf, error);
      }
    return undefined;
  }

  /** Measures of a part in the world; of a pattern or a group, of all that it consists of. Throws BuildError. */
  measure(document: KadrelDocument, id: ItemId): PartMeasure {
    if (isWhole(document, document.items[id]!))
      return { ...this.wholeIn(document, id, AT_ORIGIN), faceted: false };
    const { key, named } = this.built(document, id);
    const own = this.measuresOf(key, named);
    const pose = worldFromPart(document, id);
    return {
      ...own,
      centroid: carry(pose, own.centroid),
      box: this.worldBox(named, own.box, pose),
      faceted: false,
    };
  }

  /** Measures of what a pattern or a group consists of, in a frame. */
  wholeIn(document: KadrelDocument, id: ItemId, frameFromWorld: Pose): Measures {
    return wholeMeasures(inFrame(this.solidsOf(document, id), frameFromWorld), this.range);
  }

  /** The built solids of an item in the world. Throws BuildError. */
  solidsOf(document: KadrelDocument, id: ItemId): Solid[] {
    const built = new Map<string, Omit<Solid, 'pose'>>();
    return placedOf(document, id).map((one) => {
      const name = buildName(one);
      let solid = built.get(name);
      if (!solid) {
        const { key, named } = this.built(document, one.leaf, one);
        solid = { named, measures: this.measuresOf(key, named) };
        built.set(name, solid);
      }
      return { ...solid, pose: one.pose };
    });
  }

  /** Least and greatest coordinate along a direction, as the measures of wholes ask for it. */
  readonly range: RangeOf = (named, direction) => this.rangeOf(named, direction);

  /** What a statement asks of the document. Throws BuildError. */
  answer(document: KadrelDocument, question: Question): Replies[Question['ask']] {
    return this.guarded(() => this.answers.answer(document, question));
  }

  /** Facts of one solid, whether shown or not. Throws BuildError. */
  facts(document: KadrelDocument, id: ItemId, variant?: Variant): ShapeFacts {
    return this.factsOf(this.built(document, id, variant).key);
  }

  /** Throws BuildError. @param time as ISO 8601, for the header */
  stepOf(document: KadrelDocument, ids: readonly ItemId[], time: string): string {
    const parts = ids.flatMap((id) =>
      solidPlaced(document, id).map((one) => {
        const { colour } = document.items[id]!;
        const { shape } = this.built(document, one.leaf, one).named;
        return { name: solidName(document, id, one), colour, pose: one.pose, shape };
      }),
    );
    return this.guarded(() => writeStep(this.occt, parts, time));
  }

  /** Binary STL of the parts in the world. Throws BuildError. @param chordMm greatest distance from the true surface */
  stlOf(document: KadrelDocument, ids: readonly ItemId[], chordMm: number): Uint8Array {
    return this.guarded(() => {
      const meshes = new Map<string, Mesh>();
      const meshOf = (one: Placed) => {
        const name = buildName(one);
        const mesh =
          meshes.get(name) ?? meshShape(this.occt, this.built(document, one.leaf, one).named.shape, chordMm);
        meshes.set(name, mesh);
        return mesh;
      };
      const placed = ids.flatMap((id) => solidPlaced(document, id));
      return writeStl(placed.map((one) => ({ pose: one.pose, mesh: meshOf(one) })));
    });
  }

  /** The kernel's own shape of a part, in its own frame; it stays the evaluator's. Throws BuildError. */
  shapeFor(document: KadrelDocument, id: ItemId): TopoDS_Shape {
    return this.built(document, id).named.shape;
  }

  /** How many shapes are held, for tests of the bound. */
  get heldShapes(): number {
    return this.cache.size;
  }

  /** The shape of a part, built where it is not there yet. Throws BuildError. */
  built(document: KadrelDocument, id: ItemId, variant?: Variant): { key: string; named: NamedShape } {
    const content = contentOf(document, id, variant);
    const key = keyOf(content);
    const used = new Set<string>();
    const named = this.guarded(() => this.shapeOf(content, key, used));
    this.dropUnused(used);
    return { key, named };
  }

  private guarded<T>(work: () => T): T {
    try {
      return work();
    } catch (error) {
      throw translated(this.occt, error);
    }
  }

  private failure(document: KadrelDocument, part: ItemId, thrown: unknown): Failure {
    const error = translated(this.occt, thrown);
    if (isFatal(error) || !(error instanceof BuildError)) throw error;
    const { reason, remedy } = error;
    const pose = worldFromPart(document, part);
    return { part, step: null, reason, remedy, places: error.places.map((place) => carry(pose, place)) };
  }

  private shapeOf(content: Content, key: string, used: Set<string>): NamedShape {
    used.add(key);
    const known = this.cache.get(key);
    if (known) {
      // Asked for again: moves to the young end of the cache.
      this.cache.delete(key);
      this.cache.set(key, known);
      return known;
    }
    const made = this.make(content, used);
    const named = {
      ...made,
      unstretched: unstretched(content),
      drawn: content.kind === 'drawn' ? content.paths : undefined,
    };
    this.cache.set(key, named);
    return named;
  }

  private make(content: Content, used: Set<string>): NamedShape {
    if (content.kind === 'combine') return this.combined(content, used);
    if (!isStep(content)) return buildSolid(this.occt, content);
    const of = carryingPlaces(placeAfter(content), () => this.shapeOf(content.of, keyOf(content.of), used));
    switch (content.kind) {
      case 'embossed':
        return buildEmbossed(this.occt, of, content);
      case 'mirrored':
        return buildMirrored(this.occt, of);
      case 'scaled':
        return buildScaled(this.occt, of, content.by);
      case 'closed':
        return buildClosed(this.occt, of);
      case 'thickened':
        return buildThickened(this.occt, of, content);
    }
  }

  private combined(content: Extract<Content, { kind: 'combine' }>, used: Set<string>): NamedShape {
    const drilling = drillingOf(content);
    if (drilling) return buildDrilled(this.occt, drilling);
    const operands: Operand[] = [];
    try {
      for (const { tag, pose, content: inner } of content.operands) {
        const { shape, faceNames } = carryingPlaces(
          (place) => carry(pose, place),
          () => this.shapeOf(inner, keyOf(inner), used),
        );
        operands.push({ tag, faceNames, shape: moved(this.occt, shape, pose) });
      }
      return buildFromOperands(this.occt, content, operands);
    } finally {
      for (const { shape } of operands) shape.delete();
    }
  }

  private measuresOf(key: string, named: NamedShape): Measures {
    const known = this.measured.get(key) ?? this.guarded(() => this.measureNew(named));
    this.measured.set(key, known);
    return known;
  }

  private measureNew({ shape, unstretched: image, drawn }: NamedShape): Measures {
    if (drawn) return drawnMeasures(drawn);
    const own = measureShape(this.occt, shape);
    if (!image) return own;
    const plainKey = keyOf(image.content);
    const plain = this.measuresOf(plainKey, this.shapeOf(image.content, plainKey, new Set()));
    return {
      ...own,
      volume: plain.volume * determinant(image.map),
      centroid: applyMatrix(image.map, plain.centroid),
      box: this.boxOf({ shape, faceNames: [], unstretched: image }, NO_TURN),
    };
  }

  /** The exact box of a shape under a turn. */
  private boxOf(named: NamedShape, turn: Turn): Box {
    if (!named.unstretched) {
      const turned = moved(this.occt, named.shape, { turn, shift: [0, 0, 0] });
      try {
        return exactBox(this.occt, turned);
      } finally {
        turned.delete();
      }
    }
    const ranges = AXIS_DIRECTIONS.map((axis) => this.rangeOf(named, turnBack(turn, axis)));
    return {
      min: ranges.map(([least]) => least) as unknown as Vec3,
      max: ranges.map(([, most]) => most) as unknown as Vec3,
    };
  }

  /** Least and greatest coordinate of a shape along a direction, in its own frame. */
  private rangeOf(named: NamedShape, direction: Vec3): readonly [number, number] {
    const image = named.unstretched;
    if (image) {
      // What a map carries reaches as far along d as what it carries reaches along the transposed map's image of d.
      const back = applyMatrix(transposed(image.map), direction);
      const size = length(back);
      const key = keyOf(image.content);
      const [least, most] = this.rangeOf(this.shapeOf(image.content, key, new Set()), scale(back, 1 / size));
      return [least * size, most * size];
    }
    // The frame whose X is the direction: its turn taken back lays the direction along X.
    const { min, max } = this.boxOf(named, transposed(frameAlong(direction)));
    return [min[0], max[0]];
  }

  private factsOf(key: string): ShapeFacts {
    const named = this.cache.get(key)!;
    const measures = this.measuresOf(key, named);
    const { min, max } = measures.box;
    const mesh = meshShape(
      this.occt,
      named.shape,
      displayChord(Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2])),
    );
    const { outline, ...features } = featuresOf(this.occt, named, mesh);
    return { key, measures, snaps: snapShape(features), normals: mesh.normals, outline };
  }

  private worldBox(named: NamedShape, own: Box, pose: Pose): Box {
    if (isQuarterTurn(pose.turn)) return carryBox(pose, own);
    const { min, max } = this.boxOf(named, pose.turn);
    return { min: add(min, pose.shift), max: add(max, pose.shift) };
  }

  private dropUnused(used: ReadonlySet<string>): void {
    let spare = this.cache.size - used.size - SPARE_SHAPES;
    for (const [key, { shape }] of this.cache) {
      if (spare <= 0) return;
      if (used.has(key)) continue;
      shape.delete();
      this.cache.delete(key);
      this.measured.delete(key);
      spare -= 1;
    }
  }
}

/** Where a place of what a step is made on comes to lie. */
function placeAfter(step: StepContent): (place: Vec3) => Vec3 {
  if (step.kind === 'mirrored') return ([x, y, z]) => [-x, y, z];
  return step.kind === 'scaled' ? (place) => scale(place, step.by) : (place) => place;
}

/** Names of faces of a shape as they are in its features, for tests and pickers. */
export const faceNamesOf = ({ snaps }: ShapeFacts): string[] =>
  [...snaps.faceName].map((i) => snaps.names[i]!);
