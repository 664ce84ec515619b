/** Why a statement cannot be carried out. */
import { reasonOf, type FactsOf, type Reason, type ReasonCode } from '../language/reason.ts';
import type { Question } from '../questions/question.ts';
import type { Vec3 } from '../space/vector.ts';

/** Why a statement cannot be carried out, and which of its blanks is to blame. */
export interface Refusal extends Reason {
  readonly refused: true;
  readonly blank?: string;
  /** Which of several numbers in it, where one is to blame; it stands before the sentence. */
  readonly label?: string;
  /** Where in the world it goes wrong, mm. */
  readonly places?: readonly Vec3[];
  /** What the kernel must be asked first; the statement is then tried again. */
  readonly wants?: Question;
}

/** A reason why not: its code, the facts of its sentence, and the blank that it is about. */
export const refuse = <C extends ReasonCode>(code: C, facts: FactsOf<C>, blank?: string): Refusal =>
  refuseFor(reasonOf(code, facts), blank);

/** The same for a reason that was found elsewhere, as in the text of a number. */
export const refuseFor = ({ code, facts, message, at }: Reason, blank?: string): Refusal => ({
  refused: true,
  code,
  facts,
  message,
  ...(at === undefined ? {} : { at }),
  ...(blank === undefined ? {} : { blank }),
});

/** The same of one number among several: which one stands before the sentence. */
export const labelled = (refusal: Refusal, label: string): Refusal => ({
  ...refusal,
  label,
  message: `${label}: ${refusal.message}`,
});

/** What kind of reason: its code without the detail. */
export const kindOfRefusal = ({ code }: Pick<Refusal, 'code'>): string => code.split('.')[0]!;

/** Whether it is a reason why not. */
export const isRefusal = (value: unknown): value is Refusal =>
  typeof value === 'object' && value !== null && (value as Refusal).refused === true;
