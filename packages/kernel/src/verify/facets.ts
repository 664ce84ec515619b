/**
 * A second reckoning of volumes, by facets (`manifold-3d`): plain solids are laid out anew by formula, so that nothing is taken over
 * from the exact kernel, and combined as facets. It is rough, and it is independent.
 */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { column, length, type Matrix, type Pose, type Vec2, type Vec3 } from '@kadrel/core';
import type { Content, SolidContent } from '../content/content.ts';
import { keyOf } from '../content/key.ts';

export type Facetter = ManifoldToplevel;

/** A solid as facets, and how far they are from it. */
export interface Facets {
  readonly solid: Manifold;
  /** Greatest volume between the facets and the true solid, mm³. */
  readonly error: number;
  /** Greatest distance between the facets and the true surface, mm. */
  readonly chord: number;
}

/** Facets of solids that no formula lays out, such as lofts: from the kernel's own mesh. */
export interface PlainMesh {
  /** 3·V, mm. */
  readonly positions: Float32Array;
  /** 3·T, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  readonly chordMm: number;
  /** mm², of the true surface. */
  readonly area: number;
  /** mm³, of the true solid. */
  readonly volume: number;
}
export type MeshOf = (content: Content) => PlainMesh;

/** Round solids have this many facets round their axis. */
const SEGMENTS = 32;
/** How many solids are held as facets. */
const MAX_HELD = 200;
/** What is left between a facet solid and a formula when nothing is round: the noise of single precision. */
const NOISE = 1e-6;

/** Facets of content for the second opinion. */
export class FacetCache {
  private readonly held = new Map<string, Facets>();

  constructor(
    private readonly facetter: Facetter,
    private readonly meshOf: MeshOf,
  ) {}

  /** The facets of a solid in its own frame; they stay the cache's. Throws where a mesh is not closed. */
  of(content: Content): Facets {
    const key = keyOf(content);
    const known = this.held.get(key);
    if (known) {
      this.held.delete(key);
      this.held.set(key, known);
      return known;
    }
    const made = this.make(content);
    this.held.set(key, made);
    for (const [oldest, { solid }] of this.held) {
      if (this.held.size <= MAX_HELD) break;
      solid.delete();
      this.held.delete(oldest);
    }
    return made;
  }

  /** What solids come to together, in the frame that their poses lead to; the caller gives it back. */
  combined(how: 'union' | 'subtract' | 'intersect', placed: readonly (readonly [Facets, Pose])[]): Manifold {
    const solids = placed.map(([{ solid }, pose]) => solid.transform(rowsOf(pose)));
    try {
      const { Manifold: maker } = this.facetter;
      if (how === 'union') return maker.union(solids);
      return how === 'subtract' ? maker.difference(solids) : maker.intersection(solids);
    } finally {
      for (const solid of solids) solid.delete();
    }
  }

  private make(content: Content): Facets {
    switch (content.kind) {
      case 'combine': {
        const placed = content.operands.map(({ pose, content: inner }) => [this.of(inner), pose] as const);
        const solid = this.combined(content.how, placed);
        const error = placed.reduce((sum, [facets]) => sum + facets.error, 0);
        return { solid, error, chord: Math.max(...placed.map(([{ chord }]) => chord)) };
      }
      case 'mirrored': {
        const { solid, ...rest } = this.of(content.of);
        return { ...rest, solid: solid.mirror([1, 0, 0]) };
      }
      case 'scaled': {
        const { solid, error, chord } = this.of(content.of);
        const { by } = content;
        return { solid: solid.scale(by), error: error * by ** 3, chord: chord * by };
      }
      case 'stretched':
        return this.stretched(this.of(content.of), content.by);
      case 'box':
      case 'cylinder':
      case 'sphere':
      case 'cone':
      case 'tube':
      case 'torus':
      case 'prism':
        return this.plain(content);
      default:
        return this.meshed(this.meshOf(content));
    }
  }

  private stretched({ solid, error, chord }: Facets, by: Matrix): Facets {
    const rows = rowsOf({ turn: by, shift: [0, 0, 0] });
    const made = solid.transform(rows);
    const grows = Math.max(...[0, 1, 2].map((i) => length(column(by, i))));
    return {
      solid: made,
      error: error * Math.abs(made.volume() / solid.volume()),
      chord: chord * grows * Math.sqrt(3),
    };
  }

