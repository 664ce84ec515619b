/** Walls along an outline: as thick as is said, with openings. */
import {
  add2,
  curveLength,
  faultOf,
  left2,
  parallelPath,
  pathArea,
  pieceOf,
  pointAt,
  scale2,
  startOf,
  subtract2,
  unit2,
  velocityAt,
  type ArcCurve,
  type Curve,
  type Path,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import {
  BuildError,
  fromList,
  occurrences,
  scope,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import type { BodyContent } from '../../content/bodies.ts';
import { combineShapes, type Tagged } from '../../booleans/operation.ts';
import { edgesOfPath, endsOfEdge, wireOf, type NamedEdge, type Wire } from '../../occt/edges.ts';
import type { NamedShape } from '../../naming/named.ts';
import { polygon, pulledUp } from '../primitives/pulled.ts';
import { pulledFace } from './raise.ts';
import { planarFromWires, type Planar } from './regions.ts';

type Wall = Extract<BodyContent, { kind: 'wall' }>;

/** Faces: bottom, top, a side for each leg by its name and `inner.` and its name, the ends, and those of the openings. */
export function buildWall(occt: Occt, content: Wall): NamedShape {
  const [path, ...others] = content.paths;
  if (!path || others.length > 0) throw new BuildError(faultOf('wall.pieces', {}));
  const [right, left] = reach(path, content);
  const solid = buildStanding(occt, path, { right, left, from: 0, to: content.height });
  if (content.openings.length === 0) return solid;
  const cutters = content.openings.map((_, i) => cutterFor(occt, content, i));
  try {
    return combineShapes(occt, 'subtract', [{ ...solid, tag: '' }, ...cutters]);
  } finally {
    solid.shape.delete();
    for (const { shape } of cutters) shape.delete();
  }
}

/** How far the sides of a band are to the left of the way, mm; the right one is the lesser. */
export interface Band {
  readonly right: number;
  readonly left: number;
}

/** What lies between two parallels of an outline. */
export const bandBeside = ({ occt, keep }: Scoped, path: Path, { right, left }: Band): Planar =>
  planarFromWires({ occt, keep }, footprint({ occt, keep }, path, { right, left }));

interface Standing extends Band {
  readonly from: number;
  readonly to: number;
}
/** What stands along an outline between two parallels of it. */
export function buildStanding(occt: Occt, path: Path, { right, left, from, to }: Standing): NamedShape {
  return scope((keep) => {
    const planar = bandBeside({ occt, keep }, path, { right, left });
    return pulledFace({ occt, keep }, planar, planar.faces[0]!, { from, to });
  });
}

/** How far to the left of the way the wall begins and ends, mm. */
function reach(path: Path, { side, thickness }: Wall): [number, number] {
  const isLeftInside = pathArea(path) > 0;
  if ((side === 'outside' || side === 'inside') && !path.closed)
    throw new BuildError(faultOf('wall.open-inside', {}));
  if (side === 'centred') return [-thickness / 2, thickness / 2];
  const isLeft = side === 'left' || (side === 'inside' ? isLeftInside : side === 'outside' && !isLeftInside);
  return isLeft ? [0, thickness] : [-thickness, 0];
}

/** The outer wire, and for a closed outline the inner one. */
function footprint(
  { occt, keep }: Scoped,
  path: Path,
  { right, left }: { readonly right: number; readonly left: number },
): NamedEdge[][] {
  if (!path.closed) return [openFootprint({ occt, keep }, path, { right, left })];
  const isLeftInside = pathArea(path) > 0;
  const [outer, inner] = isLeftInside ? [-right, -left] : [left, right];
  return [
    parallel({ occt, keep }, path, { out: outer, prefix: '' }),
    parallel({ occt, keep }, path, { out: inner, prefix: 'inner.' }),
  ];
}

/** A closed outline beside another. @param out how far outward, mm; negative is inward */
function parallel(
  { occt, keep }: Scoped,
  path: Path,
  { out, prefix }: { readonly out: number; readonly prefix: string },
): NamedEdge[] {
  const exact = parallelPath(path, pathArea(path) > 0 ? -out : out);
  if (exact) return prefixed(edgesOfPath({ occt, keep }, exact), prefix);
  const { wire, edges } = wireOf({ occt, keep }, edgesOfPath({ occt, keep }, path));
  return offsetEdges({ occt, keep }, { wire, edges: prefixed(edges, prefix) }, { by: out, open: false });
}

const prefixed = (edges: readonly NamedEdge[], prefix: string): NamedEdge[] =>
  edges.map(({ name, edge }) => ({ name: `${prefix}${name}`, edge }));

function offsetEdges(
  { occt, keep }: Scoped,
  { wire, edges }: { readonly wire: Wire; readonly edges: readonly NamedEdge[] },
  { by, open }: { readonly by: number; readonly open: boolean },
): NamedEdge[] {
  const offset = keep(new occt.BRepOffsetAPI_MakeOffset(wire, 'GeomAbs_Intersection', open));
  offset.Perform(by, 0);
  const result = offset.IsDone() ? keep(offset.Shape()) : undefined;
  const wires = result ? occurrences({ occt, keep }, result, 'TopAbs_WIRE') : [];
  if (wires.length !== 1) throw new BuildError(faultOf('wall.no-room', { by: Math.abs(by) }));
  const images = edges.flatMap(({ name, edge }) =>
    fromList({ occt, keep }, keep(offset.Generated(edge))).map((image) => ({ name, image })),
  );
  const nameOf = (edge: TopoDS_Shape) => images.find(({ image }) => image.IsSame(edge))?.name ?? 'side';
  const found = occurrences({ occt, keep }, wires[0]!, 'TopAbs_EDGE').map((shape) => {
    const edge = keep(occt.TopoDS.Edge(shape));
    return { name: nameOf(edge), edge };
  });
  return endToEnd({ occt, keep }, found);
}

/** Edges in the order in which they join, the first one first. */
function endToEnd({ occt, keep }: Scoped, edges: readonly NamedEdge[]): NamedEdge[] {
  const left = edges.map((one) => ({ one, ends: endsOf({ occt, keep }, one) }));
  const isFree = (end: Vec2) =>
    left.flatMap(({ ends }) => ends).filter((other) => near(end, other) < JOINT_MM).length === 1;
  // An open chain begins at one of its ends.
  const at = Math.max(
    0,
    left.findIndex(({ ends }) => ends.some(isFree)),
  );
  const [first] = left.splice(at, 1);
  const chain = [first!];
  let end = isFree(first!.ends[1]) ? first!.ends[0] : first!.ends[1];
  while (left.length > 0) {
    const next = left.findIndex(({ ends }) => ends.some((other) => near(end, other) < JOINT_MM));
    if (next < 0) break;
    const [found] = left.splice(next, 1);
    end = near(end, found!.ends[0]) < JOINT_MM ? found!.ends[1] : found!.ends[0];
    chain.push(found!);
  }
  return chain.map(({ one }) => one);
}

/** Ends of edges nearer than this are one: ten times what the kernel itself allows. */
const JOINT_MM = 1e-6;

function endsOf({ occt, keep }: Scoped, { edge }: NamedEdge): [Vec2, Vec2] {
  const [[ax, ay], [bx, by]] = endsOfEdge({ occt, keep }, edge);
  return [
    [ax, ay],
    [bx, by],
  ];
}

/** Both sides of an open outline, and square ends. */
function openFootprint(
  { occt, keep }: Scoped,
  path: Path,
  { right, left }: { readonly right: number; readonly left: number },
): NamedEdge[] {
  const sides = [left, right].map((by) =>
    openParallel({ occt, keep }, path, { by, prefix: by === left ? '' : 'inner.' }),
  );
  const [first, second] = sides.map(endsOfEdges({ occt, keep }));
  const join = (from: Vec2, to: Vec2, name: string): NamedEdge => ({
    name,
    edge: keep(
      keep(
        new occt.BRepBuilderAPI_MakeEdge(
          keep(new occt.gp_Pnt(from[0], from[1], 0)),
          keep(new occt.gp_Pnt(to[0], to[1], 0)),
        ),
      ).Edge(),
    ),
  });
  // Up along one side, across its end, back along the other, and across the start.
  const isSameWay = near(first![0], second![0]) < near(first![0], second![1]);
  const [a, b] = isSameWay ? second! : [second![1], second![0]];
  return [...sides[0]!, join(first![1], b, 'end'), ...[...sides[1]!].reverse(), join(a, first![0], 'start')];
}

const near = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** The two ends of a chain of edges, the end of the first one that no other shares first. */
const endsOfEdges =
  ({ occt, keep }: Scoped) =>
  (edges: readonly NamedEdge[]): [Vec2, Vec2] => {
    const all = edges.flatMap((one) => endsOf({ occt, keep }, one));
    const free = all.filter((end, i) => !all.some((other, j) => j !== i && near(end, other) < JOINT_MM));
    return [free[0]!, free[1]!];
  };

/** @param by how far to the left of the way, mm */
function openParallel(
  { occt, keep }: Scoped,
  path: Path,
  { by, prefix }: { readonly by: number; readonly prefix: string },
): NamedEdge[] {
  const exact = by === 0 ? path : parallelPath(path, by);
  if (exact) return prefixed(edgesOfPath({ occt, keep }, exact), prefix);
  const { wire, edges } = wireOf({ occt, keep }, prefixed(edgesOfPath({ occt, keep }, path), prefix));
  // The kernel's sign depends on the outline: the side is determined by where the first end comes to lie.
  const first = path.curves[0]!.curve;
  const wanted = add2(startOf(first), scale2(left2(unit2(velocityAt(first, 0))), by));
  for (const sign of [1, -1]) {
    const found = offsetEdges({ occt, keep }, { wire, edges }, { by: sign * by, open: true });
    if (endsOfEdges({ occt, keep })(found).some((end) => near(end, wanted) < SIDE_MM)) return found;
  }
  throw new BuildError(faultOf('wall.not-laid', {}));
}
/** The end of the right side lies within this of where it should, mm. */
const SIDE_MM = 1e-5;

/** What an opening takes out. Lengths run along the leg itself, round a bend too. */
function cutterFor(occt: Occt, content: Wall, index: number): Tagged {
  const { openings, legs } = content;
  const opening = openings[index]!;
  const leg = legs[opening.leg - 1];
  if (!leg)
    throw new BuildError(
      faultOf('wall.opening-off', { opening: index + 1, leg: opening.leg, legs: legs.length }),
    );
  const length = curveLength(leg);
  const at = (along: number): Vec3 => [
    ...pointAt(leg, Math.min(1, Math.max(0, along / length))),
    opening.sill,
  ];
  if (opening.from < 0 || opening.from + opening.width > length + 1e-9)
    throw new BuildError(
      faultOf('wall.opening-beyond', {
        opening: index + 1,
        from: opening.from,
        to: opening.from + opening.width,
        length: shortNumber(length),
      }),
      [at(opening.from)],
    );
  const tag = `opening${index + 1}`;
  if (leg.kind === 'line') return { ...openingBox(occt, leg, opening, content.thickness), tag };
  if (leg.kind === 'arc') return { ...openingBand(occt, leg, opening, content), tag };
  throw new BuildError(faultOf('wall.opening-on-curve', { opening: index + 1, leg: opening.leg }), [
    at(opening.from),
  ]);
}

const shortNumber = (n: number) => String(Number(n.toFixed(6)));

type Opening = Wall['openings'][number];

/** A piece of a ring that goes through the whole wall, wherever that stands beside the leg. */
function openingBand(
  occt: Occt,
  leg: ArcCurve,
  { from, width, sill, height }: Opening,
  content: Wall,
): NamedShape {
  const length = curveLength(leg);
  const piece = pieceOf(leg, from / length, (from + width) / length);
  const [right, left] = reach(content.paths[0]!, content);
  // Towards the middle of the bend there may be little room beside the wall.
  const inner = leg.radius - (leg.sweep > 0 ? left : -right);
  const beyond = Math.min(content.thickness, inner / 2);
  const path: Path = { closed: false, curves: [{ name: 'leg', curve: piece }] };
  const band = { right: right - beyond, left: left + beyond, from: sill, to: sill + height };
  return named(buildStanding(occt, path, band));
}

const named = ({ shape, faceNames }: NamedShape): NamedShape => ({
  shape,
  faceNames: faceNames.map((name) => (name === 'bottom' ? 'sill' : name === 'top' ? 'lintel' : name)),
});

function openingBox(
  occt: Occt,
  { from, to }: Extract<Curve, { kind: 'line' }>,
  opening: Opening,
  thickness: number,
): NamedShape {
  const way = unit2(subtract2(to, from));
  return scope((keep) => {
    // It goes through the whole wall, wherever that stands beside the leg.
    const deep = scale2(left2(way), 1.5 * thickness);
    const [a, b] = [
      add2(from, scale2(way, opening.from)),
      add2(from, scale2(way, opening.from + opening.width)),
    ];
    const corners = [subtract2(a, deep), subtract2(b, deep), add2(b, deep), add2(a, deep)];
    const base = polygon(
      { occt, keep },
      corners.map(([x, y]) => [x, y, opening.sill] as const),
    );
    return named(
      pulledUp({ occt, keep }, { rims: [base], sides: [['right', 'end', 'left', 'start']] }, [
        0,
        0,
        opening.height,
      ]),
    );
  });
}
