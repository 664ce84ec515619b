/** An independent reckoning: the library's own facet solids, placed and combined, with how far their volume may be off. */
import type { Pose } from '@kadrel/core';
import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import { bodyFacets, type Body } from './sketches.ts';

export async function loadFacets(): Promise<ManifoldToplevel> {
  const facets = await Module();
  facets.setup();
  return facets;
}

/** A plain solid as a statement says it. */
export type Solid =
  | { readonly verb: 'box'; readonly size: readonly [number, number, number] }
  | { readonly verb: 'cylinder'; readonly diameter: number; readonly height: number }
  | { readonly verb: 'sphere'; readonly diameter: number }
  | { readonly verb: 'cone'; readonly diameter: number; readonly top: number; readonly height: number }
  | { readonly verb: 'tube'; readonly diameter: number; readonly bore: number; readonly height: number }
  | { readonly verb: 'torus'; readonly diameter: number; readonly thickness: number };

/** A box with a disc raised out of its top, or cut into it. */
export interface Embossed {
  readonly verb: 'emboss';
  readonly size: readonly [number, number, number];
  readonly disc: { readonly at: readonly [number, number]; readonly diameter: number };
  /** Less than zero cuts in, mm. */
  readonly depth: number;
}
export type Solids = Solid | Body | Embossed;

export interface Reckoned {
  readonly solid: Manifold;
  /** mm³ */
  readonly error: number;
}

/** Facets round a circle. */
const SEGMENTS = 96;

/** mm³. Source: any handbook of mensuration; the ring by Pappus and Guldin. */
export function volumeByFormula(solid: Solid): number {
  switch (solid.verb) {
    case 'box':
      return solid.size[0] * solid.size[1] * solid.size[2];
    case 'cylinder':
      return (Math.PI / 4) * solid.diameter ** 2 * solid.height;
    case 'sphere':
      return (Math.PI / 6) * solid.diameter ** 3;
    case 'cone': {
      const { diameter: d, top: t, height } = solid;
      return (Math.PI / 12) * height * (d * d + d * t + t * t);
    }
    case 'tube':
      return (Math.PI / 4) * (solid.diameter ** 2 - solid.bore ** 2) * solid.height;
    case 'torus':
      return (Math.PI ** 2 / 4) * solid.diameter * solid.thickness ** 2;
  }
}

export function laidOut(library: ManifoldToplevel, solid: Solids, { turn: t, shift }: Pose): Reckoned {
  const { solid: plain, error } = unplaced(library, solid);
  const placed = plain.transform([
    ...[t[0], t[3], t[6], 0],
    ...[t[1], t[4], t[7], 0],
    ...[t[2], t[5], t[8], 0],
    ...[shift[0], shift[1], shift[2], 1],
  ] as Parameters<Manifold['transform']>[0]);
  plain.delete();
  return { solid: placed, error };
}

function unplaced(library: ManifoldToplevel, solid: Solids): Reckoned {
  if (solid.verb === 'raise' || solid.verb === 'revolve') return bodyFacets(library, solid);
  if (solid.verb === 'emboss') return embossedFacets(library, solid);
  const plain = plainFacets(library, solid);
  const off = Math.abs(volumeByFormula(solid) - plain.volume());
  // Facets of rings and tubes are partly inside, partly outside.
  const factor = solid.verb === 'torus' || solid.verb === 'tube' ? 4 : 1;
  return { solid: plain, error: factor * off };
}

function embossedFacets(library: ManifoldToplevel, { size, disc, depth }: Embossed): Reckoned {
  const box = plainFacets(library, { verb: 'box', size });
  const figure = { verb: 'circle', diameter: disc.diameter, at: disc.at } as const;
  const stamp = bodyFacets(library, { verb: 'raise', figures: [figure], height: Math.abs(depth), down: 0 });
  const lifted = stamp.solid.translate([0, 0, depth < 0 ? size[2] + depth : size[2]]);
  return { solid: depth < 0 ? box.subtract(lifted) : box.add(lifted), error: stamp.error };
}

function plainFacets({ Manifold: maker, CrossSection }: ManifoldToplevel, solid: Solid): Manifold {
  switch (solid.verb) {
    case 'box':
      return maker.cube([...solid.size]);
    case 'cylinder':
      return maker.cylinder(solid.height, solid.diameter / 2, solid.diameter / 2, SEGMENTS);
    case 'sphere':
      return maker.sphere(solid.diameter / 2, SEGMENTS);
    case 'cone':
      return maker.cylinder(solid.height, solid.diameter / 2, solid.top / 2, SEGMENTS);
    case 'tube': {
      const [outer, inner] = [solid.diameter, solid.bore].map((d) =>
        maker.cylinder(solid.height, d / 2, d / 2, SEGMENTS),
      );
      return outer!.subtract(inner!);
    }
    case 'torus': {
      const section = CrossSection.circle(solid.thickness / 2, SEGMENTS);
      return section.translate(solid.diameter / 2, 0).revolve(SEGMENTS);
    }
  }
}

export function together(library: ManifoldToplevel, how: How, all: readonly Reckoned[]): Reckoned {
  const solids = all.map(({ solid }) => solid);
  const { Manifold: maker } = library;
  const solid =
    how === 'union'
      ? maker.union(solids)
      : how === 'subtract'
        ? maker.difference(solids)
        : maker.intersection(solids);
  return { solid, error: all.reduce((sum, { error }) => sum + error, 0) };
}
export type How = 'union' | 'subtract' | 'intersect';
