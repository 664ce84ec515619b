/** One boolean of the kernel, on copies, with faces merged, edges joined and names carried. It may lie: whoever asks verifies. */
import { AT_ORIGIN, faultOf, MERGED, type CombineHow, type Pose, type Vec3 } from '@kadrel/core';
import { carryNames } from '../naming/carry.ts';
import {
  BuildError,
  copied,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { joinedEdges } from './joinedEdges.ts';

/** A named shape with the id that goes before its names. */
export interface Operand extends NamedShape {
  /** Put before the names of its faces; none for the first operand. */
  readonly tag: string;
  /** Where it stands; the shape itself stays as it is. */
  readonly pose: Pose;
}

/** Faces whose planes differ by less than this angle (radians) become one: far below any angle that is drawn. */
const SAME_PLANE_RAD = 1e-6;

/** The fault of an operation that leaves nothing. */
export const emptyFault = (how: CombineHow) => new NothingLeft(faultOf(`nothing-left.${how}`, {}));

/** The result has no solid. That may be so, or the kernel's mistake. */
export class NothingLeft extends BuildError {
  protected override copiedAt(places: readonly Vec3[]): NothingLeft {
    return new NothingLeft(this.fault, places);
  }
}

/** A shape that already stands where it goes in. */
export type Tagged = Omit<Operand, 'pose'>;

/** A combination that is a step on the way to a solid, which is verified as a whole. The names of the first get no tag. Throws BuildError. */
export const combineShapes = (occt: Occt, how: CombineHow, operands: readonly Tagged[]): NamedShape =>
  operate(occt, {
    how,
    operands: operands.map((one, i) => ({ ...one, tag: i === 0 ? '' : one.tag, pose: AT_ORIGIN })),
  });

/** How the kernel is asked. */
export interface Manner {
  /** Points nearer than this (mm) are taken for one; 0 leaves it to the kernel. */
  readonly fuzzMm: number;
  /** Pieces of one surface stay apart. */
  readonly isPieced?: true;
}
const USUAL: Manner = { fuzzMm: 0 };

/** Any number of operands at once. Throws BuildError; NothingLeft where no solid comes out. */
export function operate(
  occt: Occt,
  { how, operands }: { readonly how: CombineHow; readonly operands: readonly Operand[] },
  manner: Manner = USUAL,
): NamedShape {
  return scope((keep) => {
    // The kernel may change what it is given, and what is cached must stay as it was checked.
    const inputs = operands.map((operand) => {
      const shape = keep(copied(occt, operand.shape, operand.pose));
      return { shape, faceNames: taggedNames(operand) };
    });
    const [first, ...others] = inputs;
    if (others.length === 0)
      return { shape: solidsOnly({ occt, keep }, first!.shape, how), faceNames: first!.faceNames };
    if (how !== 'intersect') return booleanOf(occt, { how, inputs: [first!, ...others] }, manner);
    // Common keeps what the first shares with any of the others, so that several are taken one after another.
    let common: NamedShape = first!;
    for (const other of others) {
      common = booleanOf(occt, { how, inputs: [common, other] }, manner);
      if (other !== others.at(-1)) keep(common.shape);
    }
    return common;
  });
}

/** The names of an operand's faces as they are in the whole. */
export const taggedNames = ({ faceNames, tag }: Pick<Operand, 'faceNames' | 'tag'>): readonly string[] =>
  tag === ''
    ? faceNames
    : faceNames.map((name) =>
        name
          .split(MERGED)
          .map((one) => `${tag}.${one}`)
          .join(MERGED),
      );

function booleanOf(
  occt: Occt,
  { how, inputs }: { readonly how: CombineHow; readonly inputs: readonly NamedShape[] },
  manner: Manner,
): NamedShape {
  const { fuzzMm, isPieced } = manner;
  return scope((keep) => {
    const operation = keep(newOperation(occt, how));
    const list = (shapes: readonly TopoDS_Shape[]) =>
      keep(new occt.NCollection_List_TopoDS_Shape(shapes as never));
    const [first, ...others] = inputs.map(({ shape }) => shape);
    try {
      operation.SetArguments(list([first!]));
      operation.SetTools(list(others));
      operation.SetRunParallel(false);
      if (fuzzMm > 0) operation.SetFuzzyValue(fuzzMm);
      operation.Build(progressRange({ occt, keep }));
      if (operation.HasErrors()) throw new BuildError(faultOf('combine.not-combined', {}));
      // Only faces: joining edges here damages results where rings and balls cross, and the operands with them.
      if (!isPieced) operation.SimplifyResult(false, true, SAME_PLANE_RAD);
      const whole = keep(operation.Shape());
      if (!isPieced && hasFaceWithoutEdges({ occt, keep }, whole))
        return booleanOf(occt, { how, inputs }, { ...manner, isPieced: true });
      // Lines on faces that part nothing, left where solids touch.
      occt.BRepTools.RemoveInternals(whole, false);
      const shape = solidsOnly({ occt, keep }, whole, how);
      const named = { shape, faceNames: carryNames({ occt, keep }, operation, { inputs, result: shape }) };
      const joined = joinedEdges(occt, named);
      if (joined) keep(shape);
      return joined ?? named;
    } finally {
      // Without Clear every operation leaves some 150 KB behind, deleted or not.
      operation.Clear();
    }
  });
}

/** Pieces of a ring are merged into a face without even a seam, of which the kernel can lay out nothing. */
const hasFaceWithoutEdges = ({ occt, keep }: Scoped, shape: TopoDS_Shape): boolean =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').some(
    (face) => occurrences({ occt, keep }, face, 'TopAbs_EDGE').length === 0,
  );

function newOperation(occt: Occt, how: CombineHow) {
  if (how === 'union') return new occt.BRepAlgoAPI_Fuse();
  return how === 'subtract' ? new occt.BRepAlgoAPI_Cut() : new occt.BRepAlgoAPI_Common();
}

/** The one solid of the result, or a compound of several. */
function solidsOnly({ occt, keep }: Scoped, whole: TopoDS_Shape, how: CombineHow): TopoDS_Shape {
  const solids = occurrences({ occt, keep }, whole, 'TopAbs_SOLID');
  if (solids.length === 0) throw emptyFault(how);
  return solids.length === 1 ? occt.TopoDS.Solid(solids[0]!) : occt.TopoDS.Compound(whole);
}
