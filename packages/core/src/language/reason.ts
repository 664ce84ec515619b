/** Why something is not done, as data: a code and its facts. The catalogue of a language makes a sentence of them. */
import { ENGLISH } from './english/index.ts';

type Sentences = typeof ENGLISH;

/** Why something is refused: `kind`, or `kind.detail` where a kind has several sentences. */
export type ReasonCode = keyof Sentences;

/** What sentences are given, by name. */
export type AnyFacts = Readonly<Record<string, string | number>>;

/** What a sentence must be given: nothing, or its facts by name. */
export type FactsAsked<Sentence extends (facts: never) => unknown> = AnyFacts &
  (Parameters<Sentence> extends [infer Facts] ? Facts : Readonly<Record<string, never>>);

/** What the sentence of a code must be given. */
export type FactsOf<C extends ReasonCode> = FactsAsked<Sentences[C]>;

export interface Reason {
  readonly code: ReasonCode;
  readonly facts: AnyFacts;
  /** The sentence of the code, in British English. */
  readonly message: string;
  /** Which of several things or numbers is to blame; it stands before the sentence. */
  readonly label?: string;
  /** The character of a text, where one is to blame. */
  readonly at?: number;
}

/** The sentence of a code, with its facts in it. */
const sentenceOf = (code: ReasonCode, facts: AnyFacts): string => SENTENCES[code](facts as never);
const SENTENCES: Readonly<Record<ReasonCode, (facts: never) => string>> = ENGLISH;

/** A reason with the sentence that goes with it. */
export const reasonOf = <C extends ReasonCode>(code: C, facts: FactsOf<C>): Reason => ({
  code,
  facts,
  message: sentenceOf(code, facts),
});

/** The same of one thing or number among several: which one stands before the sentence, the larger thing first. */
export function labelled<R extends Reason>(reason: R, label: string): R {
  const { label: within, message } = reason;
  return within === undefined
    ? { ...reason, label, message: `${label}: ${message}` }
    : { ...reason, label: `${label}, ${within}`, message: `${label}, ${message}` };
}

/** The same without the character to blame: of a text that is not the one that a person has just typed. */
export const withoutPlace = ({ code, facts, message }: Reason): Reason => ({ code, facts, message });
