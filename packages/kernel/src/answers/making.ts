/** Whether a solid can be made as it stands: by its facets, and where it counts by its true surfaces. */
import {
  FACE_CYLINDER,
  FACE_PLANE,
  FACE_STRIDE,
  areaOf,
  carry,
  facetCorners,
  dot,
  footingOf,
  islandsOf,
  thinnestSounding,
  middleOf,
  normalOf,
  overhangOf,
  piecesOf,
  scale,
  sizesOf,
  subtract,
  type Box,
  type Corners,
  type InnerCorner,
  type MakeFacts,
  type Pose,
  type Round,
  type SnapShape,
  type Sounding,
  type Vec3,
  type WallMap,
} from '@kadrel/core';
import { facesTogether } from '../facts/faces.ts';
import { meetingEdges } from '../build/steps/chosen.ts';
import type { Measures } from '../facts/measure.ts';
import type { NamedShape } from '../naming/named.ts';
import { scope, type Occt } from '../occt/occt.ts';

/** A solid where it stands, with what is known of it. */
export interface Made {
  readonly shape: SnapShape;
  readonly named: NamedShape;
  readonly measures: Measures;
  readonly pose: Pose;
  /** Exact, in the world. */
  readonly box: Box;
}

/** @param overhang degrees from upright that need no support */
export function makeFacts(occt: Occt, made: Made, overhang: number): MakeFacts {
  const { shape, measures, pose, box } = made;
  const { closed, touching, solids, volume } = measures;
  const centroid = carry(pose, measures.centroid);
  const facets = facetsOf(shape, pose);
  const hanging = overhangOf(facets, overhang);
  const { wall, gap, pin, bore, sheet, inner } = ownFactsOf(occt, made);
  const whole = { closed, touching, solids, volume, centroid, box };
  return {
    ...whole,
    ...(wall ? { wall: carriedSounding(wall, pose) } : {}),
    ...(gap ? { gap: carriedSounding(gap, pose) } : {}),
    ...(hanging ? { overhang: hanging } : {}),
    islands: islandsOf(facets),
    footing: footingOf(facets, centroid),
    ...(pin ? { pin: { ...pin, at: carry(pose, pin.at) } } : {}),
    ...(bore ? { bore: { ...bore, at: carry(pose, bore.at) } } : {}),
    ...(sheet ? { sheet } : {}),
    ...(inner ? { inner: { ...inner, at: carry(pose, inner.at) } } : {}),
  };
}

/** In the frame of the shape. */
type OwnFacts = Pick<MakeFacts, 'wall' | 'gap' | 'pin' | 'bore' | 'sheet' | 'inner'>;
const known = new WeakMap<SnapShape, OwnFacts>();

/** What does not depend on where a solid stands, found once for each shape: members and linked parts share it, and moves keep it. */
function ownFactsOf(occt: Occt, made: Made): OwnFacts {
  const { shape } = made;
  const found = known.get(shape);
  if (found) return found;
  const [wall, gap] = (['in', 'out'] as const).map((way) => thinnestSounding(shape, way));
  const facts: OwnFacts = {
    ...(wall ? { wall } : {}),
    ...(gap ? { gap } : {}),
    ...roundsOf(shape),
    ...sheetOf(occt, made),
  };
  known.set(shape, facts);
  return facts;
}

/** How thick it is all over, in the world. */
export function wallMap({ shape, pose }: Pick<Made, 'shape' | 'pose'>): WallMap {
  const pieces = piecesOf(shape);
  const corners = new Float32Array(9 * pieces.length);
  pieces.forEach((piece, i) =>
    corners.set(
      piece.corners.flatMap((point) => carry(pose, point)),
      9 * i,
    ),
  );
  return { corners, sizes: sizesOf(shape, pieces, 'in') };
}

const facetsOf = (shape: SnapShape, pose: Pose): Corners[] =>
  Array.from(
    { length: shape.triangles.length / 3 },
    (_, t) => facetCorners(shape, t).map((point) => carry(pose, point)) as unknown as Corners,
  );

const carriedSounding = (found: Sounding, pose: Pose): Sounding => ({
  ...found,
  from: carry(pose, found.from),
  to: carry(pose, found.to),
});

/** Facets of a face, or of several of one name, summed up. */
interface Summed {
  readonly face: number;
  readonly name: string;
  area: number;
  /** Of the normals, each times its area. */
  normals: Vec3;
  /** Of normals along the way out from the axis, each times its area. */
  outward: number;
  middle: Vec3;
}

