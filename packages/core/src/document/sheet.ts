/** Drawing sheets: views of the model on paper, with dimensions and notes. Places on paper in mm from its lower left corner. */
import { z } from 'zod';
import { idSchema } from '../recipes/ids.ts';
import { finite, pointSchema, type Valued } from '../recipes/numbers.ts';
import type { Geometry } from '../space/geometry.ts';

/** Where a view looks from, by the sides of the world. */
export const STANDARD_LOOKS = ['plan', 'front', 'right', 'left', 'rear', 'below', 'isometric'] as const;
/** One of the sides that a view on a sheet may look from. */
export type StandardLook = (typeof STANDARD_LOOKS)[number];

/** What is on a sheet is few enough to be drawn. */
const MAX_ON_SHEET = 500;
/** No paper is larger than this, mm. */
export const MAX_PAPER_MM = 5000;

const pairSchema = z.tuple([finite, finite]);
const nameSchema = z.string().min(1).max(120);
const few = <T extends z.ZodType>(schema: T) =>
  z
    .record(idSchema, schema)
    .refine((entries) => Object.keys(entries).length <= MAX_ON_SHEET, 'There is too much on one sheet.');

const lookSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('standard'), from: z.enum(STANDARD_LOOKS) }),
  /** A view that is kept with the project, by its name. */
  z.strictObject({ kind: z.literal('kept'), name: z.string().min(1).max(80) }),
  /** What a section plane leaves in sight, with its cut faces. */
  z.strictObject({ kind: z.literal('section'), plane: idSchema }),
  /** A layer of a stacked model: what is cut at a height over a plane, mm, and what is cut at the next one. */
  z.strictObject({
    kind: z.literal('slice'),
    frame: z.strictObject({ origin: pointSchema, turn: pointSchema }),
    height: finite,
    next: finite.nullable(),
    /** Holes through all layers that have room for them: in the frame, mm of the model. */
    dowels: z
      .strictObject({ diameter: finite.positive(), at: z.array(pairSchema).min(1).max(50) })
      .optional(),
  }),
]);
export type Look = z.infer<typeof lookSchema>;

/** A feature of a part by its names; `near` in the frame of its solid, mm. */
const namedSchema = z.strictObject({
  part: idSchema,
  at: z.string().min(1).max(2000),
  snap: z.string().max(40).optional(),
  near: pointSchema.optional(),
  member: z.string().max(40).optional(),
  of: idSchema.optional(),
});

/** What a dimension, a leader or a detail is tied to. */
const tieSchema = z.strictObject({
  /** In the world, mm: where it is, or where it was last where it is given by names. */
  point: pointSchema,
  named: namedSchema.optional(),
});
const sheetViewSchema = z.strictObject({
  name: nameSchema,
  order: finite,
  look: lookSchema,
  /** mm on paper for one mm of the model. */
  scale: finite.positive(),
  /** A point of the world, mm, and where it is drawn: so that what grows stays where it is drawn. */
  anchor: pointSchema,
  at: pairSchema,
  hidden: z.enum(['dashed', 'none']),
  smooth: z.enum(['thin', 'none']),
  /** Crosses in circles that are seen squarely, and lines along the axes of round things that are seen from the side. */
  centres: z.enum(['marked', 'none']),
  /** All that is visible where it says nothing. */
  parts: z.array(idSchema).max(2000).optional(),
  /**
   * Only what lies within so much of the anchor, mm of the model, larger than in the view that it is a detail of. What the anchor is tied
   * to it goes along with.
   */
  detail: z.strictObject({ of: idSchema, radius: finite.positive(), tie: tieSchema.optional() }).optional(),
});
export type SheetView = z.infer<typeof sheetViewSchema>;

/** What a dimension is tied to, without formulas. */
export type Tie = Valued<z.infer<typeof tieSchema>>;

/** What a dimension tells, in the words of the sentence. */
export const DIMENSION_KINDS = {
  along: 'along the points',
  horizontal: 'horizontal',
  vertical: 'vertical',
  radius: 'radius',
  diameter: 'diameter',
  angle: 'angle',
  arc: 'arc length',
  level: 'level',
} as const;
/** One of the kinds of dimensions. */
export type DimensionKind = keyof typeof DIMENSION_KINDS;
const DIMENSION_KIND_LIST = Object.keys(DIMENSION_KINDS) as [DimensionKind, ...DimensionKind[]];

const dimensionSchema = z.strictObject({
  name: nameSchema,
  order: finite,
  /** The view that it stands in. */
  view: idSchema,
  kind: z.enum(DIMENSION_KIND_LIST),
  ties: z.array(tieSchema).min(1).max(50),
  /** Of several points: each from the one before, or each from the first. */
  run: z.enum(['chained', 'running']),
  /** On paper, mm: from the outermost of its points, to the left of the way from the first to the last where more than 0. Of an angle, the radius;
   *  of an arc, from the arc outwards; of a level, how far to the right its mark stands. */
  offset: finite,
  /** Of a radius or a diameter: where its leader goes, degrees from the right of the paper. */
  bearing: finite,
  /** Instead of the number; a mark says so. */
  words: z.string().max(120),
  /** After the number: a tolerance, or a fit. */
  suffix: z.string().max(40),
});
export type Dimension = z.infer<typeof dimensionSchema>;

