/**
 * The ways in which a combination may be built, one after another until one holds. Where surfaces nearly lie on one another the
 * kernel's luck depends on where their seams are, so that solids are made anew with their seams elsewhere. Measured on rings and
 * balls 0.1 … 0.0000001 mm apart: the first way is right in five of six, the others find the rest.
 */
import { AT_ORIGIN, NO_TURN, chain, inverse, turnOfDegrees, type Pose, type Vec3 } from '@kadrel/core';
import type { CombineContent, Content, OperandContent } from '../content/content.ts';
import { moved, release, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { byCells } from './cells.ts';
import { operate, type Operand } from '../booleans/operation.ts';
import type { Field } from '../verify/distance.ts';

/** What the ways of combining may use. */
export interface WayContext {
  readonly occt: Occt;
  readonly content: CombineContent;
  /** Builds an operand, verified by itself. */
  readonly build: (content: Content) => NamedShape;
  /** Where the combination is, by formula; undefined where no formula is known. */
  readonly field: Field | undefined;
}

/** One way to combine solids. */
export interface Way {
  /** What was done beyond the usual that people should know of. */
  readonly words?: string;
  /** Of the result, where the way knows it by formula, mm³. */
  readonly volumeMm3?: number;
  /** How far (mm) the result may be off by the way itself. */
  readonly fuzzMm?: number;
  /** Undefined where the way would come to the same as one before. */
  readonly build: (context: WayContext) => NamedShape | undefined;
}

/** Degrees by which seams are turned, one try each; far from one another and from the angles of drawings. */
const SEAM_TURNS = [17.2, 149, 71.3, -41.7, 100.9, -12.1] as const;
/** Turns of the whole, with no angle of drawings in them. */
const WHOLE_TURNS: readonly Vec3[] = [
  [31.7, 17.3, 43.9],
  [-23.1, 61.9, 11.3],
];
const FUZZES_MM = [1e-6, 1e-5] as const;
/** Farther from the origin than this many times its size, a combination is built near the origin. */
const FAR = 4;

/** In the order in which they are tried. */
export const WAYS: readonly Way[] = [
  {
    build: (context) =>
      operate(context.occt, { how: context.content.how, operands: operandsOf(context, context.content) }),
  },
  // Early, since solids that merely touch are common, and nothing else helps them.
  { build: (context) => byCells(context, operandsOf(context, context.content)) },
  ...SEAM_TURNS.map((degrees): Way => ({ build: (context) => reseamed(context, degrees) })),
  { build: inAnotherOrder },
  { build: oneByOne },
  { build: nearTheOrigin },
  ...WHOLE_TURNS.map((degrees): Way => ({ build: (context) => elsewhere(context, turned(degrees)) })),
  ...FUZZES_MM.map((fuzzMm): Way => ({
    fuzzMm,
    words: `Surfaces nearer than ${fuzzMm.toFixed(6).replace(/0+$/, '')} mm were taken for one.`,
    build: (context) =>
      operate(
        context.occt,
        { how: context.content.how, operands: operandsOf(context, context.content) },
        { fuzzMm },
      ),
  })),
];

/** The operands of a combination, built. */
export const operandsOf = ({ build }: Pick<WayContext, 'build'>, { operands }: CombineContent): Operand[] =>
  operands.map(({ tag, pose, content }) => ({ ...build(content), tag, pose }));

/** Every round solid made anew about its own axis, so that its seam lies elsewhere. */
function reseamed(context: WayContext, degrees: number): NamedShape | undefined {
  const operands = context.content.operands.map((operand, i) => withSeam(operand, degrees * (i + 1)));
  if (operands.every((operand, i) => operand === context.content.operands[i])) return undefined;
  const content = { ...context.content, operands };
  return operate(context.occt, { how: content.how, operands: operandsOf(context, content) });
}

function withSeam(operand: OperandContent, degrees: number): OperandContent {
  const { content, pose } = operand;
  switch (content.kind) {
    case 'cylinder':
    case 'cone':
    case 'tube':
    case 'torus':
      return { ...operand, pose: turnedWithin(pose, [0, 0, degrees]) };
    case 'sphere':
      // A ball has poles besides its seam.
      return { ...operand, pose: turnedWithin(pose, [degrees, 0.7 * degrees, degrees]) };
    case 'combine': {
      const operands = content.operands.map((inner) => withSeam(inner, degrees));
      const isSame = operands.every((inner, i) => inner === content.operands[i]);
      return isSame ? operand : { ...operand, content: { ...content, operands } };
    }
    default:
      return operand;
  }
}

const turnedWithin = (pose: Pose, degrees: Vec3): Pose =>
  chain(pose, { turn: turnOfDegrees(degrees), shift: [0, 0, 0] });

/** The last first: the kernel does not treat both alike. */
function inAnotherOrder(context: WayContext): NamedShape | undefined {
  const { how } = context.content;
  if (how === 'subtract') return undefined;
  return operate(context.occt, { how, operands: operandsOf(context, context.content).reverse() });
}

function oneByOne(context: WayContext): NamedShape | undefined {
  const { how } = context.content;
  const [first, ...others] = operandsOf(context, context.content);
  if (others.length < 2 || how === 'intersect') return undefined;
  let whole: NamedShape = first!;
  others.forEach((other, i) => {
    const before = whole;
    const pose = i === 0 ? first!.pose : AT_ORIGIN;
    whole = operate(context.occt, { how, operands: [{ ...before, tag: '', pose }, other] });
    if (i > 0) release(context.occt, before.shape);
  });
  return whole;
}

function nearTheOrigin(context: WayContext): NamedShape | undefined {
  const { field } = context;
  if (!field || Math.hypot(...field.centre) < FAR * field.radius) return undefined;
  const shift = field.centre.map((n) => -n) as unknown as Vec3;
  return elsewhere(context, { turn: NO_TURN, shift });
}

const turned = (degrees: Vec3): Pose => ({ turn: turnOfDegrees(degrees), shift: [0, 0, 0] });

/** All operands carried by a pose, combined there, and carried back. */
function elsewhere(context: WayContext, there: Pose): NamedShape {
  const { occt, content } = context;
  const operands = operandsOf(context, content).map((one) => ({ ...one, pose: chain(there, one.pose) }));
  const made = operate(occt, { how: content.how, operands });
  try {
    return { ...made, shape: moved(occt, made.shape, inverse(there)) };
  } finally {
    release(occt, made.shape);
  }
}