function summed(shape: SnapShape): Summed[] {
  const found = new Map<number, Summed>();
  shape.faceOfTriangle.forEach((face, t) => {
    const corners = facetCorners(shape, t);
    const normal = normalOf(corners);
    if (!normal) return;
    const name = shape.faceName[face]!;
    const middle = middleOf(corners);
    const fresh = { face, name: shape.names[name]!, area: 0, normals: ZERO, outward: 0, middle };
    const one = found.get(name) ?? fresh;
    found.set(name, one);
    const area = areaOf(corners);
    one.area += area;
    one.normals = [0, 1, 2].map((i) => one.normals[i]! + area * normal[i]!) as unknown as Vec3;
    one.outward += area * dot(normal, fromAxis(shape, face, middle));
  });
  return [...found.values()];
}
const ZERO: Vec3 = [0, 0, 0];

/** From the axis of a cylinder to a place. */
function fromAxis({ faces }: SnapShape, face: number, place: Vec3): Vec3 {
  const at = FACE_STRIDE * face;
  const [origin, axis] = [faces.subarray(at, at + 3), faces.subarray(at + 3, at + 6)].map(
    ([x, y, z]): Vec3 => [x!, y!, z!],
  ) as [Vec3, Vec3];
  const from = subtract(place, origin);
  return subtract(from, scale(axis, dot(from, axis)));
}

/** A cylinder whose normals add up to less than this part of its area goes all round. */
const GOES_ROUND = 0.05;

function roundsOf(shape: SnapShape): { pin?: Round; bore?: Round } {
  const whole = summed(shape).filter(
    ({ face, normals, area }) =>
      shape.faceKind[face] === FACE_CYLINDER && Math.hypot(...normals) < GOES_ROUND * area,
  );
  const rounds = whole.map(({ face, name, middle, outward }) => ({
    isBore: outward < 0,
    round: { diameter: 2 * shape.faces[FACE_STRIDE * face + 6]!, at: middle, face: name },
  }));
  const pin = smallestOf(rounds.filter(({ isBore }) => !isBore));
  const bore = smallestOf(rounds.filter(({ isBore }) => isBore));
  return { ...(pin ? { pin } : {}), ...(bore ? { bore } : {}) };
}

const smallestOf = (rounds: readonly { readonly round: Round }[]): Round | undefined =>
  rounds
    .map(({ round }) => round)
    .reduce<Round | undefined>((a, b) => (a && a.diameter <= b.diameter ? a : b), undefined);

/** The volume of a sheet is its face times its thickness, to this part: far less than any draft or fillet takes. */
const SAME = 1e-6;

/** Where all of it lies between a flat face and one that is the same but for looking away. */
function sheetOf(occt: Occt, { shape, named, measures }: Made): Pick<OwnFacts, 'sheet' | 'inner'> {
  const flat = summed(shape)
    .filter(({ face }) => shape.faceKind[face] === FACE_PLANE)
    .sort((a, b) => b.area - a.area);
  const [one, other] = flat;
  if (!one || !other || measures.solids !== 1) return {};
  const normal = scale(one.normals, 1 / one.area);
  const thickness = dot(subtract(one.middle, other.middle), normal);
  const isOpposite = dot(normal, other.normals) < -(1 - SAME) * other.area && thickness > 0;
  // Of what is thicker than it is wide nobody speaks as of a sheet.
  if (!isOpposite || thickness > Math.sqrt(one.area)) return {};
  const { area, border } = facesTogether(occt, named, [one.name]);
  if (Math.abs((area * thickness) / measures.volume - 1) > SAME) return {};
  const inner = innerCornerOf(occt, named, shape);
  return { sheet: { thickness, cut: border }, ...(inner ? { inner } : {}) };
}

/** The tightest of the edges that look inward, which are sharp, and of the round faces that do: bores among them. */
function innerCornerOf(occt: Occt, named: NamedShape, shape: SnapShape): InnerCorner | undefined {
  const sharp = scope((keep) =>
    meetingEdges({ occt, keep }, named)
      .filter(({ bend }) => bend === 'inward')
      .map(({ middle }) => ({ radius: 0, at: middle })),
  );
  const round = summed(shape)
    .filter(({ face, outward }) => shape.faceKind[face] === FACE_CYLINDER && outward < 0)
    .map(({ face, middle }) => ({ radius: shape.faces[FACE_STRIDE * face + 6]!, at: middle }));
  const [first, ...others] = [...sharp, ...round];
  return first && others.reduce((a, b) => (b.radius < a.radius ? b : a), first);
}
