/**
 * Facets within closed loops on a plane: the Delaunay triangles of all corners, with the pieces of the loops among their edges. The time
 * grows little faster than the number of corners.
 */
import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';

export type Flat = readonly [x: number, y: number];

/** Facets cover what the loops enclose to this part of its area, or they are not taken: places are read from single floats. */
const SAME_AREA = 1e-5;

/**
 * Three corners a facet, all facets the same way round, each an index among the corners of all loops in their order. Holes are left
 * open.
 * @param loops an outer one and the holes in it, in any order, each either way round
 * @returns undefined where loops touch or cross each other, or themselves
 */
export function facetsWithin(loops: readonly (readonly Flat[])[]): number[] | undefined {
  const points = loops.flat();
  const triangulation = Delaunator.from(points);
  const constrained = new Constrainautor(triangulation);
  try {
    let first = 0;
    for (const { length } of loops) {
      for (let i = 0; i < length; i++) constrained.constrainOne(first + i, first + ((i + 1) % length));
      first += length;
    }
  } catch {
    // A piece that runs through a corner, or crosses another one.
    return undefined;
  }
  const { triangles, halfedges } = triangulation;
  const isInside = insideOf(halfedges, (edge) => constrained.isConstrained(edge));
  const within = [...triangles].filter((_, edge) => isInside[Math.floor(edge / 3)]);
  return isCovered(loops, areaOfFacets(points, within)) ? within : undefined;
}

/** Which triangles lie within an odd number of loops: from the rim inwards, each piece of a loop that is crossed turns it over. */
function insideOf(halfedges: Int32Array, isOfLoop: (edge: number) => boolean): Uint8Array {
  const inside = new Uint8Array(halfedges.length / 3);
  const isSeen = new Uint8Array(inside.length);
  const waiting: number[] = [];
  const reach = (edge: number, side: number) => {
    const triangle = Math.floor(edge / 3);
    if (isSeen[triangle]) return;
    isSeen[triangle] = 1;
    inside[triangle] = side;
    waiting.push(triangle);
  };
  halfedges.forEach((other, edge) => other < 0 && reach(edge, isOfLoop(edge) ? 1 : 0));
  for (let triangle = waiting.pop(); triangle !== undefined; triangle = waiting.pop())
    for (let edge = 3 * triangle; edge < 3 * triangle + 3; edge++) {
      const other = halfedges[edge]!;
      if (other >= 0) reach(other, isOfLoop(edge) ? 1 - inside[triangle]! : inside[triangle]!);
    }
  return inside;
}

/** The loop of the greatest area is the outer one. */
function isCovered(loops: readonly (readonly Flat[])[], twiceArea: number): boolean {
  const areas = loops.map((loop) => Math.abs(areaWithin(loop)));
  const enclosed = 2 * Math.max(...areas) - areas.reduce((sum, area) => sum + area, 0);
  return Math.abs(Math.abs(twiceArea) - enclosed) < SAME_AREA * enclosed;
}

/** Twice the area within a loop, positive when it runs counter-clockwise. */
const areaWithin = (loop: readonly Flat[]): number =>
  loop.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = loop[(i + 1) % loop.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);

/** Twice the area of facets, positive when they run counter-clockwise. */
export function areaOfFacets(points: readonly Flat[], triangles: readonly number[]): number {
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [points[triangles[t]!]!, points[triangles[t + 1]!]!, points[triangles[t + 2]!]!];
    sum += (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
  }
  return sum;
}
