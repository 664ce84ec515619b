/** The points within reach of the pointer: corners and centres, box points, marks. Only the trees of boxes are walked. */
import { MEETING } from '../document/naming.ts';
import { searchBvh } from '../space/bvh.ts';
import { boxPoint, type BoxPoint } from '../space/box.ts';
import { mmPerPixelAt, type Camera } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import type { Ray } from '../space/plane.ts';
import type { Vec3 } from '../space/vector.ts';
import { localRay } from './raycast.ts';
import { whose, type SnapInstance, type SnapScene } from './scene.ts';
import { POINT_KINDS, type SnapKind } from './shape.ts';
import type { Snap, SnapQuery } from './snap.ts';

/** A snap within reach, before it is chosen. */
export interface Candidate extends Snap {
  readonly offPx: number;
  /** What must not be hidden: the point, or the rim that offers a centre; null for a mark that nothing hides. */
  readonly seenAt: Vec3 | null;
  readonly chordMm: number;
  /** Stands inside this solid, which therefore does not hide it. */
  readonly inside?: SnapInstance | undefined;
  readonly rank: number;
  readonly depth: number;
}
type Offered = Omit<Candidate, 'rank' | 'depth'>;
/** Takes in a candidate. */
export type Offer = (candidate: Offered, rank?: number) => void;

/** Smaller is preferred. Points come before lines and lines before faces; the grid and the plane come last. */
export const RANK: Readonly<Record<SnapKind, number>> = {
  endpoint: 0,
  midpoint: 0,
  centre: 0,
  quadrant: 0,
  'face centre': 0,
  pin: 0,
  // A dock mostly stands on a corner or a centre, and is meant before it.
  dock: -0.1,
  intersection: 0,
  datum: 0,
  origin: 0,
  'part centre': 0,
  'mass centre': 0,
  perpendicular: 0.2,
  tangent: 0.2,
  divide: 0.2,
  'box point': 0.4,
  apparent: 0.6,
  guide: 1.5,
  parallel: 1.5,
  'on edge': 2,
  'half-way': 2.5,
  'on face': 3,
  grid: 4,
  'on plane': 5,
};

/** How far a point is from the pointer in the picture, pixels. As `project`, without its arrays: it is asked the most. */
export function pixelsOff(camera: Camera, point: Vec3, pointer: readonly [number, number]): number {
  const { eye, right, up, toward, width, pixelHeight } = camera;
  const x = point[0] - eye[0];
  const y = point[1] - eye[1];
  const z = point[2] - eye[2];
  const depth = -(x * toward[0] + y * toward[1] + z * toward[2]);
  if (depth <= 0 && camera.state.projection === 'perspective') return Infinity;
  const size = mmPerPixelAt(camera, depth);
  const dx = width / 2 + (x * right[0] + y * right[1] + z * right[2]) / size - pointer[0];
  const dy = pixelHeight / 2 - (x * up[0] + y * up[1] + z * up[2]) / size - pointer[1];
  return Math.sqrt(dx * dx + dy * dy);
}

/** Tests whether a box comes within reach of the ray: the distance of its middle less half its diagonal. */
export function coneTest(
  ray: Ray,
  camera: Camera,
  reachPx: number,
): (b: Float64Array, at: number) => boolean {
  const [ox, oy, oz] = ray.from;
  const [dx, dy, dz] = ray.direction;
  const perspective = camera.state.projection === 'perspective';
  const reachAtOne = reachPx * (perspective ? mmPerPixelAt(camera, 1) : mmPerPixelAt(camera, 0));
  return (b, at) => {
    const [x, y, z] = [
      (b[at]! + b[at + 3]!) / 2 - ox,
      (b[at + 1]! + b[at + 4]!) / 2 - oy,
      (b[at + 2]! + b[at + 5]!) / 2 - oz,
    ];
    const [w, h, d] = [b[at + 3]! - b[at]!, b[at + 4]! - b[at + 1]!, b[at + 5]! - b[at + 2]!];
    const radius = Math.sqrt(w * w + h * h + d * d) / 2;
    const deep = x * dx + y * dy + z * dz;
    if (deep < -radius) return false;
    // The pixel's size grows with depth; a ray off the middle of the picture sees it a little larger, hence the half.
    const reach = perspective ? reachAtOne * (deep + radius) * 1.5 : reachAtOne;
    const max = radius + reach;
    return x * x + y * y + z * z - deep * deep <= max * max;
  };
}

/** The same for a single point of the ray's frame: lets through what is within reach, and a little more. */
function pointTest(ray: Ray, camera: Camera, reachPx: number): (x: number, y: number, z: number) => boolean {
  const [ox, oy, oz] = ray.from;
  const [dx, dy, dz] = ray.direction;
  const perspective = camera.state.projection === 'perspective';
  const reachAtOne = reachPx * (perspective ? mmPerPixelAt(camera, 1) : mmPerPixelAt(camera, 0));
  return (x, y, z) => {
    const px = x - ox;
    const py = y - oy;
    const pz = z - oz;
    const deep = px * dx + py * dy + pz * dz;
    if (deep < 0) return false;
    const reach = perspective ? reachAtOne * deep * 1.5 : reachAtOne * PARALLEL_SLACK;
    return px * px + py * py + pz * pz - deep * deep <= reach * reach + NOISE_MM2;
  };
}
const PARALLEL_SLACK = 1.01;
/** A parallel ray begins a kilometre and more away; the difference of the squares keeps this much noise, mm². */
const NOISE_MM2 = 1e-2;

