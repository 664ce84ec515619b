/**
 * Documents on both sides of the kernel's worker: it is sent what is new in a document, and holds the last few by number.
 * Items are shared between states of a document, so that what is new is found by comparing references.
 */
import type { ItemId, KadrelDocument } from '@kadrel/core';

/** How a document comes from one that the worker holds. */
export interface DocumentNews {
  readonly number: number;
  /** The document that it comes from; null for one that is sent whole. */
  readonly from: number | null;
  readonly items: Readonly<KadrelDocument['items']>;
  readonly removed: readonly ItemId[];
  /** Everything but items, as far as it is new. */
  readonly rest: Partial<KadrelDocument>;
  /** Documents that are not asked for any more. */
  readonly forget: readonly number[];
}

/** Former states that statements begin with, and what is on screen: few are in use at once. */
const MAX_HELD = 6;

/** The page's side. */
export class DocumentSender {
  /** The one used last at the end. */
  private held: { readonly number: number; readonly document: KadrelDocument }[] = [];
  private last = 0;

  /** The number of a document, and what the worker must be sent before it knows it. */
  numberOf(document: KadrelDocument): { number: number; news?: DocumentNews } {
    const known = this.held.find((one) => one.document === document);
    if (known) {
      this.held = [...this.held.filter((one) => one !== known), known];
      return { number: known.number };
    }
    const from = this.held.at(-1);
    const number = ++this.last;
    const all = [...this.held, { number, document }];
    this.held = all.slice(-MAX_HELD);
    const forget = all.slice(0, -MAX_HELD).map((one) => one.number);
    return {
      number,
      news: { number, from: from?.number ?? null, ...newIn(document, from?.document), forget },
    };
  }

  /** The worker was replaced: it holds nothing. */
  reset(): void {
    this.held = [];
  }
}

function newIn(
  document: KadrelDocument,
  before: KadrelDocument | undefined,
): Pick<DocumentNews, 'items' | 'removed' | 'rest'> {
  if (!before) {
    const { items, ...rest } = document;
    return { items, removed: [], rest };
  }
  const items = Object.entries(document.items).filter(([id, item]) => before.items[id] !== item);
  const removed = Object.keys(before.items).filter((id) => !document.items[id]);
  const rest = Object.entries(document).filter(
    ([key, value]) => key !== 'items' && before[key as keyof KadrelDocument] !== value,
  );
  return { items: Object.fromEntries(items), removed, rest: Object.fromEntries(rest) };
}

/** The worker's side. */
export class DocumentHolder {
  private readonly held = new Map<number, KadrelDocument>();

  take({ number, from, items, removed, rest, forget }: DocumentNews): void {
    const before = from === null ? undefined : this.at(from);
    const all = { ...before?.items, ...items };
    for (const id of removed) delete all[id];
    this.held.set(number, { ...before, ...rest, items: all } as KadrelDocument);
    for (const old of forget) this.held.delete(old);
  }

  /** Throws where it was never sent, or is forgotten. */
  at(number: number): KadrelDocument {
    const found = this.held.get(number);
    if (!found) throw new Error(`The worker holds no document ${number}.`);
    return found;
  }
}
