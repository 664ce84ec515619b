/** What is measured and kept, and what is wanted between parts. Lengths in mm, angles in degrees. */
import { z } from 'zod';
import { idSchema } from '../recipes/ids.ts';
import { finite, pointSchema, type Valued } from '../recipes/numbers.ts';
import { MATERIAL_LIST } from './materials.ts';
import { inOrder } from './sheet.ts';

const nameSchema = z.string().min(1).max(120);

/** A point of the world, or a part, a member of a pattern, a face, an edge or a point of it by name. */
const targetSchema = z.union([
  z.strictObject({ point: pointSchema }),
  z.strictObject({
    part: idSchema,
    /** A face, `front&top` an edge; the whole where nothing is said. */
    at: z.string().min(1).max(2000).optional(),
    snap: z.string().max(40).optional(),
    /** Of several of that name the nearest to this point; in the frame of its solid. */
    near: pointSchema.optional(),
    member: z.string().max(40).optional(),
    of: idSchema.optional(),
  }),
]);
type TargetKept = z.infer<typeof targetSchema>;
/** What is measured, or fits with another. */
export type Target = Valued<TargetKept>;

/** As a document keeps it. */
export const targetKept = (target: Target): TargetKept => structuredClone(target) as TargetKept;

/** What can be measured, in the words of the sentence. */
export const MEASURED = {
  distance: 'least distance',
  x: 'distance along X',
  y: 'distance along Y',
  z: 'distance along Z',
  along: 'distance along a direction',
  path: 'distance along a path',
  angle: 'angle',
  length: 'length',
  radius: 'radius',
  area: 'area',
  volume: 'volume',
  mass: 'mass',
  thickness: 'thickness',
} as const;
/** One of the things that can be measured. */
export type MeasuredKind = keyof typeof MEASURED;
const MEASURED_LIST = Object.keys(MEASURED) as [MeasuredKind, ...MeasuredKind[]];

/** Those that are said of one thing. */
export const OF_ONE: ReadonlySet<MeasuredKind> = new Set([
  'length',
  'radius',
  'area',
  'volume',
  'mass',
  'thickness',
]);

/** A kept measure as it is stored. */
export const measureSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  what: z.enum(MEASURED_LIST),
  from: targetSchema,
  to: targetSchema.optional(),
  /** Of a distance along a direction: length 1. */
  direction: pointSchema.optional(),
  /** Of a distance along a path: an edge, or a drawn line. */
  path: targetSchema.optional(),
  /** Of a mass. */
  material: z.enum(MATERIAL_LIST).optional(),
  /** What it must be at least, and at most: mm, mm², mm³, degrees or g. */
  least: finite.optional(),
  greatest: finite.optional(),
  /** What it came to when the model last changed; only where a variable is set from it. */
  value: finite.optional(),
});
export type Measure = z.infer<typeof measureSchema>;

/** What may be wanted between two things, in the words of the sentence. */
export const WANTED = {
  clearance: 'clearance',
  contact: 'contact',
  apart: 'no contact',
  coaxial: 'one axis',
  flush: 'flush',
  parallel: 'parallel',
  iso: 'an ISO 286 fit',
} as const;
/** One of the things that may be wanted between two. */
export type WantedKind = keyof typeof WANTED;
const WANTED_LIST = Object.keys(WANTED) as [WantedKind, ...WantedKind[]];

/** A wanted fit as it is stored. */
export const fitSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  kind: z.enum(WANTED_LIST),
  from: targetSchema,
  to: targetSchema,
  /** Of a clearance. */
  least: finite.optional(),
  greatest: finite.optional(),
  /** Of an ISO 286 fit: `H7/g6`. */
  grades: z.string().max(20).optional(),
});
export type Fit = z.infer<typeof fitSchema>;

/** What stands to another as it is on purpose. */
export const meantSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  /** One part, or two. */
  parts: z.array(idSchema).min(1).max(2),
  why: z.string().min(1).max(300),
});
export type Meant = z.infer<typeof meantSchema>;

/** In the order in which they were made. */
export const inOrderMade = <T extends { readonly order: number }>(
  entries: Readonly<Record<string, T>>,
): T[] => inOrder(entries).map(([, entry]) => entry);
