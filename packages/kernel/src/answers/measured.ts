/** What can be measured of one thing, or between two: points, parts, faces, edges by their names. */
import {
  FACE_PLANE,
  MEETING,
  AT_ORIGIN,
  carry,
  carryGeometry,
  castOnShape,
  cross,
  degrees,
  directionOf,
  distance,
  dot,
  edgeFit,
  isRefusal,
  length,
  locateFeature,
  nameFit,
  onSurface,
  placedOf,
  scale,
  solidNamed,
  unionBoxes,
  type Box,
  type Geometry,
  type KadrelDocument,
  type MeasuredFacts,
  type Placed,
  type SnapShape,
  type Target,
  type Vec3,
} from '@kadrel/core';
import { meetingEdges } from '../build/steps/chosen.ts';
import { leastBetween, nearestFaces } from '../facts/apart.ts';
import { borderOf } from '../facts/faces.ts';
import { exactBox } from '../facts/extent.ts';
import { integralsOf } from '../facts/integrals.ts';
import type { NamedShape } from '../naming/named.ts';
import {
  BuildError,
  compoundOf,
  distanceTo,
  moved,
  pointShape,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { placedSolid, type FitShapes } from './fit.ts';

/** What a target is, in the world. */
interface Thing {
  readonly kind: 'point' | 'part' | 'face' | 'edge';
  readonly name: string;
  readonly shape: TopoDS_Shape;
  readonly box: Box;
  readonly geometry: Geometry | null;
  /** The solids of a part, or the one that a face or an edge is of. */
  readonly solids: readonly Placed[];
}

interface Around {
  readonly occt: Occt;
  readonly shapes: FitShapes;
  readonly document: KadrelDocument;
  readonly keep: Keep;
}

/** Throws BuildError where there is no such thing. */
export function measuredFacts(
  occt: Occt,
  shapes: FitShapes,
  { document, from, to }: { document: KadrelDocument; from: Target; to?: Target | undefined },
): MeasuredFacts {
  return scope((keep) => {
    const around = { occt, shapes, document, keep };
    const first = thingOf(around, from);
    if (!to) return ofOne(around, first, from);
    return ofTwo(around, first, thingOf(around, to));
  });
}

function ofTwo(around: Around, a: Thing, b: Thing): MeasuredFacts {
  const least = leastOf(around, a, b);
  const along = [0, 1, 2].map((i) =>
    Math.max(b.box.min[i]! - a.box.max[i]!, a.box.min[i]! - b.box.max[i]!),
  ) as unknown as Vec3;
  const angle = angleOf(a.geometry, b.geometry);
  return {
    distance: least.distance,
    from: least.points[0],
    to: least.points[1],
    along,
    ...(angle === undefined ? {} : { angle }),
    geometries: [a.geometry, b.geometry],
  };
}

/** Solids by the faces that come nearest; all else by the kernel at once. */
function leastOf({ occt, shapes, document }: Around, a: Thing, b: Thing) {
  const [p] = a.solids;
  const [q] = b.solids;
  if (a.kind === 'part' && b.kind === 'part' && a.solids.length === 1 && b.solids.length === 1) {
    const two = [placedSolid(occt, shapes, bodyOf(p!)), placedSolid(occt, shapes, bodyOf(q!))] as const;
    const [first] = nearestFaces(occt, two)?.found ?? [];
    if (first && first.distance > INSIDE_MM)
      return {
        distance: leastBetweenSolids(occt, a, b) ?? first.distance,
        points: [first.onA, first.onB] as const,
      };
  }
  return leastBetween(occt, a.shape, b.shape);

  function bodyOf(one: Placed) {
    const content = shapes.contentOf(document, one);
    return { content, named: shapes.shapeOf(content), pose: one.pose };
  }
}

/** Farther apart than this, mm, surfaces of solids do not touch. */
const INSIDE_MM = 1e-7;

/** 0 where one is within the other; undefined where it is not. */
function leastBetweenSolids(occt: Occt, a: Thing, b: Thing): 0 | undefined {
  const isWithin = (inner: Thing, outer: Thing) =>
    [0, 1, 2].every(
      (i) => inner.box.min[i]! >= outer.box.min[i]! && inner.box.max[i]! <= outer.box.max[i]!,
    ) && distanceTo(occt, outer.shape, cornerOf(occt, inner.shape)) === 0;
  return isWithin(a, b) || isWithin(b, a) ? 0 : undefined;
}

function cornerOf(occt: Occt, shape: TopoDS_Shape): Vec3 {
  return scope((keep) => {
    const [corner] = uniqueShapes(occt, shape, 'TopAbs_VERTEX', keep);
    const point = keep(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner!))));
    return [point.X(), point.Y(), point.Z()];
  });
}

/** The acute angle between directions, or between a direction and a plane, degrees. */
function angleOf(a: Geometry | null, b: Geometry | null): number | undefined {
  const [p, q] = [a && directionOf(a), b && directionOf(b)];
  if (!p || !q) return undefined;
  const between = degrees(Math.atan2(length(cross(p, q)), Math.abs(dot(p, q))));
  const isMixed = 'normal' in a! !== 'normal' in b!;
  return isMixed ? 90 - between : between;
}

