/** What the verbs of checks share: kept measures, wanted fits, and what is meant. */
import { inOrderMade, type Fit, type Meant, type Measure, type MeasuredKind } from '../../document/fit.ts';
import type { KadrelDocument } from '../../document/schema.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { QuantityError } from '../../quantity/lexer.ts';
import type { QuantityKind } from '../../quantity/units.ts';
import { refuse, refuseFor, type Refusal, type VerbContext } from '../../statement/declare.ts';

export const CHECK_ROOTS = ['measures', 'fits', 'meant'] as const;
export type CheckRoot = (typeof CHECK_ROOTS)[number];

type Check = Measure | Fit | Meant;
const allChecks = (document: KadrelDocument): { root: CheckRoot; check: Check }[] =>
  CHECK_ROOTS.flatMap((root) => inOrderMade<Check>(document[root]).map((check) => ({ root, check })));

/** By its name; failing that by its id. */
export function checkNamed(
  document: KadrelDocument,
  name: string,
): { readonly root: CheckRoot; readonly id: string } | Refusal {
  const all = allChecks(document);
  const found = all.find(({ check }) => check.name === name) ?? all.find(({ check }) => check.id === name);
  if (!found) return refuse('unknown-check', { name }, 'of');
  return { root: found.root, id: found.check.id };
}

/** The name that was said, if it is free; else `M1`, `M2`… */
export function checkName(
  document: KadrelDocument,
  said: string | undefined,
  letter: string,
): string | Refusal {
  const taken = new Set(allChecks(document).map(({ check }) => check.name));
  if (said !== undefined && said !== '') {
    const name = said.slice(0, MAX_LETTERS);
    return taken.has(name) ? refuse('name-taken.measure', { name }, 'called') : name;
  }
  for (let n = 1; ; n++) if (!taken.has(`${letter}${n}`)) return `${letter}${n}`;
}
const MAX_LETTERS = 120;

export const nextCheckOrder = (document: KadrelDocument, root: CheckRoot): number =>
  Math.max(0, ...Object.values<{ order: number }>(document[root]).map(({ order }) => order)) + 1;

interface Limits {
  readonly least: string | undefined;
  readonly greatest: string | undefined;
}

/** What the limits of a measure are read as; a mass in g. */
export const limitKind = (what: MeasuredKind): QuantityKind =>
  what === 'mass' ? 'number' : what === 'angle' || what === 'area' || what === 'volume' ? what : 'length';

/** Both limits as numbers, in mm, mm², mm³, degrees or g. */
export function limitsRead(
  { least, greatest }: Limits,
  kind: QuantityKind,
  context: VerbContext,
): { least?: number; greatest?: number } | Refusal {
  const read: { least?: number; greatest?: number } = {};
  for (const [blank, text] of [
    ['least', least],
    ['greatest', greatest],
  ] as const) {
    if (text === undefined || text === '') continue;
    try {
      read[blank] = valueOf(context.read(text, kind));
    } catch (error) {
      if (error instanceof QuantityError) return refuseFor(error, blank);
      throw error;
    }
  }
  return limitsFault(read) ?? read;
}

/** Limits that nothing can keep. */
export const limitsFault = ({
  least,
  greatest,
}: {
  readonly least?: number | undefined;
  readonly greatest?: number | undefined;
}): Refusal | undefined =>
  least !== undefined && greatest !== undefined && least > greatest
    ? refuse('limits.greatest', {}, 'greatest')
    : undefined;
