/** What lies on one side of a drawn outline, straight through. */
import {
  AT_ORIGIN,
  areClear,
  boxOfCurves,
  carry,
  inverse,
  pointAt,
  velocityAt,
  faultOf,
  type Curve,
  type Path,
  type Vec2,
} from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, carryingPlaces, moved, scope, type Occt } from '../../occt/occt.ts';
import { pulledFace } from '../bodies/raise.ts';
import { planarFaces } from '../bodies/regions.ts';
import { together } from '../compound.ts';
import { keptSide, reachFrom } from './halves.ts';

type CutAlong = Extract<Content, { readonly kind: 'cutAlong' }>;

/** Where free curves cut, volumes are integrated by the kernel's own rule. */
const SAME_VOLUME = 1e-6;

/** The new faces are called after the curves: cut line1. Throws BuildError. */
export function buildCutAlong(occt: Occt, of: NamedShape, content: CutAlong): NamedShape {
  return scope((keep) => {
    const { frame } = content;
    // All is done in the frame of the outline, and carried back.
    const own: NamedShape = { ...of, shape: keep(moved(occt, of.shape, inverse(frame))) };
    const made = carryingPlaces(
      (place) => carry(frame, place),
      () => cutInFrame(occt, own, content),
    );
    keep(made.shape);
    return { shape: moved(occt, made.shape, frame), faceNames: made.faceNames };
  });
}

function cutInFrame(occt: Occt, own: NamedShape, { paths, slant, keep: side }: CutAlong): NamedShape {
  return scope((keep) => {
    const height = reachFrom(occt, own.shape, AT_ORIGIN.shift);
    const reach = height * (1 + Math.hypot(...slant));
    const planar = planarFaces({ occt, keep }, closedPaths(paths, reach), 'all');
    const prisms = planar.faces.map((face) =>
      pulledFace({ occt, keep }, planar, face, { from: -height, to: height, slant }),
    );
    const prism = together(occt, prisms);
    keep(prism.shape);
    const tool = { ...prism, faceNames: prism.faceNames.map((name) => `cut ${name}`) };
    const [x, y] = pointAt(paths[0]!.curves[0]!.curve, 0.5);
    return keptSide(occt, own, {
      tool,
      keep: side,
      sameVolume: SAME_VOLUME,
      by: 'outline',
      at: [x, y, 0],
    });
  });
}

/** Closed outlines as they are; one that is open is closed far round on its left. Throws BuildError. */
function closedPaths(paths: readonly Path[], reach: number): readonly Path[] {
  const open = paths.filter(({ closed }) => !closed);
  if (open.length === 0) return paths;
  if (paths.length > 1) throw new BuildError(faultOf('cut-along.open-among-others', {}));
  return [closedOnLeft(open[0]!, reach)];
}

/** Degrees between the corners of the way round. */
const CORNER_TURN = 45;

function closedOnLeft(path: Path, reach: number): Path {
  const curves = path.curves.map(({ curve }) => curve);
  const { min, max } = boxOfCurves(curves)!;
  const radius = 2 * (reach + Math.max(Math.hypot(...min), Math.hypot(...max)));
  const [first, last] = [path.curves[0]!, path.curves.at(-1)!];
  const start = onCircle(pointAt(first.curve, 0), back(velocityAt(first.curve, 0)), radius);
  const end = onCircle(pointAt(last.curve, 1), velocityAt(last.curve, 1), radius);
  const corners = [end, ...cornersBetween(end, start, radius), start];
  const far = corners
    .slice(1)
    .map((to, i) => ({ name: 'far', curve: { kind: 'line', from: corners[i]!, to } as const }));
  const led = [
    { name: first.name, curve: { kind: 'line', from: start, to: pointAt(first.curve, 0) } as const },
    ...path.curves,
    { name: last.name, curve: { kind: 'line', from: pointAt(last.curve, 1), to: end } as const },
  ];
  const whole: Path = { ...path, closed: true, curves: [...joined(led), ...far] };
  if (areClear([whole])) return whole;
  throw new BuildError(faultOf('cut-along.into-itself', {}), [[...pointAt(last.curve, 1), 0]]);
}

const back = ([x, y]: Vec2): Vec2 => [-x, -y];

/** Where a ray from within a circle round the origin leaves it. */
function onCircle([x, y]: Vec2, way: Vec2, radius: number): Vec2 {
  const size = Math.hypot(...way);
  const [u, v] = [way[0] / size, way[1] / size];
  const along = x * u + y * v;
  const far = -along + Math.sqrt(along * along + radius * radius - x * x - y * y);
  return [x + far * u, y + far * v];
}

/** Counter-clockwise. */
function cornersBetween(from: Vec2, to: Vec2, radius: number): Vec2[] {
  const [first, last] = [Math.atan2(from[1], from[0]), Math.atan2(to[1], to[0])];
  const turn = (last - first + 4 * Math.PI) % (2 * Math.PI);
  const pieces = Math.max(1, Math.ceil(turn / ((CORNER_TURN * Math.PI) / 180)));
  return Array.from({ length: pieces - 1 }, (_, i): Vec2 => {
    const angle = first + (turn * (i + 1)) / pieces;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  });
}

type Named = { readonly name: string; readonly curve: Curve };

/** Lines that go on straight are one, so that they cut one face. */
function joined(curves: readonly Named[]): Named[] {
  const made: Named[] = [];
  for (const one of curves) {
    const before = made.at(-1);
    const straight = before?.name === one.name && straightOn(before.curve, one.curve);
    if (straight) made[made.length - 1] = { ...one, curve: straight };
    else made.push(one);
  }
  return made;
}

/** One line instead of two; undefined where they are no lines, or turn. */
function straightOn(before: Curve, after: Curve): Curve | undefined {
  if (before.kind !== 'line' || after.kind !== 'line') return undefined;
  const [[ux, uy], [vx, vy]] = [velocityAt(before, 0), velocityAt(after, 0)];
  const turn = (ux * vy - uy * vx) / (Math.hypot(ux, uy) * Math.hypot(vx, vy));
  return Math.abs(turn) < STRAIGHT_SINE ? { kind: 'line', from: before.from, to: after.to } : undefined;
}
/** Far above the rounding of doubles. */
const STRAIGHT_SINE = 1e-12;
