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
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Question,
  type Replies,
  type Variant,
} from '@kadrel/core';
import { Answers } from './answers/answers.ts';
import type { BuildWatch } from './buildWatch.ts';
import type { Libraries } from './builder.ts';
import { contentOf, type Content } from './content/content.ts';
import { keyOf } from './content/key.ts';
import { wholeKey } from './content/wholeKey.ts';
import type { Exporting } from './exchange/declare.ts';
import { exporterNamed } from './exchange/index.ts';
import type { Measures } from './facts/measure.ts';
import { noticesIn, type PartNotice } from './noticesIn.ts';
import { type TopoDS_Shape } from './occt/occt.ts';
import { Parts, type PartMeasure } from './parts.ts';
import type { Prebuilt } from './prebuilt.ts';
import { Problems, type Failure } from './problems.ts';
import { Shapes, type ShapeFacts } from './shapes.ts';
import { solidsToExport } from './solidsToExport.ts';
import { isAllBuilt, wantedOf, type Wanted } from './wanted.ts';

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
  /** What was built before, of which nothing is built again. */
  readonly prebuilt?: Prebuilt | undefined;
  /** Called before each part that must be built. */
  readonly onPart?: (progress: { part: ItemId; key: string; done: number; of: number }) => void;
}

/** What an evaluation has found so far. */
interface Found {
  readonly parts: Record<string, PartResult>;
  readonly failures: Failure[];
  readonly notices: PartNotice[];
  readonly shapes: ShapeFacts[];
}

interface Building {
  readonly document: KadrelDocument;
  readonly leaf: ItemId;
  readonly content: Content;
  /** Gathers the keys that it rests on. */
  readonly used: Set<string>;
  /** The caller has its facts. */
  readonly isSent: boolean;
}

interface WholesWanted {
  readonly wanted: Wanted;
  readonly parts: Readonly<Record<string, PartResult>>;
  readonly prebuilt: Prebuilt | undefined;
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
    const wanted = wantedOf(document, options.also);
    const { cache } = this.shapes.builder;
    const used = new Set<string>();
    const sent = new Set(options.known);
    const found: Found = { parts: {}, failures: [], notices: [], shapes: [] };
    let done = 0;
    for (const [name, variant] of wanted.variants) {
      const { leaf } = variant;
      const content = contentOf(document, leaf, variant);
      const key = keyOf(content);
      const [isSent, isHere] = [sent.has(key), cache.has(key)];
      const before = isSent && !isHere ? options.prebuilt?.solids.get(key) : undefined;
      const progress = { part: leaf, key, done: done++, of: wanted.variants.size };
      if (before) found.notices.push(...noticesIn(document, leaf, before));
      else {
        if (!isSent || !isHere) options.onPart?.(progress);
        if (!this.build({ document, leaf, content, used, isSent }, found)) continue;
      }
      sent.add(key);
      found.parts[name] = { key };
    }
    const wholes = this.wholesOf(document, { wanted, parts: found.parts, prebuilt: options.prebuilt });
    cache.dropUnused(used);
    const heapBytes = this.libraries.occt.wasmMemory.buffer.byteLength;
    return { ...found, wholes, heapBytes };
  }

  /** Builds one solid into what was found; false where it cannot be built. */
  private build({ document, leaf, content, used, isSent }: Building, found: Found): boolean {
    try {
      this.shapes.builder.shapeOf(content, used);
      if (!isSent) found.shapes.push(this.shapes.factsOf(content));
      found.notices.push(...this.problems.noticesOf(document, leaf, content));
      found.failures.push(...this.problems.failedSteps(document, leaf, content));
      return true;
    } catch (error) {
      found.failures.push(this.problems.failure(document, leaf, error));
      return false;
    }
  }

  /** Measures of those items that are patterns and groups, in their own frames. */
  private wholesOf(
    document: KadrelDocument,
    { wanted: { items, placed }, parts, prebuilt }: WholesWanted,
  ): Record<ItemId, Measures> {
    const { cache } = this.shapes.builder;
    const measured = (id: ItemId): Measures => {
      const solids = placed.get(id)!;
      const isHere = solids.every((one) => cache.has(parts[buildName(one)]!.key));
      const known = isHere ? undefined : prebuilt?.wholes.get(wholeKey(document, id, solids));
      return known ?? this.parts.wholeIn(document, id, inverse(worldFromPart(document, id)));
    };
    return Object.fromEntries(
      items
        .filter((id) => isWhole(document, document.items[id]!) && isAllBuilt(placed.get(id)!, parts))
        .map((id) => [id, measured(id)]),
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