  private meshed({ positions, triangles, chordMm, area, volume }: PlainMesh): Facets {
    const mesh = new this.facetter.Mesh({ numProp: 3, vertProperties: positions, triVerts: triangles });
    mesh.merge();
    const solid = this.facetter.Manifold.ofMesh(mesh);
    // Facets are off by a chord at the most, and by half of it in the middle.
    return { solid, error: Math.max(chordMm * area, Math.abs(volume - solid.volume())), chord: chordMm };
  }

  private plain(content: SolidContent): Facets {
    const { Manifold: maker, CrossSection } = this.facetter;
    switch (content.kind) {
      case 'box':
        return exactly(maker.cube([...content.size]), content);
      case 'sphere':
        return within(maker.sphere(content.diameter / 2, SEGMENTS), content, content.diameter / 2);
      case 'prism':
        return exactly(
          maker.extrude([content.corners.map(([x, y]): Pair => [x, y])], content.height),
          content,
        );
      default: {
        const outline = halfOutline(content);
        const section = new CrossSection([outline.map(([x, y]): Pair => [x, y])], 'NonZero');
        const solid = section.revolve(SEGMENTS);
        section.delete();
        return within(solid, content, Math.max(...outline.map(([r]) => r)));
      }
    }
  }
}

type Pair = [number, number];

const exactly = (solid: Manifold, content: SolidContent): Facets => ({
  solid,
  error: NOISE * plainVolume(content),
  chord: 0,
});

/** @param radius the greatest that is turned */
function within(solid: Manifold, content: SolidContent, radius: number): Facets {
  const volume = plainVolume(content);
  const chord = radius * (1 - Math.cos(Math.PI / SEGMENTS));
  // Facets of a ring lie inside it where it is thick, and outside it round its hole.
  const factor = content.kind === 'torus' || content.kind === 'tube' ? 4 : 1;
  return { solid, chord, error: factor * Math.abs(volume - solid.volume()) + NOISE * volume };
}

/** The half outline that is turned about Z, counter-clockwise, radius and height. */
function halfOutline(solid: Exclude<SolidContent, { kind: 'box' | 'sphere' | 'prism' }>): readonly Vec2[] {
  const radius = solid.diameter / 2;
  if (solid.kind === 'torus')
    return Array.from({ length: SEGMENTS }, (_, i): Vec2 => {
      const angle = (2 * Math.PI * i) / SEGMENTS;
      const thin = solid.thickness / 2;
      return [radius + thin * Math.cos(angle), thin * Math.sin(angle)];
    });
  const { height } = solid;
  const inner = solid.kind === 'tube' ? solid.bore / 2 : 0;
  const top = solid.kind === 'cone' ? solid.top / 2 : radius;
  const corners: Vec2[] = [
    [inner, 0],
    [radius, 0],
    [top, height],
    [inner, height],
  ];
  return top === 0 ? [corners[0]!, corners[1]!, corners[3]!] : corners;
}

/** mm³. Source: any handbook of mensuration; the ring by Pappus and Guldin. */
export function plainVolume(solid: SolidContent): number {
  switch (solid.kind) {
    case 'box':
      return solid.size[0] * solid.size[1] * solid.size[2];
    case 'sphere':
      return (Math.PI * solid.diameter ** 3) / 6;
    case 'cylinder':
      return (Math.PI * solid.diameter ** 2 * solid.height) / 4;
    case 'cone': {
      const [r, t] = [solid.diameter / 2, solid.top / 2];
      return (Math.PI * solid.height * (r * r + r * t + t * t)) / 3;
    }
    case 'tube':
      return (Math.PI * (solid.diameter ** 2 - solid.bore ** 2) * solid.height) / 4;
    case 'torus':
      return 2 * Math.PI ** 2 * (solid.diameter / 2) * (solid.thickness / 2) ** 2;
    case 'prism':
      return (solid.height * Math.abs(doubleArea(solid.corners))) / 2;
  }
}

const doubleArea = (corners: readonly (readonly [number, number])[]): number =>
  corners.reduce((sum, [x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length]!;
    return sum + x * v - u * y;
  }, 0);

type Rows = Parameters<Manifold['transform']>[0];

/** Column by column, as the facets' library wants it. */
function rowsOf({ turn: t, shift: [x, y, z] }: { turn: Matrix; shift: Vec3 }): Rows {
  return [t[0], t[3], t[6], 0, t[1], t[4], t[7], 0, t[2], t[5], t[8], 0, x, y, z, 1];
}
