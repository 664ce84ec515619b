/**
 * Document → shapes, incrementally: content that is known is not built again, so that moving a part builds nothing, and undo finds
 * what it had. Failures and notices are data.
 * Long, since it is the one door to the kernel, with many short ways in.
 */
import {
  AT_ORIGIN,
  FormatError,
  add,
  below,
  buildName,
  builtRecipe,
  carry,
  carryBox,
  definitionOf,
  inverse,
  isFlatPart,
  isQuarterTurn,
  isWhole,
  placedOf,
  snapShape,
  toolsIn,
  variantsOf,
  visibleParts,
  worldFromPart,
  type Box,
  type ItemId,
  type KadrelDocument,
  type Placed,
  type Pose,
  type Question,
  type Replies,
  type SnapShape,
  type Variant,
  type Vec3,
} from '@kadrel/core';
import { Answers } from './answers/answers.ts';
import { Builder, type Libraries } from './builder.ts';
import { CombineError, type Notice } from './combine/combination.ts';
import { contentOf, cutContent, isStep, type Content } from './content/content.ts';
import { keyOf } from './content/key.ts';
import type { Exporting, Solids } from './exchange/declare.ts';
import { exporterNamed } from './exchange/index.ts';
import { featuresOf } from './facts/features.ts';
import type { Measures } from './facts/measure.ts';
import { meshShape, type Mesh } from './facts/mesh.ts';
import { inFrame, wholeMeasures, type RangeOf, type Solid } from './facts/wholes.ts';
import { BuildError, isFatal, translated, type TopoDS_Shape } from './occt/occt.ts';
import type { NamedShape } from './naming/named.ts';

/** Why a part has no solid: `step` is null, its base is to blame. Or why it has the solid without one of its steps. */
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

/** What was built of a part, by the key of its content. */
export interface PartResult {
  readonly key: string;
}

/** Something worth knowing of a part that was built: what it consists of may be idle, or was taken with a tolerance. */
export interface PartNotice {
  readonly part: ItemId;
  readonly what: Notice['what'];
  readonly words: string;
}

/** What was built of a document, and what could not be. */
export interface Evaluation {
  /** By the name of what is built: the part's id, or that of one of its variants. */
  readonly parts: Readonly<Record<string, PartResult>>;
  /** Of patterns and groups: the measures of all they consist of, the box and the centroid in their own frame. */
  readonly wholes: Readonly<Record<ItemId, Measures>>;
  readonly failures: readonly Failure[];
  readonly notices: readonly PartNotice[];
  /** Facts of the keys that the caller did not know. */
  readonly shapes: readonly ShapeFacts[];
  readonly heapBytes: number;
}

/** Measures of a part as the headless runner tells them. */
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

/** What is built besides what is seen, and who is told how far it is. */
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

/** What has brought the kernel down before is not built again. Throws BuildError. */
function requireHarmless(poison: string | undefined): void {
  if (poison !== undefined)
    throw new BuildError(poison, 'Change one of its sizes or places, or take a part out of it.');
}

/** A document in, solids, measures and answers out. */
export class Evaluator {
  private readonly builder: Builder;
  private readonly answers: Answers;
  private readonly snaps = new WeakMap<NamedShape, SnapShape>();

  constructor(private readonly libraries: Libraries) {
    this.builder = new Builder(libraries);
    this.answers = new Answers(libraries.occt, this);
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
    const notices: PartNotice[] = [];
    const shapes: ShapeFacts[] = [];
    const used = new Set<string>();
    const sent = new Set(options.known);
    wanted.forEach(([name, variant], done) => {
      const { leaf } = variant;
      const content = contentOf(document, leaf, variant);
      const key = keyOf(content);
      try {
        requireHarmless(options.poisoned?.get(key));
        if (!this.builder.has(key) || !sent.has(key))
          options.onPart?.({ part: leaf, key, done, of: wanted.length });
        this.builder.shapeOf(content, used);
        if (!sent.has(key)) shapes.push(this.factsOf(content, key));
        notices.push(...this.noticesOf(document, leaf, content));
        failures.push(...this.failedSteps(document, leaf, content));
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
    this.builder.dropUnused(used);
    const heapBytes = this.libraries.occt.wasmMemory.buffer.byteLength;
    return { parts, wholes, failures, notices, shapes, heapBytes };
  }

  /** Why a part cannot be built, or one of its steps cannot be done, or undefined. Builds it, and nothing for display. */
  problemOf(document: KadrelDocument, id: ItemId): Failure | undefined {
    for (const one of variantsOf(placedOf(document, id)).values())
      try {
        const { content } = this.built(document, one.leaf, one);
        const [failed] = this.failedSteps(document, one.leaf, content);
        if (failed) return failed;
      } catch (error) {
        return this.failure(document, one.leaf, error);
      }
    return undefined;
  }

  /** What should be known of a part that can be built. Throws BuildError. */
  noticesFor(document: KadrelDocument, id: ItemId): PartNotice[] {
    return [...variantsOf(placedOf(document, id)).values()].flatMap((one) => {
      const content = contentOf(document, one.leaf, one);
      return this.guarded(() => this.noticesOf(document, one.leaf, content));
    });
  }

  /** Measures of a part in the world; of a pattern or a group, of all that it consists of. Throws BuildError. */
  measure(document: KadrelDocument, id: ItemId): PartMeasure {
    if (isWhole(document, document.items[id]!))
      return { ...this.wholeIn(document, id, AT_ORIGIN), faceted: false };
    const { content, named } = this.built(document, id);
    const own = this.guarded(() => this.builder.measuresOf(content));
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
        const { content, named } = this.built(document, one.leaf, one);
        solid = { named, measures: this.guarded(() => this.builder.measuresOf(content)) };
        built.set(name, solid);
      }
      return { ...solid, pose: one.pose };
    });
  }

