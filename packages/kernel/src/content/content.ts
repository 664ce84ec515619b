/** A document's part → what there is to build, as plain data that says nothing of ids, names and colours. */
import {
  add,
  below,
  builtRecipe,
  chain,
  definitionOf,
  faultOf,
  inverse,
  isBody,
  isCurveStep,
  isFlatPart,
  isHalf,
  isSection,
  itemsCutBy,
  NO_TURN,
  pathsOnPlane,
  placedIn,
  placedOf,
  poseOfPlacement,
  prismCorners,
  valued,
  valueOf,
  worldFromPart,
  type CombineHow,
  type CurveStep,
  type ItemId,
  type KadrelDocument,
  type Matrix,
  type Num,
  type Part,
  type Path,
  type Placed,
  type Pose,
  type RecipeStep,
  type Regions,
  type SolidBase,
  type Valued,
  type Variant,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import { bodyContent, type BodyContent } from './bodies.ts';

type Plain = Valued<Exclude<SolidBase, { kind: 'prism' }>>;
/** A plain solid. */
export type SolidContent =
  | Plain
  /** Corners of the outline, counter-clockwise, on the bottom. */
  | {
      readonly kind: 'prism';
      readonly corners: readonly (readonly [number, number])[];
      readonly height: number;
    };

/** Steps that are built from other data than their own numbers. */
type Special =
  | 'cut'
  | 'cutAlong'
  | 'cutBy'
  | 'double'
  | 'emboss'
  | 'joined'
  | 'turnOver'
  | 'thicken'
  | 'close'
  | 'mirror'
  | 'scale';
/** What a step is done to. */
interface DoneTo {
  readonly of: Content;
}

/** A recipe as plain data without ids: everything that a solid depends on. */
export type Content =
  | SolidContent
  | BodyContent
  /** A plain solid under a linear map of its own frame, nine numbers row by row. */
  | { readonly kind: 'stretched'; readonly of: SolidContent; readonly by: Matrix }
  /** Regions in a frame of its own, laid on a solid. */
  | {
      readonly kind: 'embossed';
      readonly of: Content;
      readonly frame: Pose;
      readonly paths: readonly Path[];
      readonly regions: Regions;
      readonly slant: Vec2;
      readonly depth: number;
    }
  /** What lies on one side of the plane XY of a frame of its own. */
  | { readonly kind: 'cut'; readonly of: Content; readonly frame: Pose; readonly keep: 'front' | 'behind' }
  /** What lies within closed outlines, or to the left of an open one, in a frame of their own, or what is left. */
  | {
      readonly kind: 'cutAlong';
      readonly of: Content;
      readonly frame: Pose;
      readonly paths: readonly Path[];
      readonly slant: Vec2;
      readonly keep: 'front' | 'behind';
    }
  /** What lies within another solid, or outside it. */
  | {
      readonly kind: 'cutBy';
      readonly of: Content;
      readonly tool: OperandContent;
      readonly keep: 'front' | 'behind';
    }
  /** Joined with its mirror image in the plane XY of a frame of its own. */
  | { readonly kind: 'double'; readonly of: Content; readonly frame: Pose }
  /** A surface that goes on in another one where their rims are no farther apart than a gap, mm. */
  | { readonly kind: 'joined'; readonly of: Content; readonly tool: OperandContent; readonly gap: number }
  /** A surface that faces the other way. */
  | { readonly kind: 'turnedOver'; readonly of: Content }
  /** A surface made thick: before it, and behind it. */
  | { readonly kind: 'thickened'; readonly of: Content; readonly before: number; readonly behind: number }
  /** A surface whose flat openings are closed. */
  | { readonly kind: 'closed'; readonly of: Content }
  | { readonly kind: 'scaled'; readonly of: Content; readonly by: number }
  /** Mirrored in its own X. */
  | { readonly kind: 'mirrored'; readonly of: Content }
  /** A step as it is given. */
  | (Valued<Exclude<RecipeStep, CurveStep | { kind: Special }>> & DoneTo)
  /** What a plane and a solid have in common, in the frame of the solid: where normal · p = offset, mm. */
  | {
      readonly kind: 'sectioned';
      readonly solid: Content;
      readonly normal: Vec3;
      readonly offset: number;
    }
  /** What solids leave on the XY plane, and a sheet of a width, mm. */
  | { readonly kind: 'section'; readonly size: number; readonly pieces: readonly OperandContent[] }
  | { readonly kind: 'combine'; readonly how: CombineHow; readonly operands: readonly OperandContent[] };

/** A combination as content. */
export type CombineContent = Extract<Content, { readonly kind: 'combine' }>;
/** A step on something else, as content. */
export type StepContent = Exclude<Extract<Content, { readonly of: Content }>, { kind: 'stretched' }>;
/** What was done to a solid after it was made. */
export const isStep = (content: Content): content is StepContent =>
  'of' in content && content.kind !== 'stretched';

/** An operand, and where it stands. */
export interface OperandContent {
  /** Put before the names of its faces, except for the first operand's. */
  readonly tag: string;
  readonly pose: Pose;
  readonly content: Content;
}

const AS_IT_IS: Variant = { mirrored: false };

/** What a solid part is made of, in its own frame; a pattern or a group counts as the union of what it consists of. */
export function contentOf(document: KadrelDocument, id: ItemId, variant: Variant = AS_IT_IS): Content {
  const part = document.items[id]!;
  const definition = definitionOf(document, part);
  const made = isHalf(part) ? { ...definition, recipe: builtRecipe(document, part) } : definition;
  const content = ownContent(document, made, variant.extra);
  return variant.mirrored ? { kind: 'mirrored', of: content } : content;
}

function ownContent(document: KadrelDocument, part: Part, extra: Vec3 | undefined): Content {
  const { base, steps } = part.recipe;
  const made = baseContent(document, part, extra);
  // The steps of a profile are edits of its curves, which are made already.
  return base.kind === 'profile'
    ? made
    : steps.filter(isOn).reduce((of, step) => stepContent(document, part, { of, step }), made);
}

const isOn = ({ off }: RecipeStep) => !off;

type OnProfiles = Extract<RecipeStep, { kind: 'emboss' | 'cutAlong' }>;

interface FromProfiles {
  readonly of: Content;
  readonly step: OnProfiles;
}

function fromProfiles(document: KadrelDocument, part: Part, { of, step }: FromProfiles): Content {
  const paths = pathsOnPlane(document, step.profiles);
  if (!paths)
    return {
      kind: 'fault',
      fault: faultOf('profile.planes-apart', { name: part.name }),
      places: [],
    };
  const frame = poseOfPlacement(step.frame);
  if (step.kind === 'cutAlong')
    return { kind: 'cutAlong', of, frame, paths, slant: step.slant, keep: step.keep };
  const { regions, slant = [0, 0], depth } = step;
  return { kind: 'embossed', of, frame, paths, regions, slant, depth: valueOf(depth) };
}

function stepContent(
  document: KadrelDocument,
  part: Part,
  { of, step }: { readonly of: Content; readonly step: RecipeStep },
): Content {
  switch (step.kind) {
    case 'emboss':
    case 'cutAlong':
      return fromProfiles(document, part, { of, step });
    case 'thicken':
      return { kind: 'thickened', of, before: valueOf(step.before), behind: valueOf(step.behind) };
    case 'joined':
      return { kind: 'joined', of, tool: toolContent(document, step), gap: valueOf(step.gap) };
    case 'turnOver':
      return { kind: 'turnedOver', of };
    case 'cut': {
      const { at, keep } = step;
      const frame = poseOfPlacement(step.frame);
      return { kind: 'cut', of, frame: chain(frame, { turn: NO_TURN, shift: [0, 0, valueOf(at)] }), keep };
    }
    case 'cutBy':
      return { kind: 'cutBy', of, tool: grown(toolContent(document, step), step.clearance), keep: step.keep };
    case 'double':
      return { kind: 'double', of, frame: poseOfPlacement(step.frame) };
    case 'close':
      return { kind: 'closed', of };
    case 'mirror':
      return { kind: 'mirrored', of };
    case 'scale':
      return { kind: 'scaled', of, by: step.by };
    default:
      if (isCurveStep(step)) throw new Error(`${part.name} is no profile and has the step ${step.kind}.`);
      return { of, ...(valued(step) as object) } as Content;
  }
}

/** What a part is cut by, or joined with, in the part’s own frame. */
const toolContent = (
  document: KadrelDocument,
  { tool, frame }: Extract<RecipeStep, { kind: 'cutBy' | 'joined' }>,
): OperandContent => ({ tag: tool, pose: poseOfPlacement(frame), content: contentOf(document, tool) });

/** A solid with a clearance all round. */
const grown = (tool: OperandContent, clearance: Num | undefined): OperandContent =>
  clearance === undefined
    ? tool
    : { ...tool, content: { kind: 'offset', of: tool.content, by: valueOf(clearance), corners: 'round' } };

function baseContent(document: KadrelDocument, part: Part, extra: Vec3 | undefined): Content {
  const { base } = part.recipe;
  switch (base.kind) {
    case 'stretched':
      return { kind: 'stretched', of: solidContent(base.of), by: base.by as unknown as Matrix };
    case 'combine': {
      const [first, ...others] = below(document, part);
      const operands = [
        { tag: first!.id, pose: poseOfPlacement(first!.placement), content: contentOf(document, first!.id) },
        ...others.flatMap((other) => operandsOf(document, other, base.how)),
      ];
      return { kind: 'combine', how: base.how, operands };
    }
    case 'pattern':
    case 'group': {
      const solids = placedIn(document, part.id).map((one) => solidOperand(document, one, part));
      return { kind: 'combine', how: 'union', operands: solids };
    }
    case 'section':
      return sectionContent(document, part.id);
    case 'link':
      throw new Error(`${part.name} is linked to a link.`);
    default:
      return isBody(base) ? bodyContent(document, part, base) : solidContent(base, extra);
  }
}

/** What is taken out, or joined on: each solid of a pattern or a group by itself. What is common is common to their union. */
function operandsOf(document: KadrelDocument, part: Part, how: CombineHow): OperandContent[] {
  if (how === 'intersect')
    return [{ tag: part.id, pose: poseOfPlacement(part.placement), content: contentOf(document, part.id) }];
  return placedIn(document, part.id).map((one) => ({
    tag: one.tag,
    pose: one.pose,
    content: contentOf(document, one.leaf, one),
  }));
}

/** All solids that a section plane cuts, in its frame. */
function sectionContent(document: KadrelDocument, id: ItemId): Content {
  const part = document.items[id]!;
  if (!isSection(part)) throw new Error(`${part.name} is no section plane.`);
  const plane = worldFromPart(document, id);
  const items = itemsCutBy(document, part).map((item) => item.id);
  return cutContent(document, { items, plane, size: valueOf(part.recipe.base.size) });
}

/** The cut faces of items on a plane, in its frame. */
export const cutThrough = (document: KadrelDocument, items: readonly ItemId[], plane: Pose): Content =>
  cutContent(document, { items, plane, size: 1 });

/** Solids of items on a plane, and a sheet of a width, mm, in the frame of the plane. */
function cutContent(
  document: KadrelDocument,
  { items, plane, size }: { readonly items: readonly ItemId[]; readonly plane: Pose; readonly size: number },
): Content {
  const there = inverse(plane);
  const pieces = items.flatMap((item) =>
    placedOf(document, item)
      .filter(({ leaf }) => !isFlatPart(document, document.items[leaf]!))
      .map((one) => ({
        tag: one.tag,
        pose: chain(there, one.pose),
        content: placedContent(document, one),
      })),
  );
  return { kind: 'section', size, pieces };
}

/** What a placed solid is made of, in its own frame. */
export const placedContent = (document: KadrelDocument, one: Placed): Content =>
  contentOf(document, one.leaf, one);

/** A solid of a pattern or a group, in the frame of that. */
function solidOperand(document: KadrelDocument, one: Placed, whole: Part): OperandContent {
  const content = contentOf(document, one.leaf, one);
  const tag = one.tag.startsWith(`${whole.id}.`) ? one.tag.slice(whole.id.length + 1) : one.tag;
  return { tag, pose: chain(inverse(poseOfPlacement(whole.placement)), one.pose), content };
}

/** @param extra how much longer, wider and higher it is, mm */
function solidContent(base: SolidBase, extra: Vec3 = [0, 0, 0]): SolidContent {
  if (base.kind === 'prism')
    return { kind: 'prism', corners: prismCorners(base), height: valueOf(base.height) };
  const content = valued(base);
  if (content.kind === 'box') return { ...content, size: add(content.size, extra) };
  const diameter = content.diameter + extra[0];
  return 'height' in content
    ? { ...content, diameter, height: content.height + extra[2] }
    : { ...content, diameter };
}
