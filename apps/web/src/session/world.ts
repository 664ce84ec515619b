/** What statements may ask of built geometry on the page: facts that are here, and replies that the kernel has sent. */
import {
  refuse,
  starterPart,
  type BuiltShape,
  type ItemId,
  type KadrelDocument,
  type Question,
  type Refusal,
  type Replies,
  type Variant,
  type World,
} from '@kadrel/core';
import { contentOf, keyOf, type ShapeFacts } from '@kadrel/kernel';

type Reply = Replies[Question['ask']];
type AskKernel = (document: KadrelDocument, question: Question) => Promise<Reply>;

/** About one document: as many as one statement may ask for. */
const MAX_REPLIES = 50_000;

/** What statements may ask of what is built. */
export class Worlds {
  /** By questions; of another document nothing is taken for granted. */
  private readonly replies = new WeakMap<KadrelDocument, Map<string, Reply>>();
  /**
   * What statements that begin with a document name what they make: the same each time that one is tried, since what is asked of the
   * kernel may be about that.
   */
  private readonly ids = new WeakMap<KadrelDocument, ItemId[]>();

  constructor(
    private readonly factsOf: (key: string) => ShapeFacts | undefined,
    private readonly askKernel: AskKernel,
  ) {}

  /** The world of a statement that begins with this document. */
  of(document: KadrelDocument): World {
    const ids = this.idsFor(document);
    let used = 0;
    return {
      rackPart: starterPart,
      newId: () => (ids[used++] ??= crypto.randomUUID().replaceAll('-', '')),
      shapeOf: (part, variant): BuiltShape | Refusal => {
        const facts = this.factsOfPart(document, part, variant);
        return facts ? { box: facts.measures.box, snaps: facts.snaps } : refuse('not-built.part', {});
      },
      ask: (question) => this.replies.get(document)?.get(JSON.stringify(question)),
    };
  }

  private idsFor(document: KadrelDocument): ItemId[] {
    const known = this.ids.get(document);
    if (known) return known;
    const ids: ItemId[] = [];
    this.ids.set(document, ids);
    return ids;
  }

  /** Facts by what a part is made of, so that they also fit an earlier document. */
  factsOfPart(document: KadrelDocument, part: ItemId, variant?: Variant): ShapeFacts | undefined {
    return document.items[part] && this.factsOf(keyOf(contentOf(document, part, variant)));
  }

  /** Asks the kernel, and keeps its reply. Rejects as the kernel's host does. */
  async find(document: KadrelDocument, question: Question): Promise<void> {
    const reply = await this.askKernel(document, question);
    const known = this.replies.get(document) ?? new Map<string, Reply>();
    if (known.size >= MAX_REPLIES) known.clear();
    this.replies.set(document, known.set(JSON.stringify(question), reply));
  }
}
