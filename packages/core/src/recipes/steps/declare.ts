/** What a step of a recipe is: something done to what was made so far. */
import { z } from 'zod';
import type { QuantityKind } from '../../quantity/units.ts';
import type { Bounds } from '../fields.ts';
import type { Num } from '../numbers.ts';

/** The one number of a step, which Change step sets. */
export interface StepNumber<T = unknown> extends Bounds {
  readonly label: string;
  readonly kind: QuantityKind;
  readonly value: Num;
  /** The step with another number. */
  with(value: Num): T;
}

export interface DeclaredStep<S extends z.ZodObject> {
  /** What it did, in the Spec. @param names of the profiles that it refers to */
  title(step: z.infer<S>, names: string): string;
  number?(step: z.infer<S>): StepNumber<z.infer<S>> | undefined;
}

export interface StepKind<S extends z.ZodObject = z.ZodObject> extends DeclaredStep<S> {
  readonly kind: string;
  readonly schema: S;
}

type WithKind<K extends string, S extends z.ZodRawShape> = z.ZodObject<
  { kind: z.ZodLiteral<K> } & S,
  z.core.$strict
>;

export const declareStep = <const K extends string, S extends z.ZodRawShape>(
  kind: K,
  shape: S,
  declared: DeclaredStep<WithKind<K, S>>,
): StepKind<WithKind<K, S>> & { readonly kind: K } => ({
  kind,
  schema: z.strictObject({ kind: z.literal(kind), ...shape }),
  ...declared,
});
