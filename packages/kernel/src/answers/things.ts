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
  type Box,
  type Geometry,
  type KadrelDocument,
  type Placed,
  type Target,
  type Vec3,
} from '@kadrel/core';
import { meetingEdges } from '../build/steps/chosen.ts';
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
  readonly name: string;
  readonly shape: TopoDS_Shape;
  readonly box: Box;
  readonly geometry: Geometry | null;
  /** The solids of a part, or the one that a face or an edge is of. */
  readonly solids: readonly Placed[];
}

export interface Around {
  readonly occt: Occt;
  readonly shapes: FitShapes;
  readonly document: KadrelDocument;
  readonly keep: Keep;
}

const gone = (name: string, what: string) =>
  new BuildError(`${name} has no ${what} any more.`, 'Choose what is measured anew.');

export function thingOf(around: Around, target: Target): Thing {
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
