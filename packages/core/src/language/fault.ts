/** Why something cannot be built, as data: a code and its facts. The catalogue of a language says what is wrong and what to do. */
import { ENGLISH_FAULTS, ENGLISH_REMEDIES } from './english/faults/index.ts';
import type { AnyFacts, FactsAsked } from './reason.ts';
import type { TwoSentences } from './english/faults/sentences.ts';

type Faults = typeof ENGLISH_FAULTS;
type Remedies = typeof ENGLISH_REMEDIES;

/** What cannot be built: `kind.detail`. */
export type FaultCode = keyof Faults;

/** What would do instead: `kind.detail`. */
export type RemedyCode = keyof Remedies;

/** What the sentences of a fault must be given. */
export type FactsOfFault<C extends FaultCode> = FactsAsked<Faults[C]>;

export interface Fault {
  readonly code: FaultCode;
  readonly facts: AnyFacts;
  /** What is wrong, in British English. */
  readonly reason: string;
  /** What to do, in British English. */
  readonly remedy: string;
  /** The code of the remedy, where it is not that of the fault itself. */
  readonly remedyCode?: RemedyCode;
}

/** A fault with the sentences that go with it. */
export function faultOf<C extends FaultCode>(code: C, facts: FactsOfFault<C>): Fault {
  const [reason, remedy] = (ENGLISH_FAULTS[code] as (facts: AnyFacts) => TwoSentences)(facts);
  return { code, facts, reason, remedy };
}

type RemedySentences = Readonly<Record<RemedyCode, (facts: never) => string>>;

/** The same fault with what would do instead, where that was looked for. */
export const withRemedy = <C extends RemedyCode>(
  fault: Fault,
  code: C,
  facts: FactsAsked<Remedies[C]>,
): Fault => ({
  ...fault,
  facts: { ...fault.facts, ...facts },
  remedy: (ENGLISH_REMEDIES as RemedySentences)[code](facts as never),
  remedyCode: code,
});

/** The same fault of things that have names: these stand before its sentence. */
export const faultFor = (fault: Fault, names: readonly string[]): Fault =>
  names.length === 0
    ? fault
    : {
        ...fault,
        facts: { ...fault.facts, names: names.join(', ') },
        reason: `${names.join(' and ')}: ${fault.reason}`,
      };
