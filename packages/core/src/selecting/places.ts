/** Which faces, edges or corners of a part a region of the screen takes. */
import { MEETING } from '../document/naming.ts';
import type { ChosenPlace } from '../recipes/chosen.ts';
import { pointsOfCurve } from '../snapping/chosenCurves.ts';
import { castOnScene } from '../snapping/raycast.ts';
import type { SnapInstance, SnapScene } from '../snapping/scene.ts';
import { rayThrough, type Camera } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { contains, encloses, meetsSegment, type Point, type Region } from './outline.ts';
import { SEEN_SLACK_MM, hitsIn, meetsPolygon, type RegionRule } from './region.ts';
import { viewOf, type View } from './screen.ts';

/** What of a part a region takes. */
export type PlaceKind = 'faces' | 'edges' | 'corners';

/** What is asked of the places of a part within a region. */
export interface PlaceQuery {
  readonly instance: SnapInstance;
  readonly camera: Camera;
  readonly region: Region;
  readonly rule: RegionRule;
  readonly kind: PlaceKind;
  /** Takes only what can be seen, and is not hidden by anything of this scene. */
  readonly seenIn?: SnapScene;
}

/** A place, with what of it is looked at in the picture, in the part’s own frame (mm). */
interface Candidate extends ChosenPlace {
  /** Chains of points. Of a face each is a triangle. */
  readonly chains: readonly (readonly Vec3[])[];
}

/** Each place once, in the order of the part’s names; edges and corners with a point by which they are distinguished from others of their name. */
export function placesInRegion(query: PlaceQuery): ChosenPlace[] {
  const { instance, camera, kind } = query;
  const view = viewOf(instance.pose, camera);
  const taken = CANDIDATES[kind](instance).filter((one) => isTaken(one, view, query));
  return seenOf(taken, query).map(({ at, near }) => (near ? { at, near } : { at }));
}

const CANDIDATES: Readonly<Record<PlaceKind, (instance: SnapInstance) => Candidate[]>> = {
  faces: facesOf,
  edges: edgesOf,
  corners: cornersOf,
};

/** Faces of one name are one. */
function facesOf({ shape }: SnapInstance): Candidate[] {
  const { names, faceName, faceOfTriangle, triangles, positions } = shape;
  const found = new Map<string, Vec3[][]>();
  faceOfTriangle.forEach((face, t) => {
    const at = names[faceName[face]!]!;
    if (!found.has(at)) found.set(at, []);
    found.get(at)!.push([0, 1, 2].map((k) => triple(positions, triangles[3 * t + k]!)));
  });
  return [...found].map(([at, chains]) => ({ at, chains }));
}

function edgesOf({ shape }: SnapInstance): Candidate[] {
  return [...shape.curveName].flatMap((name, curve) => {
    const at = shape.names[name]!;
    const points = pointsOfCurve(shape, curve);
    return isEdge(at) ? [{ at, near: middleOf(points), chains: [points] }] : [];
  });
}

function cornersOf({ shape }: SnapInstance): Candidate[] {
  const found = new Map<string, Candidate>();
  shape.pointName.forEach((name, i) => {
    const at = shape.names[name]!;
    const near = triple(shape.points, i);
    if (countOf(at) > 2) found.set(`${at} ${near.join(' ')}`, { at, near, chains: [[near]] });
  });
  return [...found.values()];
}

const countOf = (name: string) => name.split(MEETING).length;
/** A seam, where a face meets itself, is no edge. */
const isEdge = (name: string) => countOf(name) === 2 && new Set(name.split(MEETING)).size === 2;
const triple = (of: ArrayLike<number>, i: number): Vec3 => [of[3 * i]!, of[3 * i + 1]!, of[3 * i + 2]!];

function middleOf(points: readonly Vec3[]): Vec3 {
  const at = points.length / 2;
  if (points.length !== 2) return points[Math.floor(at)]!;
  return between(points[0]!, points[1]!, 1 / 2);
}

function isTaken({ chains }: Candidate, view: View, { region, rule, kind }: PlaceQuery): boolean {
  const drawn = chains.map((chain) => chain.map((point) => view.point(...point)));
  const isWhole = (chain: readonly (Point | null)[]): chain is readonly Point[] => !chain.includes(null);
  if (rule === 'enclosed') return drawn.every((chain) => isWhole(chain) && isEnclosed(region, chain, kind));
  return drawn.some((chain) => isWhole(chain) && isTouched(region, chain, kind));
}

/** Between two points within a bay of the region an edge may lie outside: an outline of its points there and back tells. */
function isEnclosed(region: Region, chain: readonly Point[], kind: PlaceKind): boolean {
  if (!chain.every((point) => contains(region, point))) return false;
  if (kind === 'corners' || region.kind === 'rectangle' || region.kind === 'circle') return true;
  return encloses(region, kind === 'faces' ? chain : [...chain, ...[...chain].reverse()]);
}

function isTouched(region: Region, chain: readonly Point[], kind: PlaceKind): boolean {
  if (kind === 'corners') return contains(region, chain[0]!);
  if (kind === 'faces') return meetsPolygon(region, chain);
  return chain.slice(1).some((to, i) => meetsSegment(region, chain[i]!, to));
}

/** Points of a place that are looked for, of many more that may lie in the region. */
const SIGHTS = 24;
const POINTS = 400;

/** Faces are looked for along lines of sight through the region, and all else by its own points. */
function seenOf(taken: readonly Candidate[], query: PlaceQuery): readonly Candidate[] {
  const { seenIn, kind, instance, camera, region } = query;
  if (!seenIn) return taken;
  const faces = new Set<string>();
  if (kind === 'faces')
    for (const { instance: hit, face } of hitsIn(seenIn, camera, region))
      if (hit.part === instance.part) faces.add(hit.shape.names[hit.shape.faceName[face]!]!);
  return taken.filter((one) => faces.has(one.at) || isSeen(one, query, seenIn));
}

function isSeen(
  { chains }: Candidate,
  { instance, camera, region, kind }: PlaceQuery,
  scene: SnapScene,
): boolean {
  const view = viewOf(instance.pose, camera);
  const inRegion = chains
    .flatMap((chain) => pointsOf(chain, kind))
    .flatMap((own) => {
      const pixel = view.point(...own);
      return pixel && contains(region, pixel) ? [{ own, pixel }] : [];
    });
  const step = Math.max(1, Math.floor(inRegion.length / SIGHTS));
  return inRegion.some(({ own, pixel }, i) => {
    if (i % step !== 0) return false;
    const ray = rayThrough(camera, ...pixel);
    const far = distance(ray.from, carry(instance.pose, own));
    // Facets lie within the chord of the surface that they stand for.
    return !castOnScene(scene, ray, far - instance.shape.chordMm - SEEN_SLACK_MM);
  });
}

/** Of a corner itself, of a triangle its middle, and of an edge many, since a long one has but two ends. */
function pointsOf(chain: readonly Vec3[], kind: PlaceKind): readonly Vec3[] {
  if (chain.length === 1) return chain;
  const [a, b, c] = chain;
  if (kind === 'faces') return [between(a!, between(b!, c!, 1 / 2), 2 / 3)];
  const pieces = Math.max(1, Math.floor(POINTS / (chain.length - 1)));
  const steps = Array.from({ length: pieces }, (_, k) => (k + 0.5) / pieces);
  return chain.slice(1).flatMap((to, i) => steps.map((share) => between(chain[i]!, to, share)));
}

const between = (a: Vec3, b: Vec3, share: number): Vec3 => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
  a[2] + share * (b[2] - a[2]),
];
