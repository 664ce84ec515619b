/** Why a statement cannot be carried out. */
import { reasonOf, type FactsOf, type Reason, type ReasonCode } from '../language/reason.ts';
import type { Question } from '../questions/question.ts';
import type { Vec3 } from '../space/vector.ts';

/** Why a statement cannot be carried out, and which of its blanks is to blame. */
export interface Refusal extends Reason {
  readonly refused: true;
  readonly blank?: string;
  /** Where in the world it goes wrong, mm. */
  readonly places?: readonly Vec3[];
  /** What the kernel must be asked first; the statement is then tried again. */
  readonly wants?: Question;
}

/** A reason why not: its code, the facts of its sentence, and the blank that it is about. */
export const refuse = <C extends ReasonCode>(code: C, facts: FactsOf<C>, blank?: string): Refusal =>
  refuseFor(reasonOf(code, facts), blank);

/** The same for a reason that was found elsewhere, as in the text of a number. */
export const refuseFor = ({ code, facts, message, at, label }: Reason, blank?: string): Refusal => ({
  refused: true,
  code,
  facts,
  message,
  ...(label === undefined ? {} : { label }),
  ...(at === undefined ? {} : { at }),
  ...(blank === undefined ? {} : { blank }),
});

/** What kind of reason: its code without the detail. */
export const kindOfRefusal = ({ code }: Pick<Refusal, 'code'>): string => code.split('.')[0]!;

/** Whether it is a reason why not. */
export const isRefusal = (value: unknown): value is Refusal =>
  typeof value === 'object' && value !== null && (value as Refusal).refused === true;
