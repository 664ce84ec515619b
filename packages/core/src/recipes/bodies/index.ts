/**
 * Recipes of profiles, planes, and of bodies made from profiles. A body refers to its profiles and follows them; it has a
 * place of its own. Regions and axes are given in the frame of the first profile.
 */
import type { z } from 'zod';
import { schemasOf } from '../declare.ts';
import { OTHER_PRIMITIVES } from '../primitives/index.ts';
import { tiers, type Tier } from '../primitives/tiers.ts';
import type { RecipeStep } from '../steps/index.ts';
import { fill } from './fill.ts';
import { loft } from './loft.ts';
import { plane } from './plane.ts';
import { profile } from './profile.ts';
import { raise } from './raise.ts';
import { revolve } from './revolve.ts';
import { section } from './section.ts';
import { settled } from './settled.ts';
import { sweep } from './sweep.ts';
import { wall, type Opening } from './wall.ts';

export type { Region2, Regions } from './regions.ts';
export { regionsSchema } from './regions.ts';
export { SECTION_VIEWS, type SectionView } from './section.ts';
export type { Opening, RecipeStep, Tier };

/** What has no operands, and stays as its numbers say when it is stretched: all but the plain solids. */
export const BODIES = [
  profile,
  plane,
  section,
  raise,
  revolve,
  loft,
  sweep,
  fill,
  wall,
  tiers,
  settled,
  ...OTHER_PRIMITIVES,
] as const;

export const bodyBases = schemasOf(BODIES);
export type BodyBase = z.infer<(typeof BODIES)[number]['schema']>;
export type BodyOf<K extends BodyBase['kind']> = Extract<BodyBase, { kind: K }>;
export type BodyKind = BodyBase['kind'];
const KINDS: ReadonlySet<string> = new Set(BODIES.map(({ kind }) => kind));
export const isBody = (base: { readonly kind: string }): base is BodyBase => KINDS.has(base.kind);
/** Drawn things that are no solids. */
export const isFlat = ({ kind }: { readonly kind: string }): boolean =>
  kind === 'profile' || kind === 'plane' || kind === 'section';

interface WithReferences {
  readonly base: object;
  readonly steps: readonly RecipeStep[];
}
/** Ids of the profiles that a recipe refers to. */
export const referencesIn = ({ base, steps }: WithReferences): readonly string[] => [
  ...('profiles' in base ? (base.profiles as readonly string[]) : []),
  ...steps.flatMap((step) => ('profiles' in step ? step.profiles : [])),
];

/** Ids of the parts that a recipe is cut by, or joined with. */
export const toolsIn = ({ steps }: Pick<WithReferences, 'steps'>): readonly string[] =>
  steps.flatMap((step) => ('tool' in step ? [step.tool] : []));

/** What a loft goes through and along, and where it begins on each section; what version 4 did not say as it was then. */
export function loftWays({ profiles: ids, guides = 0, closed = false, starts = [] }: BodyOf<'loft'>) {
  const sections = ids.slice(0, ids.length - guides);
  return {
    sections,
    guides: ids.slice(sections.length),
    closed,
    starts: sections.map((_, i) => starts[i] ?? 0),
  };
}

/** What has open ends as far as its recipe tells: it encloses nothing, and counts as no solid. */
export function isSurface({ recipe: { base, steps } }: { readonly recipe: WithReferences }): boolean {
  const isOpen = 'ends' in base ? base.ends === 'open' : 'kind' in base && base.kind === 'fill';
  return isOpen && !steps.some(({ kind, off }) => !off && (kind === 'thicken' || kind === 'close'));
}
