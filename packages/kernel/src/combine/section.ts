/** The cut faces of one solid, by ways that are checked: no cut face is shown whose area facets do not bear out. */
import { acrossTo, add, carryBox, cross, faultOf, scale } from '@kadrel/core';
import type { Content, OperandContent } from '../content/content.ts';
import type { Measures } from '../facts/measure.ts';
import type { Mesh } from '../facts/mesh.ts';
import {
  CUT_FACE,
  buildSection,
  commonFaces,
  enclosedOn,
  facesCalled,
  frameOf,
  namedCut,
  planeUnder,
  type CutPlane,
  type Piece,
} from '../build/section.ts';
import type { NamedShape } from '../naming/named.ts';
import { integralsOf } from '../facts/integrals.ts';
import { BuildError, release, translated, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { isSound } from '../occt/sound.ts';
import { sliceOf, type Slice } from '../verify/slice.ts';

type Sectioned = Extract<Content, { readonly kind: 'sectioned' }>;
type Sections = Extract<Content, { readonly kind: 'section' }>;

/** Where solids come from. All throw BuildError. */
interface SectionSite {
  readonly occt: Occt;
  build(content: Content): NamedShape;
  measure(content: Content): Measures;
  /** Facets for display. */
  mesh(content: Content): Mesh;
}

/** Relative error beyond that of the facets. */
const SAME_AREA = 1e-6;
/** Planes within so many millimetres of a face may be taken either way. */
const BESIDE_MM = 1e-6;
/** The sheet is laid anew, turned by an angle that no edge is likely to have. */
const TURNED = Math.PI / 4.7;

/** Solids nearer to a section plane than this (mm) touch it. */
const ON_PLANE_MM = 1e-7;

/** Throws BuildError. */
export const buildCutFaces = (content: Sections | Sectioned, site: SectionSite): NamedShape =>
  content.kind === 'sectioned'
    ? buildSectioned(site, content)
    : buildSection(
        site.occt,
        content.size,
        content.pieces.flatMap((one) => pieceOf(site, one) ?? []),
      );

/** Undefined for a solid that is clear of the XY plane, and for what is not built: that is reported where it stands. */
function pieceOf(site: SectionSite, { tag, pose, content: solid }: OperandContent): Piece | undefined {
  const measures = measuresIfBuilt(site, solid);
  if (!measures || measures.solids === 0) return undefined;
  const { min, max } = carryBox(pose, measures.box);
  if (min[2] > ON_PLANE_MM || max[2] < -ON_PLANE_MM) return undefined;
  return { tag, pose, named: site.build({ kind: 'sectioned', solid, ...planeUnder(pose) }) };
}

function measuresIfBuilt(site: SectionSite, content: Content): Measures | undefined {
  try {
    site.build(content);
    return site.measure(content);
  } catch (error) {
    if (error instanceof BuildError) return undefined;
    throw error;
  }
}

/** Throws BuildError. */
function buildSectioned(site: SectionSite, content: Sectioned): NamedShape {
  const { normal, offset } = content;
  const plane: CutPlane = { normal, offset };
  const across = acrossTo(normal);
  const { shape } = site.build(content.solid);
  const turned = add(scale(across, Math.cos(TURNED)), scale(cross(normal, across), Math.sin(TURNED)));
  const mesh = site.mesh(content.solid);
  const ways: (() => TopoDS_Shape | undefined)[] = [
    () => enclosedOn(site.occt, shape, { ...plane, across }),
    () => commonFaces(site.occt, shape, { ...plane, across }),
    () => commonFaces(site.occt, shape, { ...plane, across: turned }),
    () => cutOff(site, content, plane),
  ];
  for (const way of ways) {
    const found = tried(site.occt, way);
    if (!found) continue;
    if (isBorneOut(site.occt, found, { ...plane, mesh })) return namedCut(site.occt, found);
    release(site.occt, found);
  }
  throw new BuildError(faultOf('section.uncertain', {}), [scale(normal, offset)]);
}

/** A way that cannot be gone is none; the next one is tried. */
function tried(occt: Occt, way: () => TopoDS_Shape | undefined): TopoDS_Shape | undefined {
  try {
    return way();
  } catch (thrown) {
    const error = translated(occt, thrown);
    if (!(error instanceof BuildError)) throw error;
    return undefined;
  }
}

/** The solid itself is cut, which is checked by its volume, and its new faces are taken. */
function cutOff(site: SectionSite, { solid }: Sectioned, plane: CutPlane): TopoDS_Shape {
  const cut = site.build({ kind: 'cut', of: solid, frame: frameOf(plane), keep: 'behind' });
  return facesCalled(site.occt, cut, CUT_FACE);
}

/** Whether the faces are sound, and facets come to the same area; where the plane lies in a face, on either side of it. */
function isBorneOut(
  occt: Occt,
  faces: TopoDS_Shape,
  { normal, offset, mesh }: CutPlane & { readonly mesh: Mesh },
): boolean {
  if (!isSound(occt, faces)) return false;
  const { area } = integralsOf(occt, faces);
  if (!(Number.isFinite(area) && area >= 0)) return false;
  const slices: Slice[] = [];
  for (const side of [-1, 1]) {
    slices.push(sliceOf(mesh, { normal, offset: offset + side * BESIDE_MM }));
    const areas = slices.map((slice) => slice.area);
    const slack = Math.max(...slices.map(({ error }) => error)) + SAME_AREA * area;
    // One side bears it out alone, unless the plane lies in a face.
    if (area >= Math.min(...areas) - slack && area <= Math.max(...areas) + slack) return true;
  }
  return false;
}
