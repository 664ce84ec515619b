/** The document: plain data, validated, versioned, open. docs/format.md describes it for readers outside. */
import { z } from 'zod';
import { idSchema, type ItemId } from '../recipes/ids.ts';
import { solidBase, type SolidBase } from '../recipes/primitives/index.ts';
import { stepSchema } from '../recipes/steps/index.ts';
import { layoutSchema, memberKeySchema } from '../recipes/layouts/index.ts';
import { bodyBases, isFlat, referencesIn, toolsIn } from '../recipes/bodies/index.ts';
import { finite, pointSchema, vectorSchema } from '../recipes/numbers.ts';
import { docksSchema, jointSchema } from './dock.ts';
import { fitSchema, meantSchema, measureSchema } from './fit.ts';
import { pinSchema, sceneSchema, viewSchema } from './scene.ts';
import { sheetFaults, sheetSchema } from './sheet.ts';

export type { Num, NumVector } from '../recipes/numbers.ts';
export { pinSchema, sceneSchema, viewSchema, type Pin, type Scene } from './scene.ts';
export type { ItemId, SolidBase };

/** Version of the stored shape; a change of shape raises it and adds a migration in migrations.ts. */
export const DOCUMENT_VERSION = 11;

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
  placement: placementSchema,
  datum: datumSchema,
  recipe: z.strictObject({ base: baseSchema, steps: z.array(stepSchema) }),
  /** Its joining places. */
  docks: docksSchema.optional(),
  /** How it was before it was first resized; what Reset brings back. */
  made: z
    .strictObject({
      base: baseSchema,
      placement: placementSchema,
      datum: datumSchema,
      /** Where its datum stood in its own frame, mm; not told of operands. */
      datumAt: pointSchema.optional(),
      docks: docksSchema.optional(),
    })
    .optional(),
});
export type Part = z.infer<typeof partSchema>;

export const variablesSchema = z.record(z.string().max(80), z.string().max(2000));
/** Name → a view that was kept. */
export const viewsSchema = z.record(z.string().min(1).max(80), viewSchema);

const shapeSchema = z.strictObject({
  kadrel: z.literal(DOCUMENT_VERSION),
  scene: sceneSchema,
  /** Name → text in the number language. */
  variables: variablesSchema,
  items: z.record(idSchema, partSchema),
  pins: z.record(idSchema, pinSchema),
  views: viewsSchema,
  sheets: z.record(idSchema, sheetSchema),
  measures: z.record(idSchema, measureSchema),
  /** What is wanted between parts. */
  fits: z.record(idSchema, fitSchema),
  meant: z.record(idSchema, meantSchema),
  /** Which docks are joined. */
  joints: z.record(idSchema, jointSchema),
});

/** Also checks what a shape alone cannot: ids, parents and operands agree, and nothing is its own ancestor. */
export const documentSchema = shapeSchema.superRefine((document, context) => {
  for (const { path, message } of joinFaults(document))
    context.addIssue({ code: 'custom', path: [...path], message });
});
export type KadrelDocument = z.infer<typeof shapeSchema>;

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

