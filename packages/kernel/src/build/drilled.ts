/**
 * A box less round holes that go straight through it: the same solid, with the same names, as the subtraction gives,
 * built as a face with holes that is pulled up. Ten times faster for a hundred holes, since nothing is intersected.
 */
import { chain, inverse, type Pose, type Vec3 } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import {
  moved,
  scope,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { nameFaces, type NamedShape } from '../naming/named.ts';

type Combination = Extract<Content, { kind: 'combine' }>;
type AxisIndex = 0 | 1 | 2;

interface Hole {
  readonly name: string;
  /** In the box's own frame, on the plane through its least corner. */
  readonly centre: Vec3;
  /** Where the circle begins, as on the cylinder that was subtracted. */
  readonly start: Vec3;
  readonly radius: number;
}

interface Drilling {
  readonly size: Vec3;
  readonly pose: Pose;
  readonly axis: AxisIndex;
  readonly holes: readonly Hole[];
}

/** Holes nearer to a side or to one another than this (mm) are left to the general way: a hundred times its tolerance. */
const CLEAR_MM = 1e-5;
const LEAST: readonly string[] = ['left', 'front', 'bottom'];
const GREATEST: readonly string[] = ['right', 'back', 'top'];

/** What is drilled, when a subtraction is nothing but that; undefined for the general way. */
export function drillingOf({ how, operands }: Combination): Drilling | undefined {
  const [first, ...tools] = operands;
  if (how !== 'subtract' || first?.content.kind !== 'box' || tools.length === 0) return undefined;
  const { size } = first.content;
  const boxFromOuter = inverse(first.pose);
  let axis: AxisIndex | undefined;
  const holes: Hole[] = [];
  for (const { tag, pose, content } of tools) {
    if (content.kind !== 'cylinder') return undefined;
    const local = chain(boxFromOuter, pose);
    const along = axisOf(local);
    if (along === undefined || (axis !== undefined && along !== axis)) return undefined;
    axis = along;
    const hole = throughHole({ size, pose: local, axis: along }, content, tag);
    if (!hole || holes.some((other) => !areApart(hole, other))) return undefined;
    holes.push(hole);
  }
  return axis === undefined ? undefined : { size, pose: first.pose, axis, holes };
}

/** The box's axis that a cylinder runs along exactly. */
function axisOf({ turn }: Pose): AxisIndex | undefined {
  const direction = [turn[2], turn[5], turn[8]];
  const axis = direction.findIndex((n) => Math.abs(n) === 1);
  return axis >= 0 && direction.every((n, i) => i === axis || n === 0) ? (axis as AxisIndex) : undefined;
}

function throughHole(
  { size, pose, axis }: { readonly size: Vec3; readonly pose: Pose; readonly axis: AxisIndex },
  { diameter, height }: { diameter: number; height: number },
  tag: string,
): Hole | undefined {
  const { turn, shift } = pose;
  const radius = diameter / 2;
  const end = shift[axis] + height * turn[2 + 3 * axis]!;
  const goesThrough = Math.min(shift[axis], end) <= 0 && Math.max(shift[axis], end) >= size[axis];
  const isInside = ([0, 1, 2] as const).every(
    (i) => i === axis || (shift[i] - radius > CLEAR_MM && shift[i] + radius < size[i] - CLEAR_MM),
  );
  if (!goesThrough || !isInside || !(radius > CLEAR_MM)) return undefined;
  const centre = shift.map((n, i) => (i === axis ? 0 : n)) as unknown as Vec3;
  return { name: `${tag}.side`, centre, start: [turn[0], turn[3], turn[6]], radius };
}

const areApart = (a: Hole, b: Hole) =>
  Math.hypot(a.centre[0] - b.centre[0], a.centre[1] - b.centre[1], a.centre[2] - b.centre[2]) >
  a.radius + b.radius + CLEAR_MM;

/** mm³ */
export const drilledVolume = ({ size, axis, holes }: Drilling): number =>
  size[0] * size[1] * size[2] -
  holes.reduce((sum, { radius }) => sum + Math.PI * radius ** 2 * size[axis], 0);

/** A plate with holes, built at once instead of cut. */
export function buildDrilled(occt: Occt, { size, pose, axis, holes }: Drilling): NamedShape {
  return scope((keep) => {
    const [u, v] = [((axis + 1) % 3) as AxisIndex, ((axis + 2) % 3) as AxisIndex];
    const outline = wireOf({ occt, keep }, rectangle({ occt, keep }, size, { u, v }));
    const face = keep(new occt.BRepBuilderAPI_MakeFace(outline.wire, true));
    const rims = holes.map((hole) => wireOf({ occt, keep }, [circle(occt, hole, axis, keep)]));
    for (const { wire } of rims) face.Add(keep(occt.TopoDS.Wire(keep(wire.Reversed()))));
    const up = size.map((n, i) => (i === axis ? n : 0));
    const prism = keep(
      new occt.BRepPrimAPI_MakePrism(
        keep(face.Face()),
        keep(new occt.gp_Vec(up[0]!, up[1]!, up[2]!)),
        false,
        true,
      ),
    );
    const solid = keep(prism.Shape());
    const swept = (edge: TopoDS_Shape): TopoDS_Face => {
      const list = keep(prism.Generated(edge));
      return keep(occt.TopoDS.Face(keep(list.First())));
    };
    const sides = [LEAST[v]!, GREATEST[u]!, GREATEST[v]!, LEAST[u]!];
    const roles = [
      { face: keep(occt.TopoDS.Face(keep(prism.FirstShape()))), name: LEAST[axis]! },
      { face: keep(occt.TopoDS.Face(keep(prism.LastShape()))), name: GREATEST[axis]! },
      ...outline.edges.map((edge, i) => ({ face: swept(edge), name: sides[i]! })),
      ...rims.map(({ edges }, i) => ({ face: swept(edges[0]!), name: holes[i]!.name })),
    ];
    const { faceNames } = nameFaces(occt, solid, roles);
    return { shape: moved(occt, solid, pose), faceNames };
  });
}

/** The four edges round the face at the least end of the axis, counter-clockwise seen along it. */
function rectangle(
  { occt, keep }: Scoped,
  size: Vec3,
  { u, v }: { readonly u: AxisIndex; readonly v: AxisIndex },
) {
  const corner = (onU: number, onV: number) => {
    const at = [0, 1, 2].map((i) => (i === u ? onU : i === v ? onV : 0));
    return keep(new occt.gp_Pnt(at[0]!, at[1]!, at[2]!));
  };
  const corners = [corner(0, 0), corner(size[u], 0), corner(size[u], size[v]), corner(0, size[v])];
  return corners.map((from, i) =>
    keep(keep(new occt.BRepBuilderAPI_MakeEdge(from, corners[(i + 1) % 4]!)).Edge()),
  );
}

function circle(occt: Occt, { centre, start, radius }: Hole, axis: AxisIndex, keep: Keep) {
  const up = [0, 1, 2].map((i) => (i === axis ? 1 : 0));
  const axes = keep(
    new occt.gp_Ax2(
      keep(new occt.gp_Pnt(...centre)),
      keep(new occt.gp_Dir(up[0]!, up[1]!, up[2]!)),
      keep(new occt.gp_Dir(...start)),
    ),
  );
  return keep(keep(new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Circ(axes, radius)))).Edge());
}

/** A wire, and its edges as they are in it: edges that are joined become copies which share their ends. */
function wireOf({ occt, keep }: Scoped, edges: readonly ReturnType<typeof circle>[]) {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  const joined = edges.map((edge) => {
    builder.Add(edge);
    return keep(builder.Edge());
  });
  return { wire: keep(builder.Wire()), edges: joined };
}