const noteSchema = z.strictObject({
  name: nameSchema,
  order: finite,
  at: pairSchema,
  text: z.string().min(1).max(500),
  /** Height of its capitals, mm. */
  height: finite.positive().max(100),
  /** Where its leader points, in a view. */
  leader: z.strictObject({ view: idSchema, tie: tieSchema }).optional(),
  /** Drawn about its place: an arrow to the north of a view, by its bearing clockwise from the world’s Y, degrees. */
  north: z.strictObject({ view: idSchema, bearing: finite }).optional(),
});
export type SheetNote = z.infer<typeof noteSchema>;

/** What a person may write into the title block, by what it is called there. */
export const TITLE_FIELDS = {
  title: 'Title',
  number: 'Drawing number',
  author: 'Drawn by',
  date: 'Date',
  remarks: 'Remarks',
} as const;
/** One of the fields of a title block. */
export type TitleField = keyof typeof TITLE_FIELDS;
const titleText = z.string().max(120);

/** Widths of visible lines, mm; smooth, hidden and thin ones are half as wide, cut ones twice. Source: ISO 128-2, from memory. */
export const LINE_WIDTHS = ['0.25', '0.35', '0.5', '0.7'] as const;

/** A drawing sheet as it is stored. */
export const sheetSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  paper: z.strictObject({
    width: finite.positive().max(MAX_PAPER_MM),
    height: finite.positive().max(MAX_PAPER_MM),
  }),
  /** Which way views are arranged: the plan below the front view, or above it. */
  arrangement: z.enum(['first', 'third']),
  lines: z.enum(LINE_WIDTHS),
  title: z.strictObject({
    title: titleText,
    number: titleText,
    author: titleText,
    date: titleText,
    remarks: titleText,
  }),
  partsList: z.boolean(),
  /** Sheets that are cut up have neither frame nor title block. */
  border: z.enum(['titled', 'none']),
  views: few(sheetViewSchema),
  dimensions: few(dimensionSchema),
  notes: few(noteSchema),
});
export type Sheet = z.infer<typeof sheetSchema>;

/** What may stand on a sheet. */
export const ENTRY_KINDS = ['views', 'dimensions', 'notes'] as const;
/** Views, dimensions, or notes. */
export type EntryKind = (typeof ENTRY_KINDS)[number];

/** Something that stands on a sheet. */
export interface SheetEntry {
  readonly kind: EntryKind;
  readonly id: string;
}

/** A tie with what it is now, in the world. */
export interface TieRead {
  readonly tie: Tie;
  readonly geometry: Geometry;
}

interface HasOrder {
  readonly order: number;
}

/** Entries by id, in the order in which they were made. */
export const inOrder = <T extends HasOrder>(entries: Readonly<Record<string, T>>): [id: string, entry: T][] =>
  Object.entries(entries).sort(([a, x], [b, y]) => x.order - y.order || (a < b ? -1 : 1));

/** The sheets of a document in the order in which they were made. */
export const sheetsOf = ({ sheets }: { readonly sheets: Readonly<Record<string, Sheet>> }): Sheet[] =>
  inOrder(sheets).map(([, sheet]) => sheet);

/** By name; failing that by id. */
export const sheetNamed = (
  document: { readonly sheets: Readonly<Record<string, Sheet>> },
  name: string,
): Sheet | undefined =>
  Object.values(document.sheets).find((sheet) => sheet.name === name) ??
  (Object.hasOwn(document.sheets, name) ? document.sheets[name] : undefined);

/** What hangs in the air on a sheet: dimensions and leaders of views that are not there. */
export function sheetFaults({ id, views, dimensions, notes }: Sheet): { path: string[]; message: string }[] {
  const isGone = (view: string) => !Object.hasOwn(views, view);
  const loose = Object.entries(dimensions).filter(([, { view }]) => isGone(view));
  const leading = Object.entries(notes).filter(([, { leader, north }]) =>
    [leader, north].some((one) => one && isGone(one.view)),
  );
  const details = Object.entries(views).filter(([, { detail }]) => detail && isGone(detail.of));
  return [
    ...details.map(([key, { name }]) => ({
      path: ['sheets', id, 'views', key],
      message: `${name} is a detail of no view.`,
    })),
    ...loose.map(([key, { name }]) => ({
      path: ['sheets', id, 'dimensions', key],
      message: `${name} is in no view.`,
    })),
    ...leading.map(([key, { name }]) => ({
      path: ['sheets', id, 'notes', key],
      message: `${name} points into no view.`,
    })),
  ];
}
