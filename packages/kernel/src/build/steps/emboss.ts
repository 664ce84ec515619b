/**
 * Regions laid on a solid, square to their own plane or on a slanting way. What is raised lies between the solid and one that is offset from it by
 * the depth, within a prism over the regions: on planes, cylinders and balls that is exact, and square to the surface.
 */
import { boxSize, carry, faultOf, inverse, type Box, type Vec2 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { exactBox } from '../../facts/extent.ts';
import { integralsOf } from '../../facts/integrals.ts';
import { heightsAt, hitsAt, meshShape, type Mesh } from '../../facts/mesh.ts';
import {
  BuildError,
  carryingPlaces,
  compoundOf,
  fromList,
  moved,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { combineShapes, type Tagged } from '../../booleans/operation.ts';
import { together } from '../compound.ts';
import { isSound } from '../../occt/sound.ts';
import { astray } from './clearance.ts';
import { floorUnder, type Floor } from './floors.ts';
import { imprinted } from './imprint.ts';
import { SLAB_BACK, SLAB_SIDE, slabOver } from './slab.ts';
import type { NamedShape } from '../../naming/named.ts';
import { pulledFace } from '../bodies/raise.ts';
import { planarFaces, type Planar } from '../bodies/regions.ts';

type Embossed = Extract<Content, { kind: 'embossed' }>;

/** Chord of the facets that say where the surface lies, as a part of the solid's size. */
const LOOK_CHORD = 1 / 500;

/** Throws BuildError. */
export function buildEmbossed(occt: Occt, solid: NamedShape, content: Embossed): NamedShape {
  return scope((keep) => {
    // All is done in the frame of the regions, and carried back.
    const there = inverse(content.frame);
    const own: NamedShape = { ...solid, shape: keep(moved(occt, solid.shape, there)) };
    const planar = planarFaces({ occt, keep }, content.paths, content.regions);
    const mesh = seenAlong(occt, own.shape, content.slant);
    const made = carryingPlaces(
      (place) => carry(content.frame, place),
      () => laid({ occt, keep }, own, { content, planar, seen: mesh }),
    );
    keep(made.shape);
    const shape = moved(occt, made.shape, content.frame);
    requireSense(occt, { before: solid.shape, after: shape }, content.depth);
    return { shape, faceNames: made.faceNames };
  });
}

/** A relief adds, an engraving takes away, and an imprint does neither. Throws BuildError. */
function requireSense(occt: Occt, { before, after }: Change, depth: number): void {
  const [was, is] = [integralsOf(occt, before).volume, integralsOf(occt, after).volume];
  const isAsSaid = depth === 0 ? Math.abs(is - was) <= SAME_VOLUME * was : (is - was) * depth > 0;
  if (!isAsSaid) throw new BuildError(faultOf('emboss.not-laid', {}));
}

interface Change {
  readonly before: TopoDS_Shape;
  readonly after: TopoDS_Shape;
}

/** Volumes within this part of one another are the same: what lies in pieces of free surfaces is summed to that. */
const SAME_VOLUME = 1e-6;

interface Outline {
  readonly content: Embossed;
  readonly planar: Planar;
  readonly seen: Seen;
}

/** All in the frame of the regions. */
function laid({ occt, keep }: Scoped, own: NamedShape, outline: Outline): NamedShape {
  const { content, planar, seen } = outline;
  const { depth, slant } = content;
  const spots = samplesOf(occt, planar);
  const under = nearSide(seen, spots, depth);
  const { way, near, stop, start, faces } = under;
  const pulled = (end: number): NamedShape => {
    const [from, to] = way > 0 ? [Math.min(start, end), end] : [end, Math.max(-start, end)];
    const prism = together(
      occt,
      planar.faces.map((face) => pulledFace({ occt, keep }, planar, face, { from, to, slant })),
    );
    keep(prism.shape);
    return prism;
  };
  if (depth === 0) return imprinted({ occt, keep }, own, { planar, prism: pulled(way * stop), slant });
  const site = { way, near, stop, size: seen.size, by: depth, slant };
  const floor = floorUnder(occt, own, faces, site);
  if (floor) {
    keep(floor.shape);
    const [name] = faces.map((face) => own.faceNames[face]!);
    return upTo({ occt, keep }, own, pulled(floor.end), { floor, name: name!, isRelief: depth > 0 });
  }
  const prism = pulled(way * stop);
  const bySlab = onSlab({ occt, keep }, own, { prism, faces, depth, size: seen.size });
  if (bySlab) return bySlab;
  const beside = offset({ occt, keep }, own, depth);
  if (depth > 0) return raised({ occt, keep }, own, { prism, outset: beside });
  requireFloor(seenAlong(occt, beside.shape, slant), spots, under);
  return engraved({ occt, keep }, own, { prism, inset: beside });
}

interface Laying {
  readonly prism: NamedShape;
  readonly faces: readonly number[];
  readonly depth: number;
  readonly size: number;
}

/** Where the surface under the outline runs on smoothly far enough round it; undefined elsewhere. */
function onSlab({ occt, keep }: Scoped, own: NamedShape, laying: Laying): NamedShape | undefined {
  const { prism, faces, depth, size } = laying;
  // Its back is a little beyond the surface, so that nothing lies on it.
  const back = -Math.sign(depth) * Math.min(Math.abs(depth) / 2, size * 0.01);
  const over = slabOver({ occt, keep }, own, { faces, back, front: depth });
  if (!over) return undefined;
  const { slab, sheet } = over;
  try {
    const cut = combineShapes(
      occt,
      'intersect',
      depth > 0 ? [tagged(slab, ''), tagged(prism, 'outline')] : [tagged(prism, ''), tagged(slab, 'floor')],
    );
    keep(cut.shape);
    if (!standsOff({ occt, keep }, sheet, { cut, depth })) return undefined;
    const made = depth > 0 ? joined({ occt, keep }, own, cut) : taken({ occt, keep }, own, cut);
    if (isSound(occt, made.shape)) return made;
    keep(made.shape);
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
  }
  return undefined;
}

/** Whether nothing of a slab's sides is left, and its front is as far from the surface as was said: not where it runs through itself. */
function standsOff(
  { occt, keep }: Scoped,
  sheet: NamedShape,
  { cut, depth }: { readonly cut: NamedShape; readonly depth: number },
): boolean {
  if (cut.faceNames.some((name) => name.includes(SLAB_SIDE))) return false;
  const isFront = (name: string) =>
    !name.includes(SLAB_BACK) && name.startsWith('floor.') === depth < 0 && !name.startsWith('outline.');
  const front = uniqueShapes({ occt, keep }, cut.shape, 'TopAbs_FACE').filter((_, i) =>
    isFront(cut.faceNames[i]!),
  );
  const shape = keep(compoundOf(occt, front));
  return front.length > 0 && astray(occt, { shape, of: sheet.shape, by: depth, isRound: true }).length === 0;
}

/** The offset solid must lie under all of the outline, before the prism ends: beside a rim it does not. */
function requireFloor({ mesh }: Seen, spots: readonly Spot[], { way, near, start, stop }: Under): void {
  const bare = spots.filter(([x, y]) => {
    const along = heightsAt(mesh, x, y).map((z) => way * z);
    return !along.some((z) => z > start && z <= stop);
  });
  if (bare.length > 0)
    throw new BuildError(
      faultOf('emboss.near-rim', {}),
      bare.slice(0, MAX_PLACES).map(([x, y]) => [x, y, way * near]),
    );
}
const MAX_PLACES = 12;

/** A point of the outline's plane. */
type Spot = readonly [number, number];

/** The surface that faces the plane, under the outline. */
interface Under {
  /** Along the way of the outline: upward or downward. */
  readonly way: 1 | -1;
  /** The deepest first hit, where the prism may start, and where it must stop so as to hold nothing of the surface behind: mm on the way. */
  readonly near: number;
  readonly start: number;
  readonly stop: number;
  /** In the kernel's order. */
  readonly faces: readonly number[];
}

interface Seen {
  readonly mesh: Mesh;
  readonly box: Box;
  /** mm */
  readonly size: number;
}

/** Facets of the solid, sheared so that the way on which the outline is laid runs upright. */
function seenAlong(occt: Occt, solid: TopoDS_Shape, [u, v]: Vec2): Seen {
  const box = exactBox(occt, solid);
  const size = Math.hypot(...boxSize(box));
  const mesh = meshShape(occt, solid, size * LOOK_CHORD);
  if (u === 0 && v === 0) return { mesh, box, size };
  const positions = mesh.positions.slice();
  for (let i = 0; i < positions.length; i += 3) {
    positions[i]! -= u * positions[i + 2]!;
    positions[i + 1]! -= v * positions[i + 2]!;
  }
  return { mesh: { ...mesh, positions }, box, size };
}

function nearSide({ mesh, box: { min, max }, size }: Seen, samples: readonly Spot[], depth: number): Under {
  const way = (min[2] + max[2]) / 2 > 0 ? 1 : -1;
  let [near, far, least, behind] = [-Infinity, Infinity, Infinity, -Infinity];
  const faces = new Set<number>();
  for (const [x, y] of samples) {
    const hits = hitsAt(mesh, x, y);
    if (hits.length < 2) throw new BuildError(faultOf('emboss.beyond', {}), [[x, y, 0]]);
    // Heights along the way from the plane: the first two are where the solid begins and ends.
    const all = hits.map(({ z, face }) => ({ at: way * z, face })).sort((a, b) => a.at - b.at);
    const begun = -Math.abs(depth) - size * LOOK_CHORD;
    const ahead = all.filter(({ at }) => at > begun);
    const [first] = ahead;
    if (first) faces.add(first.face);
    near = Math.max(near, first?.at ?? Infinity);
    least = Math.min(least, first?.at ?? Infinity);
    far = Math.min(far, ahead.find(({ at }) => at > first!.at + size * 1e-6)?.at ?? Infinity);
    behind = Math.max(behind, all.findLast(({ at }) => at <= begun)?.at ?? -Infinity);
  }
  if (!(near < far) || (depth === 0 && behind >= least))
    throw new BuildError(faultOf('emboss.bends-away', {}));
  const stop = (near + Math.min(far, near + size)) / 2;
  const outside = -Math.abs(depth) - size * 0.01 - 1e-3;
  // Within the solid, an imprint begins where there is nothing but the solid, so as not to cut through it.
  const start = depth === 0 ? Math.max(outside, (least + behind) / 2) : outside;
  return { way, near, start, stop, faces: [...faces] };
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

/** The solid with all its faces moved outward; inward for a depth below zero. */
function offset({ occt, keep }: Scoped, { shape, faceNames }: NamedShape, by: number): NamedShape {
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
    progressRange({ occt, keep }),
  );
  if (!operation.IsDone()) throw new BuildError(faultOf('emboss.too-deep-for-bend', {}));
  const made = keep(operation.Shape());
  const [only] = occurrences({ occt, keep }, made, 'TopAbs_SOLID');
  if (!only) throw new BuildError(faultOf('emboss.too-deep', {}));
  const names = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face, i) => ({
    images: fromList({ occt, keep }, keep(operation.Generated(face))),
    name: faceNames[i]!,
  }));
  return {
    shape: only,
    faceNames: uniqueShapes({ occt, keep }, only, 'TopAbs_FACE').map(
      (face) => names.find(({ images }) => images.some((image) => image.IsSame(face)))?.name ?? 'face',
    ),
  };
}
const OFFSET_TOLERANCE_MM = 1e-3;

