/** The document: plain data, validated, versioned, open. docs/format.md describes it for readers outside. */
import { z } from 'zod';
import { LENGTH_UNITS } from '../quantity/units.ts';

/** Version of the stored shape; a change of shape raises it and adds a migration in migrations.ts. */
export const DOCUMENT_VERSION = 2;

const finite = z.number().finite();

/** A number in mm or degrees; with a formula where it depends on variables. */
const numberSchema = z.union([finite, z.strictObject({ formula: z.string().max(2000), value: finite })]);
export type Num = z.infer<typeof numberSchema>;

const vectorSchema = z.tuple([numberSchema, numberSchema, numberSchema]);
export type NumVector = z.infer<typeof vectorSchema>;

const idSchema = z.string().regex(/^[a-z0-9]{1,40}$/);
export type ItemId = string;

/** Colours are written #rrggbb, lower case. */
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/);

const step = z.union([z.literal(-1), z.literal(0), z.literal(1)]);
const pointSchema = z.tuple([finite, finite, finite]);
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

/** Own frame: the minimum corner at the origin. */
const boxBase = z.strictObject({ kind: z.literal('box'), size: vectorSchema });
/** Own frame: the centre of the bottom at the origin, the axis along Z. */
const cylinderBase = z.strictObject({
  kind: z.literal('cylinder'),
  diameter: numberSchema,
  height: numberSchema,
});
/** Own frame: the centre at the origin. */
const sphereBase = z.strictObject({ kind: z.literal('sphere'), diameter: numberSchema });
const solidBase = z.discriminatedUnion('kind', [boxBase, cylinderBase, sphereBase]);
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
const baseSchema = z.discriminatedUnion('kind', [
  boxBase,
  cylinderBase,
  sphereBase,
  stretchedBase,
  combineBase,
]);
export type Base = z.infer<typeof baseSchema>;
/** Bases that stand for themselves: no operands, no map. */
export type SolidBase = z.infer<typeof solidBase>;
export type CombineHow = z.infer<typeof combineBase>['how'];

const partSchema = z.strictObject({
  id: idSchema,
  kind: z.literal('part'),
  name: z.string().min(1).max(120),
  /** The part that this one is an operand of, or null at the top. */
  parent: idSchema.nullable(),
  /** Rank among its siblings, ascending. */
  order: finite,
  colour: colourSchema,
  visible: z.boolean(),
  locked: z.boolean(),
  snappable: z.boolean(),
  placement: placementSchema,
  datum: datumSchema,
  recipe: z.strictObject({ base: baseSchema, steps: z.array(z.never()) }),
  /** How it was before it was first resized; what Reset brings back. */
  made: z
    .strictObject({
      base: baseSchema,
      placement: placementSchema,
      datum: datumSchema,
      /** Where its datum stood in its own frame, mm; not told of operands. */
      datumAt: pointSchema.optional(),
    })
    .optional(),
});
export type Part = z.infer<typeof partSchema>;

export const sceneSchema = z.strictObject({
  units: z.enum(LENGTH_UNITS),
  decimals: z.number().int().min(0).max(9),
  trailingZeros: z.boolean(),
  /** Smallest part of an inch shown in `ft-in`. */
  fraction: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16), z.literal(32), z.literal(64)]),
  /** Grid step, mm. */
  grid: finite.positive(),
  /** Angle step, degrees. */
  angleStep: finite.positive().max(360),
  /** What one press of an arrow key moves by, mm. */
  nudge: finite.positive(),
});
export type Scene = z.infer<typeof sceneSchema>;

/** A named point in the world, to snap to or turn about. */
const pinSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1).max(120),
  order: finite,
  at: vectorSchema,
});
export type Pin = z.infer<typeof pinSchema>;

/** How a view looks at the world; core/src/space/camera.ts says what the numbers mean. */
export const viewSchema = z.strictObject({
  target: pointSchema,
  bearing: finite,
  altitude: finite.min(-90).max(90),
  height: finite.positive(),
  projection: z.enum(['perspective', 'parallel']),
});

const shapeSchema = z.strictObject({
  kadrel: z.literal(DOCUMENT_VERSION),
  scene: sceneSchema,
  /** Name → text in the number language. */
  variables: z.record(z.string().max(80), z.string().max(2000)),
  items: z.record(idSchema, partSchema),
  pins: z.record(idSchema, pinSchema),
  /** Name → a view that was kept. */
  views: z.record(z.string().min(1).max(80), viewSchema),
});

/** Also checks what a shape alone cannot: ids, parents and operands agree, and nothing is its own ancestor. */
export const documentSchema = shapeSchema.superRefine((document, context) => {
  const fault = (path: PropertyKey[], message: string) => context.addIssue({ code: 'custom', path, message });
  for (const [id, pin] of Object.entries(document.pins))
    if (pin.id !== id) fault(['pins', id, 'id'], `Pin ${id} calls itself ${pin.id}.`);
  for (const [id, item] of Object.entries(document.items)) {
    if (item.id !== id) fault(['items', id, 'id'], `Item ${id} calls itself ${item.id}.`);
    const { base } = item.recipe;
    const operands = base.kind === 'combine' ? base.operands : [];
    if (new Set(operands).size !== operands.length)
      fault(['items', id, 'recipe'], `${item.name} uses a part twice.`);
    for (const operand of operands)
      if (document.items[operand]?.parent !== id)
        fault(['items', id, 'recipe'], `${item.name} uses ${operand}, which is not below it.`);
    const parent = item.parent === null ? undefined : document.items[item.parent];
    if (item.parent !== null && !usesOperand(parent, id))
      fault(['items', id, 'parent'], `${item.name} stands below a part that does not use it.`);
    let above: Part | undefined = item;
    for (let depth = 0; above?.parent; depth++) {
      above = document.items[above.parent];
      if (depth > 1000 || above === item) {
        fault(['items', id, 'parent'], `${item.name} is below itself.`);
        break;
      }
    }
  }
});
export type KadrelDocument = z.infer<typeof shapeSchema>;

function usesOperand(parent: Part | undefined, id: ItemId): boolean {
  return parent?.recipe.base.kind === 'combine' && parent.recipe.base.operands.includes(id);
}
