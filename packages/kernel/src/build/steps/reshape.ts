/** Corners of a solid with flat faces that stand elsewhere. */
import { add, cross, faultOf, length, subtract, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, scope, type Scoped, type Occt } from '../../occt/occt.ts';
import { sewn, type NamedFace } from '../surfaces.ts';
import { patchFace } from './patchFace.ts';
import { SAME_CORNER_MM, isFlat, isSameCorner, volumeWithin, type FlatFace } from '../flatFaces.ts';
import { cornersAt, faceOf, flatFacesOf } from './polyhedron.ts';

type Reshape = Extract<Content, { readonly kind: 'reshape' }>;

/** Faces keep their names; pieces of one that folds share its name. Throws BuildError. */
export function buildReshaped(occt: Occt, of: NamedShape, { places, by, folds }: Reshape): NamedShape {
  return scope((keep) => {
    const flat = flatFacesOf({ occt, keep }, of);
    const moving = places.flatMap((place) => cornersAt(flat, place));
    const isMoving = (at: Vec3) => moving.some((one) => isSameCorner(one, at));
    const moved = (at: Vec3): Vec3 => (isMoving(at) ? add(at, by) : at);
    requireOutward(flat.map(({ loops }) => loops[0]!.map(moved)));
    const faces = flat.flatMap(({ name, loops }): NamedFace[] => {
      const shifted = { name, loops: loops.map((loop) => loop.map(moved)) };
      if (isFlat(shifted)) return [faceOf({ occt, keep }, shifted)];
      if (loops.length > 1) throw new BuildError(faultOf('reshape.hole', {}), [loops[0]![0]!]);
      const corners = { name, loop: shifted.loops[0]!, isMoved: loops[0]!.map(isMoving) };
      if (folds === 'warp') return [warped({ occt, keep }, corners)];
      return folded(corners, folds).map((piece) => faceOf({ occt, keep }, piece));
    });
    return sewn({ occt, keep }, faces, 'The reshaped solid');
  });
}

/** By the volume within the borders of the faces: less than zero where the solid has been turned inside out. */
function requireOutward(borders: readonly (readonly Vec3[])[]): void {
  if (volumeWithin(borders) > 0) return;
  throw new BuildError(faultOf('reshape.inside-out', {}), [borders[0]![0]!]);
}

interface Border {
  readonly name: string;
  readonly loop: readonly Vec3[];
  readonly isMoved: readonly boolean[];
}

/**
 * Beside the corner: a triangle of it and its neighbours is cut off, and what is left stays flat. Through the corner: triangles from it
 * to all other edges.
 */
function folded({ name, loop, isMoved }: Border, folds: 'beside' | 'through'): FlatFace[] {
  const n = loop.length;
  const first = isMoved.indexOf(true);
  const fan = (from: number): FlatFace[] =>
    Array.from({ length: n - 2 }, (_, k) => ({
      name,
      loops: [[loop[from]!, loop[(from + k + 1) % n]!, loop[(from + k + 2) % n]!]],
    })).filter(({ loops }) => !isSliver(loops[0]!));
  if (folds === 'through') return fan(first);
  const rest = loop.filter((_, i) => !isMoved[i]);
  const triangles = loop.flatMap((at, i): FlatFace[] =>
    isMoved[i] ? [{ name, loops: [[loop[(i + n - 1) % n]!, at, loop[(i + 1) % n]!]] }] : [],
  );
  const isApart = isMoved.every((one, i) => !one || !isMoved[(i + 1) % n]);
  if (!isApart || rest.length < 3 || !isFlat({ loops: [rest] })) return fan((first + n - 1) % n);
  return [{ name, loops: [rest] }, ...triangles];
}

const isSliver = ([a, b, c]: readonly Vec3[]): boolean =>
  length(cross(subtract(b!, a!), subtract(c!, a!))) < SAME_CORNER_MM * length(subtract(b!, a!));

/** A ruled surface between two opposite sides: bilinear. */
function warped({ occt, keep }: Scoped, { name, loop }: Border): NamedFace {
  const [a, b, c, d] = loop;
  if (loop.length !== 4) throw new BuildError(faultOf('reshape.warp', {}), [a!]);
  return patchFace({ occt, keep }, { name, poles: [a!, b!, d!, c!] });
}