/** Instances within reach of the pointer that may be caught. */
export function instancesNear(scene: SnapScene, ray: Ray, query: SnapQuery): SnapInstance[] {
  const found: SnapInstance[] = [];
  searchBvh(scene.tree, coneTest(ray, query.camera, query.settings.reachPx), (i) => {
    const instance = scene.instances[i]!;
    if (isCatchable(instance.part, query)) found.push(instance);
  });
  return found;
}

/** Whether a part may be caught. */
export const isCatchable = (part: string, { without, may }: SnapQuery): boolean =>
  !without?.has(part) && (may?.(part) ?? true);

/** Corners, middles, centres, quadrants: what the kernel packed. */
export function packedPoints(instance: SnapInstance, ray: Ray, query: SnapQuery, offer: Offer): void {
  const { shape, pose } = instance;
  const { camera, settings, pointer } = query;
  if (!POINT_KINDS.some((kind) => settings.kinds.has(kind))) return;
  const local = localRay(instance, ray);
  const isNear = pointTest(local, camera, settings.reachPx);
  searchBvh(shape.pointTree, coneTest(local, camera, settings.reachPx), (i) => {
    const kind = POINT_KINDS[shape.pointKind[i]!]!;
    if (!settings.kinds.has(kind)) return;
    if (!isNear(shape.points[3 * i]!, shape.points[3 * i + 1]!, shape.points[3 * i + 2]!)) return;
    const point = carry(pose, [shape.points[3 * i]!, shape.points[3 * i + 1]!, shape.points[3 * i + 2]!]);
    const offPx = pixelsOff(camera, point, pointer);
    if (offPx > settings.reachPx) return;
    const feature = shape.names[shape.pointName[i]!]!;
    offer({
      point,
      kind,
      ...whose(instance),
      feature,
      offPx,
      seenAt: point,
      chordMm: shape.chordMm,
      // The centre of a ball: it bears the name of one face, where those of rims bear two.
      inside: kind === 'centre' && !feature.includes(MEETING) ? instance : undefined,
    });
  });
}

const STEPS = [-1, 0, 1] as const;
const SIDE_WORDS = [
  ['left', '', 'right'],
  ['front', '', 'back'],
  ['bottom', '', 'top'],
] as const;
const boxPointWords = (at: BoxPoint): string =>
  [2, 1, 0].flatMap((axis) => SIDE_WORDS[axis]![at[axis]! + 1] || []).join(' ');
/** All but the middle, with what they are called. */
const BOX_POINTS: readonly (readonly [at: BoxPoint, words: string])[] = STEPS.flatMap((x) =>
  STEPS.flatMap((y) => STEPS.map((z): BoxPoint => [x, y, z])),
)
  .filter((at) => at.some((n) => n !== 0))
  .map((at) => [at, boxPointWords(at)]);

/** The datum, the box points and the centres of a part: points that it has without showing them. */
export function partPoints(instance: SnapInstance, ray: Ray, query: SnapQuery, offer: Offer): void {
  const { pose, box, datum, mass, shape } = instance;
  const { kinds, reachPx } = query.settings;
  const isNear = pointTest(localRay(instance, ray), query.camera, reachPx);
  const put = (own: Vec3, kind: SnapKind, more?: Pick<Offered, 'inside' | 'words'>) => {
    if (!isNear(own[0], own[1], own[2])) return;
    const point = carry(pose, own);
    const offPx = pixelsOff(query.camera, point, query.pointer);
    if (offPx > reachPx) return;
    offer({
      point,
      kind,
      ...whose(instance),
      offPx,
      seenAt: point,
      chordMm: shape.chordMm,
      inside: instance,
      ...more,
    });
  };
  if (datum && kinds.has('datum')) put(datum, 'datum');
  if (mass && kinds.has('mass centre')) put(mass, 'mass centre');
  if (!box) return;
  if (kinds.has('part centre')) put(boxPoint(box, [0, 0, 0]), 'part centre');
  if (!kinds.has('box point')) return;
  for (const [at, words] of BOX_POINTS) put(boxPoint(box, at), 'box point', { inside: undefined, words });
}

/** Pins and the origin of the world: marks on the view. */
export function marks(query: SnapQuery, offer: Offer): void {
  const { kinds, reachPx } = query.settings;
  const put = (point: Vec3, more: Pick<Offered, 'kind' | 'seenAt'> & Partial<Offered>) => {
    const offPx = pixelsOff(query.camera, point, query.pointer);
    if (offPx <= reachPx) offer({ point, offPx, chordMm: 0, ...more });
  };
  if (kinds.has('pin'))
    for (const { name, at } of query.pins ?? []) put(at, { kind: 'pin', pin: name, seenAt: null });
  if (kinds.has('dock'))
    for (const { at, ...dock } of query.docks ?? [])
      if (!query.without?.has(dock.part) && (query.may?.(dock.part) ?? true))
        put(at, { kind: 'dock', seenAt: null, words: dock.dock, ...dock });
  if (kinds.has('origin')) put([0, 0, 0], { kind: 'origin', seenAt: [0, 0, 0] });
}
