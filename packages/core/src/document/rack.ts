/** Parts of a rack: recipes with parameters, to be made at any size in any project. Plain data. */
import { z } from 'zod';
import { idSchema } from '../recipes/ids.ts';
import { partSchema } from './part.ts';

/** What a person may set of a rack part. */
const parameterSchema = z.strictObject({
  /** The variable that its recipe uses. */
  name: z.string().min(1).max(80),
  label: z.string().min(1).max(80),
  kind: z.enum(['length', 'angle', 'count']),
  about: z.string().max(200).optional(),
});
export type Parameter = z.infer<typeof parameterSchema>;

/** More than these make no part that one can still look through. */
const MAX_ITEMS = 2000;
const MAX_SIZES = 300;
const MAX_PARAMETERS = 60;

/** A part of a rack, as racks and documents keep it. */
export const rackPartSchema = z.strictObject({
  /** Of its own: the same in every project, through all versions. */
  id: idSchema,
  version: z.number().int().min(1),
  name: z.string().min(1).max(120),
  about: z.string().max(500),
  words: z.array(z.string().max(40)).max(40),
  parameters: z.array(parameterSchema).max(MAX_PARAMETERS),
  /** Standard sizes: parameter → text in the number language. */
  sizes: z
    .array(
      z.strictObject({ name: z.string().min(1).max(80), values: z.record(z.string(), z.string().max(200)) }),
    )
    .max(MAX_SIZES),
  /** What the numbers of its recipe use; those of parameters are what they are when nothing is said. Bare lengths are millimetres. */
  variables: z.record(z.string().max(80), z.string().max(2000)),
  items: z
    .record(idSchema, partSchema)
    .refine((items) => Object.keys(items).length <= MAX_ITEMS, `A rack part has at most ${MAX_ITEMS} items.`),
});
export type RackPart = z.infer<typeof rackPartSchema>;

/** A rack as one file. */
export const rackFileSchema = z.strictObject({
  kadrelRack: z.literal(1),
  name: z.string().min(1).max(120),
  parts: z.array(rackPartSchema).max(1000),
});
export type RackFile = z.infer<typeof rackFileSchema>;
