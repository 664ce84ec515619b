/** Which faces of a solid a step has made: those that do not lie where faces were before. */
import { boxSize, boxesMeet, grownBy, type MadeFaces, type Vec3 } from '@kadrel/core';
import { displayChord, meshShape } from '../facts/mesh.ts';
import { exactBox } from '../facts/extent.ts';
import { samplesOf } from '../facts/samples.ts';
import type { NamedShape } from '../naming/named.ts';
import {
  ShapeMap,
  distanceTo,
  roughBox,
  scope,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** A point this near to a former face (mm) lies in it: well above what intersections are off by. */
const SAME_MM = 1e-5;
/** More faces than this are not asked for one by one: it would take seconds. */
const MAX_ASKED = 5000;
/** Points that a face is looked at: of one that is narrow not every one is well inside. */
const MAX_ON_A_FACE = 4;

/** Faces that only became smaller, larger or others' neighbours are none of them. */
export function facesMade(occt: Occt, before: NamedShape, after: NamedShape): MadeFaces {
  return scope((keep) => {
    const former = uniqueShapes({ occt, keep }, before.shape, 'TopAbs_FACE');
    const untouched = new ShapeMap<true>(occt);
    for (const face of former) untouched.ensure(face, () => true);
    const faces = uniqueShapes({ occt, keep }, after.shape, 'TopAbs_FACE');
    const asked = new Set([...faces.keys()].filter((i) => !untouched.get(faces[i]!)));
    if (asked.size > MAX_ASKED) return { faces: [], corners: [] };
    const mesh = meshShape(
      occt,
      after.shape,
      displayChord(Math.hypot(...boxSize(exactBox(occt, after.shape)))),
    );
    const wasThere = lyingIn(occt, former);
    const made = new Set<number>();
    for (const { face, point } of samplesOf(occt, after.shape, mesh, MAX_ON_A_FACE))
      if (asked.has(face) && !made.has(face) && !wasThere(point)) made.add(face);
    const corners: number[] = [];
    mesh.faceOfTriangle.forEach((face, t) => {
      if (!made.has(face)) return;
      for (const i of mesh.triangles.subarray(3 * t, 3 * t + 3))
        corners.push(...mesh.positions.subarray(3 * i, 3 * i + 3));
    });
    return { faces: [...made].map((i) => after.faceNames[i]!), corners };
  });
}

/** Whether a point lies in one of the faces. The kernel is asked only of those whose boxes hold it. */
function lyingIn(occt: Occt, faces: readonly TopoDS_Shape[]): (point: Vec3) => boolean {
  const boxes = faces.map((face) => grownBy(roughBox(occt, face), SAME_MM));
  return (point) =>
    faces.some(
      (face, i) =>
        boxesMeet(boxes[i]!, { min: point, max: point }) && distanceTo(occt, face, point) <= SAME_MM,
    );
}
