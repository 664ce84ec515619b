/** Items of a document: parts, patterns, groups, profiles and planes. Plain data. */
import { z } from 'zod';
import { idSchema, type ItemId } from '../recipes/ids.ts';
import { solidBase } from '../recipes/primitives/index.ts';
import { stepSchema } from '../recipes/steps/index.ts';
import { layoutSchema, memberKeySchema } from '../recipes/layouts/index.ts';
import { bodyBases } from '../recipes/bodies/index.ts';
import { finite, numberSchema, pointSchema, vectorSchema } from '../recipes/numbers.ts';
import { docksSchema } from './dock.ts';

/** How cut faces are drawn: hatched, or filled. */
export const CUT_FILLS = ['hatched', 'plain'] as const;
export type CutFill = (typeof CUT_FILLS)[number];

/** Where within its layer a slice is cut. */
export const LAYER_PLACES = ['bottom', 'middle', 'top'] as const;
export type LayerPlace = (typeof LAYER_PLACES)[number];

/** Colours are written #rrggbb, lower case. */
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/);

const step = z.union([z.literal(-1), z.literal(0), z.literal(1)]);
/**
 * The point of a part that its X, Y, Z refer to: its own origin, one of the 27 points of its box in its own frame, or
 * any point of its own frame, mm.
 */
const datumSchema = z.union([
  z.literal('own'),
  z.tuple([step, step, step]),
  z.strictObject({ point: pointSchema }),
]);
export type Datum = z.infer<typeof datumSchema>;

const placementSchema = z.strictObject({
  /** Where the part's own origin stands in its parent, mm. */
  origin: vectorSchema,
  /** Degrees about the parent's X, then Y, then Z. */
  turn: vectorSchema,
});
export type Placement = z.infer<typeof placementSchema>;

/** A plain solid under a linear map of its own frame, where no plain solid has that form: an elliptic cylinder, say. */
const stretchedBase = z.strictObject({
  kind: z.literal('stretched'),
  of: solidBase,
  /** Nine numbers row by row, with a positive determinant. */
  by: z.array(finite).length(9),
});
/** Operands are items whose parent is this part; the first of a subtraction is what the others are taken from. */
const combineBase = z.strictObject({
  kind: z.literal('combine'),
  how: z.enum(['union', 'subtract', 'intersect']),
  operands: z.array(idSchema).min(1),
});
/** Sources are items whose parent is this one; each member consists of all of them. Members are computed, not stored. */
const patternBase = z.strictObject({
  kind: z.literal('pattern'),
  sources: z.array(idSchema).min(1),
  layout: layoutSchema,
  /** Members that are left out. */
  omitted: z.array(memberKeySchema),
});
export type PatternBase = z.infer<typeof patternBase>;

/** Members are items whose parent is this one; each stands for itself. */
const groupBase = z.strictObject({ kind: z.literal('group'), members: z.array(idSchema).min(1) });

/** Has the recipe of another part, whatever that becomes. */
const linkBase = z.strictObject({
  kind: z.literal('link'),
  to: idSchema,
  /** It is the other half of what that was split into. */
  half: z.literal(true).optional(),
});

const baseSchema = z.discriminatedUnion('kind', [
  ...solidBase.options,
  stretchedBase,
  combineBase,
  patternBase,
  groupBase,
  linkBase,
  ...bodyBases,
]);
export type Base = z.infer<typeof baseSchema>;
export type CombineHow = z.infer<typeof combineBase>['how'];

/** What was taken from a rack, on the item that stands for all of it. */
const takenSchema = z.strictObject({
  /** In the document's own copies of rack parts. */
  from: idSchema,
  /** Parameter → mm, degrees or a count; with a formula where it follows variables. */
  values: z.record(z.string().max(80), numberSchema),
  /** The standard size that was chosen. */
  size: z.string().max(80).optional(),
  /** A newer version on the rack is offered. */
  follows: z.literal(true).optional(),
  /** Items of the rack part → items of the document. */
  items: z.record(idSchema, idSchema),
});
export type Taken = z.infer<typeof takenSchema>;

/** A frame of the world: nine numbers of its turn row by row, and where its origin stands, mm. */
const frameSchema = z.strictObject({ turn: z.array(finite).length(9), shift: pointSchema });

/** What a profile, or a group of slices, is cut from: its curves follow that. */
const tracedSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('section'),
    /** The section plane, and the standing item whose cut it is. */
    section: idSchema,
    through: idSchema,
    /** Nothing is cut there now: the curves are those of the last cut. */
    lost: z.literal(true).optional(),
  }),
  z.strictObject({
    by: z.literal('slices'),
    parts: z.array(idSchema).min(1),
    plane: frameSchema,
    /** From one to the next, mm; or how many over the whole height. */
    pitch: z.number().positive().optional(),
    count: z.number().int().positive().optional(),
    at: z.enum(LAYER_PLACES),
    /** Heights over the plane, mm, and the profile of each; null where nothing is cut. */
    layers: z.array(z.strictObject({ height: finite, item: idSchema.nullable() })),
    lost: z.literal(true).optional(),
  }),
]);
export type Traced = z.infer<typeof tracedSchema>;
export type TracedOf<K extends Traced['by']> = Extract<Traced, { by: K }>;

/** An item as it is stored: a part, a pattern, a group, a profile or a plane. */
export const partSchema = z.strictObject({
  id: idSchema,
  kind: z.literal('part'),
  name: z.string().min(1).max(120),
  /** What this one is an operand, a source or a member of, or null at the top. */
  parent: idSchema.nullable(),
  /** Rank among its siblings, ascending. */
  order: finite,
  colour: colourSchema,
  visible: z.boolean(),
  locked: z.boolean(),
  snappable: z.boolean(),
  /** How its cut faces are drawn, where that is not left to the section plane. */
  cutFill: z.enum(CUT_FILLS).optional(),
  placement: placementSchema,
  datum: datumSchema,
  recipe: z.strictObject({ base: baseSchema, steps: z.array(stepSchema) }),
  /** What of a rack it was made from; the numbers of its recipe follow from that. */
  taken: takenSchema.optional(),
  /** Its joining places. */
  docks: docksSchema.optional(),
  /** Of a profile, or of a group of slices. */
  traced: tracedSchema.optional(),
  /** Of profiles, and of groups of them: the plane over which their heights are shown beside them. */
  heights: frameSchema.optional(),
  /** How it was before it was first resized; what Reset brings back. */
  made: z
    .strictObject({
      base: baseSchema,
      placement: placementSchema,
      datum: datumSchema,
      /** Where its datum stood in its own frame, mm; not said of operands. */
      datumAt: pointSchema.optional(),
      docks: docksSchema.optional(),
    })
    .optional(),
});

export type Part = z.infer<typeof partSchema>;

/** Ids of what a part is made from, in order: operands, sources, or members of a group. None for a plain solid. */
export function childrenOf({ recipe: { base } }: Part): readonly ItemId[] {
  switch (base.kind) {
    case 'combine':
      return base.operands;
    case 'pattern':
      return base.sources;
    case 'group':
      return base.members;
    default:
      return [];
  }
}