  /** The cut faces of items on a plane, in its frame. Throws BuildError. */
  cutThrough(document: KadrelDocument, items: readonly ItemId[], plane: Pose): NamedShape {
    const content = cutContent(document, { items, plane, size: 1 });
    return this.guarded(() => this.builder.shapeOf(content));
  }

  contentOf(document: KadrelDocument, solid: Placed): Content {
    return contentOf(document, solid.leaf, solid);
  }

  /** The verified shape of a content. Throws BuildError. */
  shapeOf(content: Content): NamedShape {
    return this.guarded(() => this.builder.shapeOf(content));
  }

  /** Points, edges, faces and facets of a content; those of sheets and of fit are asked for again and again. Throws BuildError. */
  snapsOf(content: Content): SnapShape {
    return this.guarded(() => {
      const named = this.builder.shapeOf(content);
      const known = this.snaps.get(named) ?? this.factsOf(content, keyOf(content)).snaps;
      this.snaps.set(named, known);
      return known;
    });
  }

  /** Throws BuildError. */
  measuresOf(content: Content): Measures {
    return this.guarded(() => this.builder.measuresOf(content));
  }

  /** The exact box of a content in the world. Throws BuildError. */
  boxAt(content: Content, pose: Pose): Box {
    return this.worldBox(this.shapeOf(content), this.measuresOf(content).box, pose);
  }

  /** Least and greatest coordinate along a direction, as the measures of wholes ask for it. */
  readonly range: RangeOf = (named, direction) => this.builder.rangeOf(named, direction);

  /** What a statement asks of the document. Throws BuildError. */
  answer(document: KadrelDocument, question: Question): Replies[Question['ask']] {
    return this.guarded(() => this.answers.answer(document, question));
  }

  /** Facts of one solid, whether shown or not. Throws BuildError. */
  facts(document: KadrelDocument, id: ItemId, variant?: Variant): ShapeFacts {
    const { content, key } = this.built(document, id, variant);
    return this.guarded(() => this.factsOf(content, key));
  }

  /** A file of a format. Throws BuildError, and FormatError. */
  exported(format: string, exporting: Exporting): string | Uint8Array {
    const exporter = exporterNamed(format);
    if (!exporter) throw new FormatError(`Kadrel does not write files of the format ${format}.`);
    if (exporter.holds !== 'solids') return exporter.write(exporting);
    return this.guarded(() => exporter.write(exporting, this.solidsIn(exporting)));
  }

  private solidsIn({ document, parts, chordMm }: Exporting): Solids {
    const placed = () =>
      parts.flatMap((id) =>
        solidPlaced(document, id).map((one) => ({
          one,
          name: solidName(document, id, one),
          colour: document.items[id]!.colour,
          pose: one.pose,
        })),
      );
    const shapeOf = (one: Placed) => this.built(document, one.leaf, one).named.shape;
    const meshes = new Map<string, Mesh>();
    const meshOf = (one: Placed) => {
      const known = meshes.get(buildName(one));
      const mesh = known ?? meshShape(this.libraries.occt, shapeOf(one), chordMm);
      meshes.set(buildName(one), mesh);
      return mesh;
    };
    return {
      occt: this.libraries.occt,
      shapes: () => placed().map(({ one, ...told }) => ({ ...told, shape: shapeOf(one) })),
      meshes: () => placed().map(({ one, ...told }) => ({ ...told, mesh: meshOf(one) })),
    };
  }

  /** The kernel's own shape of a part, in its own frame; it stays the evaluator's. Throws BuildError. */
  shapeFor(document: KadrelDocument, id: ItemId): TopoDS_Shape {
    return this.built(document, id).named.shape;
  }

  /** How long checks took so far, ms, for the bench. */
  get checkMs(): number {
    return this.builder.clock.ms;
  }

  /** How many shapes are held, for tests of the bound. */
  get heldShapes(): number {
    return this.builder.size;
  }

