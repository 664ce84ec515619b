/** What a kind of recipe is: its schema, whose fields say what its numbers are, and what they must be together. */
import { reasonOf, type FactsOf, type Reason, type ReasonCode } from '../language/reason.ts';
import { z } from 'zod';
import type { Gesture } from '../gestures/gesture.ts';
import type { Box } from '../space/box.ts';

/** Why numbers do not go together; `blank` is that of one to blame. */
export interface RecipeFault extends Reason {
  readonly blank: string;
}

/** A reason, and the blank of a number to blame. */
export const recipeFault = <C extends ReasonCode>(
  code: C,
  facts: FactsOf<C>,
  blank: string,
): RecipeFault => ({
  ...reasonOf(code, facts),
  blank,
});

/** How a new one is made by the verb of the same name, which is made from this. */
export interface Make {
  readonly name: string;
  readonly key?: string;
  /** One line for the bench. */
  readonly about: string;
  /** Everyday words that find it. */
  readonly words: readonly string[];
  /** `{blank}` stands for a blank; `at` and `as` are there besides those of the fields. */
  readonly sentence: string;
  /** Which point of it stands at `at`. */
  readonly at: readonly [label: string, about: string];
  /** How it is drawn by the pointer. */
  readonly gesture: Gesture;
  /** Round things may be given by their radius instead. */
  readonly isByRadius?: true;
  /** Fields that may be left empty, and what they are then, from the others. */
  readonly complete?: Readonly<Record<string, (given: never) => unknown>>;
}

/** What is said of a kind of recipe. */
export interface Declared<S extends z.ZodObject> {
  /** In words: “a tube”. */
  readonly words: string;
  /** Of a plain solid: what it is under a linear map that leaves no such solid. */
  readonly stretched?: string;
  /** In a list of parts, where that is not the kind itself. */
  readonly inAWord?: string;
  readonly make?: Make;
  /** What its numbers must be together; what each must be is declared by its field. */
  fault?(recipe: z.infer<S>): RecipeFault | undefined;
  /** The box in its own frame, where its numbers alone tell it. */
  box?(recipe: z.infer<S>): Box | undefined;
}

/** A kind of recipe: its schema, and what was said of it. */
export interface Kind<S extends z.ZodObject = z.ZodObject> extends Declared<S> {
  readonly kind: string;
  readonly schema: S;
}

/** A schema with its kind before its other properties. */
export type WithKind<K extends string, S extends z.ZodRawShape> = z.ZodObject<
  { kind: z.ZodLiteral<K> } & S,
  z.core.$strict
>;

/** Declares a kind of recipe. */
export const declareKind = <const K extends string, S extends z.ZodRawShape>(
  kind: K,
  shape: S,
  declared: Declared<WithKind<K, S>>,
): Kind<WithKind<K, S>> & { readonly kind: K } => ({
  kind,
  schema: z.strictObject({ kind: z.literal(kind), ...shape }),
  ...declared,
});

type Declarations = readonly { readonly schema: z.ZodObject }[];
type Schemas<T extends Declarations> = { [I in keyof T]: T[I]['schema'] };

/** The schemas of kinds, in order, for a union of them. */
export const schemasOf = <const T extends Declarations>(kinds: T): Schemas<T> =>
  kinds.map(({ schema }) => schema) as unknown as Schemas<T>;
