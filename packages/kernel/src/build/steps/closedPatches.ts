/**
 * A closed solid of smooth patches whose edges and corners are shared, instead of sewn together, which takes longer than all else that is
 * done to it. The kernel lets no curve be put on a face that it has not made itself, so that the solid is written down, in the
 * kernel's own text form (version 3 of it), and read.
 */
import { distance, type Vec3 } from '@kadrel/core';
import { facesBeside, shellsOf, type Numbered } from '../closedFlat.ts';
import type { NamedShape } from '../../naming/named.ts';
import type { Occt } from '../../occt/occt.ts';
import { edgeKey, type Patch } from './refined.ts';

/** A patch, and its corners by number. */
export interface LaidPatch extends Patch {
  /** Counter-clockwise seen from outside, from its first pole along its first row. */
  readonly corners: readonly number[];
}

/** What the kernel allows edges to be off their faces, mm. */
const TOLERANCE = '1e-07';
/** Border points that two patches say of one edge differ by no more than this, mm. */
const SAME_BORDER_MM = 1e-9;

/** Undefined where the patches do not close as they are. They keep their order. */
export function closedPatches(occt: Occt, patches: readonly LaidPatch[]): NamedShape | undefined {
  const numbered = numberedCorners(patches);
  const beside = facesBeside(numbered);
  const shells = beside && shellsOf(numbered, beside);
  const borders = shells && bordersOf(patches);
  if (!borders) return undefined;
  const shape = occt.BRepToolsWrapper.Read(writtenPatches(patches, { borders, shells }));
  if (shape.IsNull()) throw new Error('The kernel cannot read the patches that were written for it.');
  return { shape, faceNames: shells.flatMap((members) => members.map((i) => patches[i]!.name)) };
}

function numberedCorners(patches: readonly LaidPatch[]): Numbered {
  const points: Vec3[] = [];
  for (const { corners, poles } of patches)
    CORNERS.forEach(({ pole }, k) => {
      points[corners[k]!] = poles[pole]!;
    });
  return { points, faces: patches.map(({ corners }) => [corners]) };
}

/** The corners of a patch in their order: where each is, and the poles of the side that begins there. */
const CORNERS = [
  { pole: 0, at: [0, 0], side: [0, 1, 2, 3] },
  { pole: 3, at: [1, 0], side: [3, 7, 11, 15] },
  { pole: 15, at: [1, 1], side: [15, 14, 13, 12] },
  { pole: 12, at: [0, 1], side: [12, 8, 4, 0] },
] as const;

/** An edge between two patches, from its corner of the lower number. */
interface Border {
  readonly ends: readonly [number, number];
  readonly poles: readonly Vec3[];
  /** The patches beside it, and which of their sides it is. */
  readonly uses: { readonly patch: number; readonly side: number; readonly isForward: boolean }[];
}

/** By the numbers of their ends; undefined where two patches say different things of one edge. */
function bordersOf(patches: readonly LaidPatch[]): Map<string, Border> | undefined {
  const borders = new Map<string, Border>();
  for (const [patch, { corners, poles }] of patches.entries())
    for (const [side, { side: along }] of CORNERS.entries()) {
      const [from, to] = [corners[side]!, corners[(side + 1) % 4]!];
      const isForward = from < to;
      const own = (isForward ? along : [...along].reverse()).map((i) => poles[i]!);
      const ends = isForward ? ([from, to] as const) : ([to, from] as const);
      const border = borders.get(edgeKey(...ends)) ?? { ends, poles: own, uses: [] };
      if (own.some((pole, i) => distance(pole, border.poles[i]!) > SAME_BORDER_MM)) return undefined;
      border.uses.push({ patch, side, isForward });
      borders.set(edgeKey(...ends), border);
    }
  return borders;
}

interface Closed {
  readonly borders: ReadonlyMap<string, Border>;
  readonly shells: readonly (readonly number[])[];
}

