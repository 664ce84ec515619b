/**
 * Blocks whose sides are parallel, united by arithmetic alone: the planes of their faces part space into cells, and the border of the cells
 * that are filled is the border of the union, to the last digit. Pure arithmetic.
 */
import { MERGED, type Vec3 } from '@kadrel/core';
import { areaWithin, type FlatFace } from './flatFaces.ts';

type AxisIndex = 0 | 1 | 2;
type Side = 'min' | 'max';
/** By its number along each axis. */
type Cell = readonly [number, number, number];

/** A block along the axes, and what its faces are called. */
export interface Block {
  readonly min: Vec3;
  readonly max: Vec3;
  readonly nameOf: (axis: AxisIndex, side: Side) => string;
}

const AXES: readonly AxisIndex[] = [0, 1, 2];
/** More cells than this cost more than the kernel's own way. */
const MAX_CELLS = 50_000;
/** Planes that are nearer than this (mm), but not one, are left to the general way: a hundred times the kernel's tolerance. */
const CLEAR_MM = 1e-5;

/** Space in cells, by the planes of all faces. */
interface Cells {
  /** Along each axis, in order. */
  readonly planes: readonly (readonly number[])[];
  readonly isFilled: (cell: Cell) => boolean;
}

/** @returns undefined where planes nearly meet, or the border touches itself along an edge or at a corner, or there are too many cells */
export function unitedBlocks(blocks: readonly Block[]): { faces: FlatFace[]; volume: number } | undefined {
  const cells = cellsOf(blocks);
  if (!cells || !isManifold(cells)) return undefined;
  const sheets = AXES.flatMap((axis) => sheetsAcross(cells, blocks, axis));
  const faces = facesOf(cells, sheets);
  return faces && { faces, volume: volumeOf(cells) };
}

function cellsOf(blocks: readonly Block[]): Cells | undefined {
  const planes = AXES.map((axis) =>
    [...new Set(blocks.flatMap(({ min, max }) => [min[axis], max[axis]]))].sort((a, b) => a - b),
  );
  if (planes.some((list) => list.some((at, i) => i > 0 && at - list[i - 1]! < CLEAR_MM))) return undefined;
  const [nx, ny, nz] = planes.map((list) => list.length - 1) as [number, number, number];
  if (nx * ny * nz > MAX_CELLS) return undefined;
  const filled = new Uint8Array(nx * ny * nz);
  const number = AXES.map((axis) => new Map(planes[axis]!.map((at, i) => [at, i])));
  for (const { min, max } of blocks) {
    const [from, to] = [min, max].map((corner) => AXES.map((axis) => number[axis]!.get(corner[axis])!));
    for (const cell of cellsBetween(from!, to!)) filled[(cell[0] * ny + cell[1]) * nz + cell[2]] = 1;
  }
  const isFilled = ([x, y, z]: Cell) =>
    x >= 0 && y >= 0 && z >= 0 && x < nx && y < ny && z < nz && filled[(x * ny + y) * nz + z] === 1;
  return { planes, isFilled };
}

function* cellsBetween(from: readonly number[], to: readonly number[]): Generator<Cell> {
  for (let x = from[0]!; x < to[0]!; x++)
    for (let y = from[1]!; y < to[1]!; y++) for (let z = from[2]!; z < to[2]!; z++) yield [x, y, z];
}

function volumeOf({ planes, isFilled }: Cells): number {
  const [xs, ys, zs] = planes.map((list) => list.slice(1).map((at, i) => at - list[i]!)) as [
    number[],
    number[],
    number[],
  ];
  let sum = 0;
  for (const cell of cellsBetween([0, 0, 0], [xs.length, ys.length, zs.length]))
    if (isFilled(cell)) sum += xs[cell[0]]! * ys[cell[1]]! * zs[cell[2]]!;
  return sum;
}

