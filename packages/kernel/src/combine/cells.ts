/**
 * A combination by its cells: the general fuse cuts all operands at one another, and each cell is kept or left by where a point well
 * inside it is, by formula. Right where solids merely touch along a line, which a union of the kernel gets wrong (kernel notes, 18).
 */
import { AT_ORIGIN, boxSize, type CombineHow } from '@kadrel/core';
import { plainVolumeOf } from '../facts/integrals.ts';
import { displayChord, meshShape } from '../facts/mesh.ts';
import { carryNames } from '../naming/carry.ts';
import {
  copied,
  occurrences,
  progressRange,
  roughBox,
  scope,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { together } from '../build/compound.ts';
import type { NamedShape } from '../naming/named.ts';
import type { Distance, Field } from '../verify/distance.ts';
import { beside, samplesOf } from '../facts/samples.ts';
import { emptyFault, operate, taggedNames, type Operand } from '../booleans/operation.ts';

interface Cells {
  readonly occt: Occt;
  readonly content: { readonly how: CombineHow };
  readonly field: Field | undefined;
}

/** Parts of the size of a cell that its inner point is looked for below its surface at. */
const DEPTHS = [0.02, 0.005, 1e-3, 1e-4, 1e-5];

/** Undefined where no formula tells cells apart. */
export function byCells(
  { occt, content, field }: Cells,
  operands: readonly Operand[],
): NamedShape | undefined {
  if (!field) return undefined;
  return scope((keep) => {
    const inputs = operands.map((operand) => ({
      shape: keep(copied(occt, operand.shape, operand.pose)),
      faceNames: taggedNames(operand),
    }));
    const fuse = keep(new occt.BRepAlgoAPI_BuilderAlgo());
    try {
      fuse.SetArguments(
        keep(new occt.NCollection_List_TopoDS_Shape(inputs.map(({ shape }) => shape) as never)),
      );
      fuse.SetRunParallel(false);
      fuse.Build(progressRange({ occt, keep }));
      if (fuse.HasErrors()) return undefined;
      const cells = occurrences({ occt, keep }, keep(fuse.Shape()), 'TopAbs_SOLID');
      const kept = cells.filter((cell) => isWithin(occt, cell, field.at));
      if (kept.length === 0) throw emptyFault(content.how);
      const named = kept.map((cell) => {
        const shape = keep(copied(occt, cell, AT_ORIGIN));
        return { shape, faceNames: carryNames({ occt, keep }, fuse, { inputs, result: cell }) };
      });
      return joinedCells(occt, named);
    } finally {
      fuse.Clear();
    }
  });
}

/** Cells that share a face become one solid; those that only touch stay what they are. */
function joinedCells(occt: Occt, cells: readonly NamedShape[]): NamedShape {
  const sharing = cells.length > 1 ? operateOnCells(occt, cells) : undefined;
  if (sharing) return sharing;
  return together(
    occt,
    cells.map(({ shape, faceNames }) => ({ shape: copied(occt, shape, AT_ORIGIN), faceNames })),
  );
}

/** Undefined where their union loses volume, as it does where cells touch along a line. */
function operateOnCells(occt: Occt, cells: readonly NamedShape[]): NamedShape | undefined {
  const united = operate(occt, {
    how: 'union',
    operands: cells.map((cell) => ({ ...cell, tag: '', pose: AT_ORIGIN })),
  });
  const volume = (shape: TopoDS_Shape) => plainVolumeOf(occt, shape);
  const whole = cells.reduce((sum, { shape }) => sum + volume(shape), 0);
  if (Math.abs(volume(united.shape) - whole) <= SAME_VOLUME * whole) return united;
  united.shape.delete();
  return undefined;
}
const SAME_VOLUME = 1e-9;

/** By the vote of points below the middles of its faces. */
function isWithin(occt: Occt, cell: TopoDS_Shape, at: Distance): boolean {
  const bounds = sizeOf(occt, cell);
  const mesh = meshShape(occt, cell, displayChord(bounds));
  const samples = samplesOf(occt, cell, mesh);
  for (const depth of DEPTHS) {
    const values = samples.map((sample): number => at(beside(sample, -depth * bounds)));
    const [inside, outside] = [values.filter((n) => n < 0).length, values.filter((n) => n > 0).length];
    if (inside + outside > 0 && (inside === 0 || outside === 0)) return outside === 0;
  }
  return false;
}

const sizeOf = (occt: Occt, shape: TopoDS_Shape): number => Math.hypot(...boxSize(roughBox(occt, shape)));
