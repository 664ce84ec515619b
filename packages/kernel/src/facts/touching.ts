/** Whether solids of one shape touch where they share nothing: along a line or in a point. */
import { boxesMeet, type Box, type Vec3 } from '@kadrel/core';
import {
  distanceBetween,
  occurrences,
  scope,
  uniqueShapes,
  withoutFacets,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { displayChord, meshShape, type Mesh } from './mesh.ts';

/** Solids nearer than this (mm) touch: the kernel's tolerance. */
const TOUCH_MM = 1e-7;
/** More pairs than this, of solids with boxes that meet and then of faces with facets that do, are not looked at one by one. */
const MAX_PAIRS = 60;

/**
 * The kernel takes minutes for the distance of two rings that are linked, or of two free surfaces. So facets say first which faces come
 * near one another at all, and only those are asked about.
 */
export function doTouch(occt: Occt, shape: TopoDS_Shape): boolean {
  return scope((keep) => {
    const solids = occurrences(occt, shape, 'TopAbs_SOLID', keep);
    if (solids.length < 2) return false;
    const boxes = solids.map((solid) => wideBox(occt, solid));
    const pairs = solids.flatMap((a, i) =>
      solids
        .slice(i + 1)
        .flatMap((b, j) => (boxesMeet(boxes[i]!, boxes[i + 1 + j]!) ? [[a, b] as const] : [])),
    );
    const { min, max } = wideBox(occt, shape);
    const chord = displayChord(Math.hypot(...max.map((n, i) => n - min[i]!)));
    const touch = pairs.slice(0, MAX_PAIRS).some(([a, b]) => facesTouch(occt, [a, b], chord));
    withoutFacets(occt, shape);
    return touch;
  });
}

function facesTouch(occt: Occt, [a, b]: readonly [TopoDS_Shape, TopoDS_Shape], chord: number): boolean {
  return scope((keep) => {
    const [ofA, ofB] = [a, b].map((solid) => uniqueShapes(occt, solid, 'TopAbs_FACE', keep)) as [
      TopoDS_Shape[],
      TopoDS_Shape[],
    ];
    const near = nearFaces(meshShape(occt, a, chord), meshShape(occt, b, chord));
    return near.slice(0, MAX_PAIRS).some(([i, j]) => distanceBetween(occt, ofA[i]!, ofB[j]!) <= TOUCH_MM);
  });
}

/** Facets lie within so many chords of the true surface, and wide ones within a part of their size (`verify/points.ts`). */
const CHORDS = 4;
const OF_FACET = 0.1;

interface FacetBox {
  readonly box: Box;
  readonly face: number;
}

/** Pairs of faces, by their places in each mesh, whose true surfaces may meet. */
export function nearFaces(a: Mesh, b: Mesh): [a: number, b: number][] {
  const [ofA, ofB] = [facetBoxes(a), facetBoxes(b)];
  const found = new Set<string>();
  // Both ascend by their least x: what ends before a facet begins cannot meet it, nor any facet after it.
  let open: FacetBox[] = [];
  let next = 0;
  for (const one of ofA) {
    while (next < ofB.length && ofB[next]!.box.min[0] <= one.box.max[0]) open.push(ofB[next++]!);
    open = open.filter(({ box }) => box.max[0] >= one.box.min[0]);
    for (const other of open) if (boxesMeet(one.box, other.box)) found.add(`${one.face} ${other.face}`);
  }
  return [...found].map((pair) => pair.split(' ').map(Number) as [number, number]);
}

/** Wide enough for the true surface, in ascending order of their least x. */
function facetBoxes({ positions, triangles, faceOfTriangle, chordMm }: Mesh): FacetBox[] {
  const boxes = Array.from(faceOfTriangle, (face, t): FacetBox => {
    const corner = (k: number) => [0, 1, 2].map((i) => positions[3 * triangles[3 * t + k]! + i]!);
    const corners = [corner(0), corner(1), corner(2)];
    const least = [0, 1, 2].map((i) => Math.min(...corners.map((one) => one[i]!)));
    const most = [0, 1, 2].map((i) => Math.max(...corners.map((one) => one[i]!)));
    const slack = CHORDS * chordMm + OF_FACET * Math.max(...most.map((n, i) => n - least[i]!));
    const min = least.map((n) => n - slack) as unknown as Vec3;
    return { box: { min, max: most.map((n) => n + slack) as unknown as Vec3 }, face };
  });
  return boxes.sort((p, q) => p.box.min[0] - q.box.min[0]);
}

function wideBox(occt: Occt, shape: TopoDS_Shape): Box {
  return scope((keep) => {
    const bounds = keep(new occt.Bnd_Box());
    occt.BRepBndLib.Add(shape, bounds, false);
    const [min, max] = [keep(bounds.CornerMin()), keep(bounds.CornerMax())];
    const read = (one: typeof min): Vec3 => [one.X(), one.Y(), one.Z()];
    return { min: read(min), max: read(max) };
  });
}
