/**
 * Recipes of profiles, planes, and of bodies made from profiles. A body refers to its profiles and follows them; it has a
 * place of its own. Regions and axes are told in the frame of the first profile.
 */
import { z } from 'zod';
import { editSteps } from '../profiles/edit.ts';
import { figureSchema } from '../profiles/figure.ts';
import { finite, numberSchema, vectorSchema } from './numbers.ts';

const idSchema = z.string().regex(/^[a-z0-9]{1,40}$/);

/** Curves in the XY plane of the own frame. */
const profileBase = z.strictObject({ kind: z.literal('profile'), figure: figureSchema });

/** The XY plane of the own frame, shown as a square sheet round its origin. */
const planeBase = z.strictObject({ kind: z.literal('plane'), size: numberSchema });

const pairSchema = z.tuple([finite, finite]);
/**
 * A bounded area of a plane, by the curves round it and a point inside. After a change of the profiles it is the area round
 * which the same curves run; where there are several, the one nearest to the point.
 */
const regionSchema = z.strictObject({
  at: pairSchema,
  curves: z.array(z.string().max(80)).min(1),
});
export type Region2 = z.infer<typeof regionSchema>;
/** The areas that the even-odd rule fills, or picked ones. */
export const regionsSchema = z.union([z.literal('all'), z.array(regionSchema).min(1)]);
export type Regions = z.infer<typeof regionsSchema>;

const profiles = z.array(idSchema).min(1);

/** Closed bodies are capped where they end; open ones are surfaces and no solids. */
export const ENDS = ['capped', 'open'] as const;
// What version 4 did not say may be missing: edits of that time, and what takes them back, stay as they were written.
const ends = z.enum(ENDS).optional();

/** Regions pulled along +Z of the first profile's frame, from `down` below its plane to `height` above it. */
const raiseBase = z.strictObject({
  kind: z.literal('raise'),
  profiles,
  regions: regionsSchema,
  height: numberSchema,
  down: numberSchema,
  /** How far the sides lean inward from the plane upward, degrees. */
  draft: numberSchema,
  /** Open: only the sides, along every curve of the profiles. */
  ends,
});

const revolveBase = z.strictObject({
  kind: z.literal('revolve'),
  profiles,
  regions: regionsSchema,
  axis: z.strictObject({
    point: z.tuple([numberSchema, numberSchema]),
    /** Degrees from X towards Y. */
    angle: numberSchema,
  }),
  /** Degrees, right-handed about the axis; 360 is all round. */
  angle: numberSchema,
  /** Which side of the axis is turned. */
  half: z.enum(['whole', 'left', 'right']),
  ends,
});

/** Sections in their places; what they enclose is filled, and what inner outlines enclose is left hollow. */
const loftBase = z.strictObject({
  kind: z.literal('loft'),
  /** The sections, and after them the guides. */
  profiles: z.array(idSchema).min(2),
  /** How many of the profiles, the last ones, are curves that the sides run along. */
  guides: z.number().int().min(0).optional(),
  flanks: z.enum(['ruled', 'smooth']),
  /** From the last section back to the first. */
  closed: z.boolean().optional(),
  /** For each section how far its start is moved along its outline from the matched one, mm. */
  starts: z.array(numberSchema).optional(),
  ends,
});

const sweepBase = z.strictObject({
  kind: z.literal('sweep'),
  /** The path, and then the section, whose datum runs along it. */
  profiles: z.tuple([idSchema, idSchema]),
  corners: z.enum(['square', 'round']),
  /** Where the Y of the section points: out of the plane of the path, or always in one direction of the path's frame. */
  up: z.union([z.literal('plane'), z.tuple([finite, finite, finite])]).optional(),
  /** Of the section about the path from its start to its end, degrees, right-handed. */
  twist: numberSchema.optional(),
  /** How many times as large the section is at the end of the path. */
  scale: finite.positive().optional(),
  ends,
});

/** A surface within a loop of curves, which may lie in several planes: flat where they are, else smooth. */
const fillBase = z.strictObject({ kind: z.literal('fill'), profiles });

const openingSchema = z.strictObject({
  /** Which leg, counted from 1. */
  leg: z.number().int().min(1),
  /** Along the leg from its start. */
  from: numberSchema,
  /** Above the foot of the wall. */
  sill: numberSchema,
  width: numberSchema,
  height: numberSchema,
});
export type Opening = z.infer<typeof openingSchema>;

export const WALL_SIDES = ['left', 'right', 'centred', 'outside', 'inside'] as const;

