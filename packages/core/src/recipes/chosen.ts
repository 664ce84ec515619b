/** Which faces and edges of a solid a step is about: by their names, or by a rule that outlives a change of size. */
import { z } from 'zod';
import { pointSchema, type Valued } from './numbers.ts';

/** What may be chosen of a solid, several at once: types of fields, and of the blanks that set them. */
export const CHOSEN_TYPES = ['edges', 'faces', 'places'] as const;
/** One of the types of blanks that faces, edges and corners are gathered in. */
export type ChosenType = (typeof CHOSEN_TYPES)[number];
/** Whether faces, edges or corners are gathered in a blank of this type. */
export const isChosenType = (type: string): type is ChosenType =>
  (CHOSEN_TYPES as readonly string[]).includes(type);

/** A name as the kernel gives it: faces that became one are joined by +, faces that meet in an edge by &. */
const nameSchema = z.string().min(1).max(2000);

/** What rules are called, in words that follow “all edges” or stand for them. */
export const EDGE_RULES = {
  all: 'all edges',
  outward: 'all outward edges',
  inward: 'all inward edges',
  x: 'all edges along X',
  y: 'all edges along Y',
  z: 'all edges along Z',
  met: 'all edges where parts met',
} as const;
/** One of the rules that say which edges are meant. */
export type EdgeRule = keyof typeof EDGE_RULES;

/**
 * `edge` is where two faces meet; of several edges of that name the one nearest to `near` (mm, in the part’s own frame), or all.
 * `around` is a face, and means all edges of it. `from` is an edge like `edge`, and means all that run on from it without a bend too. Smooth edges, along which faces go on into each other, are never meant.
 */
const chosenEdgeSchema = z.union([
  z.strictObject({ edge: nameSchema, near: pointSchema.optional() }),
  z.strictObject({ around: nameSchema }),
  z.strictObject({ from: nameSchema, near: pointSchema.optional() }),
  z.strictObject({ rule: z.enum(Object.keys(EDGE_RULES) as [EdgeRule, ...EdgeRule[]]) }),
]);
/** Of several faces of that name the one nearest to `near` (mm, in the part’s own frame), or all. */
const chosenFaceSchema = z.strictObject({ face: nameSchema, near: pointSchema.optional() });

/** A face by its name, an edge by two names, a corner by three or more, joined by &; of several the one nearest to `near`, or all. */
const chosenPlaceSchema = z.strictObject({ at: nameSchema, near: pointSchema.optional() });

/** More are chosen by a rule. */
const MAX_CHOSEN = 1000;
/** Edges of a step, as they are stored. */
export const chosenEdgesSchema = z.array(chosenEdgeSchema).max(MAX_CHOSEN);
/** Faces, edges and corners of a step, as they are stored. */
export const chosenPlacesSchema = z.array(chosenPlaceSchema).max(MAX_CHOSEN);
/** Faces of a step, as they are stored. */
export const chosenFacesSchema = z.array(chosenFaceSchema).max(MAX_CHOSEN);

/** An edge by name, or a rule for edges. */
export type ChosenEdge = Valued<z.infer<typeof chosenEdgeSchema>>;
/** A face, an edge or a corner by name. */
export type ChosenPlace = Valued<z.infer<typeof chosenPlaceSchema>>;
/** A face by name. */
export type ChosenFace = Valued<z.infer<typeof chosenFaceSchema>>;
