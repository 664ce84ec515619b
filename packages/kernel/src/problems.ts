/** Why parts of a document cannot be built, and what should be known of those that can: kernel errors in the words of the document. */
import {
  below,
  builtRecipe,
  carry,
  definitionOf,
  faultFor,
  placedOf,
  toolsIn,
  variantsOf,
  worldFromPart,
  type Fault,
  type ItemId,
  type KadrelDocument,
  type Vec3,
} from '@kadrel/core';
import { CombineError } from './combine/combination.ts';
import { contentOf, isStep, type Content } from './content/content.ts';
import { keyOf } from './content/key.ts';
import { nameOfTag, noticesIn, type PartNotice } from './noticesIn.ts';
import { BuildError, isFatal, translated, type Occt } from './occt/occt.ts';
import type { Parts } from './parts.ts';

/** Why a part has no solid: `step` is null, its base is to blame. Or why it has the solid without one of its steps. */
export interface Failure extends Fault {
  readonly part: ItemId;
  readonly step: number | null;
  /** Where it goes wrong, in the world, mm; none where that is no single place. */
  readonly places: readonly Vec3[];
}

/** Failures and notices, as data. */
export class Problems {
  constructor(
    private readonly occt: Occt,
    private readonly parts: Parts,
  ) {}

  /** Why a part cannot be built, or one of its steps cannot be done, or undefined. Builds it, and nothing for display. */
  problemOf(document: KadrelDocument, id: ItemId): Failure | undefined {
    for (const one of variantsOf(placedOf(document, id)).values())
      try {
        const { content } = this.parts.built(document, one.leaf, one);
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
      return this.parts.shapes.guarded(() => this.noticesOf(document, one.leaf, content));
    });
  }

  /** What a thrown error says of a part. Throws what makes the kernel unusable. */
  failure(document: KadrelDocument, part: ItemId, thrown: unknown): Failure {
    const error = translated(this.occt, thrown);
    if (isFatal(error) || !(error instanceof BuildError)) throw error;
    const pose = worldFromPart(document, part);
    const blamed = error instanceof CombineError ? namesOf(document, error.operands) : [];
    const fault = faultFor(error.fault, blamed);
    const step = failedStep(document, part, error.failedStep);
    return { ...fault, part, step, places: error.places.map((place) => carry(pose, place)) };
  }

  /** Steps of a part, or of what it is made of, that could not be done. */
  failedSteps(document: KadrelDocument, part: ItemId, content: Content): Failure[] {
    return this.parts.shapes.builder
      .failedOf(content)
      .map(({ key, error }) => this.failure(document, partWithStep(document, part, key) ?? part, error));
  }

  /** Notices of a content, by the names of the document. */
  noticesOf(document: KadrelDocument, part: ItemId, content: Content): PartNotice[] {
    return noticesIn(document, part, this.parts.shapes.builder.noticesOf(content));
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
