/** What a statement about measures has been given so far. */
import {
  MEASURED,
  isRefusal,
  measureWords,
  measuredValue,
  resolveOne,
  verbNamed,
  type KadrelDocument,
  type MeasuredFacts,
  type MeasuredKind,
  type Scene,
  type Target,
  type World,
} from '@kadrel/core';
import type { SessionCore } from './core.ts';
import type { ShownCheck } from './fitState.ts';
import type { Statement } from './statement.ts';

type Said = Pick<Statement, 'verb' | 'typed'>;

/** What one blank means, as far as it is given. */
function resolvedTarget({ verb, typed }: Said, id: string, around: Around): Target | undefined {
  const declared = verbNamed(verb)!;
  if (declared.blanks[id]?.type !== 'target') return undefined;
  const read = resolveOne(declared, id, typed, around);
  return read === undefined || isRefusal(read) ? undefined : (read as Target);
}

interface Around {
  readonly document: KadrelDocument;
  readonly world: World;
}

/** Both things, in order, as far as they are given; nothing where the first is not. */
export function resolvedTargets(said: Said, document: KadrelDocument, world: World): Target[] {
  const [from, to] = ['from', 'to'].map((id) => resolvedTarget(said, id, { document, world }));
  return from ? [from, ...(to ? [to] : [])] : [];
}

/** @param show the distance in the views; null takes it off again */
export function measuring({ get, host, worlds }: SessionCore, show: (inHand: ShownCheck | null) => void) {
  let latest = 0;
  const measured = async (document: KadrelDocument, said: Said): Promise<MeasuredFacts | null> => {
    const world = worlds.of(document);
    const [from, to] = resolvedTargets(said, document, world);
    if (!from) return null;
    const path = resolvedTarget(said, 'path', { document, world });
    const question = { ask: 'measured', from, ...(to ? { to } : {}), ...(path ? { path } : {}) } as const;
    try {
      return (await host.ask({ ask: 'answer', document, question })) as MeasuredFacts;
    } catch (error) {
      // What cannot be measured is reported when it is kept.
      if ((error as { code?: string }).code === undefined) throw error;
      return null;
    }
  };
  return {
    /** All that can be measured of what is picked so far, in words; the views show the distance. */
    async measureInHand(statement: Said | null): Promise<readonly string[]> {
      const { document } = get();
      const own = ++latest;
      const facts = statement && (await measured(document, statement));
      if (own !== latest) return [];
      const words = facts ? readings(facts, document.scene) : [];
      show(facts && shownInHand(facts, document.scene));
      return words;
    },
  };
}

/** The line that the facts have: from foot to foot of a path, the least distance of two, or the thickness below a face. */
function shownInHand(facts: MeasuredFacts, scene: Scene): ShownCheck | null {
  const { from, to } = facts;
  const mm = facts.alongPath ?? facts.distance ?? facts.thickness;
  return from && to && mm !== undefined
    ? { from, to, words: measureWords('distance', mm, scene), isBad: false }
    : null;
}

/** Every measure that there is of it, each in words. */
const readings = (facts: MeasuredFacts, scene: Scene): string[] =>
  (Object.keys(MEASURED) as MeasuredKind[]).flatMap((what) => {
    const value = measuredValue({ what }, facts);
    return value === undefined ? [] : [`${MEASURED[what]} ${measureWords(what, value, scene)}`];
  });
