/** Which parts are like others: by what they are, by size, by colour; and which lie exactly on one another. */
import { below, definitionOf, visibleParts } from '../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { boxSize, type Box } from '../space/box.ts';
import { distance, type Vec3 } from '../space/vector.ts';

/** In what parts may be alike, in words. */
export const LIKENESSES = {
  kind: 'Same kind',
  recipe: 'Same recipe',
  size: 'Same size',
  colour: 'Same colour',
} as const;
/** One of the ways in which parts may be alike. */
export type Likeness = keyof typeof LIKENESSES;

/** Sizes nearer than this (mm) are the same. */
const SAME_SIZE_MM = 1e-6;

/** Visible parts at the top that are like any of the given ones, these among them. */
export function partsLike(
  document: KadrelDocument,
  seeds: readonly ItemId[],
  how: Likeness,
  boxOf: (part: ItemId) => Box | undefined,
): ItemId[] {
  const given = seeds.flatMap((id) => document.items[id] ?? []);
  return shown(document)
    .filter((part) => given.some((seed) => isLike({ document, how, boxOf }, part, seed)))
    .map(({ id }) => id);
}

function isLike(
  {
    document,
    how,
    boxOf,
  }: {
    readonly document: KadrelDocument;
    readonly how: Likeness;
    readonly boxOf: (part: ItemId) => Box | undefined;
  },
  part: Part,
  seed: Part,
): boolean {
  switch (how) {
    case 'colour':
      return part.colour === seed.colour;
    case 'kind':
      return kindOf(document, part) === kindOf(document, seed);
    case 'recipe':
      return recipeOf(document, part) === recipeOf(document, seed);
    case 'size': {
      const [a, b] = [boxOf(part.id), boxOf(seed.id)];
      if (!a || !b) return false;
      // The same size however they are turned: the three extents in order.
      const [x, y] = [a, b].map((box) => [...boxSize(box)].sort((m, n) => m - n)) as [number[], number[]];
      return x.every((n, i) => Math.abs(n - y[i]!) <= SAME_SIZE_MM);
    }
  }
}

function kindOf(document: KadrelDocument, part: Part): string {
  const { base } = definitionOf(document, part).recipe;
  if (base.kind === 'combine') return base.how;
  return base.kind === 'pattern' ? base.layout.kind : base.kind === 'stretched' ? base.of.kind : base.kind;
}

/** What a part is made of, without names and ids: what is below it by what that is, and where. */
function recipeOf(document: KadrelDocument, part: Part): string {
  const definition = definitionOf(document, part);
  const { base } = definition.recipe;
  const children = below(document, definition).map((child) => [recipeOf(document, child), child.placement]);
  if (base.kind === 'combine') return JSON.stringify([base.how, children]);
  if (base.kind === 'pattern') return JSON.stringify([base.layout, base.omitted, children]);
  return JSON.stringify(base.kind === 'group' ? children : base);
}

/** Visible parts at the top whose names hold a text; case and accents do not count. */
export function partsNamed(document: KadrelDocument, text: string): ItemId[] {
  const plain = (name: string) => name.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();
  const wanted = plain(text.trim());
  if (wanted === '') return [];
  return shown(document)
    .filter(({ name }) => plain(name).includes(wanted))
    .map(({ id }) => id);
}

/** The visible parts at the top that are not selected. */
export const partsLeftOut = (document: KadrelDocument, selection: readonly ItemId[]): ItemId[] =>
  shown(document).flatMap(({ id }) => (selection.includes(id) ? [] : [id]));

const shown = visibleParts;

/** What tells solids apart, in the world. */
export interface Likely {
  readonly part: ItemId;
  /** Of a pattern, which member. */
  readonly member?: string;
  /** mm³ */
  readonly volume: number;
  readonly centroid: Vec3;
  /** Asked for only where the rest agrees. */
  readonly box: () => Box;
}

/** Solids whose volume, centre of mass and box agree to this (mm; parts of the volume) lie on one another. */
const SAME_PLACE_MM = 1e-6;
const SAME_VOLUME = 1e-9;

/** Finds solids that lie exactly on each other, one after another, so that it can be done a few at a time. */
export class DoubleFinder {
  private readonly groups: Likely[][] = [];
  private readonly byPlace = new Map<string, Likely[][]>();

  add(one: Likely): void {
    // The same place in a coarse lattice; who stands near a border of it is looked for on both sides.
    const cells = [-0.25, 0.25].map((off) => one.centroid.map((n) => Math.round(n / 1e-3 + off)).join(' '));
    const near = cells.flatMap((cell) => this.byPlace.get(cell) ?? []);
    const group = near.find(([first]) => isDouble(first!, one));
    if (group) {
      group.push(one);
      return;
    }
    const made = [one];
    this.groups.push(made);
    for (const cell of new Set(cells)) this.byPlace.set(cell, [...(this.byPlace.get(cell) ?? []), made]);
  }

  /** Groups of two or more, in the order in which they were added. */
  found(): Likely[][] {
    return this.groups.filter(({ length }) => length > 1);
  }
}

function isDouble(a: Likely, b: Likely): boolean {
  if (Math.abs(a.volume - b.volume) > SAME_VOLUME * Math.max(a.volume, b.volume)) return false;
  if (distance(a.centroid, b.centroid) > SAME_PLACE_MM) return false;
  const [p, q] = [a.box(), b.box()];
  return distance(p.min, q.min) <= SAME_PLACE_MM && distance(p.max, q.max) <= SAME_PLACE_MM;
}
