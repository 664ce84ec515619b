/** The document: plain data, validated, versioned, open. docs/format.md describes it for readers outside. */
import { z } from 'zod';
import { idSchema, type ItemId } from '../recipes/ids.ts';
import type { SolidBase } from '../recipes/primitives/index.ts';
import { isFlat, referencesIn, toolsIn } from '../recipes/bodies/index.ts';
import { jointSchema } from './dock.ts';
import { childrenOf, partSchema, type Part } from './part.ts';
import { rackPartSchema } from './rack.ts';
import { fitSchema, meantSchema, measureSchema } from './fit.ts';
import { pinSchema, sceneSchema, viewSchema } from './scene.ts';
import { sheetFaults, sheetSchema } from './sheet.ts';

export type { Num, NumVector } from '../recipes/numbers.ts';
export { pinSchema, sceneSchema, viewSchema, type Pin, type Scene } from './scene.ts';
export {
  CUT_FILLS,
  LAYER_PLACES,
  childrenOf,
  colourSchema,
  partSchema,
  type Base,
  type CombineHow,
  type CutFill,
  type Datum,
  type LayerPlace,
  type Part,
  type PatternBase,
  type Placement,
  type Taken,
  type Traced,
  type TracedOf,
} from './part.ts';
export type { ItemId, SolidBase };

/** Version of the stored shape; a change of shape raises it and adds a migration in migrations.ts. */
export const DOCUMENT_VERSION = 18;

/** Name → text in the number language. */
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
  /** Copies of the rack parts that something was taken from. */
  rackParts: z.record(idSchema, rackPartSchema),
});

/** Also checks what a shape alone cannot: ids, parents and operands agree, and nothing is its own ancestor. */
export const documentSchema = shapeSchema.superRefine((document, context) => {
  for (const { path, message } of joinFaults(document))
    context.addIssue({ code: 'custom', path: [...path], message });
});
export type KadrelDocument = z.infer<typeof shapeSchema>;

/** What does not hang together in a document whose shape is right. Costs in proportion to its size. */
export interface JoinFault {
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

/** What does not hang together: ids, parents, operands, links and references. */
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
const MAX_NESTED = 1000;

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
    if (isRing || depth + trail.length > MAX_NESTED) found.push(item);
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
