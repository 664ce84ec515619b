/**
 * Document → shapes, incrementally: content that is known is not built again, so that moving a part builds nothing, and undo finds
 * what it had. Failures and notices are data.
 */
import {
  FormatError,
  reasonOf,
  buildName,
  inverse,
  isWhole,
  placedOf,
  variantsOf,
  visibleParts,
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Placed,
  type Question,
  type Replies,
  type Variant,
} from '@kadrel/core';
import { Answers } from './answers/answers.ts';
import type { BuildWatch } from './buildWatch.ts';
import type { Libraries } from './builder.ts';
import { contentOf } from './content/content.ts';
import { keyOf } from './content/key.ts';
import type { Exporting } from './exchange/declare.ts';
import { exporterNamed } from './exchange/index.ts';
import type { Measures } from './facts/measure.ts';
import { type TopoDS_Shape } from './occt/occt.ts';
import { Parts, type PartMeasure } from './parts.ts';
import { Problems, type Failure, type PartNotice } from './problems.ts';
import { Shapes, type ShapeFacts } from './shapes.ts';
import { solidsToExport } from './solidsToExport.ts';

/** What was built of a part, by the key of its content. */
export interface PartResult {
  readonly key: string;
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

/** What is built besides what is seen, and who is notified of its progress. */
export interface EvaluateOptions {
  /** Keys whose facts the caller has. */
  readonly known?: ReadonlySet<string>;
  /** Parts to build besides the visible ones: operands that are selected. */
  readonly also?: readonly ItemId[];
  /** Called before each part that must be built. */
  readonly onPart?: (progress: { part: ItemId; key: string; done: number; of: number }) => void;
}

/** A document in, solids, measures and answers out. */
export class Evaluator {
  private readonly shapes: Shapes;
  private readonly parts: Parts;
  private readonly problems: Problems;
  private readonly answers: Answers;

  /** @param watch looks on while contents are built */
  constructor(
    private readonly libraries: Libraries,
    watch?: BuildWatch,
  ) {
    this.shapes = new Shapes(libraries, watch);
    this.parts = new Parts(this.shapes);
    this.problems = new Problems(libraries.occt, this.parts);
    this.answers = new Answers(libraries.occt, this.parts);
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
    const { builder } = this.shapes;
    const used = new Set<string>();
    const sent = new Set(options.known);
    wanted.forEach(([name, variant], done) => {
      const { leaf } = variant;
      const content = contentOf(document, leaf, variant);
      const key = keyOf(content);
      try {
        if (!builder.cache.has(key) || !sent.has(key))
          options.onPart?.({ part: leaf, key, done, of: wanted.length });
        builder.shapeOf(content, used);
        if (!sent.has(key)) shapes.push(this.shapes.factsOf(content));
        notices.push(...this.problems.noticesOf(document, leaf, content));
        failures.push(...this.problems.failedSteps(document, leaf, content));
        sent.add(key);
        parts[name] = { key };
      } catch (error) {
        failures.push(this.problems.failure(document, leaf, error));
      }
    });
    const isBuilt = (one: Placed) => parts[buildName(one)] !== undefined;
    const wholes = this.wholesOf(
      document,
      items.filter((id) => placed.get(id)!.every(isBuilt)),
    );
    builder.cache.dropUnused(used);
    const heapBytes = this.libraries.occt.wasmMemory.buffer.byteLength;
    return { parts, wholes, failures, notices, shapes, heapBytes };
  }

  /** Measures of those items that are patterns and groups, in their own frames. */
  private wholesOf(document: KadrelDocument, items: readonly ItemId[]): Record<ItemId, Measures> {
    return Object.fromEntries(
      items
        .filter((id) => isWhole(document, document.items[id]!))
        .map((id) => [id, this.parts.wholeIn(document, id, inverse(worldFromPart(document, id)))]),
    );
  }

  /** Why a part cannot be built, or one of its steps cannot be done, or undefined. Builds it, and nothing for display. */
  problemOf(document: KadrelDocument, id: ItemId): Failure | undefined {
    return this.problems.problemOf(document, id);
  }

  /** What should be known of a part that can be built. Throws BuildError. */
  noticesFor(document: KadrelDocument, id: ItemId): PartNotice[] {
    return this.problems.noticesFor(document, id);
  }

  /** Measures of a part in the world; of a pattern or a group, of all that it consists of. Throws BuildError. */
  measure(document: KadrelDocument, id: ItemId): PartMeasure {
    return this.parts.measure(document, id);
  }

  /** Facts of one solid, whether shown or not. Throws BuildError. */
  facts(document: KadrelDocument, id: ItemId, variant?: Variant): ShapeFacts {
    return this.parts.facts(document, id, variant);
  }

  /** What a statement asks of the document. Throws BuildError. */
  answer(document: KadrelDocument, question: Question): Replies[Question['ask']] {
    return this.shapes.guarded(() => this.answers.answer(document, question));
  }

  /** A file of a format. Throws BuildError, and FormatError. */
  exported(format: string, exporting: Exporting): string | Uint8Array {
    const exporter = exporterNamed(format);
    if (!exporter) throw new FormatError(reasonOf('file.format', { format }));
    if (exporter.holds !== 'solids') return exporter.write(exporting);
    return this.shapes.guarded(() =>
      exporter.write(exporting, solidsToExport(this.libraries.occt, this.parts, exporting)),
    );
  }

  /** The kernel's own shape of a part, in its own frame; it stays the evaluator's. Throws BuildError. */
  shapeFor(document: KadrelDocument, id: ItemId): TopoDS_Shape {
    return this.parts.built(document, id).named.shape;
  }

  /** How long checks took so far, ms, for the bench. */
  get checkMs(): number {
    return this.shapes.builder.clock.ms;
  }

  /** How many shapes are held, for tests of the bound. */
  get heldShapes(): number {
    return this.shapes.builder.cache.size;
  }
}

/** Names of faces of a shape as they are in its features, for tests and pickers. */
export const faceNamesOf = ({ snaps }: ShapeFacts): string[] =>
  [...snaps.faceName].map((i) => snaps.names[i]!);
