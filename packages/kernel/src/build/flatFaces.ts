/** Flat faces with straight edges, by their corners. Pure arithmetic. */
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '@kadrel/core';

/** Corners nearer than this (mm) are one, and a corner that is farther from a plane is off it: the kernel’s own tolerance. */
export const SAME_CORNER_MM = 1e-7;

export interface FlatFace {
  readonly name: string;
  /** Its outer border first, counter-clockwise seen from outside; holes run the other way round. */
  readonly loops: readonly (readonly Vec3[])[];
}

/** Twice the area within a loop, positive when it runs counter-clockwise seen against the normal. */
export const areaWithin = (loop: readonly Vec3[], normal: Vec3): number => dot(normal, doubleArea(loop));

/** Of a loop, length 1: counter-clockwise seen against it. Source: M. Newell, as in any textbook of computer graphics. */
export const newellNormal = (loop: readonly Vec3[]): Vec3 => unit(doubleArea(loop));

/** As a vector along the normal. By what lies between the first corner and the others, so that far from the origin no digits are lost. */
function doubleArea([first, ...others]: readonly Vec3[]): Vec3 {
  const arms = others.map((at) => subtract(at, first!));
  return arms.slice(1).reduce<Vec3>((sum, arm, i) => add(sum, cross(arms[i]!, arm)), [0, 0, 0]);
}

/** No corner is off the plane by more than the kernel allows. */
export function isFlat({ loops }: Pick<FlatFace, 'loops'>): boolean {
  const [loop] = loops;
  const normal = newellNormal(loop!);
  const middle = middleOf(loop!);
  return loops.flat().every((at) => Math.abs(dot(normal, subtract(at, middle))) < SAME_CORNER_MM);
}

export const middleOf = (points: readonly Vec3[]): Vec3 =>
  scale(
    points.reduce<Vec3>((sum, at) => add(sum, at), [0, 0, 0]),
    1 / points.length,
  );

export const isSameCorner = (a: Vec3, b: Vec3): boolean => length(subtract(a, b)) < SAME_CORNER_MM;

/** Corners of faces, each of them once. */
export class Corners {
  readonly points: Vec3[] = [];
  /** Of a fine grid: which corners lie in each cell, or so near that they may be taken for one in it. */
  private readonly cells = new Map<string, number[]>();

  /** The index of a corner, which is added where it is new. */
  indexOf(at: Vec3): number {
    const cells = cellsRound(at);
    for (const key of cells)
      for (const index of this.cells.get(key) ?? []) if (isSameCorner(this.points[index]!, at)) return index;
    const index = this.points.push(at) - 1;
    for (const key of cells) this.cells.set(key, [...(this.cells.get(key) ?? []), index]);
    return index;
  }
}

/** The cells that hold what may be the same corner: one, or several where it lies near their borders. */
function cellsRound(at: Vec3): string[] {
  const [xs, ys, zs] = at.map((n) => {
    const [low, high] = [n - SAME_CORNER_MM / 2, n + SAME_CORNER_MM / 2].map((one) =>
      Math.floor(one / CELL_MM),
    );
    return low === high ? [low!] : [low!, high!];
  }) as [number[], number[], number[]];
  return xs.flatMap((x) => ys.flatMap((y) => zs.map((z) => `${x} ${y} ${z}`)));
}
/** Far wider than the slack of corners, so that few lie near a border. */
const CELL_MM = 16 * SAME_CORNER_MM;

/** Six times the volume within closed borders of flat faces, by the theorem of Gauss. */
export function volumeWithin(loops: readonly (readonly Vec3[])[]): number {
  const origin = loops[0]![0]!;
  return loops.reduce((sum, loop) => {
    const [first, ...others] = loop.map((at) => subtract(at, origin));
    return others.slice(1).reduce((part, at, i) => part + dot(first!, cross(others[i]!, at)), sum);
  }, 0);
}