function ofOne(around: Around, thing: Thing, target: Target): MeasuredFacts {
  const { occt } = around;
  const facts: MeasuredFacts = { geometries: [thing.geometry], at: middleOf(thing) };
  switch (thing.kind) {
    case 'point':
      return facts;
    case 'edge':
      return { ...facts, length: lengthOf(around, thing.shape), ...radiusOf(thing) };
    case 'part': {
      const { area, volume } = integralsOf(occt, thing.shape);
      return { ...facts, area, volume };
    }
    case 'face': {
      const faces = uniqueShapes(occt, thing.shape, 'TopAbs_FACE', around.keep);
      const { area } = integralsOf(occt, thing.shape);
      const length = borderOf(occt, faces);
      return { ...facts, area, length, ...radiusOf(thing), ...thicknessOf(around, thing, target) };
    }
  }
}

const middleOf = ({ geometry, box: { min, max } }: Thing): Vec3 =>
  geometry?.at ?? ([0, 1, 2].map((i) => (min[i]! + max[i]!) / 2) as unknown as Vec3);

const radiusOf = ({ geometry }: Thing) => (geometry?.kind === 'axis' ? { radius: geometry.radius } : {});

function lengthOf({ occt, keep }: Around, shape: TopoDS_Shape): number {
  const properties = keep(new occt.GProp_GProps());
  occt.BRepGProp.LinearProperties(shape, properties, false, false);
  return properties.Mass();
}

/** Through the material from a face, square to it: at the point that was picked, or in the middle of the face. */
function thicknessOf({ shapes, document }: Around, { solids: [solid] }: Thing, target: Target) {
  if (!solid || !('part' in target) || target.at === undefined) return {};
  const shape = shapes.snapsOf(shapes.contentOf(document, solid));
  const start = startOn(shape, target, document);
  if (!start) return {};
  const skin = {
    from: add3(start.point, start.normal, -start.sag - SKIN_MM),
    direction: scale(start.normal, -1),
  };
  const hit = castOnShape(shape, skin);
  if (!hit) return {};
  const face = shape.faceOfTriangle[hit.triangle]!;
  const instance = { part: solid.item, pose: AT_ORIGIN, shape };
  const { point } = onSurface({ instance, distance: hit.distance, face }, skin);
  return {
    thickness: distance(start.point, point),
    from: carry(solid.pose, start.point),
    to: carry(solid.pose, point),
  };
}

/** A ray starts this far below the face, mm, so that it does not meet it: facets are in single precision. */
const SKIN_MM = 1e-4;
const add3 = (a: Vec3, way: Vec3, by: number): Vec3 => [
  a[0] + way[0] * by,
  a[1] + way[1] * by,
  a[2] + way[2] * by,
];

/** On a face where it is nearest to what was picked, or in the middle of its largest facet; in the frame of the solid. */
function startOn(shape: SnapShape, target: Extract<Target, { part: string }>, document: KadrelDocument) {
  let best: { face: number; middle: Vec3; normal: Vec3 } | undefined;
  let least = Infinity;
  shape.faceOfTriangle.forEach((face, t) => {
    if (nameFit(target.at!, shape.names[shape.faceName[face]!]!, document) === 0) return;
    const [a, b, c] = cornersOf(shape, t);
    const middle = [0, 1, 2].map((i) => (a[i]! + b[i]! + c[i]!) / 3) as unknown as Vec3;
    const off = target.near ? distance(middle, target.near) : -areaOf(a, b, c);
    const normal = unitNormal(a, b, c);
    if (off < least && normal) [least, best] = [off, { face, middle, normal }];
  });
  return best && ontoSurface(shape, best, target.near);
}

/** From the facet onto the true surface, with the way out of it, and how far the facet is below it, mm. A point that was picked on a flat face stays where it is. */
function ontoSurface(
  shape: SnapShape,
  { face, middle, normal }: { face: number; middle: Vec3; normal: Vec3 },
  near: Vec3 | undefined,
): { point: Vec3; normal: Vec3; sag: number } {
  if (near && shape.faceKind[face] === FACE_PLANE) return { point: near, normal, sag: 0 };
  const above = ABOVE_CHORDS * shape.chordMm + SKIN_MM;
  const ray = { from: add3(middle, normal, above), direction: scale(normal, -1) };
  const instance = { part: '', pose: AT_ORIGIN, shape };
  const found = onSurface({ instance, distance: above, face }, ray);
  const sag = Math.max(0, dot(sub(found.point, middle), normal));
  return { point: found.point, normal: found.normal ?? normal, sag };
}

/** The true surface is below, however far it stands out from its facets. */
const ABOVE_CHORDS = 8;

const cornersOf = ({ positions, triangles }: SnapShape, t: number): [Vec3, Vec3, Vec3] =>
  [0, 1, 2].map((k) => {
    const at = 3 * triangles[3 * t + k]!;
    return [positions[at]!, positions[at + 1]!, positions[at + 2]!] as const;
  }) as [Vec3, Vec3, Vec3];

