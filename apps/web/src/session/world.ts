/** What statements may ask of built geometry on the page: facts that are here, and replies that the kernel has sent. */
import {
  childrenOf,
  definitionOf,
  isWhole,
  refuse,
  starterPart,
  worldFromPart,
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

/** Replies are small; this many are more than one statement ever needs. */
const MAX_REPLIES = 2000;

/** What statements may ask of what is built. */
export class Worlds {
  private readonly replies = new Map<string, Reply>();
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
      ask: (question) => this.replies.get(replyKey(document, question)),
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
    if (this.replies.size >= MAX_REPLIES) this.replies.clear();
    this.replies.set(replyKey(document, question), reply);
  }
}

/** Two questions with the same key have the same reply: it names the solids by what they are and where they stand. */
function replyKey(document: KadrelDocument, question: Question): string {
  const parts =
    question.ask === 'slices'
      ? question.parts
      : question.ask === 'contact'
        ? [...question.moving, ...question.fixed].map(({ part }) => part)
        : question.ask === 'regions'
          ? question.profiles
          : question.ask === 'offset'
            ? [question.profile]
            : 'part' in question
              ? [question.part]
              : Object.keys(document.items);
  const standing = parts.map((part) => {
    const { turn, shift } = worldFromPart(document, part);
    const made = isWhole(document, document.items[part]!)
      ? recipesBelow(document, part)
      : keyOf(contentOf(document, part));
    return [made, turn, shift];
  });
  return JSON.stringify([question, standing]);
}

/** What a pattern or a group consists of, and where, all the way down. */
function recipesBelow(document: KadrelDocument, id: ItemId): unknown {
  const part = document.items[id]!;
  const definition = definitionOf(document, part);
  const below = childrenOf(definition).map((child) => {
    const { placement, visible } = document.items[child]!;
    return [placement, visible, recipesBelow(document, child)];
  });
  return [definition.recipe, below];
}
