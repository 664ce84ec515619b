/** Points, edges and circles of what a view shows, to which dimensions can be tied. */
import { worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import type { SheetView, Tie } from '../document/sheet.ts';
import type { Placed } from '../patterns/placed.ts';
import type { DrawnCatch } from '../questions/question.ts';
import { edgeGeometry } from '../snapping/feature.ts';
import {
  CURVE_CIRCLE,
  CURVE_LINE,
  CURVE_STRIDE,
  POINT_KINDS,
  type ShapeFeatures,
} from '../snapping/shape.ts';
import type { Geometry } from '../space/geometry.ts';
import { carry, chain, inverse, turnVector, type Pose } from '../space/pose.ts';
import { along, cross, length, type Vec3 } from '../space/vector.ts';
import { add2, subtract2, type Vec2 } from '../space/vector2.ts';
import type { FeaturesOf } from './ties.ts';

/** What a view shows. */
export interface Shown {
  readonly solids: readonly Placed[];
  /** Items that are cut at the plane of the view: what lies before it is not there. */
  readonly cut: ReadonlySet<ItemId>;
  readonly features: FeaturesOf;
}

/** A view and where it looks from. */
interface Viewing {
  readonly document: KadrelDocument;
  readonly view: SheetView;
  readonly frame: Pose;
}

/** More cannot be distinguished on paper. */
const MAX_CATCHES = 20_000;
/** Points less than this before the plane of a section (mm) lie in it. */
const ON_PLANE_MM = 1e-6;
/** How far the axis of a circle may be off a square view of it. */
const SQUARE = 1e-9;

/** In the frame of the view. */
export function catchesOf(
  { document, view, frame }: Viewing,
  { solids, cut, features }: Shown,
): DrawnCatch[] {
  const back = inverse(frame);
  const reach = view.detail?.radius ?? Infinity;
  const found: DrawnCatch[] = [];
  const gather = (solid: Placed, near: number) => {
    const own = features(solid);
    if (!own || found.length > MAX_CATCHES) return;
    const pose = chain(back, solid.pose);
    for (const one of [...pointsOf(own), ...edgesOf(own)]) {
      const at = carry(pose, one.at);
      if (at[2] > near || Math.hypot(at[0], at[1]) > reach) continue;
      const tie: Tie = { point: carry(solid.pose, one.at), named: { ...nameOf(solid), ...one.named } };
      found.push({ at, snap: one.snap, tie, ...seenAs(one, pose) });
    }
  };
  for (const solid of solids) gather(solid, cut.has(solid.item) ? ON_PLANE_MM : Infinity);
  if (view.look.kind === 'section') gather(planeItself(document, view.look.plane), Infinity);
  return found.slice(0, MAX_CATCHES);
}

/** A section plane is built as what it cuts, whose corners and edges have names too. */
const planeItself = (document: KadrelDocument, plane: ItemId): Placed => ({
  item: plane,
  leaf: plane,
  member: '',
  tag: plane,
  mirrored: false,
  pose: worldFromPart(document, plane),
});

/** A circle that is seen squarely or from the side, or a straight edge. @param pose from the solid to the frame of the view */
function seenAs(
  { axis, radius, isWhole, ends, at }: Found,
  pose: Pose,
): Pick<DrawnCatch, 'radius' | 'isWhole' | 'ends' | 'isAside'> {
  if (ends) {
    const [from, to] = [carry(pose, ends[0]), carry(pose, ends[1])];
    return { ends: [flat(from), flat(to)] };
  }
  if (!axis || radius === undefined) return {};
  const seen = turnVector(pose.turn, axis);
  if (isSquare(seen)) return { radius, ...(isWhole ? { isWhole } : {}) };
  if (!isWhole || Math.abs(seen[2]) > SQUARE) return {};
  const [x, y] = carry(pose, at);
  const side: Vec2 = [-seen[1] * radius, seen[0] * radius];
  return { ends: [subtract2([x, y], side), add2([x, y], side)], isAside: true };
}

const flat = ([x, y]: Vec3): Vec2 => [x, y];
const isSquare = (axis: Vec3) => length(cross(axis, [0, 0, 1])) < SQUARE;

function nameOf({ item, leaf, member }: Placed) {
  return {
    part: item,
    ...(member === '' ? {} : { member }),
    ...(leaf === item ? {} : { of: leaf }),
  };
}

interface Found {
  readonly at: Vec3;
  readonly snap: DrawnCatch['snap'];
  readonly named: { readonly at: string; readonly snap?: string; readonly near: Vec3 };
  readonly axis?: Vec3;
  readonly radius?: number;
  readonly isWhole?: true;
  /** Of a straight edge. */
  readonly ends?: readonly [Vec3, Vec3];
}

function* pointsOf(features: ShapeFeatures): Generator<Found> {
  for (let i = 0; i < features.pointKind.length; i++) {
    const snap = POINT_KINDS[features.pointKind[i]!]!;
    const at: Vec3 = [features.points[3 * i]!, features.points[3 * i + 1]!, features.points[3 * i + 2]!];
    const name = features.names[features.pointName[i]!]!;
    if (name !== '') yield { at, snap, named: { at: name, snap, near: at } };
  }
}

/** Straight edges by their middles, round ones by their centres. */
function* edgesOf(features: ShapeFeatures): Generator<Found> {
  for (let c = 0; c < features.curveKind.length; c++) {
    const kind = features.curveKind[c]!;
    const name = features.names[features.curveName[c]!]!;
    if ((kind !== CURVE_LINE && kind !== CURVE_CIRCLE) || name === '') continue;
    const geometry = edgeGeometry(features, c)!;
    const isWhole = Math.abs(sweepOf(features, c)) > 360 - SWEEP_SLACK;
    const round =
      geometry.kind === 'axis'
        ? {
            axis: geometry.direction,
            radius: geometry.radius,
            ...(isWhole ? ({ isWhole: true } as const) : {}),
          }
        : {};
    const ends = geometry.kind === 'line' ? { ends: endsOf(geometry) } : {};
    // Of several round edges about one axis the one is meant whose rim is near.
    const near = geometry.kind === 'axis' ? rimOf(features, c) : geometry.at;
    yield { at: geometry.at, snap: 'edge', named: { at: name, near }, ...round, ...ends };
  }
}

function endsOf({ at, direction, length: mm = 0 }: Extract<Geometry, { kind: 'line' }>): [Vec3, Vec3] {
  return [along(at, direction, -mm / 2), along(at, direction, mm / 2)];
}

/** Degrees that a circle may lack and still go all round. */
export const SWEEP_SLACK = 1e-6;
/** Degrees that a circular edge goes round. */
export const sweepOf = ({ curves }: ShapeFeatures, c: number): number =>
  curves[CURVE_STRIDE * c + 10]! - curves[CURVE_STRIDE * c + 9]!;

const rimOf = ({ curves }: ShapeFeatures, c: number): Vec3 => {
  const at = (i: number) => curves[CURVE_STRIDE * c + i]!;
  return [at(0) + at(3), at(1) + at(4), at(2) + at(5)];
};
