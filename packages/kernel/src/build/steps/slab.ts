/**
 * What lies between two distances from some of a solid's faces, where these go on into one another: only they are moved, and not the whole
 * solid, which takes the kernel a hundred times as long where it has many free patches.
 */
import { faultOf } from '@kadrel/core';
import { nameFaces, type NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  ShapeMap,
  fromList,
  progressRange,
  translated,
  uniqueShapes,
  type Occt,
  type Scoped,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { meetingEdges, type MeetingEdge } from './chosen.ts';

/** What its sides and its back are called: where something of a side is left of a slab, it was too small. */
export const SLAB_SIDE = 'side of slab';
export const SLAB_BACK = 'back of slab';

/** What is between two distances out of faces, which are given by their places in their solid. */
export interface Slab {
  readonly faces: readonly number[];
  /** Where its back is, and where its front is, mm out of the solid. */
  readonly back: number;
  readonly front: number;
}

/**
 * Over faces of a solid, and those beside them into which they go on; its front is called like them. With all those faces. Undefined
 * where the kernel cannot move them.
 */
export function slabOver(
  { occt, keep }: Scoped,
  of: NamedShape,
  { faces, back, front }: Slab,
): { readonly slab: NamedShape; readonly sheet: NamedShape } | undefined {
  try {
    const sheet = sheetOver({ occt, keep }, of, faces);
    if (!sheet) return undefined;
    const behind = movedSheet({ occt, keep }, sheet, back);
    const slab = thickened({ occt, keep }, behind, front - back);
    return isSound(occt, slab.shape) ? { slab, sheet } : undefined;
  } catch (error) {
    const failure = translated(occt, error);
    if (failure instanceof BuildError) return undefined;
    throw failure;
  }
}

/** The faces, and those that meet them smoothly, as one surface; undefined where it would have a bend, or fall into pieces. */
function sheetOver({ occt, keep }: Scoped, of: NamedShape, faces: readonly number[]): NamedShape | undefined {
  const all = uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE').map((face, i) => ({
    face: keep(occt.TopoDS.Face(face)),
    name: of.faceNames[i]!,
  }));
  const edges = meetingEdges({ occt, keep }, of);
  const smooth = edges.filter(({ bend }) => bend === 'smooth');
  const first = faces.map((i) => all[i]!.face);
  const beside = first.flatMap((face) => facesBeside(face, smooth));
  const isSome = (face: TopoDS_Face) => [...first, ...beside].some((one) => one.IsSame(face));
  const some = all.filter(({ face }) => isSome(face));
  const isBent = edges.some(({ bend, faces: both }) => bend !== 'smooth' && both.every(isSome));
  if (
    isBent ||
    !isOnePiece(
      some[0]!.face,
      smooth.filter((edge) => edge.faces.every(isSome)),
      some.length,
    )
  )
    return undefined;
  if (some.length === 1) return { shape: some[0]!.face, faceNames: [some[0]!.name] };
  // They share their edges as they are.
  const builder = keep(new occt.TopoDS_Builder());
  const shell = keep(new occt.TopoDS_Shell());
  builder.MakeShell(shell);
  for (const { face } of some) builder.Add(shell, face);
  return nameFaces(occt, shell, some);
}

const facesBeside = (face: TopoDS_Face, edges: readonly MeetingEdge[]): TopoDS_Face[] =>
  edges.flatMap(({ faces }) =>
    faces.some((one) => one.IsSame(face)) ? faces.filter((one) => !one.IsSame(face)) : [],
  );

/** Whether one comes from a face to so many by edges. */
function isOnePiece(from: TopoDS_Face, edges: readonly MeetingEdge[], count: number): boolean {
  const found = [from];
  for (const face of found)
    for (const next of facesBeside(face, edges)) if (!found.some((one) => one.IsSame(next))) found.push(next);
  return found.length === count;
}

/** Throws BuildError. */
function movedSheet({ occt, keep }: Scoped, sheet: NamedShape, by: number): NamedShape {
  const operation = keep(new occt.BRepOffsetAPI_MakeOffsetShape());
  operation.PerformBySimple(sheet.shape, by);
  if (!operation.IsDone()) throw cannotBeMoved();
  const shape = keep(operation.Shape());
  return { shape, faceNames: namesAfter({ occt, keep }, operation, { sheet, shape }) };
}

/** Throws BuildError. */
function thickened({ occt, keep }: Scoped, sheet: NamedShape, by: number): NamedShape {
  const operation = keep(new occt.BRepOffsetAPI_MakeThickSolid());
  operation.MakeThickSolidBySimple(sheet.shape, by);
  operation.Build(progressRange({ occt, keep }));
  if (!operation.IsDone()) throw cannotBeMoved();
  const shape = keep(occt.TopoDS.Solid(keep(operation.Shape())));
  occt.BRepLib.OrientClosedSolid(shape);
  return { shape, faceNames: namesAfter({ occt, keep }, operation, { sheet, shape }) };
}

const cannotBeMoved = () => new BuildError(faultOf('emboss.too-deep-for-bend', {}));

interface Change {
  readonly sheet: NamedShape;
  readonly shape: TopoDS_Shape;
}

/** Faces that were moved keep their names; those from which they were, where they are left, are the back. */
function namesAfter(
  { occt, keep }: Scoped,
  operation:
    InstanceType<Occt['BRepOffsetAPI_MakeOffsetShape']> | InstanceType<Occt['BRepOffsetAPI_MakeThickSolid']>,
  { sheet, shape }: Change,
): string[] {
  const names = new ShapeMap<string>(occt);
  uniqueShapes({ occt, keep }, sheet.shape, 'TopAbs_FACE').forEach((face, i) => {
    names.ensure(face, () => SLAB_BACK);
    for (const one of fromList({ occt, keep }, keep(operation.Generated(face))))
      names.ensure(one, () => sheet.faceNames[i]!);
  });
  return uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => names.get(face) ?? SLAB_SIDE);
}