const tagged = ({ shape, faceNames }: NamedShape, tag: string): Tagged => ({ shape, faceNames, tag });

/** @param outset the solid with all its faces moved outward */
function raised(
  { occt, keep }: Scoped,
  solid: NamedShape,
  { prism, outset }: { readonly prism: NamedShape; readonly outset: NamedShape },
): NamedShape {
  const relief = combineShapes(occt, 'intersect', [tagged(outset, ''), tagged(prism, 'outline')]);
  return joined({ occt, keep }, solid, relief);
}

function joined({ occt, keep }: Scoped, solid: NamedShape, relief: NamedShape): NamedShape {
  keep(relief.shape);
  return combineShapes(occt, 'union', [tagged(solid, ''), tagged(relief, 'relief')]);
}

function taken({ occt, keep }: Scoped, solid: NamedShape, cutter: NamedShape): NamedShape {
  keep(cutter.shape);
  return combineShapes(occt, 'subtract', [tagged(solid, ''), tagged(cutter, 'engraving')]);
}

/** @param inset the solid with all its faces moved inward */
function engraved(
  { occt, keep }: Scoped,
  solid: NamedShape,
  { prism, inset }: { readonly prism: NamedShape; readonly inset: NamedShape },
): NamedShape {
  return taken(
    { occt, keep },
    solid,
    combineShapes(occt, 'subtract', [tagged(prism, 'outline'), tagged(inset, 'floor')]),
  );
}

interface Limit {
  readonly floor: Floor;
  /** Of the face that is followed. */
  readonly name: string;
  readonly isRelief: boolean;
}

/** Where a single surface lies under the outline. */
function upTo(
  { occt, keep }: Scoped,
  solid: NamedShape,
  prism: NamedShape,
  { floor: { how, shape }, name, isRelief }: Limit,
): NamedShape {
  const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
  const followed: NamedShape = { shape, faceNames: faces.map(() => name) };
  if (isRelief && how === 'intersect') {
    // The followed face keeps its own name on a relief.
    const relief = combineShapes(occt, how, [tagged(followed, ''), tagged(prism, 'outline')]);
    return joined({ occt, keep }, solid, relief);
  }
  const made = combineShapes(occt, how, [tagged(prism, 'outline'), tagged(followed, 'floor')]);
  return isRelief ? joined({ occt, keep }, solid, made) : taken({ occt, keep }, solid, made);
}
