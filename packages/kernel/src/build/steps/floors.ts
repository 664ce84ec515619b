/**
 * How far an engraving goes in, and a relief out, where all that lies under its outline is one plane, one cylinder or one ball:
 * exactly, and whatever else the solid has beside it.
 */
import { add, cross, dot, faultOf, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import {
  BuildError,
  moved,
  read,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { firstDerivatives } from '../../facts/surface.ts';
import { buildCylinder } from '../primitives/cylinder.ts';
import type { NamedShape } from '../../naming/named.ts';
import { buildSphere } from '../primitives/sphere.ts';

/** What limits the engraving or the relief. */
export interface Floor {
  /** Whether it lies outside of this shape or within it. */
  readonly how: 'subtract' | 'intersect';
  readonly shape: TopoDS_Shape;
  /** Height where the outline’s prism ends within the solid, mm. */
  readonly end: number;
}

/** A surface, with the way out of the solid. */
type Surface =
  | { readonly kind: 'plane'; readonly at: Vec3; readonly outward: Vec3 }
  | {
      readonly kind: 'round';
      readonly at: Vec3;
      /** None for a ball. */
      readonly axis: Vec3 | undefined;
      readonly radius: number;
      readonly isHollow: boolean;
    };

export interface Site {
  /** In the frame of the outline: the way runs along Z, 1 upward or −1 downward. */
  readonly way: 1 | -1;
  /** The deepest first hit under the outline, along the way, mm. */
  readonly near: number;
  /** mm, of the solid. */
  readonly size: number;
  /** How far the surface is moved out of the solid; less than zero moves it in, mm. */
  readonly by: number;
  /** Where the prism of a relief ends, along the way, mm. */
  readonly stop: number;
  /** Along X and Y for each mm along Z. */
  readonly slant: readonly [number, number];
}

/** Undefined where several surfaces lie under the outline, or others. Throws BuildError. */
export function floorUnder(
  occt: Occt,
  { shape }: NamedShape,
  faces: readonly number[],
  site: Site,
): Floor | undefined {
  return scope((keep) => {
    const all = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const surfaces = faces.map((face) => surfaceOf({ occt, keep }, all[face]!));
    const [first] = surfaces;
    if (!first || surfaces.some((other) => !other || !areOne(first, other))) return undefined;
    return first.kind === 'plane' ? planeFloor(occt, first, site) : roundFloor(occt, first, site);
  });
}

function surfaceOf({ occt, keep }: Scoped, face: TopoDS_Shape): Surface | undefined {
  const surface = keep(new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(face)), true));
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  const { point, along, across } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
  const outward = scale(unit(cross(along, across)), turned);
  switch (surface.GetType() as unknown as string) {
    case 'GeomAbs_Plane':
      return { kind: 'plane', at: point, outward };
    case 'GeomAbs_Cylinder': {
      const cylinder = keep(surface.Cylinder());
      const position = keep(cylinder.Position());
      const at = read(keep(position.Location()), keep);
      const axis = read(keep(position.Direction()), keep);
      const isHollow = dot(subtract(point, at), outward) < 0;
      return { kind: 'round', at, axis, radius: cylinder.Radius(), isHollow };
    }
    case 'GeomAbs_Sphere': {
      const ball = keep(surface.Sphere());
      const at = read(keep(ball.Location()), keep);
      const isHollow = dot(subtract(point, at), outward) < 0;
      return { kind: 'round', at, axis: undefined, radius: ball.Radius(), isHollow };
    }
    default:
      return undefined;
  }
}

/** Surfaces that differ by less than this (mm, or the sine of an angle) are one. */
const SAME = 1e-9;

