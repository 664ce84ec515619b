/** Whether solids of one shape touch where they share nothing: along a line or in a point. */
import { boxesMeet, buildBvh, searchBvh } from '@kadrel/core';
import {
  distanceBetween,
  occurrences,
  roughBox,
  scope,
  uniqueShapes,
  withoutFacets,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { displayChord, facetBoxes, facetSlack, meshShape, type Mesh } from './mesh.ts';

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
    const solids = occurrences({ occt, keep }, shape, 'TopAbs_SOLID');
    if (solids.length < 2) return false;
    const boxes = solids.map((solid) => roughBox(occt, solid));
    const pairs = solids.flatMap((a, i) =>
      solids
        .slice(i + 1)
        .flatMap((b, j) => (boxesMeet(boxes[i]!, boxes[i + 1 + j]!) ? [[a, b] as const] : [])),
    );
    const { min, max } = roughBox(occt, shape);
    const chord = displayChord(Math.hypot(...max.map((n, i) => n - min[i]!)));
    const touch = pairs.slice(0, MAX_PAIRS).some(([a, b]) => facesTouch(occt, [a, b], chord));
    withoutFacets(occt, shape);
    return touch;
  });
}

function facesTouch(occt: Occt, [a, b]: readonly [TopoDS_Shape, TopoDS_Shape], chord: number): boolean {
  return scope((keep) => {
    const [ofA, ofB] = [a, b].map((solid) => uniqueShapes({ occt, keep }, solid, 'TopAbs_FACE')) as [
      TopoDS_Shape[],
      TopoDS_Shape[],
    ];
    const near = nearFaces(meshShape(occt, a, chord), meshShape(occt, b, chord));
    return near.slice(0, MAX_PAIRS).some(([i, j]) => distanceBetween(occt, ofA[i]!, ofB[j]!) <= TOUCH_MM);
  });
}

/** Pairs of faces, by their places in each mesh, whose true surfaces may meet. */
function nearFaces(a: Mesh, b: Mesh): [a: number, b: number][] {
  const found = new Set<string>();
  const [ofA, tree] = [widened(a), buildBvh(widened(b))];
  for (let t = 0; t < a.faceOfTriangle.length; t++) {
    const at = 6 * t;
    searchBvh(
      tree,
      (bounds, node) =>
        [0, 1, 2].every(
          (i) => bounds[node + i]! <= ofA[at + 3 + i]! && bounds[node + 3 + i]! >= ofA[at + i]!,
        ),
      (other) => found.add(`${a.faceOfTriangle[t]} ${b.faceOfTriangle[other]}`),
    );
  }
  return [...found].map((pair) => pair.split(' ').map(Number) as [number, number]);
}

/** Boxes of facets, wide enough for the true surface. */
function widened(mesh: Mesh): Float64Array {
  const boxes = facetBoxes(mesh);
  for (let at = 0; at < boxes.length; at += 6) {
    const size = Math.max(...[0, 1, 2].map((i) => boxes[at + 3 + i]! - boxes[at + i]!));
    const slack = facetSlack(mesh.chordMm, size);
    for (let i = 0; i < 3; i++) {
      boxes[at + i]! -= slack;
      boxes[at + 3 + i]! += slack;
    }
  }
  return boxes;
}
