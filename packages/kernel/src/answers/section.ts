/** What a section plane cuts: areas, borders and centroids of each item, and where two fill the same place. */
import { carry, type CutFacts, type ItemId, type Pose, type Replies, type Vec3 } from '@kadrel/core';
import { borderOf } from '../facts/faces.ts';
import { pathsOfEdges } from '../occt/curves.ts';
import { commonFacets } from '../facts/common.ts';
import { areaCentroidOf, integralsOf } from '../facts/integrals.ts';
import type { NamedShape } from '../naming/named.ts';
import {
  compoundOf,
  occurrences,
  roughBox,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** Overlaps smaller than this (mm²) are noise where faces touch. */
const MIN_OVERLAP = 1e-6;

/** @param pose from the frame of the section to the world */
export function sectionFacts(occt: Occt, named: NamedShape, pose: Pose): Replies['section'] {
  return scope((keep) => {
    const byItem = facesByItem({ occt, keep }, named);
    const items = [...byItem].map(([item, own]): CutFacts => {
      const faces = keep(compoundOf(occt, own));
      const { area } = integralsOf(occt, faces);
      return { item, area, border: borderOf(occt, own), centroid: carry(pose, areaCentroidOf(occt, faces)) };
    });
    return { items, overlaps: overlapsOf(occt, byItem, pose) };
  });
}

/** In the frame of the section plane. */
export const sectionOutlines = (occt: Occt, named: NamedShape): Replies['outlines'] =>
  scope((keep) =>
    [...facesByItem({ occt, keep }, named)].map(([item, faces]) => {
      const edges = faces.flatMap((face) => occurrences({ occt, keep }, face, 'TopAbs_EDGE'));
      return { item, paths: pathsOfEdges(occt, edges) };
    }),
  );

function facesByItem({ occt, keep }: Scoped, { shape, faceNames }: NamedShape): Map<ItemId, TopoDS_Shape[]> {
  const byItem = new Map<ItemId, TopoDS_Shape[]>();
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').forEach((face, i) => {
    const item = itemOf(faceNames[i]!);
    byItem.set(item, [...(byItem.get(item) ?? []), face]);
  });
  return byItem;
}

/** The standing item whose solid a cut face is of: the first name of its tag. */
const itemOf = (faceName: string): ItemId => faceName.split('.')[0]!;

function overlapsOf(occt: Occt, byItem: ReadonlyMap<ItemId, readonly TopoDS_Shape[]>, pose: Pose) {
  const all = [...byItem].flatMap(([item, faces]) =>
    faces.map((face) => ({ item, face, box: roughBox(occt, face) })),
  );
  const sums = new Map<string, Overlap>();
  all.forEach((one, i) => {
    for (const other of all.slice(i + 1)) {
      if (one.item === other.item || !doMeet(one.box, other.box)) continue;
      const common = commonFacets(occt, one.face, other.face);
      if (!common || common.area < MIN_OVERLAP) continue;
      const key = [one.item, other.item].sort().join();
      const before = sums.get(key);
      if (before) {
        before.area += common.area;
        before.corners.push(...common.corners);
      } else sums.set(key, { items: [one.item, other.item], ...common, at: carry(pose, common.at) });
    }
  });
  return [...sums.values()];
}

interface Overlap {
  readonly items: readonly [ItemId, ItemId];
  area: number;
  readonly at: Vec3;
  /** 9·T, in the frame of the section plane. */
  readonly corners: number[];
}

type Box = ReturnType<typeof roughBox>;
const doMeet = (a: Box, b: Box) => [0, 1].every((i) => a.min[i]! < b.max[i]! && b.min[i]! < a.max[i]!);
