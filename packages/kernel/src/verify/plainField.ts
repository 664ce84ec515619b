/** Signed distances to plain solids, in their own frames. Source: plane geometry. */
import { length, scale, type Vec2, type Vec3 } from '@kadrel/core';
import type { SolidContent } from '../content/content.ts';
import { bothOf, polygonDistance, type Distance, type Field } from './distance.ts';

/** The distance from a plain solid in its own frame. */
export function plainField(solid: SolidContent): Field {
  switch (solid.kind) {
    case 'box': {
      const half = scale(solid.size, 0.5);
      return { at: (p) => boxDistance(p, half), centre: half, radius: length(half) };
    }
    case 'sphere': {
      const radius = solid.diameter / 2;
      return { at: (p) => length(p) - radius, centre: [0, 0, 0], radius };
    }
    case 'torus': {
      const [ring, thin] = [solid.diameter / 2, solid.thickness / 2];
      const at: Distance = ([x, y, z]) => Math.hypot(Math.hypot(x, y) - ring, z) - thin;
      return { at, centre: [0, 0, 0], radius: ring + thin };
    }
    case 'prism': {
      const { corners, height } = solid;
      const at: Distance = ([x, y, z]) =>
        bothOf(polygonDistance(corners, [x, y]), Math.abs(z - height / 2) - height / 2);
      const radius = Math.max(...corners.map(([x, y]) => Math.hypot(x, y, height / 2)));
      return { at, centre: [0, 0, height / 2], radius };
    }
    default: {
      const outline = halfOutline(solid);
      const { height } = solid;
      const at: Distance = ([x, y, z]) => polygonDistance(outline, [Math.hypot(x, y), z]);
      const widest = Math.max(...outline.map(([r]) => r));
      return { at, centre: [0, 0, height / 2], radius: Math.hypot(widest, height / 2) };
    }
  }
}

/** The outline beside the axis that a round solid is turned from, counter-clockwise; solid ones reach across the axis. */
function halfOutline(solid: Extract<SolidContent, { kind: 'cylinder' | 'cone' | 'tube' }>): readonly Vec2[] {
  const { height } = solid;
  const radius = solid.diameter / 2;
  const top = solid.kind === 'cone' ? solid.top / 2 : radius;
  const inner = solid.kind === 'tube' ? solid.bore / 2 : -radius;
  const innerTop = solid.kind === 'tube' ? inner : -top;
  const corners: Vec2[] = [
    [inner, 0],
    [radius, 0],
    [top, height],
    [innerTop, height],
  ];
  // A pointed cone has one corner at its tip.
  return top === 0 ? corners.slice(0, 3) : corners;
}

function boxDistance(point: Vec3, half: Vec3): number {
  const [x, y, z] = [0, 1, 2].map((i) => Math.abs(point[i]! - half[i]!) - half[i]!) as [
    number,
    number,
    number,
  ];
  return Math.hypot(Math.max(x, 0), Math.max(y, 0), Math.max(z, 0)) + Math.min(Math.max(x, y, z), 0);
}
