/** The whole contract between the page and the kernel's worker. Typed arrays are transferred, never cloned. */
import type { Fault, ItemId, KadrelDocument, Question, Replies } from '@kadrel/core';
import type { DocumentNews } from './documents.ts';
import type { Exporting } from './exchange/declare.ts';
import type { Evaluation } from './evaluate.ts';
import type { PrebuiltKeys } from './fromPrebuilt.ts';
import type { PartMeasure } from './parts.ts';
import type { Prebuilt } from './prebuilt.ts';
import type { ShapeFacts } from './shapes.ts';

/** What a worker may be asked. */
export type Request =
  | {
      readonly ask: 'evaluate';
      readonly document: KadrelDocument;
      readonly known: readonly string[];
      readonly also: readonly ItemId[];
      /** A preview. */
      readonly isPassing: boolean;
    }
  | { readonly ask: 'measure'; readonly document: KadrelDocument; readonly part: ItemId }
  | { readonly ask: 'answer'; readonly document: KadrelDocument; readonly question: Question }
  | { readonly ask: 'facts'; readonly document: KadrelDocument; readonly part: ItemId }
  /** By what the measures of patterns and groups, and of the document, are kept. */
  | { readonly ask: 'keys'; readonly document: KadrelDocument; readonly wholes: readonly ItemId[] }
  | { readonly ask: 'export'; readonly format: string; readonly exporting: Exporting };

/** What it answers to each. */
export interface Answers {
  evaluate: Evaluation;
  measure: PartMeasure;
  answer: Replies[Question['ask']];
  facts: ShapeFacts;
  keys: PrebuiltKeys;
  export: string | Uint8Array;
}

/** A request on its way: the worker holds documents by number. */
type Numbered<R> = R extends { readonly document: KadrelDocument }
  ? Omit<R, 'document'> & { readonly document: number }
  : R extends { readonly exporting: Exporting }
    ? Omit<R, 'exporting'> & {
        readonly exporting: Omit<Exporting, 'document'> & { readonly document: number };
      }
    : never;
/** A request with its number. */
export type NumberedRequest = Numbered<Request>;

/** A message to the worker. */
export interface ToWorker {
  readonly id: number;
  /** What the worker must know before the request. */
  readonly news?: DocumentNews;
  /** Keys of contents over which a kernel has stopped, and how; none where they are as before. */
  readonly poisoned?: readonly (readonly [string, string])[];
  /** What a worker that has just begun need not build; none where it was told. */
  readonly prebuilt?: Prebuilt;
  readonly request: NumberedRequest;
}

/** The request with its document's number in place of the document. */
export function numbered(request: Request, numberOf: (document: KadrelDocument) => number): NumberedRequest {
  if (request.ask !== 'export') return { ...request, document: numberOf(request.document) };
  const { exporting } = request;
  return { ...request, exporting: { ...exporting, document: numberOf(exporting.document) } };
}

/** And back. */
export function withDocument(request: NumberedRequest, at: (number: number) => KadrelDocument): Request {
  if (request.ask !== 'export') return { ...request, document: at(request.document) };
  const { exporting } = request;
  return { ...request, exporting: { ...exporting, document: at(exporting.document) } };
}

/** A message from the worker. */
export type FromWorker =
  | { readonly say: 'ready' }
  | {
      readonly say: 'progress';
      readonly id: number;
      readonly part: ItemId;
      readonly key: string;
      readonly done: number;
      readonly of: number;
    }
  /** The content that is built from now on, whichever part it is of. */
  | { readonly say: 'building'; readonly id: number; readonly key: string }
  | { readonly say: 'answer'; readonly id: number; readonly answer: Answers[keyof Answers] }
  /** The request could not be answered; the worker lives on. */
  | { readonly say: 'refusal'; readonly id: number; readonly fault: Fault }
  /** The kernel's memory is damaged; the worker must be replaced. */
  | { readonly say: 'broken'; readonly reason: string };

/** A worker as the host sees it: the browser's and Node's differ in their events only. */
export interface Port {
  post(message: ToWorker): void;
  listen(onMessage: (message: FromWorker) => void, onDeath: (reason: string) => void): void;
  terminate(): void;
}
