/**
 * The kernel’s own check of a shape. It looks for each edge of a face among all edges of that face, so that its time grows with the
 * square of the holes (2.3 s for two faces with 900). Flat faces with many holes are therefore shown to it in pieces: the same face with
 * its outer wire and a few of its holes at a time, each hole once. That no hole meets another, or lies within it, is told by boxes that
 * hold them; holes whose boxes meet are shown together. What only the whole shell tells is counted here.
 */
import type { Box } from '@kadrel/core';
import { boxGroups } from './boxGroups.ts';
import {
  ShapeMap,
  compoundOf,
  occurrences,
  pointShape,
  roughBox,
  scope,
  uniqueShapes,
  type Occt,
  type Scoped,
  type TopoDS_Face,
  type TopoDS_Shape,
} from './occt.ts';
import { Sets } from './sets.ts';

/** Whether the kernel's own check of a shape, geometry included, finds nothing wrong. */
export const isSound = (occt: Occt, shape: TopoDS_Shape): boolean =>
  scope((keep) => isSoundAtOnce(occt, piecesOf({ occt, keep }, shape) ?? shape));

/** The kernel's check of a shape as it is. */
export function isSoundAtOnce(occt: Occt, shape: TopoDS_Shape): boolean {
  return scope((keep) => {
    const check = keep(new occt.BRepCheck_Analyzer(shape, true, false, false));
    const result = check.IsValid();
    // Deleting it alone would lose what it knows of the shape, some 100 KB; being given another shape, it lets go.
    check.Init(pointShape({ occt, keep }, [0, 0, 0]), true);
    return result;
  });
}

/** Faces with fewer holes are quicker checked as they are. */
const MANY_HOLES = 60;
/** Holes that are shown to the kernel at a time; more only where their boxes meet. */
const HOLES_AT_A_TIME = 12;
/** An outer wire of more edges, which stands in every piece, makes the pieces as slow as the whole. */
const MAX_OUTER_EDGES = 60;

/** The faces of one closed shell, or loose ones, those with many holes in pieces; undefined for what is better checked, or to be refused, as it is. */
function piecesOf({ occt, keep }: Scoped, shape: TopoDS_Shape): TopoDS_Shape | undefined {
  const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) =>
    keep(occt.TopoDS.Face(face)),
  );
  const pieces = faces.map((face) => piecesOfFace({ occt, keep }, face));
  if (pieces.every((of) => of === undefined)) return undefined;
  if (!isLoose({ occt, keep }, shape) && !isOneShell(occt, shape, faces)) return undefined;
  return keep(
    compoundOf(
      occt,
      faces.flatMap((face, i) => pieces[i] ?? [face]),
    ),
  );
}

/** Faces by themselves, of which there is nothing to tell together. */
const isLoose = (site: Scoped, shape: TopoDS_Shape): boolean =>
  occurrences(site, shape, 'TopAbs_SHELL').length === 0;

function piecesOfFace({ occt, keep }: Scoped, face: TopoDS_Face): TopoDS_Shape[] | undefined {
  const wires = occurrences({ occt, keep }, face, 'TopAbs_WIRE');
  if (wires.length <= MANY_HOLES || !isFlat(occt, face)) return undefined;
  const border = keep(occt.BRepTools.OuterWire(face));
  const holes = wires.filter((wire) => !wire.IsSame(border));
  if (holes.length !== wires.length - 1) return undefined;
  if (occurrences({ occt, keep }, border, 'TopAbs_EDGE').length > MAX_OUTER_EDGES) return undefined;
  const outer = wires.filter((wire) => wire.IsSame(border));
  return together(holes.map((hole) => roughBox(occt, hole)))?.map((group) => {
    const piece = keep(face.EmptyCopied());
    for (const wire of [...outer, ...group.map((i) => holes[i]!)])
      keep(new occt.TopoDS_Builder()).Add(piece, wire);
    return piece;
  });
}

const isFlat = (occt: Occt, face: TopoDS_Face): boolean =>
  scope(
    (keep) =>
      (keep(new occt.BRepAdaptor_Surface(face, false)).GetType() as unknown as string) === 'GeomAbs_Plane',
  );

/** Indices of holes in groups, so that boxes of different groups do not meet; undefined where too many hang together. */
function together(boxes: readonly Box[]): number[][] | undefined {
  const groups: number[][] = [];
  for (const one of boxGroups(boxes)) {
    if (one.length > MANY_HOLES) return undefined;
    const last = groups.at(-1);
    if (last && last.length < HOLES_AT_A_TIME) last.push(...one);
    else groups.push(one);
  }
  return groups;
}

interface EdgeUse {
  forward: number;
  reversed: number;
  /** A face that has it. */
  readonly face: number;
}

/** Whether a shape is one solid of one shell, in which faces hang together and each edge has one face on either side, as it looks. */
function isOneShell(occt: Occt, shape: TopoDS_Shape, faces: readonly TopoDS_Shape[]): boolean {
  return scope((keep) => {
    for (const kind of ['TopAbs_SOLID', 'TopAbs_SHELL'] as const)
      if (occurrences({ occt, keep }, shape, kind).length !== 1) return false;
    const known = new ShapeMap<EdgeUse>(occt);
    const uses: EdgeUse[] = [];
    const hanging = new Sets(faces.length);
    faces.forEach((face, i) => {
      for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
        const use = known.ensure(edge, () => uses[uses.push({ forward: 0, reversed: 0, face: i }) - 1]!);
        const way = edge.Orientation() as unknown as string;
        if (way === 'TopAbs_FORWARD') use.forward++;
        if (way === 'TopAbs_REVERSED') use.reversed++;
        hanging.join(i, use.face);
      }
    });
    return (
      hanging.all().length === 1 && uses.every(({ forward, reversed }) => forward === 1 && reversed === 1)
    );
  });
}
