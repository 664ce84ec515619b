/** Built solids where they stand, and what is asked of two of them. */
import {
  AT_ORIGIN,
  carry,
  carryBox,
  chain,
  dot,
  inverse,
  turnBack,
  turnVector,
  type Box,
  type PairFacts,
  type Pose,
  type SnapShape,
  type Vec3,
} from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { isBetweenFlat, planeOf, type FaceDistance, type PlacedSolid } from '../facts/apart.ts';
import type { Measures } from '../facts/measure.ts';
import type { RangeOf } from '../facts/wholes.ts';
import type { NamedShape } from '../naming/named.ts';
import type { Occt } from '../occt/occt.ts';

/** Where built shapes come from. All throw BuildError. */
export interface FitShapes {
  readonly range: RangeOf;
  shapeOf(content: Content): NamedShape;
  snapsOf(content: Content): SnapShape;
  measuresOf(content: Content): Measures;
  /** The exact box of a content in the world. */
  boxAt(content: Content, pose: Pose): Box;
}

/** Two that are on both sides of a plane but for this (mm) do not overlap. */
const APART_MM = 1e-9;

/** A solid where it stands. */
export interface Body {
  readonly content: Content;
  readonly named: NamedShape;
  readonly pose: Pose;
}

/** A built solid where it stands, with what is asked of it to compare it with others. */
export function placedSolid(occt: Occt, shapes: FitShapes, { content, named, pose }: Body): PlacedSolid {
  const shape = shapes.snapsOf(content);
  const solid = named.shape;
  const range = (direction: Vec3) => {
    const [low, high] = shapes.range(named, turnBack(pose.turn, direction));
    const shift = dot(pose.shift, direction);
    return [low + shift, high + shift] as const;
  };
  return { solid, shape, pose, range, isBetweenFlat: isBetweenFlat(occt, solid, shape) };
}

/** Whether a plane that both touch has one on either side. */
export const areApart = (
  [p, q]: readonly [PlacedSolid, PlacedSolid],
  found: readonly FaceDistance[],
): boolean =>
  normalsOf([p, q], found).some((normal) => {
    const [lowA, highA] = p.range(normal);
    const [lowB, highB] = q.range(normal);
    return highA <= lowB + APART_MM || highB <= lowA + APART_MM;
  });

/** What two bodies have in common, as content. */
export const commonContent = (a: Body, b: Body): Content => ({
  kind: 'combine',
  how: 'intersect',
  operands: [
    { tag: 'a', pose: AT_ORIGIN, content: a.content },
    { tag: 'b', pose: chain(inverse(a.pose), b.pose), content: b.content },
  ],
});

/** A point of its facets. */
export function pointOn({ shape, pose }: PlacedSolid): Vec3 {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * shape.triangles[k]!) as [number, number, number];
  const at = (k: number) => (shape.positions[a + k]! + shape.positions[b + k]! + shape.positions[c + k]!) / 3;
  return carry(pose, [at(0), at(1), at(2)]);
}

/** More ways than this are not tried. */
const MAX_NORMALS = 6;

/** Ways in which two solids may be apart, each once: out of flat faces that touch, and from one foot to the other. */
function normalsOf([p, q]: readonly [PlacedSolid, PlacedSolid], found: readonly FaceDistance[]): Vec3[] {
  const all = found.flatMap(({ a, b }) => [...outOf(p, a), ...outOf(q, b)]);
  const seen = new Set<string>();
  return all
    .filter((normal) => {
      const key = normal.map((n) => Math.round(Math.abs(n) * 1e9)).join();
      return !seen.has(key) && seen.add(key);
    })
    .slice(0, MAX_NORMALS);
}

const outOf = (solid: PlacedSolid, face: number): Vec3[] =>
  solid.shape.faceKind[face] === 0 ? [planeOf(solid, face).normal] : [];

/** Facts given in the frame of the first solid → in the world. */
export function carriedFacts(facts: PairFacts, pose: Pose): PairFacts {
  const { from, to, contact, overlap } = facts;
  const turned = (way: Vec3) => turnVector(pose.turn, way);
  return {
    ...facts,
    from: carry(pose, from),
    to: carry(pose, to),
    ...(contact
      ? { contact: { ...contact, at: carry(pose, contact.at), normal: turned(contact.normal) } }
      : {}),
    ...(overlap
      ? { overlap: { ...overlap, at: carry(pose, overlap.at), box: carryBox(pose, overlap.box) } }
      : {}),
  };
}
