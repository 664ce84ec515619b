/** What targets are, in the world: points, parts, faces and edges by their names. */
import {
  MEETING,
  carryGeometry,
  edgeFit,
  isRefusal,
  locateFeature,
  nameFit,
  placedOf,
  solidNamed,
  unionBoxes,
  faultOf,
  type Box,
  type Geometry,
  type KadrelDocument,
  type Placed,
  type Target,
  type Vec3,
} from '@kadrel/core';
import { placedContent } from '../content/content.ts';
import { meetingEdges, type MeetingEdge } from '../build/steps/chosen.ts';
import { edgesRunningOn } from '../build/steps/runningOn.ts';
import { exactBox } from '../facts/extent.ts';
import type { NamedShape } from '../naming/named.ts';
import {
  BuildError,
  compoundOf,
  distanceTo,
  moved,
  pointShape,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import type { FitShapes } from './bodies.ts';

/** What a target is, in the world. */
export interface Thing {
  readonly kind: 'point' | 'part' | 'face' | 'edge';
  readonly shape: TopoDS_Shape;
  readonly box: Box;
  readonly geometry: Geometry | null;
  /** The solids of a part, or the one that a face or an edge is of. */
  readonly solids: readonly Placed[];
  /** Of a face: its places in the kernel's order; there may be several of one name. */
  readonly faces?: readonly number[];
}

/** What is needed to find what is measured. */
export interface Around {
  readonly occt: Occt;
  readonly shapes: FitShapes;
  readonly document: KadrelDocument;
  readonly keep: Keep;
}

const gone = (name: string, what: string) => new BuildError(faultOf('measured.gone-of', { name, what }));

/** The geometry that a target means. */
export function thingOf(around: Around, target: Target): Thing {
  const { occt, document, keep } = around;
  if ('point' in target) {
    const at = target.point;
    const geometry = { kind: 'point', at } as const;
    return {
      kind: 'point',
      shape: pointShape({ occt, keep }, at),
      box: { min: at, max: at },
      geometry,
      solids: [],
    };
  }
  const part = document.items[target.part];
  if (!part) throw new BuildError(faultOf('measured.gone', {}));
  if (target.at === undefined) return partThing(around, target, part.name);
  const solid = solidNamed(document, part.id, { member: target.member, of: target.of });
  if (isRefusal(solid)) throw new BuildError(faultOf('measured.refused', { message: solid.message }));
  return placeThing(around, { ...target, at: target.at }, { solid, name: part.name });
}

function partThing(around: Around, { part, member }: Extract<Target, { part: string }>, name: string): Thing {
  const { occt, shapes, document, keep } = around;
  const solids = placedOf(document, part, { withHidden: true }).filter(
    (one) => member === undefined || one.member === member,
  );
  if (solids.length === 0) throw gone(name, `member ${member ?? ''}`);
  const contents = solids.map((one) => ({ content: placedContent(document, one), pose: one.pose }));
  const placed = contents.map(({ content, pose }) => keep(moved(occt, shapes.shapeOf(content).shape, pose)));
  const shape = placed.length === 1 ? placed[0]! : keep(compoundOf(occt, placed));
  const box = unionBoxes(contents.map(({ content, pose }) => shapes.boxAt(content, pose)))!;
  return { kind: 'part', shape, box, geometry: null, solids };
}

type Place = Extract<Target, { part: string }> & { readonly at: string };

function placeThing(around: Around, target: Place, { solid, name }: { solid: Placed; name: string }): Thing {
  const { shapes, document } = around;
  const content = placedContent(document, solid);
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
  return written.length === 1
    ? faceThing(around, { named, solid, geometry }, target)
    : edgeThing(around, { named, solid, geometry }, { ...target, written });
}

/** Where a face or an edge is looked for. */
interface Owner {
  readonly named: NamedShape;
  readonly solid: Placed;
  readonly geometry: Geometry | null;
}

function faceThing(around: Around, { named, solid, geometry }: Owner, target: Place): Thing {
  const faces = facesCalled(around, named, target);
  if (faces.length === 0) throw gone(around.document.items[target.part]!.name, `face ${target.at}`);
  const all = uniqueShapes({ occt: around.occt, keep: around.keep }, named.shape, 'TopAbs_FACE');
  const shape = together(
    around,
    faces.map((i) => all[i]!),
    solid,
  );
  return { kind: 'face', shape, box: exactBox(around.occt, shape), geometry, solids: [solid], faces };
}

function edgeThing(
  around: Around,
  { named, solid, geometry }: Owner,
  target: Place & { readonly written: readonly string[] },
): Thing {
  const { occt, keep } = around;
  const edges = edgesCalled(around, meetingEdges({ occt, keep }, named), target);
  if (edges.length === 0) throw gone(around.document.items[target.part]!.name, `edge ${target.at}`);
  const shape = together(
    around,
    edges.map(({ edge }) => edge),
    solid,
  );
  return { kind: 'edge', shape, box: exactBox(occt, shape), geometry, solids: [solid] };
}

/**
 * An edge of a solid with all that run on from it without a bend on edges of its kind, sharp or smooth, and then by itself; undefined
 * for what is no edge. Throws BuildError.
 */
export function runsOfEdge(around: Around, target: Target): readonly TopoDS_Shape[] | undefined {
  if ('point' in target || target.at === undefined || target.snap !== undefined) return undefined;
  const written = target.at.split(MEETING).map((one) => one.trim());
  const solid = solidNamed(around.document, target.part, { member: target.member, of: target.of });
  if (written.length !== 2 || isRefusal(solid)) return undefined;
  const { occt, keep } = around;
  const all = meetingEdges({ occt, keep }, around.shapes.shapeOf(placedContent(around.document, solid)));
  const alone = edgesCalled(around, all, { ...target, at: target.at, written });
  if (alone.length === 0) return undefined;
  const isSmooth = ({ bend }: MeetingEdge) => bend === 'smooth';
  const alike = all.filter((one) => alone.some((other) => isSmooth(one) === isSmooth(other)));
  return [edgesRunningOn(occt, alike, alone), alone].map((edges) =>
    together(
      around,
      edges.map(({ edge }) => edge),
      solid,
    ),
  );
}

/** Where its solid stands, as one shape. */
function together({ occt, keep }: Around, own: readonly TopoDS_Shape[], { pose }: Placed): TopoDS_Shape {
  const placed = own.map((one) => keep(moved(occt, one, pose)));
  return placed.length === 1 ? placed[0]! : keep(compoundOf(occt, placed));
}

/** By their places in the kernel's order. */
function facesCalled(
  { occt, document, keep }: Around,
  { shape, faceNames }: NamedShape,
  { at, near }: Place,
) {
  const fits = faceNames.map((name) => nameFit(at, name, document));
  const best = Math.max(0, ...fits);
  const faces = [...fits.keys()].filter((i) => best > 0 && fits[i] === best);
  const all = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
  return nearest(occt, faces, { near, shapeOf: (i) => all[i]! });
}

function edgesCalled(
  { occt, document }: Around,
  all: readonly MeetingEdge[],
  { written, near }: Place & { readonly written: readonly string[] },
): MeetingEdge[] {
  const fits = all.map(({ names }) => edgeFit(written, names, document));
  const best = Math.max(0, ...fits);
  const fitting = all.filter((_, i) => best > 0 && fits[i] === best);
  return nearest(occt, fitting, { near, shapeOf: ({ edge }) => edge });
}

/** Of several of one name the nearest to what was picked. */
function nearest<T>(
  occt: Occt,
  all: T[],
  { near, shapeOf }: { readonly near: Vec3 | undefined; readonly shapeOf: (one: T) => TopoDS_Shape },
): T[] {
  if (!near || all.length < 2) return all;
  const sorted = all.map((one) => ({ one, off: distanceTo(occt, shapeOf(one), near) }));
  return [sorted.sort((a, b) => a.off - b.off)[0]!.one];
}
