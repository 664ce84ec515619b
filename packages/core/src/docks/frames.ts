/** Where docks look: their frames, from the names that they follow or from what was said. */
import type { Dock } from '../document/dock.ts';
import { vectorOf } from '../document/items.ts';
import { MEETING, nameFit } from '../document/naming.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Variant } from '../patterns/placed.ts';
import { isRefusal, type Refusal } from '../refusals/refusal.ts';
import { edgeFit, edgeGeometry, locateFeature } from '../snapping/feature.ts';
import { landingNormal } from '../snapping/landing.ts';
import { locatePoint, type NamedPoint } from '../snapping/locate.ts';
import { boxOfShape, type SnapInstance } from '../snapping/scene.ts';
import { FACE_PLANE, FACE_STRIDE, type SnapShape } from '../snapping/shape.ts';
import { boxPoint } from '../space/box.ts';
import { cleanDirection, column, fromColumns, transposed } from '../space/matrix.ts';
import { AT_ORIGIN, degreesOfTurn, poseOf, turnVector, type Pose } from '../space/pose.ts';
import { roundAngle } from '../space/rounding.ts';
import { cross, dot, length, scale, subtract, unit, type Vec3 } from '../space/vector.ts';

/** Directions whose sine is below this are one: a frame that is kept keeps its bits. */
const SAME_SINE = 1e-9;
/** A roll that looks this nearly along the axis says nothing about it. */
const MIN_ACROSS = 1e-6;

/** Axes with this Z, and X as near to `hint` as may be; upward where that says nothing, so that what is joined stands upright. */
export function frameOut(z: Vec3, hint: Vec3): Pose['turn'] {
  const across = subtract(hint, scale(z, dot(hint, z)));
  const upward: Vec3 = Math.abs(z[2]) > 1 - SAME_SINE ? [1, 0, 0] : [0, 0, 1];
  const square = length(across) < MIN_ACROSS ? subtract(upward, scale(z, dot(upward, z))) : across;
  const x = cleanDirection(unit(square));
  return fromColumns(x, cleanDirection(cross(z, x)), z);
}

/** Where a dock stands by its own numbers, in the frame of its part or of that part mirrored in its own X. */
export function numberedFrame(
  { origin, turn }: Pick<Dock, 'origin' | 'turn'>,
  isMirrored?: Variant['mirrored'],
): Pose {
  const pose = poseOf(vectorOf(origin), vectorOf(turn));
  return isMirrored ? mirroredFrame(pose) : pose;
}

/** Origin and turn as they are kept. */
export function keptFrame({ turn, shift }: Pose): Pick<Dock, 'origin' | 'turn'> {
  return {
    origin: [...shift] as [number, number, number],
    turn: degreesOfTurn(turn).map(roundAngle) as [number, number, number],
  };
}

/** The same dock of the mirror image: it looks out of the same place, and its Y turns over so that its axes stay right-handed. */
function mirroredFrame({ turn, shift }: Pose): Pose {
  const flipped = ([x, y, z]: Vec3): Vec3 => [0 - x, y, z];
  const [x, z] = [flipped(column(turn, 0)), flipped(column(turn, 2))];
  return { turn: fromColumns(x, cross(z, x), z), shift: flipped(shift) };
}

/** What is needed to find a dock on the solid that it is of. */
export interface DockedSolid {
  readonly document: KadrelDocument;
  /** The name of the part, for refusals. */
  readonly name: string;
  readonly shape: SnapShape;
  readonly mirrored?: boolean;
}

/** Where a dock stands in the frame of its solid: by the names that it follows, else by its numbers. */
export function dockFrame(dock: Dock, solid: DockedSolid): Pose | Refusal {
  const numbered = numberedFrame(dock, solid.mirrored);
  if (!dock.on) return numbered;
  const place = namedPlace({ ...dock.on, near: mirroredNear(dock.on.near, solid) }, solid);
  if (isRefusal(place)) return place;
  return outFrame(numbered, place);
}

const mirroredNear = (near: Vec3 | undefined, { mirrored }: DockedSolid): Vec3 | undefined =>
  near && mirrored ? [-near[0], near[1], near[2]] : near;

/** A frame moved to a place; turned only as far as it must be to look out of it. */
function outFrame({ turn }: Pose, { point, out }: NamedPlace): Pose {
  const z = column(turn, 2);
  if (out === undefined || (length(cross(z, out)) < SAME_SINE && dot(z, out) > 0))
    return { turn, shift: point };
  return { turn: frameOut(out, column(turn, 0)), shift: point };
}

/** A place of a solid that names mean. */
export interface NamedPlace {
  readonly point: Vec3;
  /** The way out of the solid there, length 1; undefined where nothing says. */
  readonly out?: Vec3 | undefined;
}