  /** The shape of a part, built where it is not there yet. Throws BuildError. */
  built(
    document: KadrelDocument,
    id: ItemId,
    variant?: Variant,
  ): { key: string; content: Content; named: NamedShape } {
    const content = contentOf(document, id, variant);
    const used = new Set<string>();
    const named = this.guarded(() => this.builder.shapeOf(content, used));
    this.builder.dropUnused(used);
    return { key: keyOf(content), content, named };
  }

  private guarded<T>(work: () => T): T {
    try {
      return work();
    } catch (error) {
      throw translated(this.libraries.occt, error);
    }
  }

  private failure(document: KadrelDocument, part: ItemId, thrown: unknown): Failure {
    const error = translated(this.libraries.occt, thrown);
    if (isFatal(error) || !(error instanceof BuildError)) throw error;
    const { remedy } = error;
    const pose = worldFromPart(document, part);
    const blamed = error instanceof CombineError ? namesOf(document, error.operands) : [];
    const reason = blamed.length === 0 ? error.reason : `${blamed.join(' and ')}: ${error.reason}`;
    const step = failedStep(document, part, error.failedStep);
    return { part, step, reason, remedy, places: error.places.map((place) => carry(pose, place)) };
  }

  /** Steps of a part, or of what it is made of, that could not be done. */
  private failedSteps(document: KadrelDocument, part: ItemId, content: Content): Failure[] {
    return this.builder
      .failedOf(content)
      .map(({ key, error }) => this.failure(document, partWithStep(document, part, key) ?? part, error));
  }

  private noticesOf(document: KadrelDocument, part: ItemId, content: Content): PartNotice[] {
    return this.builder.noticesOf(content).map((notice) => {
      const { what } = notice;
      if (notice.what === 'fuzzy') return { part, what, words: notice.words };
      return { part, what, words: idleWords(document, part, notice.operand) };
    });
  }

  private factsOf(content: Content, key: string): ShapeFacts {
    const named = this.builder.shapeOf(content);
    const measures = this.builder.measuresOf(content);
    const mesh = this.builder.takeMesh(content);
    const { outline, ...features } = featuresOf(this.libraries.occt, named, mesh);
    return { key, measures, snaps: snapShape(features), normals: mesh.normals, outline };
  }

  private worldBox(named: NamedShape, own: Box, pose: Pose): Box {
    if (isQuarterTurn(pose.turn)) return carryBox(pose, own);
    const { min, max } = this.builder.boxOf(named, pose.turn);
    return { min: add(min, pose.shift), max: add(max, pose.shift) };
  }
}

/** The part, or the one of what it is made of, that has a step of its own with a key. */
function partWithStep(document: KadrelDocument, part: ItemId, key: string): ItemId | undefined {
  if (failedStep(document, part, key) !== null) return part;
  const definition = definitionOf(document, document.items[part]!);
  const made = [...below(document, definition).map(({ id }) => id), ...toolsIn(definition.recipe)];
  for (const id of made) {
    const found = partWithStep(document, id, key);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Which step of a part's own recipe has a key, from 0; null where it is its base, or something that is made from. */
function failedStep(document: KadrelDocument, part: ItemId, key: string | undefined): number | null {
  const keys: string[] = [];
  for (let at = contentOf(document, part); isStep(at); at = at.of) keys.unshift(keyOf(at));
  const { steps } = builtRecipe(document, document.items[part]!);
  const on = [...steps.keys()].filter((i) => !steps[i]!.off);
  return (key === undefined ? undefined : on[keys.indexOf(key)]) ?? null;
}

/** More operands than this are not all named in a sentence. */
const MAX_NAMED = 4;

/** Names of operands by their tags: ids of items, with what follows a point telling which member of a pattern. */
function namesOf(document: KadrelDocument, tags: readonly string[]): string[] {
  const names = tags.filter((tag) => tag !== '').map((tag) => nameOfTag(document, tag));
  return [...new Set(names)].length > MAX_NAMED ? [] : [...new Set(names)];
}

const nameOfTag = (document: KadrelDocument, tag: string): string =>
  document.items[tag]?.name ?? document.items[tag.split('.')[0]!]?.name ?? tag;

function idleWords(document: KadrelDocument, part: ItemId, operand: string): string {
  const name = nameOfTag(document, operand);
  const { base } = definitionOf(document, document.items[part]!).recipe;
  const [first] = below(document, document.items[part]!);
  const how = base.kind === 'combine' ? base.how : 'union';
  const own = document.items[part]!.name;
  // What is called after the whole goes by the name of the whole.
  const from = !first || first.name.startsWith(`${own} (`) ? own : first.name;
  return how === 'subtract'
    ? `Nothing of ${name} lies within ${from}: it takes nothing out.`
    : `${name} lies wholly within the others: it adds nothing.`;
}

/** Names of faces of a shape as they are in its features, for tests and pickers. */
export const faceNamesOf = ({ snaps }: ShapeFacts): string[] =>
  [...snaps.faceName].map((i) => snaps.names[i]!);
