/**
 * Layouts under a linear map of the pattern's frame. The map M goes down to the sources where every member's placement T
 * becomes a placement again: M·T = T′·M. Shifts always do; turns where the map keeps the circle round; mirrors where it
 * keeps what is square to the plane.
 */
import { valueOf } from '../document/items.ts';
import type { Growth, Layout, LayoutOf, Spacing, WayCurve } from '../recipes/layouts/index.ts';
import type { Num } from '../recipes/numbers.ts';
import { acrossTo, applyMatrix, cleanDirection, determinant, type Matrix } from '../space/matrix.ts';
import { cleanLength } from '../space/rounding.ts';
import { cross, dot, length, unit, type Vec3 } from '../space/vector.ts';
import { countAlong } from './members.ts';

/** Cosines, and relative differences in length, below this are the noise of rounding. */
const SAME = 1e-12;

type Triple = [number, number, number];

/** The layout of the mapped pattern; undefined where its members do not come along. */
export function mapLayout(layout: Layout, map: Matrix): Layout | undefined {
  switch (layout.kind) {
    case 'along':
      return mapAlong(layout, map);
    case 'around':
      return mapAround(layout, map);
    case 'grid':
      return {
        ...layout,
        rows: layout.rows.map((row) => {
          const { direction, size } = image(map, row.direction);
          return { ...row, direction, spacing: scaled(row.spacing, size) };
        }) as LayoutOf<'grid'>['rows'],
      };
    case 'path':
      return mapPath(layout, map);
    case 'reflection': {
      const normal = image(map, layout.normal);
      const flat = [acrossTo(layout.normal), cross(layout.normal, acrossTo(layout.normal))];
      const isSquare = flat.every(
        (v) => Math.abs(dot(unit(applyMatrix(map, v)), normal.direction)) < SAME * 10,
      );
      return isSquare
        ? { ...layout, point: mapPoint(map, layout.point), normal: normal.direction }
        : undefined;
    }
  }
}

function image(map: Matrix, direction: Vec3): { direction: Triple; size: number } {
  const carried = applyMatrix(map, direction);
  const size = length(carried);
  return { direction: [...cleanDirection(unit(carried))] as Triple, size };
}

const mapPoint = (map: Matrix, point: Vec3): Triple =>
  applyMatrix(map, point).map((n) => cleanLength(n)) as Triple;

/** A number that stays keeps its formula. */
const times = (n: Num, by: number): Num => (Math.abs(by - 1) < SAME ? n : cleanLength(valueOf(n) * by));
const scaled = (spacing: Spacing, by: number): Spacing =>
  'pitch' in spacing ? { pitch: times(spacing.pitch, by) } : { span: times(spacing.span, by) };

/** The factor of a map that keeps all angles; undefined for others. */
function similarity(map: Matrix): number | undefined {
  const columns = [0, 1, 2].map((i): Vec3 => [map[i]!, map[3 + i]!, map[6 + i]!]);
  const [a, b, c] = columns as [Vec3, Vec3, Vec3];
  const size = length(a);
  const isEven = [b, c].every((v) => Math.abs(length(v) - size) <= SAME * size * 10);
  const isSquare = [dot(a, b), dot(a, c), dot(b, c)].every((n) => Math.abs(n) <= SAME * size * size * 10);
  return isEven && isSquare ? size : undefined;
}

function mapAlong(layout: LayoutOf<'along'>, map: Matrix): LayoutOf<'along'> | undefined {
  const { direction, size } = image(map, layout.direction);
  const { growth, fit, ...row } = layout;
  const factor = similarity(map);
  const grown = growth && mapGrowth(growth, { size, factor, isMirrored: determinant(map) < 0 });
  if (growth && !grown) return undefined;
  return {
    ...row,
    direction,
    spacing: scaled(layout.spacing, size),
    ...(grown ? { growth: grown } : {}),
    ...(fit && factor !== undefined
      ? { fit: { ...fit, gap: times(fit.gap, size), size: cleanLength(fit.size * size) } }
      : // What fits was counted for other proportions: the count stays as it is.
        { count: countAlong(layout) }),
  };
}

function mapGrowth(
  growth: Growth,
  { size, factor, isMirrored }: { size: number; factor: number | undefined; isMirrored: boolean },
): Growth | undefined {
  if ('gap' in growth) return { gap: times(growth.gap, size) };
  if (factor === undefined) return undefined;
  // Seen along the mapped direction, a mirrored turn goes the other way.
  if ('turn' in growth) return { turn: isMirrored ? -valueOf(growth.turn) : growth.turn };
  return { size: growth.size.map((n) => times(n, factor)) as [Num, Num, Num] };
}

function mapAround(layout: LayoutOf<'around'>, map: Matrix): LayoutOf<'around'> | undefined {
  const u = acrossTo(layout.axis);
  const v = cross(layout.axis, u);
  const [U, V, A] = [applyMatrix(map, u), applyMatrix(map, v), applyMatrix(map, layout.axis)];
  const size = length(U);
  const isRound =
    Math.abs(length(V) - size) <= SAME * size * 10 &&
    Math.abs(dot(U, V)) <= SAME * size * size * 10 &&
    [U, V].every((w) => Math.abs(dot(w, A)) <= SAME * size * length(A) * 10);
  if (!isRound) return undefined;
  const isReversed = dot(cross(U, V), A) < 0;
  const turned = (n: Num): Num => (isReversed ? -valueOf(n) : n);
  const { spacing } = layout;
  return {
    ...layout,
    axis: [...cleanDirection(unit(A))] as Triple,
    centre: mapPoint(map, layout.centre),
    spacing: 'pitch' in spacing ? { pitch: turned(spacing.pitch) } : { span: turned(spacing.span) },
    rise: times(layout.rise, length(A)),
  };
}

function mapPath(layout: LayoutOf<'path'>, map: Matrix): LayoutOf<'path'> | undefined {
  const factor = similarity(map);
  if (factor === undefined && (layout.attitude === 'turning' || layout.spacing)) return undefined;
  return {
    ...layout,
    curve: mapCurve(layout.curve, map),
    spacing: layout.spacing && scaled(layout.spacing, factor ?? 1),
  };
}

function mapCurve(curve: WayCurve, map: Matrix): WayCurve {
  if (curve.kind === 'points')
    return { kind: 'points', points: curve.points.map((point) => mapPoint(map, point)) };
  const arm = (v: Vec3) => [...applyMatrix(map, v)] as Triple;
  return { ...curve, centre: mapPoint(map, curve.centre), x: arm(curve.x), y: arm(curve.y) };
}
