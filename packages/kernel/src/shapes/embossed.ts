/**
 * Regions laid on a solid, square to their own plane. What is raised lies between the solid and one that is offset from it by
 * the depth, within a prism over the regions: on planes, cylinders and balls that is exact, and square to the surface.
 */
import { AT_ORIGIN, inverse } from '@kadrel/core';
import type { Content } from '../content.ts';
import { exactBox } from '../facts/measure.ts';
import { meshShape, type Mesh } from '../facts/mesh.ts';
import {
  BuildError,
  fromList,
  moved,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { buildCombination, type Operand } from './combine.ts';
import { together } from './compound.ts';
import type { NamedShape } from './named.ts';
import { pulledFace } from './raise.ts';
import { planarFaces, type Planar } from './regions.ts';

type Embossed = Extract<Content, { kind: 'embossed' }>;

/** Chord of the facets that say where the surface lies, as a part of the solid's size. */
const LOOK_CHORD = 1 / 500;

/** Throws BuildError. */
export function buildEmbossed(occt: Occt, solid: NamedShape, content: Embossed): NamedShape {
  return scope((keep) => {
    // All is done in the frame of the regions, and carried back.
    const there = inverse(content.frame);
    const own: NamedShape = { ...solid, shape: keep(moved(occt, solid.shape, there)) };
    const planar = planarFaces(occt, content.paths, content.regions, keep);
    const { from, to } = nearSide(occt, own.shape, planar, content.depth);
    const prism = together(
      occt,
      planar.faces.map((face) => pulledFace(occt, planar, face, from, to, keep)),
    );
    keep(prism.shape);
    const made =
      content.depth === 0
        ? imprinted(occt, own, planar, prism, keep)
        : content.depth > 0
          ? raised(occt, own, prism, content.depth, keep)
          : engraved(occt, own, prism, -content.depth, keep);
    keep(made.shape);
    return { shape: moved(occt, made.shape, content.frame), faceNames: made.faceNames };
  });
}

/** The heights between which the prism holds the surface that faces the plane, and nothing of the one behind. */
function nearSide(
  occt: Occt,
  solid: TopoDS_Shape,
  planar: Planar,
  depth: number,
): { from: number; to: number } {
  const { min, max } = exactBox(occt, solid);
  const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  const mesh = meshShape(occt, solid, size * LOOK_CHORD);
  const isAbove = (min[2] + max[2]) / 2 > 0;
  let [near, far] = [-Infinity, Infinity];
  for (const [x, y] of samplesOf(occt, planar)) {
    const heights = heightsAt(mesh, x, y);
    if (heights.length < 2)
      throw new BuildError(
        'The outline reaches beyond the solid.',
        'Move it onto the solid, or make it smaller.',
      );
    // Heights along the way from the plane: the first two are where the solid begins and ends.
    const along = heights.map((z) => (isAbove ? z : -z)).sort((a, b) => a - b);
    const ahead = along.filter((z) => z > -Math.abs(depth) - size * LOOK_CHORD);
    near = Math.max(near, ahead[0] ?? Infinity);
    far = Math.min(far, ahead.find((z) => z > ahead[0]! + size * 1e-6) ?? Infinity);
  }
  if (!(near < far))
    throw new BuildError(
      'The surface bends too far away under the outline.',
      'Make the outline smaller, or lay it on the solid from another side.',
    );
  const stop = (near + Math.min(far, near + size)) / 2;
  const start = -Math.abs(depth) - size * 0.01 - 1e-3;
  return isAbove ? { from: Math.min(start, stop), to: stop } : { from: -stop, to: -Math.min(start, stop) };
}

/** Points round the regions and within them, a hair inward so that a rim that is flush with an edge counts. */
function samplesOf(occt: Occt, planar: Planar): [number, number][] {
  return planar.faces.flatMap((face) => {
    const { positions, triangles } = meshShape(occt, face, 0.1);
    const found: [number, number][] = [];
    for (let t = 0; t + 2 < triangles.length; t += 3) {
      const corners = [0, 1, 2].map((k) => 3 * triangles[t + k]!);
      const middle = [0, 1].map(
        (axis) => corners.reduce((sum, corner) => sum + positions[corner + axis]!, 0) / 3,
      );
      for (const corner of corners)
        found.push([0, 1].map((axis) => mix(positions[corner + axis]!, middle[axis]!)) as [number, number]);
    }
    return found;
  });
}
const mix = (a: number, b: number) => a + (b - a) * 1e-3;

/** Where a vertical line meets facets. */
function heightsAt({ positions, triangles }: Mesh, x: number, y: number): number[] {
  const found: number[] = [];
  for (let t = 0; t + 2 < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const [ax, ay, bx, by, cx, cy] = [
      positions[a]!,
      positions[a + 1]!,
      positions[b]!,
      positions[b + 1]!,
      positions[c]!,
      positions[c + 1]!,
    ];
    const whole = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (whole === 0) continue;
    const u = ((bx - x) * (cy - y) - (by - y) * (cx - x)) / whole;
    const v = ((cx - x) * (ay - y) - (cy - y) * (ax - x)) / whole;
    const w = 1 - u - v;
    if (u < 0 || v < 0 || w < 0) continue;
    const z = u * positions[a + 2]! + v * positions[b + 2]! + w * positions[c + 2]!;
    if (!found.some((other) => Math.abs(other - z) < 1e-6)) found.push(z);
  }
  return found;
}

/** The solid with all its faces moved outward; inward for a depth below zero. */
function offset(occt: Occt, { shape, faceNames }: NamedShape, by: number, keep: Keep): NamedShape {
  const operation = keep(new occt.BRepOffsetAPI_MakeOffsetShape());
  operation.PerformByJoin(
    shape,
    by,
    OFFSET_TOLERANCE_MM,
    'BRepOffset_Skin',
    false,
    false,
    'GeomAbs_Intersection',
    false,
    progressRange(occt, keep),
  );
  if (!operation.IsDone())
    throw new BuildError(
      'The surface cannot be followed at this depth.',
      'Make the depth smaller than its narrowest bend.',
    );
  const made = keep(operation.Shape());
  const [only] = occurrences(occt, made, 'TopAbs_SOLID', keep);
  if (!only) throw new BuildError('The surface cannot be followed at this depth.', 'Make the depth smaller.');
  const names = uniqueShapes(occt, shape, 'TopAbs_FACE', keep).map((face, i) => ({
    images: fromList(occt, keep(operation.Generated(face)), keep),
    name: faceNames[i]!,
  }));
  return {
    shape: only,
    faceNames: uniqueShapes(occt, only, 'TopAbs_FACE', keep).map(
      (face) => names.find(({ images }) => images.some((image) => image.IsSame(face)))?.name ?? 'face',
    ),
  };
}
const OFFSET_TOLERANCE_MM = 1e-3;

const tagged = ({ shape, faceNames }: NamedShape, tag: string): Operand => ({ shape, faceNames, tag });

function raised(occt: Occt, solid: NamedShape, prism: NamedShape, depth: number, keep: Keep): NamedShape {
  const relief = buildCombination(occt, 'intersect', [
    tagged(offset(occt, solid, depth, keep), ''),
    tagged(prism, 'outline'),
  ]);
  keep(relief.shape);
  return buildCombination(occt, 'union', [tagged(solid, ''), tagged(relief, 'relief')]);
}

function engraved(occt: Occt, solid: NamedShape, prism: NamedShape, depth: number, keep: Keep): NamedShape {
  const cutter = buildCombination(occt, 'subtract', [
    tagged(prism, 'outline'),
    tagged(offset(occt, solid, -depth, keep), 'floor'),
  ]);
  keep(cutter.shape);
  return buildCombination(occt, 'subtract', [tagged(solid, ''), tagged(cutter, 'engraving')]);
}

/** The same solid, with the outline as edges on it; the faces within are called imprint. */
function imprinted(occt: Occt, solid: NamedShape, planar: Planar, prism: NamedShape, keep: Keep): NamedShape {
  const sides = uniqueShapes(occt, prism.shape, 'TopAbs_FACE', keep).filter(
    (_, i) => prism.faceNames[i] !== 'top' && prism.faceNames[i] !== 'bottom',
  );
  const splitter = keep(new occt.BRepAlgoAPI_Splitter());
  try {
    splitter.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([solid.shape] as never)));
    splitter.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(sides as never)));
    splitter.SetRunParallel(false);
    splitter.Build(progressRange(occt, keep));
    const whole = keep(splitter.Shape());
    const [only] = occurrences(occt, whole, 'TopAbs_SOLID', keep);
    if (splitter.HasErrors() || !only)
      throw new BuildError('The outline could not be laid on the solid.', 'Move it a little.');
    occt.BRepTools.RemoveInternals(only, false);
    const names = uniqueShapes(occt, solid.shape, 'TopAbs_FACE', keep).map((face, i) => {
      const images = fromList(occt, keep(splitter.Modified(face)), keep);
      return { images: images.length > 0 ? images : [face], name: solid.faceNames[i]! };
    });
    const inside = insideOf(occt, planar, prism);
    const faceNames = uniqueShapes(occt, only, 'TopAbs_FACE', keep).map((face) => {
      const name = names.find(({ images }) => images.some((image) => image.IsSame(face)))?.name ?? 'face';
      return inside(face) ? `imprint.${name}` : name;
    });
    return { shape: moved(occt, only, AT_ORIGIN), faceNames };
  } finally {
    splitter.Clear();
  }
}

/** Whether a face lies within the prism, told by a point of it. */
function insideOf(occt: Occt, planar: Planar, prism: NamedShape) {
  const mesh = planar.faces.map((face) => meshShape(occt, face, 0.1));
  const { min, max } = exactBox(occt, prism.shape);
  return (face: TopoDS_Shape): boolean => {
    const { positions, triangles } = meshShape(occt, face, 0.1);
    if (triangles.length < 3) return false;
    const [x, y, z] = [0, 1, 2].map(
      (axis) => [0, 1, 2].reduce((sum, k) => sum + positions[3 * triangles[k]! + axis]!, 0) / 3,
    ) as [number, number, number];
    return z > min[2] && z < max[2] && mesh.some((one) => heightsAt(one, x, y).length > 0);
  };
}
