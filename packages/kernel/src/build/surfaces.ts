/** Open surfaces: within a loop of curves, and the bodies that they become by caps or by a thickness. */
import { AT_ORIGIN, distance, faultOf, type Section, type Vec3 } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import {
  BuildError,
  ShapeMap,
  fromList,
  moved,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { plainVolumeOf } from '../facts/integrals.ts';
import { isFlatFace } from '../facts/surface.ts';
import { combineShapes } from '../booleans/operation.ts';
import { requireBodies } from './compound.ts';
import { endsOfEdge, placedEdges, type Edge, type Wire } from '../occt/edges.ts';
import type { NamedShape } from '../naming/named.ts';
import { buildTurnedBand } from './bodies/revolve.ts';
import { rimsOf } from './bodies/rims.ts';
import { buildStanding } from './bodies/wall.ts';

/** Ends of edges nearer than this are one, mm: ten times what the kernel itself allows. */
const JOINT_MM = 1e-6;

/** Faces: surface. Flat where all curves lie in one plane. Throws BuildError. */
export function buildFill(occt: Occt, sections: readonly Section[]): NamedShape {
  return scope((keep) => {
    const edges = sections.flatMap(({ pose, paths }) =>
      paths.flatMap((path) => placedEdges({ occt, keep }, path, pose).map(({ edge }) => edge)),
    );
    const loops = loopsOf({ occt, keep }, edges);
    if (!loops || loops.length !== 1)
      throw loops
        ? new BuildError(faultOf('surface.several-loops', { loops: loops.length }))
        : new BuildError(faultOf('surface.no-loop', {}), looseEnds({ occt, keep }, edges));
    const flat = keep(new occt.BRepBuilderAPI_MakeFace(wireFrom({ occt, keep }, loops[0]!), true));
    if (flat.IsDone()) return { shape: flat.Face(), faceNames: ['surface'] };
    const filling = keep(new occt.BRepOffsetAPI_MakeFilling(3, 15, 2, false, 1e-5, 1e-4, 0.01, 0.1, 8, 9));
    for (const edge of loops[0]!) filling.Add(edge, 'GeomAbs_C0', true);
    filling.Build(progressRange({ occt, keep }));
    if (!filling.IsDone()) throw new BuildError(faultOf('surface.not-laid', {}));
    return { shape: filling.Shape(), faceNames: ['surface'] };
  });
}

/** Edges put in order, loop by loop; undefined where one does not close. */
function loopsOf({ occt, keep }: Scoped, edges: readonly Edge[]): Edge[][] | undefined {
  const left = edges.map((edge) => ({ edge, ends: endsOfEdge({ occt, keep }, edge) }));
  const loops: Edge[][] = [];
  while (left.length > 0) {
    const [first] = left.splice(0, 1);
    const loop = [first!.edge];
    const start = first!.ends[0];
    let end = first!.ends[1];
    while (distance(start, end) > JOINT_MM) {
      const next = left.findIndex(({ ends }) => ends.some((one) => distance(one, end) <= JOINT_MM));
      if (next < 0) return undefined;
      const [found] = left.splice(next, 1);
      end = distance(found!.ends[0], end) <= JOINT_MM ? found!.ends[1] : found!.ends[0];
      loop.push(found!.edge);
    }
    loops.push(loop);
  }
  return loops;
}

/** Ends that no other edge has. */
function looseEnds({ occt, keep }: Scoped, edges: readonly Edge[]): Vec3[] {
  const ends = edges.flatMap((edge) => endsOfEdge({ occt, keep }, edge));
  return ends.filter((end) => ends.filter((other) => distance(other, end) <= JOINT_MM).length === 1);
}

function wireFrom({ occt, keep }: Scoped, edges: readonly Edge[]): Wire {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  for (const edge of edges) builder.Add(edge);
  if (!builder.IsDone()) throw new BuildError(faultOf('surface.curves-do-not-join', {}));
  return keep(builder.Wire());
}

/** The surface with a flat face in each of its openings, as a body; one without openings as it is. The new faces are called cap. Throws BuildError. */
export function buildClosed(occt: Occt, surface: NamedShape): NamedShape {
  return scope((keep) => {
    const loops = loopsOf({ occt, keep }, rimsOf({ occt, keep }, surface.shape));
    if (!loops)
      throw new BuildError(
        faultOf('surface.rim-open', {}),
        looseEnds({ occt, keep }, rimsOf({ occt, keep }, surface.shape)),
      );
    const caps = loops.map((loop) => {
      const cap = keep(new occt.BRepBuilderAPI_MakeFace(wireFrom({ occt, keep }, loop), true));
      if (!cap.IsDone())
        throw new BuildError(faultOf('surface.opening-not-flat', {}), [
          endsOfEdge({ occt, keep }, loop[0]!)[0],
        ]);
      return keep(cap.Face());
    });
    if (caps.length === 1 && surface.faceNames.length === 1 && isFlat({ occt, keep }, surface.shape))
      throw new BuildError(faultOf('surface.flat', {}));
    return sewn(
      { occt, keep },
      [
        ...uniqueShapes({ occt, keep }, surface.shape, 'TopAbs_FACE').map((face, i) => ({
          face,
          name: surface.faceNames[i]!,
        })),
        ...caps.map((face) => ({ face: face, name: 'cap' })),
      ],
      'The closed surface',
    );
  });
}

const isFlat = ({ occt, keep }: Scoped, shape: TopoDS_Shape): boolean =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').every((face) => isFlatFace(occt, face));

/** How far apart edges may be that are sewn together, mm. */
const SEW_MM = 1e-6;

export interface NamedFace {
  readonly face: TopoDS_Shape;
  readonly name: string;
}

/** Faces side by side as one body. @param what it is, where it is no body. Throws BuildError. */
export function sewn({ occt, keep }: Scoped, faces: readonly NamedFace[], what: string): NamedShape {
  const { shell, nameAll } = sewnFaces(occt, faces, { what, gap: SEW_MM, keep });
  const solidOf = (one: TopoDS_Shape) =>
    keep(new occt.BRepBuilderAPI_MakeSolid(keep(occt.TopoDS.Shell(one)))).Solid();
  const solid = solidOf(shell);
  // Turned over by itself it keeps its faces, by which they are named.
  const isOut = plainVolumeOf(occt, solid) >= 0;
  return nameAll(requireBodies(occt, isOut ? solid : solidOf(keep(shell.Reversed())), what));
}

/** Faces side by side as one open surface. Throws BuildError. */
export function sewnSurface(
  occt: Occt,
  faces: readonly NamedFace[],
  { keep, gap = SEW_MM }: { readonly keep: Keep; readonly gap?: number },
): NamedShape {
  const { shell, nameAll } = sewnFaces(occt, faces, { what: 'The surface', gap, keep });
  return nameAll(moved(occt, shell, AT_ORIGIN));
}

interface Sewing {
  readonly what: string;
  /** Edges no farther apart than this (mm) become one. */
  readonly gap: number;
  readonly keep: Keep;
}

function sewnFaces(occt: Occt, faces: readonly NamedFace[], { what, gap, keep }: Sewing) {
  const sewing = keep(new occt.BRepBuilderAPI_Sewing(Math.max(gap, SEW_MM), true, true, true, false));
  for (const { face } of faces) sewing.Add(face);
  sewing.Perform(progressRange({ occt, keep }));
  const made = keep(sewing.SewedShape());
  const shells = occurrences({ occt, keep }, made, 'TopAbs_SHELL');
  const [all, inShells] = [[made], shells].map((of) =>
    of.reduce((sum, one) => sum + uniqueShapes({ occt, keep }, one, 'TopAbs_FACE').length, 0),
  ) as [number, number];
  // A face that meets no other stays by itself, outside any shell.
  const pieces = shells.length + all - inShells;
  if (pieces !== 1 || shells.length !== 1) throw new BuildError(faultOf('surface.pieces', { what, pieces }));
  const names = new ShapeMap<string>(occt);
  for (const { face, name } of faces) {
    const image = sewing.IsModified(face) ? keep(sewing.Modified(face)) : face;
    names.ensure(image, () => name);
  }
  const nameAll = (shape: TopoDS_Shape): NamedShape => ({
    shape,
    faceNames: uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => names.get(face) ?? 'face'),
  });
  return { shell: shells[0]!, nameAll };
}

