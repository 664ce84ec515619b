/** How far balls, cylinders with parallel axes, and balls and planes go until they touch: by formulas. Elementary geometry; no source. */
import { add, carry, cross, dot, scale, subtract, turnVector, type Pose, type Vec3 } from '@kadrel/core';
import { moved, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';
import { reachesOf } from './extent.ts';
import { firstDerivatives } from './surface.ts';

/** A face in its own frame, and where that stands. */
export interface PlacedFace {
  readonly face: TopoDS_Shape;
  readonly pose: Pose;
}

/** How far to go, and where on the fixed one they then touch. */
interface Touch {
  readonly way: number;
  readonly at: Vec3;
}

/** What a round face lies on, in the world. */
interface Round {
  readonly kind: 'ball' | 'cylinder';
  readonly centre: Vec3;
  /** Of a cylinder, length 1. */
  readonly axis: Vec3 | undefined;
  readonly radius: number;
  /** The material lies outside, as round a bore. */
  readonly isHollow: boolean;
}

/** A formula knows nothing of where faces end. @param faces the moving and the fixed one; undefined where there is no formula */
export function roundContact(
  scoped: Scoped,
  [a, b]: readonly [PlacedFace, PlacedFace],
  towards: Vec3,
): Touch | undefined {
  const [p, q] = [roundIn(scoped, a), roundIn(scoped, b)];
  if (p?.kind === 'ball' && q?.kind === 'ball') return roundsTouch(p, q, towards);
  if (p?.axis && q?.axis) return cylindersTouch(scoped, { a, b, p, q: q as Cylinder, axis: p.axis }, towards);
  const ball = p ?? q;
  const plane = planeIn(scoped, p ? b : a);
  return ball?.kind === 'ball' && plane
    ? ballOnPlane(ball, plane, { towards, isBallMoving: !!p })
    : undefined;
}

/** Of what does not point along the axis, as circles in the plane square to it. */
function roundsTouch(p: Round, q: Round, towards: Vec3): Touch | undefined {
  const isInside = p.isHollow !== q.isHollow;
  // How far apart the centres are when they touch.
  const reach = (p.isHollow ? -q.radius : q.radius) + (q.isHollow ? -p.radius : p.radius);
  if (reach <= 0) return undefined;
  const apart = subtract(q.centre, p.centre);
  const along = dot(apart, towards);
  const left = reach * reach - (dot(apart, apart) - along * along);
  if (left < 0) return undefined;
  // From outside the near side is met first, from inside the far one.
  const way = along + (isInside ? 1 : -1) * Math.sqrt(left);
  const there = add(p.centre, scale(towards, way));
  const facing = scale(subtract(q.centre, there), 1 / reach);
  const at = p.isHollow
    ? add(q.centre, scale(facing, q.radius))
    : add(there, scale(facing, q.isHollow ? -p.radius : p.radius));
  return { way, at };
}

interface Cylinder extends Round {
  readonly axis: Vec3;
}

interface Cylinders {
  readonly a: PlacedFace;
  readonly b: PlacedFace;
  readonly p: Round;
  readonly q: Cylinder;
  readonly axis: Vec3;
}

/** Axes that differ by less than this (sine, squared) are parallel, and ways along the axis by less than this square to it. */
const PARALLEL = 1e-20;
const SIDEWAYS = 1e-9;

function cylindersTouch(
  { occt, keep }: Scoped,
  { a, b, p, q, axis }: Cylinders,
  towards: Vec3,
): Touch | undefined {
  const tilt = cross(axis, q.axis);
  if (dot(tilt, tilt) > PARALLEL) return undefined;
  const flat = (v: Vec3) => subtract(v, scale(axis, dot(v, axis)));
  const aside = flat(towards);
  const size = Math.sqrt(dot(aside, aside));
  if (size < SIDEWAYS) return undefined;
  const touch = roundsTouch(
    { ...p, centre: flat(p.centre) },
    { ...q, centre: flat(q.centre) },
    scale(aside, 1 / size),
  );
  if (!touch) return undefined;
  const way = touch.way / size;
  const [own, other] = [a, b].map(
    ({ face, pose }) => reachesOf(occt, keep(moved(occt, face, pose)), [axis])[0]!,
  ) as [readonly [number, number], readonly [number, number]];
  const shift = way * dot(towards, axis);
  const [low, high] = [Math.max(own[0] + shift, other[0]), Math.min(own[1] + shift, other[1])];
  // Their lines of contact lie past one another.
  if (high < low) return undefined;
  return { way, at: add(touch.at, scale(axis, (low + high) / 2)) };
}

interface Falling {
  readonly towards: Vec3;
  readonly isBallMoving: boolean;
}

function ballOnPlane(
  ball: Round,
  plane: { readonly point: Vec3; readonly normal: Vec3 },
  { towards, isBallMoving }: Falling,
): Touch | undefined {
  const slope = dot(towards, plane.normal);
  if (ball.isHollow || Math.abs(slope) < SIDEWAYS) return undefined;
  const height = dot(subtract(ball.centre, plane.point), plane.normal);
  const off = Math.sign(height) * ball.radius;
  const way = (isBallMoving ? off - height : height - off) / slope;
  const foot = subtract(ball.centre, scale(plane.normal, off));
  // Where it is the plane that moves, the ball is touched where it stands.
  return { way, at: isBallMoving ? add(foot, scale(towards, way)) : foot };
}

/** The ball or the cylinder that a face lies on; undefined for other faces. */
function roundIn({ occt, keep }: Scoped, { face, pose }: PlacedFace): Round | undefined {
  const surface = keep(new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(face)), true));
  const kind = surface.GetType() as unknown as string;
  if (kind !== 'GeomAbs_Sphere' && kind !== 'GeomAbs_Cylinder') return undefined;
  const isBall = kind === 'GeomAbs_Sphere';
  const form = isBall ? keep(surface.Sphere()) : keep(surface.Cylinder());
  const at = keep(form.Location());
  const centre: Vec3 = [at.X(), at.Y(), at.Z()];
  const direction = isBall ? undefined : keep(keep(surface.Cylinder()).Axis());
  const way = direction && keep(direction.Direction());
  const axis: Vec3 | undefined = way && [way.X(), way.Y(), way.Z()];
  const v = isBall ? 0 : surface.FirstVParameter();
  const { point, along, across } = firstDerivatives(surface, { u: surface.FirstUParameter(), v }, keep);
  const out = subtract(point, centre);
  const outward = axis ? subtract(out, scale(axis, dot(out, axis))) : out;
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  return {
    kind: isBall ? 'ball' : 'cylinder',
    centre: carry(pose, centre),
    axis: axis && turnVector(pose.turn, axis),
    radius: form.Radius(),
    isHollow: turned * dot(cross(along, across), outward) < 0,
  };
}

/** The plane that a face lies in, in the world. */
export function planeIn(
  { occt, keep }: Scoped,
  { face, pose }: PlacedFace,
): { point: Vec3; normal: Vec3 } | undefined {
  const surface = keep(new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(face)), true));
  if ((surface.GetType() as unknown as string) !== 'GeomAbs_Plane') return undefined;
  const plane = keep(surface.Plane());
  const [point, direction] = [keep(plane.Location()), keep(keep(plane.Axis()).Direction())];
  return {
    point: carry(pose, [point.X(), point.Y(), point.Z()]),
    normal: turnVector(pose.turn, [direction.X(), direction.Y(), direction.Z()]),
  };
}

/** Distance of the faces, and the direction from the moving to the fixed one, when the moving one has gone this way. */