/** Whether the filled and the empty cells round each corner of the cells hang together by their faces: else the border touches itself. */
function isManifold({ planes, isFilled }: Cells): boolean {
  const ends = planes.map((list) => list.length);
  for (const [x, y, z] of cellsBetween([0, 0, 0], ends)) {
    let pattern = 0;
    for (let i = 0; i < 8; i++)
      if (isFilled([x - (i & 1), y - ((i >> 1) & 1), z - (i >> 2)])) pattern |= 1 << i;
    if (!(HANGS_TOGETHER[pattern] && HANGS_TOGETHER[255 - pattern])) return false;
  }
  return true;
}

/** Of the eight cells round a corner, by a bit each: whether those of a pattern hang together by faces. */
const HANGS_TOGETHER: readonly boolean[] = Array.from({ length: 256 }, (_, pattern) => {
  let reached = pattern & -pattern;
  for (let i = 0; i < 8; i++) {
    for (let cell = 0; cell < 8; cell++)
      if (reached & (1 << cell)) for (const way of [1, 2, 4]) reached |= (1 << (cell ^ way)) & pattern;
  }
  return reached === pattern;
});

/** Squares of the border in one plane, all looking one way, that hang together. */
interface Sheet {
  readonly axis: AxisIndex;
  readonly side: Side;
  /** Number of the plane. */
  readonly at: number;
  readonly squares: readonly Cell[];
  readonly names: string[];
}

/** By the cell on the filled side. */
const keyOf = ([x, y, z]: Cell): string => `${x} ${y} ${z}`;

const stepped = (cell: Cell, axis: AxisIndex, by: number): Cell =>
  cell.map((n, i) => (i === axis ? n + by : n)) as unknown as Cell;

const others = (axis: AxisIndex): readonly [AxisIndex, AxisIndex] => [
  ((axis + 1) % 3) as AxisIndex,
  ((axis + 2) % 3) as AxisIndex,
];

/** All sheets square to an axis, with the names of the blocks whose faces are in them. */
function sheetsAcross(cells: Cells, blocks: readonly Block[], axis: AxisIndex): Sheet[] {
  return (['min', 'max'] as const).flatMap((side) => {
    const out = side === 'max' ? 1 : -1;
    const open = openCells(cells, axis, out);
    const sheets = new Map<string, Sheet>();
    const all = [...open.values()].flatMap((first) => {
      if (sheets.has(keyOf(first))) return [];
      const squares = spread(first, open, others(axis));
      const sheet: Sheet = { axis, side, at: first[axis] + (out > 0 ? 1 : 0), squares, names: [] };
      for (const one of squares) sheets.set(keyOf(one), sheet);
      return [sheet];
    });
    for (const block of blocks) nameSheets(cells, block, { axis, side, sheets });
    return all;
  });
}

/** Filled cells with nothing beside them on one side. */
function openCells({ planes, isFilled }: Cells, axis: AxisIndex, out: number): Map<string, Cell> {
  const open = new Map<string, Cell>();
  const ends = planes.map((list) => list.length - 1);
  for (const cell of cellsBetween([0, 0, 0], ends))
    if (isFilled(cell) && !isFilled(stepped(cell, axis, out))) open.set(keyOf(cell), cell);
  return open;
}

/** All that hang together with the first. */
function spread(first: Cell, among: ReadonlyMap<string, Cell>, along: readonly AxisIndex[]): Cell[] {
  const found = new Map([[keyOf(first), first]]);
  for (const cell of found.values())
    for (const axis of along)
      for (const by of [-1, 1]) {
        const next = among.get(keyOf(stepped(cell, axis, by)));
        if (next) found.set(keyOf(next), next);
      }
  return [...found.values()];
}

interface Naming {
  readonly axis: AxisIndex;
  readonly side: Side;
  /** By their cells. */
  readonly sheets: ReadonlyMap<string, Sheet>;
}