function writtenPatches(patches: readonly LaidPatch[], { borders, shells }: Closed): string {
  const edges = [...borders.values()];
  const curvesOnPatches = edges.flatMap(({ uses }) => uses.map(curveOnPatch));
  const records = new Records();
  const edgeOf = addEdges(records, edges);
  const faces = patches.map(({ corners }, i) => {
    const wire = records.add(
      'Wi\n\n0101100',
      corners.map((from, k) => edgeOf(from, corners[(k + 1) % 4]!)),
    );
    return records.add(`Fa\n1 ${TOLERANCE} ${i + 1} 0\n\n0101000`, [`+${wire}`]);
  });
  const surfaces = shells.map((members) => {
    const shell = records.add(
      'Sh\n\n0101100',
      members.map((i) => `+${faces[i]!}`),
    );
    return `+${shell}`;
  });
  records.add('So\n\n1100000', surfaces);
  return [
    '\nCASCADE Topology V3, (c) Open Cascade\nLocations 0',
    `Curve2ds ${curvesOnPatches.length}`,
    ...curvesOnPatches,
    `Curves ${edges.length}`,
    ...edges.map(({ poles }) => `7 0 0  3 4 2 ${poles.map(placeText).join(' ')}\n 0 4 1 4`),
    'Polygon3D 0\nPolygonOnTriangulations 0',
    `Surfaces ${patches.length}`,
    ...patches.map(surfaceText),
    'Triangulations 0\n',
    records.text(),
  ].join('\n');
}

/** With their corners before them. Returns what tells how the edge from one corner to another is referred to. */
function addEdges(records: Records, edges: readonly Border[]): (from: number, to: number) => string {
  const vertices = new Map<number, number>();
  for (const { ends, poles } of edges)
    for (const [i, end] of ends.entries())
      if (!vertices.has(end)) vertices.set(end, records.add(vertexText(poles[3 * i]!)));
  const numbers = new Map<string, number>();
  let onPatches = 0;
  for (const [i, border] of edges.entries()) {
    const [from, to] = border.ends;
    const parts = [`+${vertices.get(from)!}`, `-${vertices.get(to)!}`];
    numbers.set(edgeKey(from, to), records.add(edgeText(border, i + 1, onPatches), parts));
    onPatches += border.uses.length;
  }
  return (from, to) => `${from < to ? '+' : '-'}${numbers.get(edgeKey(from, to))!}`;
}

const placeText = (at: Vec3): string => at.join(' ');

/** Straight, from the end of the lower number. */
function curveOnPatch({ side, isForward }: Border['uses'][number]): string {
  const [a, b] = [CORNERS[side]!.at, CORNERS[(side + 1) % 4]!.at];
  const [from, to] = isForward ? [a, b] : [b, a];
  return `1 ${from.join(' ')} ${to[0] - from[0]} ${to[1] - from[1]}`;
}

/** Of degree 3 both ways; the poles come column by column. */
const surfaceText = ({ poles }: Patch): string => {
  const columns = [0, 1, 2, 3].flatMap((u) => [0, 1, 2, 3].map((v) => placeText(poles[4 * v + u]!)));
  return `9 0 0 0 0 3 3 4 4 2 2 ${columns.join(' ')}\n\n0 4\n1 4\n\n0 4\n1 4\n`;
};

const vertexText = (at: Vec3): string => `Ve\n${TOLERANCE}\n${placeText(at)}\n0 0\n\n0101101`;

/** @param first how many curves on patches are before its own */
const edgeText = ({ uses }: Border, curve: number, first: number): string =>
  [
    `Ed\n ${TOLERANCE} 1 1 0`,
    `1 ${curve} 0 0 1`,
    ...uses.map(({ patch }, i) => `2 ${first + i + 1} ${patch + 1} 0 0 1`),
    '0\n\n0101000',
  ].join('\n');

/** What a solid consists of, in order of how it is put together: each refers to those before it, by numbers that count from the end. */
class Records {
  private readonly records: { readonly text: string; readonly parts: readonly string[] }[] = [];

  /** @param parts a sign and the number of a record. Returns the number of the new one */
  add(text: string, parts: readonly string[] = []): number {
    return this.records.push({ text, parts });
  }

  text(): string {
    const count = this.records.length;
    const referring = (part: string) => `${part[0]!}${count + 1 - Number(part.slice(1))} 0 `;
    return [
      `TShapes ${count}`,
      ...this.records.map(({ text, parts }) => `${text}\n${parts.map(referring).join('')}*`),
      '\n+1 0 \n',
    ].join('\n');
  }
}
