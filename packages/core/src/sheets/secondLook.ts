/**
 * A second opinion on hidden lines: what rays over the facets say is in sight for certain, and was taken for hidden, is drawn. The
 * kernel hides lines that lie in one line with those of another solid nearer by. Everything in the frame of the view, mm.
 */
import { endOf, startOf, type Curve } from '../curves/curve.ts';
import { boxOfCurves, type Box2 } from '../curves/flattened.ts';
import { nearestOn } from '../curves/meetings.ts';
import { castOnShape, localRay, type FacetHit } from '../snapping/raycast.ts';
import { boxOfShape, type SnapInstance } from '../snapping/scene.ts';
import { FACE_PLANE, type SnapShape } from '../snapping/shape.ts';
import { carryBox, type Box } from '../space/box.ts';
import { add, along, type Vec3 } from '../space/vector.ts';
import type { Ray } from '../space/plane.ts';
import { mix2 } from '../space/vector2.ts';
import { BESIDE, asideOf, piecesWhere, roundingOf, waysOf, type Way } from './edgeWays.ts';

/** A line this near to a drawn one lies on it, mm. */
const ON_LINE_MM = 1e-5;
const UP: Vec3 = [0, 0, 1];

/** What is drawn of one solid. */
interface OwnLines {
  readonly drawn: readonly Curve[];
  readonly hidden: readonly Curve[];
}

/** Pieces of a solid's edges that were taken for hidden, and that nothing hides. @param others all that may be before it */
export function secondLook(
  { drawn, hidden }: OwnLines,
  instance: SnapInstance,
  others: readonly SnapInstance[],
): Curve[] {
  const [isDrawn, isHidden] = [new Drawn(drawn), new Drawn(hidden)];
  const look = new Look(instance, others);
  return waysOf(instance).flatMap((way) =>
    piecesWhere(way, (t) => {
      const point = way(t);
      return !isDrawn.has(point) && isHidden.has(point) && look.sees(point);
    }),
  );
}

/** What is left of straight lines where others are drawn already. */
export function notDrawnYet(lines: readonly Curve[], drawn: readonly Curve[]): Curve[] {
  if (lines.length === 0) return [];
  const known = new Drawn(drawn);
  return lines.flatMap((line) => {
    const [from, to] = [startOf(line), endOf(line)];
    const way: Way = (t) => [...mix2(from, to, t), 0];
    return piecesWhere(way, (t) => !known.has(way(t)));
  });
}

/** Lines that are drawn, to ask what lies on them. */
class Drawn {
  private readonly curves: readonly { readonly curve: Curve; readonly box: Box2 }[];

  constructor(curves: readonly Curve[]) {
    this.curves = curves.map((curve) => ({ curve, box: boxOfCurves([curve])! }));
  }

  has([x, y]: Vec3): boolean {
    return this.curves.some(
      ({ curve, box: { min, max } }) =>
        x > min[0] - ON_LINE_MM &&
        x < max[0] + ON_LINE_MM &&
        y > min[1] - ON_LINE_MM &&
        y < max[1] + ON_LINE_MM &&
        nearestOn(curve, [x, y]).distance < ON_LINE_MM,
    );
  }
}

/** A solid that may hide an edge. */
interface Hider {
  readonly instance: SnapInstance;
  readonly box: Box;
  /** How far beside an edge, and a fourth of how far before it, it is looked: for all facets, and for flat ones alone. */
  readonly aside: number;
  readonly besideFlat: number;
}

/** Lines of sight from the edges of a solid. */
class Look {
  private readonly hiders: readonly Hider[];

  constructor(own: SnapInstance, others: readonly SnapInstance[]) {
    this.hiders = [own, ...others].map((instance) => ({
      instance,
      box: carryBox(instance.pose, boxOfShape(instance.shape)),
      aside: asideOf([own, instance]),
      besideFlat: roundingOf([own, instance]),
    }));
  }

  /** For certain: nothing is before it, nor before what is beside it. */
  sees(point: Vec3): boolean {
    return this.hiders.every((hider) => !isBehind(point, hider));
  }
}

function isBehind(point: Vec3, { instance, box, aside, besideFlat }: Hider): boolean {
  if (!isUnder(point, box, aside)) return false;
  const { faceKind, faceOfTriangle, chordMm } = instance.shape;
  const isFlat = (triangle: number) => faceKind[faceOfTriangle[triangle]!] === FACE_PLANE;
  // Near a corner what is before an edge is as near to it as one likes: that is told by flat facets, and by others from some way on.
  const counts = ({ triangle, distance }: FacetHit) => isFlat(triangle) || distance > ROUND_CHORDS * chordMm;
  return (
    isHitBeside(point, instance, { aside }) ||
    (besideFlat < aside && isHitBeside(point, instance, { aside: besideFlat, counts }))
  );
}
/** A round face is before a point for certain where its facets are by so many times what they may be off. */
const ROUND_CHORDS = 2;

interface Beside {
  readonly aside: number;
  /** Which hits count; all where it is not said. */
  readonly counts?: (hit: FacetHit) => boolean;
}

const isHitBeside = (point: Vec3, instance: SnapInstance, { aside, counts }: Beside): boolean =>
  BESIDE.some(([x, y]) => {
    const from = add(point, [x * aside, y * aside, 4 * aside]);
    return isHit(instance.shape, localRay(instance, { from, direction: UP }), counts);
  });

/** Facets that do not count, and are looked through; behind more of them nothing is taken for certain. */
const MAX_THROUGH = 8;

function isHit(shape: SnapShape, { from, direction }: Ray, counts: Beside['counts']): boolean {
  let way = 0;
  for (let i = 0; i < MAX_THROUGH; i++) {
    const hit = castOnShape(shape, { from: along(from, direction, way), direction });
    if (!hit) return false;
    const distance = way + hit.distance;
    if (!counts || counts({ ...hit, distance })) return true;
    way = distance + THROUGH_MM;
  }
  return true;
}
/** Past a facet. */
const THROUGH_MM = 1e-6;

const isUnder = ([x, y, z]: Vec3, { min, max }: Box, aside: number): boolean =>
  x >= min[0] - aside && x <= max[0] + aside && y >= min[1] - aside && y <= max[1] + aside && z <= max[2];
