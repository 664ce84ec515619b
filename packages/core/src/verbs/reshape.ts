/**
 * Linear maps of parts: what Resize and Mirror are made of. The map goes down to the plain solids, since it commutes
 * with unions, subtractions and intersections; there it becomes new sizes where the solid stays of its kind, and a
 * `stretched` base where it does not. So every solid stays exact.
 */
import { operandsOf, poseOfPlacement, valueOf, worldFromParent } from '../document/items.ts';
import { datumInPart } from '../document/datum.ts';
import type { Base, ItemId, KadrelDocument, Num, Part, SolidBase } from '../document/schema.ts';
import {
  applyMatrix,
  column,
  determinant,
  fromColumns,
  multiply,
  transposed,
  type Matrix,
} from '../space/matrix.ts';
import { NO_TURN, degreesOfTurn, isIdentity, turnVector, type Turn } from '../space/pose.ts';
import { cleanLength, roundAngle, roundLength } from '../space/rounding.ts';
import { dot, length, scale, subtract, type Vec3 } from '../space/vector.ts';
import type { Box } from '../space/box.ts';
import type { Affine } from './declare.ts';

/** Columns whose cosine, or whose relative difference in length, is below this are square or equal: rounding noise. */
const SAME = 1e-12;
const FLIP_X: Matrix = [-1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Keeps what a part is now as what it was made, unless that is kept already. */
export function rememberMade(part: Part, datumAt?: Vec3): void {
  const { recipe, placement, datum } = part;
  part.made ??= plain<NonNullable<Part['made']>>({
    base: recipe.base,
    placement,
    datum,
    ...(datumAt ? { datumAt: [...datumAt] } : {}),
  });
}

/** Drafts of Immer's cannot be cloned by structuredClone; documents are plain JSON. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** Maps a part by `linear` about a point that stays, both in the world. Returns the map, for the preview. */
export function reshapePart(
  draft: KadrelDocument,
  part: Part,
  linear: Matrix,
  fixed: Vec3,
  boxOf: (id: ItemId) => Box | undefined,
): Affine {
  rememberMade(part, datumInPart(part, boxOf));
  const parent = worldFromParent(draft, part.id);
  // The map in the frame that the part's placement is told in: about that frame's origin, and then a shift.
  const inParent = isIdentity(parent.turn)
    ? linear
    : multiply(transposed(parent.turn), multiply(linear, parent.turn));
  const centre = subtract(fixed, parent.shift);
  const shift = turnVector(transposed(parent.turn), subtract(centre, applyMatrix(linear, centre)));
  mapPart(draft, part, inParent);
  shiftBy(part, shift);
  return { linear, shift: subtract(fixed, applyMatrix(linear, fixed)) };
}

function shiftBy(part: Part, by: Vec3): void {
  part.placement.origin = part.placement.origin.map((n, axis) =>
    by[axis] === 0 ? n : cleanLength(valueOf(n) + by[axis]!, Math.abs(valueOf(n)) + Math.abs(by[axis]!)),
  ) as Part['placement']['origin'];
}

/** Maps a part about the origin of the frame that its placement is told in. */
function mapPart(draft: KadrelDocument, part: Part, map: Matrix): void {
  rememberMade(part);
  const { turn, shift } = poseOfPlacement(part.placement);
  const own = isIdentity(turn) ? map : multiply(transposed(turn), multiply(map, turn));
  const carried = applyMatrix(map, shift);
  part.placement.origin = part.placement.origin.map((n, axis) =>
    valueOf(n) === carried[axis] ? n : cleanLength(carried[axis]!),
  ) as Part['placement']['origin'];
  const { base } = part.recipe;
  if (base.kind === 'combine') {
    for (const operand of operandsOf(part)) mapPart(draft, draft.items[operand]!, own);
    part.datum = mappedDatum(part.datum, own);
    return;
  }
  mapSolid(part, base, own, turn);
}

function mapSolid(part: Part, base: Exclude<Base, { kind: 'combine' }>, own: Matrix, turn: Turn): void {
  const solid: SolidBase = base.kind === 'stretched' ? base.of : base;
  const whole = base.kind === 'stretched' ? multiply(own, base.by as unknown as Matrix) : own;
  const isMirrored = determinant(whole) < 0;
  // A mirrored box is the box beside its own origin; round solids are their own mirror images.
  const map = isMirrored ? multiply(whole, FLIP_X) : whole;
  const beside: Vec3 = isMirrored && solid.kind === 'box' ? [-valueOf(solid.size[0]), 0, 0] : [0, 0, 0];
  const turned = turnWithin(solid.kind, map);
  const datumBefore = part.datum;
  part.recipe.base = turned
    ? resized(solid, [0, 1, 2].map((i) => length(column(map, i))) as unknown as Vec3)
    : { kind: 'stretched', of: plain(solid), by: [...map] };
  const aside = applyMatrix(map, beside);
  shiftBy(part, turnVector(turn, aside));
  if (turned && !isIdentity(turned))
    part.placement.turn = degreesOfTurn(multiply(turn, turned)).map(roundAngle) as unknown as [
      number,
      number,
      number,
    ];
  part.datum =
    typeof datumBefore === 'object' && 'point' in datumBefore
      ? {
          point: [
            ...turnVector(
              transposed(turned ?? NO_TURN),
              subtract(applyMatrix(own, [...datumBefore.point]), aside),
            ),
          ] as [number, number, number],
        }
      : isMirrored
        ? flipped(datumBefore, solid)
        : datumBefore;
}

/** The turn in a map under which a plain solid stays of its kind; undefined when it does not. */
export function turnWithin(kind: SolidBase['kind'], map: Matrix): Turn | undefined {
  const columns = [column(map, 0), column(map, 1), column(map, 2)] as const;
  const [x, y, z] = columns.map(length) as unknown as Vec3;
  const areSquare = ([a, b]: readonly [Vec3, Vec3]) => Math.abs(dot(a, b)) <= SAME * length(a) * length(b);
  const areEqual = (a: number, b: number) => Math.abs(a - b) <= SAME * Math.max(a, b);
  const square = (
    [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const
  ).every(([a, b]) => areSquare([columns[a], columns[b]]));
  if (!square) return undefined;
  if (kind !== 'box' && !areEqual(x, y)) return undefined;
  if (kind === 'sphere' && !areEqual(x, z)) return undefined;
  return fromColumns(scale(columns[0], 1 / x), scale(columns[1], 1 / y), scale(columns[2], 1 / z));
}

function resized(solid: SolidBase, [x, y, z]: Vec3): SolidBase {
  const times = (n: Num, by: number): Num => (Math.abs(by - 1) < SAME ? n : roundLength(valueOf(n) * by));
  if (solid.kind === 'box')
    return { kind: 'box', size: [times(solid.size[0], x), times(solid.size[1], y), times(solid.size[2], z)] };
  if (solid.kind === 'cylinder')
    return { kind: 'cylinder', diameter: times(solid.diameter, x), height: times(solid.height, z) };
  return { kind: 'sphere', diameter: times(solid.diameter, x) };
}

/** The same corner of the mirrored box. */
function flipped(datum: Part['datum'], solid: SolidBase): Part['datum'] {
  const point = datum === 'own' ? (solid.kind === 'box' ? ([-1, -1, -1] as const) : undefined) : datum;
  if (point === undefined || 'point' in point) return datum;
  return [-point[0] + 0, point[1], point[2]] as Part['datum'];
}

/** A combination keeps its own frame: where the map runs along its axes, its box points go with it. */
function mappedDatum(datum: Part['datum'], own: Matrix): Part['datum'] {
  if (datum === 'own') return datum;
  if ('point' in datum) return { point: [...applyMatrix(own, [...datum.point])] as [number, number, number] };
  const isDiagonal = own.every((n, i) => i % 4 === 0 || n === 0);
  return isDiagonal ? (datum.map((n, i) => n * Math.sign(own[4 * i]!) + 0) as Part['datum']) : datum;
}

/** What a part is as it was made; its operands also in the place where they were made. */
export function unmade(draft: KadrelDocument, part: Part): void {
  // A combination's own base only lists its operands, which may have changed since.
  if (part.made && part.recipe.base.kind !== 'combine') part.recipe.base = plain(part.made.base);
  if (part.made) part.datum = plain(part.made.datum);
  for (const id of operandsOf(part)) {
    const operand = draft.items[id]!;
    if (operand.made) operand.placement = plain(operand.made.placement);
    unmade(draft, operand);
  }
  delete part.made;
}