type Thickened = Extract<Content, { kind: 'thickened' }>;

/** A surface as a body: before it is where its faces look. Throws BuildError. */
export function buildThickened(occt: Occt, surface: NamedShape, content: Thickened): NamedShape {
  const { of, before, behind } = asMade(content);
  // What was raised from curves is exactly what stands between their parallels; its faces look to the right.
  if (of.kind === 'raise') {
    const [path, ...others] = of.paths;
    if (!path || others.length > 0) throw new BuildError(faultOf('surface.thickened-pieces', {}));
    return buildStanding(occt, path, { right: -before, left: behind, from: -of.down, to: of.height });
  }
  if (of.kind === 'revolve') return buildTurnedBand(occt, of, { before, behind });
  const sides = [content.before, -content.behind].filter((by) => by !== 0);
  const layer = (by: number) =>
    surface.faceNames.length === 1 && hasRim(occt, surface.shape)
      ? offsetSheet(occt, surface, by)
      : hollowed(occt, surface, by);
  const [first, second] = sides.map(layer);
  if (!second) return first!;
  try {
    return combineShapes(occt, 'union', [
      { ...first!, tag: '' },
      { ...second, tag: 'behind' },
    ]);
  } finally {
    first!.shape.delete();
    second.shape.delete();
  }
}

