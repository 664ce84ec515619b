/** What a step of a recipe is: something done to what was made so far. */
import { z } from 'zod';
import type { SizeKind } from '../../quantity/units.ts';
import type { RecipeFault, WithKind } from '../declare.ts';
import type { Bounds } from '../fields.ts';
import type { Num } from '../numbers.ts';

/** The one number of a step, which Change step sets. */
export interface StepNumber<T = unknown> extends Bounds {
  readonly label: string;
  readonly kind: SizeKind;
  readonly value: Num;
  /** The step with another number. */
  with(value: Num): T;
}

/** How it is added to a solid, by a verb that is made from this. */
export interface MakeStep {
  /** Of the verb. */
  readonly id: string;
  readonly name: string;
  /** One line for the bench. */
  readonly about: string;
  /** Everyday words that find it. */
  readonly words: readonly string[];
  /** `{part}` stands for the solid; the other blanks are those of the fields. */
  readonly sentence: string;
}

export interface DeclaredStep<S extends z.ZodObject> {
  readonly make?: MakeStep;
  /** What its numbers must be together; what each must be is declared by its field. */
  fault?(step: z.infer<S>): RecipeFault | undefined;
  /** What it did, in the Spec. @param names of the profiles that it refers to */
  title(step: z.infer<S>, names: string): string;
  number?(step: z.infer<S>): StepNumber<z.infer<S>> | undefined;
}

export interface StepKind<S extends z.ZodObject = z.ZodObject> extends DeclaredStep<S> {
  readonly kind: string;
  readonly schema: S;
}

/** A step that is off is kept, and not done. */
const SWITCH = { off: z.literal(true).optional() };
type Switched<S extends z.ZodRawShape> = S & typeof SWITCH;

export const declareStep = <const K extends string, S extends z.ZodRawShape>(
  kind: K,
  shape: S,
  declared: DeclaredStep<WithKind<K, Switched<S>>>,
): StepKind<WithKind<K, Switched<S>>> & { readonly kind: K } => ({
  kind,
  schema: z.strictObject({ kind: z.literal(kind), ...shape, ...SWITCH }),
  ...declared,
});