/** Gives the name of a block's face to all sheets that it has a share of. */
function nameSheets({ planes }: Cells, block: Block, { axis, side, sheets }: Naming): void {
  const [from, to] = [block.min, block.max].map((corner) =>
    AXES.map((i) => planes[i]!.indexOf(corner[i])),
  ) as [number[], number[]];
  if (side === 'max') from[axis] = to[axis]! - 1;
  else to[axis] = from[axis]! + 1;
  const shared = new Set<Sheet>();
  for (const cell of cellsBetween(from, to)) {
    const sheet = sheets.get(keyOf(cell));
    if (sheet) shared.add(sheet);
  }
  for (const sheet of shared) sheet.names.push(block.nameOf(axis, side));
}

/** A corner of cells, by the numbers of its planes. */
type Corner = Cell;

/** Undefined where a face would touch itself at a corner. */
function facesOf({ planes }: Cells, sheets: readonly Sheet[]): FlatFace[] | undefined {
  const borders = sheets.map(borderOf);
  const bends = bendsOf(borders.flat());
  const pointOf = (corner: Corner): Vec3 => corner.map((n, i) => planes[i]![n]!) as unknown as Vec3;
  const faces = sheets.map(({ names, axis, side }, i): FlatFace | undefined => {
    const loops = loopsOf(borders[i]!)?.map((loop) =>
      loop.filter((corner) => bends.has(keyOf(corner))).map(pointOf),
    );
    if (!loops) return undefined;
    const out = AXES.map((one) => (one === axis ? (side === 'max' ? 1 : -1) : 0)) as unknown as Vec3;
    const outerFirst = (a: readonly Vec3[], b: readonly Vec3[]) => areaWithin(b, out) - areaWithin(a, out);
    return { name: names.join(MERGED), loops: loops.sort(outerFirst) };
  });
  return faces.every((face) => face !== undefined) ? faces : undefined;
}

/** From one corner of the cells to the next. */
type Stretch = readonly [from: Corner, to: Corner];

/** Round the squares of a sheet, counter-clockwise seen from outside; what runs between two of its squares falls away. */
function borderOf({ axis, side, at, squares }: Sheet): Stretch[] {
  const [u, v] = others(axis);
  const all = squares.flatMap((square): Stretch[] => {
    const least: Corner = square.map((n, i) => (i === axis ? at : n)) as unknown as Corner;
    const round = [least, stepped(least, u, 1), stepped(stepped(least, u, 1), v, 1), stepped(least, v, 1)];
    if (side === 'min') round.reverse();
    return round.map((from, i) => [from, round[(i + 1) % 4]!]);
  });
  const ways = new Set(all.map(([from, to]) => `${keyOf(from)} ${keyOf(to)}`));
  return all.filter(([from, to]) => !ways.has(`${keyOf(to)} ${keyOf(from)}`));
}

/** Corners at which edges end: all but those that one edge runs straight through. */
function bendsOf(stretches: readonly Stretch[]): Set<string> {
  const ways = new Map<string, Set<number>>();
  for (const [from, to] of stretches) {
    const axis = AXES.findIndex((i) => from[i] !== to[i]);
    const way = (axis + 1) * (to[axis]! - from[axis]!);
    for (const [corner, out] of [
      [from, way],
      [to, -way],
    ] as const) {
      const known = ways.get(keyOf(corner)) ?? new Set<number>();
      ways.set(keyOf(corner), known.add(out));
    }
  }
  const isBend = (out: ReadonlySet<number>) => out.size !== 2 || [...out].some((way) => !out.has(-way));
  return new Set([...ways].filter(([, out]) => isBend(out)).map(([key]) => key));
}

/** Undefined where two stretches begin at one corner. */
function loopsOf(border: readonly Stretch[]): Corner[][] | undefined {
  const next = new Map(border.map(([from, to]) => [keyOf(from), to]));
  if (next.size < border.length) return undefined;
  const loops: Corner[][] = [];
  for (const [first] of border) {
    const loop: Corner[] = [];
    for (let at: Corner | undefined = first; at && next.has(keyOf(at));) {
      loop.push(at);
      const to: Corner = next.get(keyOf(at))!;
      next.delete(keyOf(at));
      at = to;
    }
    if (loop.length > 0) loops.push(loop);
  }
  return loops;
}
