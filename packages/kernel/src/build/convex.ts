/** Convex solids by their planes: what lies behind all of them at once. Pure arithmetic. */
import { add, column, distance, dot, frameAlong, scale, subtract, type Vec3 } from '@kadrel/core';
import { Corners, SAME_CORNER_MM, isSameCorner, middleOf, type FlatFace } from './flatFaces.ts';

/** A face of a convex solid: the solid lies where dot(normal, point) is not more than the offset, mm. */
export interface Side {
  readonly name: string;
  /** Outward, of length 1. */
  readonly normal: Vec3;
  readonly offset: number;
}

/** Two planes whose normals differ by less than this (1 − cosine) are one plane, or as good as one. */
const SAME_WAY = 1e-12;
/** What is cut away at first reaches so many times as far as the solid. */
const ROOMY = 8;

/** How far a point lies before a side, mm; below 0 behind it. */
export const beforeSide = ({ normal, offset }: Side, at: Vec3): number => dot(normal, at) - offset;

/** The sides of a convex solid, each plane once; undefined where it is not convex, or has faces with holes. */
export function sidesOf(faces: readonly (FlatFace & { readonly normal: Vec3 })[]): Side[] | undefined {
  if (faces.some(({ loops }) => loops.length > 1)) return undefined;
  const corners = new Corners();
  faces.forEach(({ loops }) => loops[0]!.forEach((at) => corners.indexOf(at)));
  const sides = faces.map(({ name, normal, loops }) => ({
    name,
    normal,
    offset: dot(normal, loops[0]![0]!),
  }));
  const isConvex = sides.every((side) => corners.points.every((at) => beforeSide(side, at) < SAME_CORNER_MM));
  const isTwice = sides.some((a, i) => sides.slice(0, i).some((b) => dot(a.normal, b.normal) > 1 - SAME_WAY));
  return isConvex && !isTwice ? sides : undefined;
}

/** The faces of what lies behind all sides; none where nothing does, or where it goes on without an end. @param round points that it does not go far beyond */
export function behindAll(sides: readonly Side[], round: readonly Vec3[]): FlatFace[] {
  const middle = middleOf(round);
  const reach = ROOMY * Math.max(...round.map((at) => distance(at, middle)));
  const faces = sides.reduce<readonly Piece[]>(
    (pieces, side) => cutBy(pieces, side),
    cubeRound(middle, reach),
  );
  // What is left of the cube is no side.
  if (faces.some(({ isCube }) => isCube)) return [];
  return faces.map(({ name, loop }) => ({ name, loops: [loop] }));
}

interface Piece {
  readonly name: string;
  readonly normal: Vec3;
  readonly loop: readonly Vec3[];
  readonly isCube?: true;
}

/** Nothing of it is left in the end. */
function cubeRound(middle: Vec3, reach: number): Piece[] {
  return [0, 1, 2].flatMap((axis) =>
    [-1, 1].map((sign) => {
      const normal = [0, 1, 2].map((i) => (i === axis ? sign : 0)) as unknown as Vec3;
      const at = add(middle, scale(normal, reach));
      const corners = [-1, 1].flatMap((x) =>
        [-1, 1].map((y): Vec3 => onFrame(normal, at, [x * reach, y * reach])),
      );
      return { name: '', normal, loop: inTurn(corners, normal), isCube: true as const };
    }),
  );
}

function onFrame(normal: Vec3, at: Vec3, [x, y]: readonly [number, number]): Vec3 {
  const frame = frameAlong(normal);
  return add(at, add(scale(column(frame, 1), x), scale(column(frame, 2), y)));
}

/** Corners of a convex face in their order, counter-clockwise seen against the normal. */
function inTurn(corners: readonly Vec3[], normal: Vec3): Vec3[] {
  const frame = frameAlong(normal);
  const middle = middleOf(corners);
  const angle = (at: Vec3) => {
    const arm = subtract(at, middle);
    return Math.atan2(dot(arm, column(frame, 2)), dot(arm, column(frame, 1)));
  };
  return corners
    .map((at) => ({ at, turn: angle(at) }))
    .sort((a, b) => a.turn - b.turn)
    .map(({ at }) => at);
}

/** What of a convex solid lies behind a side. */
function cutBy(pieces: readonly Piece[], side: Side): readonly Piece[] {
  if (pieces.every(({ loop }) => loop.every((at) => beforeSide(side, at) <= SAME_CORNER_MM))) return pieces;
  const section = new Corners();
  const kept = pieces.flatMap((piece) => {
    const loop = loopBehind(piece.loop, side);
    loop.forEach((at) => Math.abs(beforeSide(side, at)) <= SAME_CORNER_MM && section.indexOf(at));
    return isArea(loop) && loop.some((at) => beforeSide(side, at) < -SAME_CORNER_MM)
      ? [{ ...piece, loop }]
      : [];
  });
  const { name, normal } = side;
  if (kept.length === 0) return [];
  return section.points.length < 3 ? kept : [...kept, { name, normal, loop: inTurn(section.points, normal) }];
}

const isArea = (loop: readonly Vec3[]): boolean => loop.length > 2;

/** The part of a border that lies behind a side, with the points where it is met. */
function loopBehind(loop: readonly Vec3[], side: Side): Vec3[] {
  const found: Vec3[] = [];
  const take = (at: Vec3) => {
    if (found.length === 0 || !isSameCorner(found.at(-1)!, at)) found.push(at);
  };
  loop.forEach((from, i) => {
    const to = loop[(i + 1) % loop.length]!;
    const [a, b] = [beforeSide(side, from), beforeSide(side, to)];
    if (a <= SAME_CORNER_MM) take(from);
    if (Math.min(a, b) < -SAME_CORNER_MM && Math.max(a, b) > SAME_CORNER_MM)
      // The same point from either end of the edge.
      take(a < b ? between(from, to, a / (a - b)) : between(to, from, b / (b - a)));
  });
  if (found.length > 1 && isSameCorner(found[0]!, found.at(-1)!)) found.pop();
  return found;
}

const between = (from: Vec3, to: Vec3, part: number): Vec3 => add(from, scale(subtract(to, from), part));