const wallBase = z.strictObject({
  kind: z.literal('wall'),
  profiles: z.tuple([idSchema]),
  thickness: numberSchema,
  height: numberSchema,
  /** On which side of the outline it stands, seen along the legs; outside and inside are for closed outlines. */
  side: z.enum(WALL_SIDES),
  openings: z.array(openingSchema),
});

export const TIER_FLANKS = ['step', 'slope', 'curve'] as const;
const tierSchema = z.strictObject({
  outline: z.enum(['round', 'square', 'polygon']),
  sides: z.number().int().min(3).max(100),
  /** Across the bottom, of polygons across the flats. */
  below: numberSchema,
  above: numberSchema,
  height: numberSchema,
  /** How it goes from the lower to the upper width: at once at its top, straight, or as a quarter of an ellipse. */
  flank: z.enum(TIER_FLANKS),
});
export type Tier = z.infer<typeof tierSchema>;
/** Own frame: the centre of the bottom at the origin, the axis along Z. */
const tiersBase = z.strictObject({ kind: z.literal('tiers'), levels: z.array(tierSchema).min(1).max(200) });

/** Own frame: the least corner at the origin; the top is narrowed along X, from the left or from both sides alike. */
const wedgeBase = z.strictObject({
  kind: z.literal('wedge'),
  size: vectorSchema,
  /** Length of the top along X; 0 is an edge. */
  top: numberSchema,
  /** Where the top lies along X. */
  lean: z.enum(['left', 'middle']),
});
/** A ball cut flat below. Own frame: the centre of the flat face at the origin, the axis along Z. */
const capBase = z.strictObject({
  kind: z.literal('cap'),
  /** Of the whole ball. */
  diameter: numberSchema,
  height: numberSchema,
});
export const bodyBases = [
  profileBase,
  planeBase,
  raiseBase,
  revolveBase,
  loftBase,
  sweepBase,
  fillBase,
  wallBase,
  tiersBase,
  wedgeBase,
  capBase,
] as const;

/** Regions of profiles, laid on a solid: raised out of it, cut into it, or only marked on it. */
const embossStep = z.strictObject({
  kind: z.literal('emboss'),
  profiles,
  regions: regionsSchema,
  /** Where the plane of the profiles stands in the part's own frame: mm, and degrees about X, then Y, then Z. */
  frame: z.strictObject({ origin: vectorSchema, turn: vectorSchema }),
  /** The way on which they are laid on it, in that frame, Z being 1; 0, 0 is square to their plane. */
  slant: pairSchema.optional(),
  /** Out of the surface; less than zero is into it, and 0 only marks the outline. */
  depth: numberSchema,
});
/** A surface becomes a body: as thick as said, before it and behind it. */
const thickenStep = z.strictObject({
  kind: z.literal('thicken'),
  /** The sum of both is more than zero. */
  before: numberSchema,
  behind: numberSchema,
});
/** The flat openings of a surface are closed, so that it becomes a body. */
const capStep = z.strictObject({ kind: z.literal('close') });
/** All that was made so far, mirrored in the part's own X. */
const mirrorStep = z.strictObject({ kind: z.literal('mirror') });
/** All that was made so far, larger or smaller about the part's own origin, alike in all directions. */
const scaleStep = z.strictObject({ kind: z.literal('scale'), by: finite.positive() });
export const stepSchema = z.discriminatedUnion('kind', [
  embossStep,
  thickenStep,
  capStep,
  mirrorStep,
  scaleStep,
  ...editSteps,
]);
export type RecipeStep = z.infer<typeof stepSchema>;

interface WithReferences {
  readonly base: object;
  readonly steps: readonly RecipeStep[];
}
/** Ids of the profiles that a recipe refers to. */
export const referencesIn = ({ base, steps }: WithReferences): readonly string[] => [
  ...('profiles' in base ? (base.profiles as readonly string[]) : []),
  ...steps.flatMap((step) => ('profiles' in step ? step.profiles : [])),
];

export type BodyBase = z.infer<(typeof bodyBases)[number]>;
export type BodyOf<K extends BodyBase['kind']> = Extract<BodyBase, { kind: K }>;
/** What is made from profiles or stands for itself, and has no operands, no map and no box that its numbers tell. */
export type BodyKind = BodyBase['kind'];
const KINDS: ReadonlySet<string> = new Set(bodyBases.map((base) => base.shape.kind.value));
export const isBody = (base: { readonly kind: string }): base is BodyBase => KINDS.has(base.kind);
/** Drawn things that are no solids. */
export const isFlat = ({ kind }: { readonly kind: string }): boolean =>
  kind === 'profile' || kind === 'plane';

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
  return isOpen && !steps.some(({ kind }) => kind === 'thicken' || kind === 'close');
}