/** A place of a solid by its names, and the way out there. Frame of the solid. */
export function namedPlace(
  named: Omit<NamedPoint, 'on'>,
  { document, name, shape }: DockedSolid,
): NamedPlace | Refusal {
  const point = pointNamed({ ...named, on: name }, shape, document);
  return isRefusal(point) ? point : { point, out: outOf(named, point, { document, name, shape }) };
}

/** The centre of a round face lies on its axis; other places are points of the snaps. */
function pointNamed(named: NamedPoint, shape: SnapShape, document: KadrelDocument): Vec3 | Refusal {
  const found = locatePoint(shape, named, document);
  if (!isRefusal(found) || named.snap !== undefined) return found;
  const feature = locateFeature(shape, named, document);
  return isRefusal(feature) ? found : feature.at;
}

/** On a face out of it, on a round edge along its axis, elsewhere in the middle of the faces that meet there. */
export function outOf(
  named: Pick<NamedPoint, 'at' | 'near'>,
  point: Vec3,
  { document, name, shape }: DockedSolid,
): Vec3 | undefined {
  const instance: SnapInstance = { part: name, pose: AT_ORIGIN, shape };
  const axis = axisOfEdge(named.at, point, { document, name, shape });
  if (axis) return cleanDirection(axis);
  const landing = landingNormal(instance, { point, feature: namesOf(named.at, shape, document) });
  if (landing) return cleanDirection(landing.normal);
  const face = locateFeature(shape, { ...named, on: name }, document);
  return isRefusal(face) || !('normal' in face) ? undefined : cleanDirection(face.normal);
}

/** Names of operands as the kernel tells them, which outlive that an operand is renamed. */
export const keptNames = (at: string, shape: SnapShape, document: KadrelDocument): string =>
  at
    .split(MEETING)
    .map((written) => written.trim())
    .map((written) => (written.includes('.') ? (bestName(written, shape, document) ?? written) : written))
    .join(MEETING);

/** The names as the kernel gives them: people may leave out the operand. */
const namesOf = (at: string, shape: SnapShape, document: KadrelDocument): string =>
  at
    .split(MEETING)
    .map((written) => written.trim())
    .map((written) => bestName(written, shape, document) ?? written)
    .join(MEETING);

function bestName(written: string, shape: SnapShape, document: KadrelDocument): string | undefined {
  let best: string | undefined;
  let max = 0;
  for (const index of shape.faceName) {
    const name = shape.names[index]!;
    const fit = nameFit(written, name, document);
    if (fit > max) [best, max] = [name, fit];
  }
  return best;
}

/** The axis of a round edge, outward: out of the flat face beside it, else away from the middle of the solid. */
function axisOfEdge(at: string, point: Vec3, { document, shape }: DockedSolid): Vec3 | undefined {
  const written = at.split(MEETING).map((name) => name.trim());
  if (written.length !== 2) return undefined;
  let nearest: { axis: Vec3; names: readonly string[]; off: number } | undefined;
  shape.curveName.forEach((name, c) => {
    const names = shape.names[name]!.split(MEETING);
    if (edgeFit(written, names, document) === 0) return;
    const geometry = edgeGeometry(shape, c);
    if (geometry?.kind !== 'axis') return;
    const off = length(subtract(geometry.at, point));
    if (off < CENTRE_MM && (!nearest || off < nearest.off))
      nearest = { axis: geometry.direction, names, off };
  });
  if (!nearest) return undefined;
  const flat = flatBeside(nearest.names, nearest.axis, shape);
  if (flat) return flat;
  const middle = boxPoint(boxOfShape(shape), [0, 0, 0]);
  return dot(nearest.axis, subtract(point, middle)) < 0 ? scale(nearest.axis, -1) : nearest.axis;
}
/** A point this near to the centre of a round edge is its centre. */
const CENTRE_MM = 1e-6;

function flatBeside(names: readonly string[], axis: Vec3, shape: SnapShape): Vec3 | undefined {
  for (let face = 0; face < shape.faceKind.length; face++) {
    if (shape.faceKind[face] !== FACE_PLANE || !names.includes(shape.names[shape.faceName[face]!]!)) continue;
    const data = FACE_STRIDE * face;
    const normal: Vec3 = [shape.faces[data + 3]!, shape.faces[data + 4]!, shape.faces[data + 5]!];
    if (length(cross(normal, axis)) < MIN_ACROSS) return dot(normal, axis) < 0 ? scale(axis, -1) : axis;
  }
  return undefined;
}

/** A direction of the outer frame as the inner one sees it. */
export const directionWithin = (outer: Pose, direction: Vec3): Vec3 =>
  cleanDirection(turnVector(transposed(outer.turn), direction));
