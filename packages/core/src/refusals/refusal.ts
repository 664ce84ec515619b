/** Why something cannot be done, as data. */
import type { Question } from '../questions/question.ts';
import type { Vec3 } from '../space/vector.ts';

/** Why a statement cannot be carried out. `at` is the character of the text, where one is to blame. */
export interface Refusal {
  readonly refused: true;
  readonly code: string;
  readonly message: string;
  readonly blank?: string;
  readonly at?: number;
  /** Where in the world it goes wrong, mm. */
  readonly places?: readonly Vec3[];
  /** What the kernel must be asked first; the statement is then tried again. */
  readonly wants?: Question;
}

/** A reason why not: its code, its sentence, and the blank that it is about. */
export const refuse = (code: string, message: string, blank?: string, at?: number): Refusal => ({
  refused: true,
  code,
  message,
  ...(blank === undefined ? {} : { blank }),
  ...(at === undefined ? {} : { at }),
});

/** Whether it is a reason why not. */
export const isRefusal = (value: unknown): value is Refusal =>
  typeof value === 'object' && value !== null && (value as Refusal).refused === true;
