import type { CombineHow } from '@kadrel/core';
import { MERGED } from '@kadrel/core';
import { carryNames } from '../naming/carry.ts';
import { BuildError, occurrences, progressRange, scope, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import type { NamedShape } from './named.ts';

export interface Operand extends NamedShape {
  readonly tag: string;
}

/** Faces whose planes differ by less than this angle (radians) become one: far below any angle that is drawn. */
const SAME_PLANE_RAD = 1e-6;

const EMPTY: Readonly<Record<CombineHow, readonly [string, string]>> = {
  union: ['The union came out empty.', 'Look at the parts one by one; one of them may have no volume.'],
  subtract: [
    'Nothing is left: what is taken out covers the whole part.',
    'Make the taken-out part smaller, or move it.',
  ],
  intersect: [
    'The parts do not meet, so that they have nothing in common.',
    'Move them into one another first.',
  ],
};

/** Any number of operands at once, already in one frame; coplanar faces are merged and names carried. */
export function buildCombination(occt: Occt, how: CombineHow, operands: readonly Operand[]): NamedShape {
  const inputs = operands.map(({ shape, faceNames, tag }, i) => ({
    shape,
    faceNames: i === 0 ? faceNames : prefixed(faceNames, tag),
  }));
  const [first, ...others] = inputs;
  if (others.length === 0)
    return scope((keep) => ({
      shape: solidsOnly(occt, first!.shape, how, keep),
      faceNames: first!.faceNames,
    }));
  if (how !== 'intersect') return buildOnce(occt, how, first!, others);
  // Common keeps what the first shares with any of the others, so that several are taken one after another.
  let common: NamedShape = first!;
  for (const other of others) {
    const next = buildOnce(occt, how, common, [other]);
    if (common !== first) common.shape.delete();
    common = next;
  }
  return common;
}

const prefixed = (names: readonly string[], tag: string) =>
  names.map((name) =>
    name
      .split(MERGED)
      .map((one) => `${tag}.${one}`)
      .join(MERGED),
  );

function buildOnce(
  occt: Occt,
  how: CombineHow,
  first: NamedShape,
  others: readonly NamedShape[],
): NamedShape {
  return scope((keep) => {
    const operation = keep(
      how === 'union'
        ? new occt.BRepAlgoAPI_Fuse()
        : how === 'subtract'
          ? new occt.BRepAlgoAPI_Cut()
          : new occt.BRepAlgoAPI_Common(),
    );
    try {
      operation.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([first.shape] as never)));
      operation.SetTools(
        keep(new occt.NCollection_List_TopoDS_Shape(others.map(({ shape }) => shape) as never)),
      );
      operation.SetRunParallel(false);
      operation.Build(progressRange(occt, keep));
      if (operation.HasErrors())
        throw new BuildError(
          'These parts could not be combined.',
          'Move one of them a little, or change a size.',
        );
      operation.SimplifyResult(true, true, SAME_PLANE_RAD);
      const whole = keep(operation.Shape());
      const shape = solidsOnly(occt, whole, how, keep);
      return { shape, faceNames: carryNames(occt, operation, [first, ...others], shape, keep) };
    } finally {
      // Without Clear every operation leaves some 150 KB behind, deleted or not.
      operation.Clear();
    }
  });
}

/** The one solid of the result, or a compound of several. */
function solidsOnly(
  occt: Occt,
  whole: TopoDS_Shape,
  how: CombineHow,
  keep: Parameters<typeof occurrences>[3],
): TopoDS_Shape {
  const solids = occurrences(occt, whole, 'TopAbs_SOLID', keep);
  if (solids.length === 0) throw new BuildError(...EMPTY[how]);
  return solids.length === 1 ? occt.TopoDS.Solid(solids[0]!) : occt.TopoDS.Compound(whole);
}