/** What does not hang together in a document whose shape is right. Costs in proportion to its size. */
export interface JoinFault {
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

export function joinFaults(document: KadrelDocument): JoinFault[] {
  const { items, pins } = document;
  const names = Object.entries(pins).flatMap(([id, pin]) =>
    pin.id === id ? [] : [{ path: ['pins', id, 'id'], message: `Pin ${id} calls itself ${pin.id}.` }],
  );
  const own = Object.entries(items).flatMap(([id, item]) => [
    ...(item.id === id
      ? []
      : [{ path: ['items', id, 'id'], message: `Item ${id} calls itself ${item.id}.` }]),
    ...recipeFaults(items, item).map((message) => ({ path: ['items', id, 'recipe'], message })),
    ...parentFaults(items, item).map((message) => ({ path: ['items', id, 'parent'], message })),
    ...Object.entries(item.docks ?? {}).flatMap(([key, dock]) =>
      dock.id === key
        ? []
        : [{ path: ['items', id, 'docks', key], message: `Dock ${key} calls itself ${dock.id}.` }],
    ),
  ]);
  const rings = [
    ...madeFromThemselves(items).map(({ id, name }) => ({
      path: ['items', id, 'recipe'],
      message: `${name} is made from itself.`,
    })),
    ...belowThemselves(items).map(({ id, name }) => ({
      path: ['items', id, 'parent'],
      message: `${name} is below itself.`,
    })),
  ];
  return [...names, ...own, ...rings, ...sheetJoinFaults(document), ...checkJoinFaults(document)];
}

const sheetJoinFaults = ({ sheets }: KadrelDocument): JoinFault[] =>
  Object.entries(sheets).flatMap(([id, sheet]) => [
    ...(sheet.id === id
      ? []
      : [{ path: ['sheets', id, 'id'], message: `Sheet ${id} calls itself ${sheet.id}.` }]),
    ...sheetFaults(sheet),
  ]);

/** Entries of these go by their own ids. */
const checkJoinFaults = (document: KadrelDocument): JoinFault[] =>
  (['measures', 'fits', 'meant', 'joints'] as const).flatMap((root) =>
    Object.entries<{ readonly id: string }>(document[root]).flatMap(([id, entry]) =>
      entry.id === id ? [] : [{ path: [root, id, 'id'], message: `${root}.${id} calls itself ${entry.id}.` }],
    ),
  );

type Items = Readonly<Record<ItemId, Part>>;

function recipeFaults(items: Items, item: Part): string[] {
  const { base } = item.recipe;
  const below = childrenOf(item);
  const linked = base.kind === 'link' ? items[base.to] : undefined;
  return [
    ...(new Set(below).size === below.length ? [] : [`${item.name} uses a part twice.`]),
    ...below
      .filter((child) => items[child]?.parent !== item.id)
      .map((child) => `${item.name} uses ${child}, which is not below it.`),
    ...(base.kind === 'link' && !linked ? [`${item.name} is linked to ${base.to}, which is not there.`] : []),
    ...(linked?.recipe.base.kind === 'link' ? [`${item.name} is linked to a link.`] : []),
    ...referencesIn(item.recipe)
      .filter((profile) => items[profile]?.recipe.base.kind !== 'profile')
      .map((profile) => `${item.name} is made from ${profile}, which is no profile.`),
    ...toolsIn(item.recipe)
      .filter((tool) => !items[tool] || isFlat(items[tool].recipe.base))
      .map((tool) => `${item.name} is made with ${tool}, which is not a solid or a surface.`),
  ];
}

/** Of all parents together the children are looked at once each; of one parent they are kept, so that many stay quick. */
function parentFaults(items: Items, item: Part): string[] {
  if (item.parent === null) return [];
  const parent = items[item.parent];
  return parent && childSet(parent).has(item.id)
    ? []
    : [`${item.name} stands below a part that does not use it.`];
}

const childSets = new WeakMap<Part, ReadonlySet<ItemId>>();
function childSet(parent: Part): ReadonlySet<ItemId> {
  const known = childSets.get(parent);
  if (known) return known;
  const made = new Set(childrenOf(parent));
  childSets.set(parent, made);
  return made;
}

/** Parts that are nested deeper than this could not be built. */
const MOST_NESTED = 1000;

function belowThemselves(items: Items): Part[] {
  const depths = new Map<ItemId, number>();
  const found: Part[] = [];
  for (const item of Object.values(items)) {
    const trail: Part[] = [];
    const passed = new Set<ItemId>();
    let above: Part | undefined = item;
    while (above && !depths.has(above.id) && !passed.has(above.id)) {
      passed.add(above.id);
      trail.push(above);
      above = above.parent === null ? undefined : items[above.parent];
    }
    const isRing = above !== undefined && passed.has(above.id);
    let depth = above && !isRing ? depths.get(above.id)! + 1 : 0;
    if (isRing || depth + trail.length > MOST_NESTED) found.push(item);
    for (const one of trail.reverse()) depths.set(one.id, depth++);
  }
  return found;
}

/** Links that belong to what they are linked to, and parts that are cut by, or joined with, what is made from them, however far down. */
export function madeFromThemselves(items: Items): Part[] {
  const inner = new Map(
    Object.values(items).map((item) => {
      const { base } = item.recipe;
      const from = base.kind === 'link' ? [base.to] : childrenOf(item);
      return [item.id, [...from, ...toolsIn(item.recipe)].filter((id) => items[id])] as const;
    }),
  );
  const outer = new Map<ItemId, ItemId[]>();
  for (const [id, from] of inner)
    for (const one of from) {
      const users = outer.get(one);
      if (users) users.push(id);
      else outer.set(one, [id]);
    }
  const usersOf = (id: ItemId) => outer.get(id) ?? [];
  // What is made from nothing, or from such parts only, is in no ring; nor is what nothing is made from. What is left is.
  const left = withoutEnds(new Set(inner.keys()), (id) => inner.get(id)!, usersOf);
  const rings = withoutEnds(left, usersOf, (id) => inner.get(id)!);
  return [...rings]
    .map((id) => items[id]!)
    .filter(({ recipe }) => recipe.base.kind === 'link' || toolsIn(recipe).length > 0);
}

/** Takes away what leads to nothing that is left, until nothing more goes. Source: A. B. Kahn, 1962. */
function withoutEnds(
  all: ReadonlySet<ItemId>,
  leads: (id: ItemId) => readonly ItemId[],
  back: (id: ItemId) => readonly ItemId[],
): Set<ItemId> {
  const left = new Set(all);
  const open = new Map([...all].map((id) => [id, leads(id).filter((one) => all.has(one)).length]));
  const ends = [...all].filter((id) => open.get(id) === 0);
  for (let id = ends.pop(); id !== undefined; id = ends.pop()) {
    left.delete(id);
    for (const one of back(id)) {
      if (!left.has(one)) continue;
      open.set(one, open.get(one)! - 1);
      if (open.get(one) === 0) ends.push(one);
    }
  }
  return left;
}
