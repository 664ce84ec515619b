/**
 * What section planes take out of sight. Each cut takes away what lies within all of its half spaces at once: one for a half, two
 * for a quarter; a slab is two cuts. So what a cut takes away is convex, and what stays need not be.
 */
import { isFlatPart, standingWithin, topParts, valueOf, worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { SECTION_VIEWS, type BodyOf, type SectionView } from '../recipes/bodies/index.ts';
import type { Box } from '../space/box.ts';
import type { Ray } from '../space/plane.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
import { along, dot, scale, type Vec3 } from '../space/vector.ts';

/** Where normal · p is more than `offset`, mm; in the world. */
export interface HalfSpace {
  readonly normal: Vec3;
  readonly offset: number;
  /** A direction within its plane, from which hatches are turned. */
  readonly across: Vec3;
}

/** A section plane as the views need it. */
export interface Cut {
  readonly section: ItemId;
  readonly halves: readonly HalfSpace[];
  /** Items that it leaves whole. */
  readonly whole: ReadonlySet<ItemId>;
  readonly isHatched: boolean;
  /** Between the lines of the hatch, mm; 0 for alike on the screen. */
  readonly spacing: number;
}

type SectionBase = BodyOf<'section'>;
type SectionPart = Part & { readonly recipe: { readonly base: SectionBase } };

/** Whether an item is a section plane. */
export const isSection = (part: Part): part is SectionPart => part.recipe.base.kind === 'section';

/** The section planes that are on, in the order of the tree. */
export const sectionsIn = (document: KadrelDocument): SectionPart[] =>
  topParts(document).flatMap((part) =>
    standingWithin(document, part, ({ visible }) => visible).filter(isSection),
  );

/** Where a section plane cuts, as the document says. */
export const viewsOf = (base: SectionBase): SectionView[] =>
  SECTION_VIEWS.filter((view) => base[view] !== false);

/** Cuts that one view can draw; a slab counts as two. */
export const MAX_CUTS = 16;

/** The section planes of a view: those that cut it, and those that are too many. */
export function cuttersOf(
  document: KadrelDocument,
  view: SectionView,
): { readonly cutting: readonly SectionPart[]; readonly leftOut: readonly SectionPart[] } {
  const [cutting, leftOut]: [SectionPart[], SectionPart[]] = [[], []];
  let count = 0;
  for (const section of sectionsIn(document)) {
    const { base } = section.recipe;
    if (!viewsOf(base).includes(view)) continue;
    const own = base.form === 'slab' ? 2 : 1;
    const doesFit = count + own <= MAX_CUTS;
    if (doesFit) count += own;
    (doesFit ? cutting : leftOut).push(section);
  }
  return { cutting, leftOut };
}

/** What is cut in a view. @param poseOf where a section stands, while it is dragged */
export const cutsIn = (
  document: KadrelDocument,
  view: SectionView,
  poseOf: (id: ItemId) => Pose = (id) => worldFromPart(document, id),
): Cut[] => cuttersOf(document, view).cutting.flatMap((part) => cutsOf(part, poseOf(part.id)));

/** The cuts of one section plane at a place. */
export function cutsOf({ id, recipe: { base } }: SectionPart, pose: Pose): Cut[] {
  const side = base.shows === 'behind' ? 1 : -1;
  const [x, z] = [column(pose.turn, 0), column(pose.turn, 2)];
  const before = halfSpace(pose.shift, scale(z, side), x);
  const common = {
    section: id,
    whole: new Set(base.whole ?? []),
    isHatched: base.fill === 'hatched',
    spacing: valueOf(base.spacing),
  };
  if (base.form === 'corner')
    return [{ ...common, halves: [before, halfSpace(pose.shift, x, column(pose.turn, 1))] }];
  if (base.form === 'half') return [{ ...common, halves: [before] }];
  const end = along(pose.shift, z, -side * valueOf(base.depth));
  return [
    { ...common, halves: [before] },
    { ...common, halves: [halfSpace(end, scale(z, -side), x)] },
  ];
}

const halfSpace = (at: Vec3, normal: Vec3, across: Vec3): HalfSpace => ({
  normal,
  offset: dot(normal, at),
  across,
});

/** Of the solids that a section cuts: visible ones that it does not leave whole. */
export function itemsCutBy(document: KadrelDocument, { recipe: { base } }: SectionPart): Part[] {
  const whole = new Set(base.whole ?? []);
  const isCut = (part: Part) => part.visible && !whole.has(part.id);
  return topParts(document)
    .flatMap((part) => standingWithin(document, part, isCut))
    .filter((part) => !isFlatPart(document, part));
}

/** Points nearer to a plane than this (mm) lie in it, and are not cut away. */
const ON_PLANE_MM = 1e-7;

const takes = ({ halves }: Cut, point: Vec3): boolean =>
  halves.every(({ normal, offset }) => dot(normal, point) - offset > ON_PLANE_MM);

/** Whether a point of an item is cut away. */
export const isCutAway = (cuts: readonly Cut[], part: ItemId, point: Vec3): boolean =>
  cuts.some((cut) => !cut.whole.has(part) && takes(cut, point));

/** How far a box lies before each plane of a cut, mm. */
const reachesOf = ({ halves }: Cut, { min, max }: Box) =>
  halves.map(({ normal, offset }) => {
    const ends = normal.map((n, i) => [n * min[i]!, n * max[i]!] as const);
    const minimum = ends.reduce((sum, [a, b]) => sum + Math.min(a, b), -offset);
    const maximum = ends.reduce((sum, [a, b]) => sum + Math.max(a, b), -offset);
    return { least: minimum, most: maximum };
  });

/** Whether a cut parts an item: something of its box is taken away, and something stays. */
export const isParted = (cuts: readonly Cut[], part: ItemId, box: Box): boolean =>
  cuts.some((cut) => {
    if (cut.whole.has(part)) return false;
    const reaches = reachesOf(cut, box);
    return reaches.every(({ most }) => most > 0) && reaches.some(({ least }) => least < 0);
  });

/** Whether one cut takes all of an item’s box away. */
export const isGone = (cuts: readonly Cut[], part: ItemId, box: Box): boolean =>
  cuts.some((cut) => !cut.whole.has(part) && reachesOf(cut, box).every(({ least }) => least >= 0));

/** How far along a ray an item comes into sight again, from a distance where it is cut away; the same distance where it is not. */
export function seenFrom(
  cuts: readonly Cut[],
  part: ItemId,
  { ray, from }: { ray: Ray; from: number },
): number {
  let at = from;
  // Each cut is left for good once, since it is convex.
  for (let i = 0; i <= cuts.length; i++) {
    const point = along(ray.from, ray.direction, at);
    const cut = cuts.find((one) => !one.whole.has(part) && takes(one, point));
    if (!cut) return at;
    at = leavingOf(cut, ray, at);
    if (at === Infinity) return at;
  }
  return at;
}

/** Where the ray leaves what a cut takes away, beyond a distance at which it is within. */
function leavingOf({ halves }: Cut, { from, direction }: Ray, beyond: number): number {
  const leaving = halves.map(({ normal, offset }) => {
    const slope = dot(normal, direction);
    return slope < 0 ? (offset - dot(normal, from)) / slope : Infinity;
  });
  return Math.max(beyond, Math.min(...leaving));
}
