/** What is done to a solid, or to the curves of a profile, after its base is made, one step after another. */
import { z } from 'zod';
import { schemasOf } from '../declare.ts';
import { chamfer } from './chamfer.ts';
import { close } from './close.ts';
import { corner } from './corner.ts';
import { cut } from './cut.ts';
import { cutAlong } from './cut-along.ts';
import { cutBy } from './cut-by.ts';
import { extend, reverse, split, trim } from './cutting.ts';
import { double } from './double.ts';
import { draft } from './draft.ts';
import { emboss } from './emboss.ts';
import { fillet } from './fillet.ts';
import { hull } from './hull.ts';
import { joined } from './joined.ts';
import { mirror } from './mirror.ts';
import { offset } from './offset.ts';
import { push } from './push.ts';
import { resample } from './resample.ts';
import { reshape } from './reshape.ts';
import { scale } from './scale.ts';
import { shell } from './shell.ts';
import { soften } from './soften.ts';
import { thicken } from './thicken.ts';
import { turnOver } from './turn-over.ts';
import type { StepKind, StepNumber } from './declare.ts';

/** Changes of a drawn outline: they are kept beside the figure, and follow it. */
const CURVE_STEPS = [corner, trim, extend, split, reverse, resample] as const;
const SOLID_STEPS = [
  fillet,
  chamfer,
  shell,
  push,
  draft,
  reshape,
  cut,
  cutAlong,
  cutBy,
  double,
  soften,
  hull,
  emboss,
  offset,
  joined,
  turnOver,
  thicken,
  close,
  mirror,
  scale,
] as const;
export const STEPS = [...SOLID_STEPS, ...CURVE_STEPS] as const;

export const stepSchema = z.discriminatedUnion('kind', schemasOf(STEPS));
export type RecipeStep = z.infer<typeof stepSchema>;

export type CurveStep = z.infer<(typeof CURVE_STEPS)[number]['schema']>;
export type CurveStepOf<K extends CurveStep['kind']> = Extract<CurveStep, { kind: K }>;
const CURVE_KINDS: ReadonlySet<string> = new Set(CURVE_STEPS.map(({ kind }) => kind));
export const isCurveStep = (step: { readonly kind: string }): step is CurveStep => CURVE_KINDS.has(step.kind);

const BY_KIND = new Map<string, StepKind>(STEPS.map((one) => [one.kind, one as unknown as StepKind]));
export const stepKind = ({ kind }: RecipeStep): StepKind => BY_KIND.get(kind)!;

/** What has a verb of its own that is made from its numbers. */
export const MADE_STEPS: readonly StepKind[] = [...BY_KIND.values()].filter(({ make }) => make);

/** Ids of the items that a step refers to: profiles, a part that it is cut by, or a surface that it is joined with. */
export const referencesOfStep = (step: RecipeStep): readonly string[] =>
  'profiles' in step ? step.profiles : 'tool' in step ? [step.tool] : [];

/** @param names of the items that it refers to */
export const titleOfStep = (step: RecipeStep, names: string): string => stepKind(step).title(step, names);
/** The number that can be set, where it has one. */
export const numberOfStep = (step: RecipeStep): StepNumber<RecipeStep> | undefined =>
  stepKind(step).number?.(step) as StepNumber<RecipeStep> | undefined;