/** The same said of the surface as it was before it was turned inside out: what was made by formulas stays so. */
const asMade = ({ of, before, behind }: Omit<Thickened, 'kind'>): Omit<Thickened, 'kind'> =>
  of.kind === 'turnedOver' ? asMade({ of: of.of, before: behind, behind: before }) : { of, before, behind };

const hasRim = (occt: Occt, shape: TopoDS_Shape): boolean =>
  scope((keep) => rimsOf({ occt, keep }, shape).length > 0);

const cannotFollow = () => new BuildError(faultOf('surface.too-thick', {}));

/** One smooth face and another beside it, and the rims between them. */
function offsetSheet(occt: Occt, { shape }: NamedShape, by: number): NamedShape {
  return scope((keep) => {
    const thick = keep(new occt.BRepOffsetAPI_MakeThickSolid());
    thick.MakeThickSolidBySimple(shape, by);
    if (!thick.IsDone()) throw cannotFollow();
    const made = requireBodies(occt, thick.Shape(), 'The thick surface');
    const faces = uniqueShapes({ occt, keep }, made, 'TopAbs_FACE');
    const own = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE')[0]!;
    const images = fromList({ occt, keep }, keep(thick.Generated(own)));
    const nameOf = (face: TopoDS_Shape) =>
      face.IsSame(own) ? 'surface' : images.some((image) => image.IsSame(face)) ? 'offset' : 'rim';
    return { shape: made, faceNames: faces.map(nameOf) };
  });
}

/** A surface with flat openings, closed and then hollowed out from them: corners stay sharp. */
function hollowed(occt: Occt, surface: NamedShape, by: number): NamedShape {
  return scope((keep) => {
    const whole = buildClosed(occt, surface);
    keep(whole.shape);
    const faces = uniqueShapes({ occt, keep }, whole.shape, 'TopAbs_FACE');
    const caps = faces.filter((_, i) => whole.faceNames[i] === 'cap');
    const thick = keep(new occt.BRepOffsetAPI_MakeThickSolid());
    thick.MakeThickSolidByJoin(
      whole.shape,
      keep(new occt.NCollection_List_TopoDS_Shape(caps as never)),
      by,
      THICK_TOLERANCE_MM,
      'BRepOffset_Skin',
      false,
      false,
      'GeomAbs_Intersection',
      false,
      progressRange({ occt, keep }),
    );
    if (!thick.IsDone()) throw cannotFollow();
    const shape = requireBodies(occt, thick.Shape(), 'The thick surface');
    const names = new ShapeMap<string>(occt);
    faces.forEach((face, i) => {
      const name = whole.faceNames[i]!;
      names.ensure(face, () => name);
      for (const image of fromList({ occt, keep }, keep(thick.Generated(face))))
        names.ensure(image, () => (name === 'cap' ? 'rim' : `offset.${name}`));
    });
    const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map(
      (face) => names.get(face) ?? 'rim',
    );
    return { shape, faceNames };
  });
}
const THICK_TOLERANCE_MM = 1e-4;