function areOne(a: Surface, b: Surface): boolean {
  const off = subtract(b.at, a.at);
  if (a.kind === 'plane')
    return b.kind === 'plane' && dot(a.outward, b.outward) > 1 - SAME && Math.abs(dot(off, a.outward)) < SAME;
  if (b.kind === 'plane' || a.isHollow !== b.isHollow || Math.abs(a.radius - b.radius) > SAME) return false;
  const { axis } = a;
  if (!axis || !b.axis) return axis === b.axis && Math.hypot(...off) < SAME;
  return Math.hypot(...cross(axis, b.axis)) < SAME && Math.hypot(...cross(axis, off)) < SAME;
}

/** All that lies behind the plane once it is moved: a block. */
function planeFloor(
  occt: Occt,
  { at, outward }: Extract<Surface, { kind: 'plane' }>,
  { way, near, size, by, slant, stop }: Site,
): Floor {
  const fall = Math.abs(dot(outward, [slant[0], slant[1], 1]));
  const end = by > 0 ? stop : near - by / fall + MARGIN * size;
  const wide = 4 * (size + Math.abs(end) + Math.abs(by) + Math.hypot(...at));
  const foot = scale(outward, dot(at, outward) + by);
  return scope((keep) => {
    const x = unit(cross(outward, Math.abs(outward[0]) < 0.5 ? [1, 0, 0] : [0, 1, 0]));
    const y = cross(outward, x);
    const corner = subtract(foot, add(scale(x, wide), add(scale(y, wide), scale(outward, wide))));
    const axes = keep(
      new occt.gp_Ax2(
        keep(new occt.gp_Pnt(...corner)),
        keep(new occt.gp_Dir(...outward)),
        keep(new occt.gp_Dir(...x)),
      ),
    );
    const shape = keep(new occt.BRepPrimAPI_MakeBox(axes, 2 * wide, 2 * wide, wide)).Shape();
    return { how: by > 0 ? 'intersect' : 'subtract', shape, end: way * end };
  });
}
/** How far beyond the floor the outline is pulled, as a part of the solid's size. */
const MARGIN = 0.01;
/** An axis that leans out of the outline's plane by more than this (sine) is left to the general way. */
const LEVEL_SINE = 1e-9;

function roundFloor(
  occt: Occt,
  surface: Extract<Surface, { kind: 'round' }>,
  { way, size, by, slant, stop }: Site,
): Floor | undefined {
  const { at, axis, radius, isHollow } = surface;
  if (slant[0] !== 0 || slant[1] !== 0 || (axis && Math.abs(axis[2]) > LEVEL_SINE)) return undefined;
  const there = isHollow ? radius - by : radius + by;
  if (!(there > 0)) throw new BuildError(faultOf('emboss.too-deep-for-bend', {}));
  const shape = axis
    ? cylinderAbout(occt, at, axis, { radius: there, long: 8 * size })
    : ballAt(occt, at, there);
  const how = by > 0 === isHollow ? 'subtract' : 'intersect';
  if (by > 0) return { how, shape, end: way * stop };
  // Outside, an engraving ends at the height of the axis, behind which the far side begins.
  return { how, shape, end: isHollow ? at[2] + way * (there + MARGIN * size) : at[2] };
}

function cylinderAbout(
  occt: Occt,
  at: Vec3,
  axis: Vec3,
  { radius, long }: { readonly radius: number; readonly long: number },
): TopoDS_Shape {
  const x = unit(cross(axis, [0, 0, 1]));
  const y = cross(axis, x);
  const turn = [x[0], y[0], axis[0], x[1], y[1], axis[1], x[2], y[2], axis[2]] as const;
  const { shape } = buildCylinder(occt, 2 * radius, long);
  const placed = moved(occt, shape, { turn, shift: subtract(at, scale(axis, long / 2)) });
  shape.delete();
  return placed;
}

function ballAt(occt: Occt, at: Vec3, radius: number): TopoDS_Shape {
  const { shape } = buildSphere(occt, 2 * radius);
  const placed = moved(occt, shape, { turn: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: at });
  shape.delete();
  return placed;
}