const areaOf = (a: Vec3, b: Vec3, c: Vec3) => length(cross(sub(b, a), sub(c, a)));
const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

function unitNormal(a: Vec3, b: Vec3, c: Vec3): Vec3 | undefined {
  const across = cross(sub(b, a), sub(c, a));
  const size = length(across);
  return size === 0 ? undefined : scale(across, 1 / size);
}

const gone = (name: string, what: string) =>
  new BuildError(`${name} has no ${what} any more.`, 'Choose what is measured anew.');

function thingOf(around: Around, target: Target): Thing {
  const { occt, document, keep } = around;
  if ('point' in target) {
    const at = target.point;
    const geometry = { kind: 'point', at } as const;
    return {
      kind: 'point',
      name: 'point',
      shape: pointShape(occt, at, keep),
      box: { min: at, max: at },
      geometry,
      solids: [],
    };
  }
  const part = document.items[target.part];
  if (!part)
    throw new BuildError('What was measured is not there any more.', 'Choose what is measured anew.');
  if (target.at === undefined) return partThing(around, target, part.name);
  const solid = solidNamed(document, part.id, { member: target.member, of: target.of });
  if (isRefusal(solid)) throw new BuildError(solid.message, 'Choose what is measured anew.');
  return placeThing(around, { ...target, at: target.at }, { solid, name: part.name });
}

function partThing(around: Around, { part, member }: Extract<Target, { part: string }>, name: string): Thing {
  const { occt, shapes, document, keep } = around;
  const solids = placedOf(document, part, { withHidden: true }).filter(
    (one) => member === undefined || one.member === member,
  );
  if (solids.length === 0) throw gone(name, `member ${member ?? ''}`);
  const contents = solids.map((one) => ({ content: shapes.contentOf(document, one), pose: one.pose }));
  const placed = contents.map(({ content, pose }) => keep(moved(occt, shapes.shapeOf(content).shape, pose)));
  const shape = placed.length === 1 ? placed[0]! : keep(compoundOf(occt, placed));
  const box = unionBoxes(contents.map(({ content, pose }) => shapes.boxAt(content, pose)))!;
  return { kind: 'part', name, shape, box, geometry: null, solids };
}

type Place = Extract<Target, { part: string }> & { readonly at: string };

function placeThing(around: Around, target: Place, { solid, name }: { solid: Placed; name: string }): Thing {
  const { occt, shapes, document, keep } = around;
  const content = shapes.contentOf(document, solid);
  const named = shapes.shapeOf(content);
  const { at, snap, near } = target;
  const found = locateFeature(
    shapes.snapsOf(content),
    { on: name, at, ...(snap === undefined ? {} : { snap }), ...(near ? { near } : {}) },
    document,
  );
  const geometry = isRefusal(found) ? null : carryGeometry(solid.pose, found);
  const written = at.split(MEETING).map((one) => one.trim());
  if (snap !== undefined || written.length > 2) {
    if (!geometry) throw gone(name, at);
    return { ...thingOf(around, { point: geometry.at }), solids: [solid] };
  }
  const own =
    written.length === 1
      ? facesCalled(around, named, target)
      : edgesCalled(around, named, { ...target, written });
  if (own.length === 0) throw gone(name, written.length === 1 ? `face ${at}` : `edge ${at}`);
  const placed = own.map((one) => keep(moved(occt, one, solid.pose)));
  const shape = placed.length === 1 ? placed[0]! : keep(compoundOf(occt, placed));
  const kind = written.length === 1 ? 'face' : 'edge';
  return { kind, name: `${name}: ${at}`, shape, box: exactBox(occt, shape), geometry, solids: [solid] };
}

function facesCalled(
  { occt, document, keep }: Around,
  { shape, faceNames }: NamedShape,
  { at, near }: Place,
) {
  const fits = faceNames.map((name) => nameFit(at, name, document));
  const best = Math.max(0, ...fits);
  const faces = uniqueShapes(occt, shape, 'TopAbs_FACE', keep).filter((_, i) => best > 0 && fits[i] === best);
  return nearest(occt, faces, near);
}

function edgesCalled(
  { occt, document, keep }: Around,
  named: NamedShape,
  { written, near }: Place & { readonly written: readonly string[] },
) {
  const edges = meetingEdges(occt, named, keep).map(({ edge, names }) => ({
    edge: edge,
    fit: edgeFit(written, names, document),
  }));
  const best = Math.max(0, ...edges.map(({ fit }) => fit));
  return nearest(
    occt,
    edges.filter(({ fit }) => best > 0 && fit === best).map(({ edge }) => edge),
    near,
  );
}

/** Of several of one name the nearest to what was picked. */
function nearest(occt: Occt, all: TopoDS_Shape[], near: Vec3 | undefined): TopoDS_Shape[] {
  if (!near || all.length < 2) return all;
  const sorted = all.map((one) => ({ one, off: distanceTo(occt, one, near) })).sort((a, b) => a.off - b.off);
  return [sorted[0]!.one];
}
