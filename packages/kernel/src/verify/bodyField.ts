/**
 * Signed distances to bodies made from profiles: what lies above the filled plane, or is turned from it. Undefined where no formula
 * is known: sides that lean, free flanks, walls, and profiles whose curves meet or lie on one another.
 */
import {
  areClear,
  boxOfCurves,
  carryCurve,
  cosDegrees,
  depthAt,
  filledDistance,
  radians,
  sinDegrees,
  type Affine2,
  type Box2,
  type Path,
  type Region2,
  type Regions,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import type { BodyContent } from '../content/bodies.ts';
import type { Content } from '../content/content.ts';
import { bothOf, polygonDistance, type Field } from './distance.ts';

type Body<K extends BodyContent['kind']> = Extract<BodyContent, { kind: K }>;

export function bodyField(content: Content): Field | undefined {
  switch (content.kind) {
    case 'raise':
      return raisedField(content);
    case 'revolve':
      return turnedField(content);
    case 'wedge':
      return wedgeField(content);
    case 'cap':
      return capField(content);
    default:
      return undefined;
  }
}

function raisedField({ paths, regions, height, down, draft, ends }: Body<'raise'>): Field | undefined {
  const border = ends === 'capped' && draft === 0 ? borderOf(paths, regions) : undefined;
  if (!border) return undefined;
  const filled = filledDistance(border);
  const [middle, half] = [(height - down) / 2, (height + down) / 2];
  const { centre, radius } = discRound(border);
  return {
    at: ([x, y, z]) => bothOf(filled([x, y]), Math.abs(z - middle) - half),
    centre: [...centre, middle],
    radius: Math.hypot(radius, half),
  };
}

/** A profile laid so that its axis is X, and the side of it that is turned has a positive Y. */
function turnedField(content: Body<'revolve'>): Field | undefined {
  const border = content.ends === 'capped' ? borderOf(content.paths, content.regions) : undefined;
  const side = border && sideOf(border, content);
  if (!border || side === undefined) return undefined;
  const { point, direction, angle } = content;
  const [c, s] = [cosDegrees(direction), sinDegrees(direction)];
  const laid = carryPaths(onAxis(content, side), border);
  const filled = filledDistance(laid);
  const sector = sectorDistance(angle);
  const disc = discRound(laid);
  const [along] = disc.centre;
  return {
    at: ([x, y, z]) => {
      const [dx, dy] = [x - point[0], y - point[1]];
      const across = side * (c * dy - s * dx);
      return bothOf(filled([c * dx + s * dy, Math.hypot(across, z)]), sector([across, side * z]));
    },
    centre: [point[0] + c * along, point[1] + s * along, 0],
    radius: disc.radius + Math.abs(disc.centre[1]),
  };
}

type Side = 1 | -1;

function onAxis({ point, direction }: Body<'revolve'>, side: Side): Affine2 {
  const [c, s] = [cosDegrees(direction), sinDegrees(direction)];
  return {
    x: [c, -side * s],
    y: [s, side * c],
    shift: [-(c * point[0] + s * point[1]), side * (s * point[0] - c * point[1])],
  };
}

const carryPaths = (map: Affine2, paths: readonly Path[]): Path[] =>
  paths.map(({ closed, curves }) => ({
    closed,
    curves: curves.map(({ name, curve }) => ({ name, curve: carryCurve(map, curve) })),
  }));

/** A profile may reach over its axis by this (mm): what is left of typed numbers. */
const OVER_AXIS_MM = 1e-6;

/** 1 where what is turned lies to the left of the axis, −1 to the right; undefined where it lies on both sides. */
function sideOf(border: readonly Path[], content: Body<'revolve'>): Side | undefined {
  if (content.half !== 'whole') return content.half === 'left' ? 1 : -1;
  const [, least] = boxOfPaths(carryPaths(onAxis(content, 1), border)).min;
  if (least >= -OVER_AXIS_MM) return 1;
  const [, other] = boxOfPaths(carryPaths(onAxis(content, -1), border)).min;
  return other >= -OVER_AXIS_MM ? -1 : undefined;
}

/** From what is swept round the origin, from the first axis by an angle (degrees, either way) at most a whole turn. */
function sectorDistance(angle: number): (point: Vec2) => number {
  if (Math.abs(angle) >= 360) return () => -Infinity;
  const [middle, half] = [radians(angle) / 2, radians(Math.abs(angle)) / 2];
  return ([u, v]) => {
    const off = Math.atan2(v, u) - middle;
    const beyond = Math.abs(Math.atan2(Math.sin(off), Math.cos(off))) - half;
    // Beyond a quarter the nearest point of the border is the axis.
    return Math.sign(beyond) * Math.hypot(u, v) * Math.sin(Math.min(Math.abs(beyond), Math.PI / 2));
  };
}

function wedgeField({ size: [x, y, z], top, lean }: Body<'wedge'>): Field {
  const from = lean === 'left' ? 0 : (x - top) / 2;
  const outline: readonly Vec2[] = [
    [0, 0],
    [x, 0],
    [from + top, z],
    ...(top === 0 ? [] : [[from, z] as const]),
  ];
  const half: Vec3 = [x / 2, y / 2, z / 2];
  return {
    at: (point) =>
      bothOf(polygonDistance(outline, [point[0], point[2]]), Math.abs(point[1] - half[1]) - half[1]),
    centre: half,
    radius: Math.hypot(...half),
  };
}

function capField({ diameter, height }: Body<'cap'>): Field {
  const radius = diameter / 2;
  return {
    at: ([x, y, z]) => Math.max(Math.hypot(x, y, z - (height - radius)) - radius, -z),
    centre: [0, 0, height - radius],
    radius,
  };
}

const boxOfPaths = (paths: readonly Path[]): Box2 =>
  boxOfCurves(paths.flatMap(({ curves }) => curves.map(({ curve }) => curve)))!;

function discRound(paths: readonly Path[]): { centre: Vec2; radius: number } {
  const { min, max } = boxOfPaths(paths);
  return {
    centre: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2],
    radius: Math.hypot(max[0] - min[0], max[1] - min[1]) / 2,
  };
}

/** The closed paths that border the regions, which the even-odd rule then fills; undefined where formulas do not tell. */
function borderOf(paths: readonly Path[], regions: Regions): Path[] | undefined {
  if (!areClear(paths)) return undefined;
  const closed = paths.filter((path) => path.closed && path.curves.length > 0);
  if (closed.length === 0) return undefined;
  return regions === 'all' ? closed : borderOfRegions(closed, regions);
}

/** Regions side by side share a loop, which then borders neither: only loops that occur an odd number of times count. */
function borderOfRegions(closed: readonly Path[], regions: readonly Region2[]): Path[] | undefined {
  const odd = new Set<Path>();
  for (const region of regions) {
    const loops = closed.filter(({ curves }) => curves.some(({ name }) => region.curves.includes(name)));
    const names = loops.flatMap(({ curves }) => [...new Set(curves.map(({ name }) => name))]);
    // A region that was found again by what is left of its curves is built by the kernel alone.
    const isWhole = names.length === new Set(region.curves).size;
    if (loops.length === 0 || !isWhole || depthAt(loops, region.at) !== 1) return undefined;
    for (const loop of loops) if (!odd.delete(loop)) odd.add(loop);
  }
  return [...odd];
}
