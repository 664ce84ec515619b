/** Profiles for torture, and what is raised and turned from them: as statements, and as facets that are laid out by formula. */
import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d';

/** A figure, placed in the frame of the first of its profile. */
export type Figure = { readonly at: readonly [number, number] } & (
  | { readonly verb: 'rectangle'; readonly width: number; readonly height: number; readonly round: number }
  | { readonly verb: 'circle'; readonly diameter: number }
  | { readonly verb: 'ellipse'; readonly width: number; readonly height: number }
);

/** What is made from profiles whose loops keep clear of one another; the first stands at the origin. */
export type Body = { readonly figures: readonly Figure[] } & (
  | { readonly verb: 'raise'; readonly height: number; readonly down: number }
  /** About the Y axis of the first figure’s frame, degrees. */
  | { readonly verb: 'revolve'; readonly angle: number }
);

const SEGMENTS = 96;
/** How far such facets are off a circle, for each mm of its radius. */
const SAGITTA = 1 - Math.cos(Math.PI / SEGMENTS);

/** In the frame of the first figure, with how far its volume may be off, mm³. */
export function bodyFacets(library: ManifoldToplevel, body: Body): { solid: Manifold; error: number } {
  const section = new library.CrossSection(body.figures.map(outlineOf), 'EvenOdd');
  const solid =
    body.verb === 'raise'
      ? section.extrude(body.height + body.down).translate([0, 0, -body.down])
      : turned(section, body.angle);
  const { min, max } = solid.boundingBox();
  const widest = Math.max(...[...min, ...max].map(Math.abs));
  return { solid, error: 2 * SAGITTA * widest * solid.surfaceArea() };
}

/** The library turns about Z, counter-clockwise; we turn about Y, from X away from Z. */
function turned(section: CrossSection, angle: number): Manifold {
  const solid = section.revolve(SEGMENTS, Math.abs(angle));
  const way = -Math.sign(angle);
  // Where X, Y and Z go, column by column.
  return solid.transform([1, 0, 0, 0, 0, 0, way, 0, 0, 1, 0, 0, 0, 0, 0, 1]);
}

function outlineOf(figure: Figure): [number, number][] {
  const [x, y] = figure.at;
  return pointsOf(figure).map(([u, v]) => [x + u, y + v]);
}

function pointsOf(figure: Figure): [number, number][] {
  if (figure.verb === 'circle') return round(figure.diameter / 2, figure.diameter / 2);
  if (figure.verb === 'ellipse') return round(figure.width / 2, figure.height / 2);
  const { width: w, height: h, round: r } = figure;
  if (r === 0)
    return [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ];
  const middles = [
    [w - r, h - r],
    [r, h - r],
    [r, r],
    [w - r, r],
  ] as const;
  return middles.flatMap(([cx, cy], quarter) =>
    Array.from({ length: SEGMENTS / 4 + 1 }, (_, i): [number, number] => {
      const angle = (quarter + i / (SEGMENTS / 4)) * (Math.PI / 2);
      return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
    }),
  );
}

const round = (a: number, b: number) =>
  Array.from({ length: SEGMENTS }, (_, i): [number, number] => {
    const angle = (2 * Math.PI * i) / SEGMENTS;
    return [a * Math.cos(angle), b * Math.sin(angle)];
  });
