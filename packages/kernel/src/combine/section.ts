/** The cut faces of one solid, by ways that are checked: no cut face is shown whose area facets do not bear out. */
import { acrossTo, add, cross, scale } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import type { Mesh } from '../facts/mesh.ts';
import { CUT_FACE, commonFaces, facesCalled, frameOf, namedCut, type CutPlane } from '../build/section.ts';
import type { NamedShape } from '../naming/named.ts';
import { integralsOf } from '../facts/integrals.ts';
import { BuildError, isSound, release, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { sliceOf } from '../verify/slice.ts';

export type Sectioned = Extract<Content, { readonly kind: 'sectioned' }>;

export interface SectionSite {
  readonly occt: Occt;
  readonly named: NamedShape;
  readonly mesh: Mesh;
  /** Throws BuildError. */
  build(content: Content): NamedShape;
}

/** Relative error beyond that of the facets. */
const SAME_AREA = 1e-6;
/** Planes within so many millimetres of a face may be told either way. */
const BESIDE_MM = 1e-6;
/** The sheet is laid anew, turned by an angle that no edge is likely to have. */
const TURNED = Math.PI / 4.7;

/** Throws BuildError. */
export function buildSectioned(site: SectionSite, content: Sectioned): NamedShape {
  const { normal, offset } = content;
  const plane: CutPlane = { normal, offset };
  const across = acrossTo(normal);
  const turned = add(scale(across, Math.cos(TURNED)), scale(cross(normal, across), Math.sin(TURNED)));
  const ways: (() => TopoDS_Shape)[] = [
    () => commonFaces(site.occt, site.named.shape, { ...plane, across }),
    () => commonFaces(site.occt, site.named.shape, { ...plane, across: turned }),
    () => cutOff(site, content, plane),
  ];
  for (const way of ways) {
    const found = tried(way);
    if (!found) continue;
    if (isBorneOut(site, found, plane)) return namedCut(site.occt, found);
    release(site.occt, found);
  }
  throw new BuildError(
    'The cut face of a solid could not be found with certainty.',
    'Move the section plane a little.',
    [scale(normal, offset)],
  );
}

/** A way that cannot be gone is none; the next one is tried. */
function tried(way: () => TopoDS_Shape): TopoDS_Shape | undefined {
  try {
    return way();
  } catch (error) {
    if (error instanceof WebAssembly.RuntimeError) throw error;
    return undefined;
  }
}

/** The solid itself is cut, which is checked by its volume, and its new faces are taken. */
function cutOff({ occt, build }: SectionSite, { solid }: Sectioned, plane: CutPlane): TopoDS_Shape {
  const cut = build({ kind: 'cut', of: solid, frame: frameOf(plane), keep: 'behind' });
  return facesCalled(occt, cut, CUT_FACE);
}

/** Whether the faces are sound, and facets come to the same area; where the plane lies in a face, on either side of it. */
function isBorneOut({ occt, mesh }: SectionSite, faces: TopoDS_Shape, { normal, offset }: CutPlane): boolean {
  if (!isSound(occt, faces)) return false;
  const { area } = integralsOf(occt, faces);
  if (!(Number.isFinite(area) && area >= 0)) return false;
  const slices = [-1, 1].map((side) => sliceOf(mesh, { normal, offset: offset + side * BESIDE_MM }));
  const areas = slices.map((slice) => slice.area);
  const slack = Math.max(...slices.map(({ error }) => error)) + SAME_AREA * area;
  return area >= Math.min(...areas) - slack && area <= Math.max(...areas) + slack;
}
