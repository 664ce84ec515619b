import { faultOf, type Vec2 } from '@kadrel/core';
import { BuildError, scope, type Occt } from '../../occt/occt.ts';
import type { BodyContent } from '../../content/bodies.ts';
import type { NamedShape } from '../../naming/named.ts';
import { polygon, pulledUp } from './pulled.ts';

type Wedge = Extract<BodyContent, { kind: 'wedge' }>;

/** A box whose top is shorter along X. Faces: left, right, front, back, bottom, and top where it has one. */
export function buildWedge(occt: Occt, { size: [x, y, z], top, lean }: Wedge): NamedShape {
  if (top > x || top < 0) throw new BuildError(faultOf('wedge.top-long', { top, bottom: x }));
  return scope((keep) => {
    const from = lean === 'left' ? 0 : (x - top) / 2;
    const outline: readonly Vec2[] = [
      [0, 0],
      [x, 0],
      [from + top, z],
      ...(top === 0 ? [] : [[from, z] as const]),
    ];
    const sides = ['bottom', 'right', ...(top === 0 ? [] : ['top']), 'left'];
    const corners = outline.map(([u, v]) => [u, 0, v] as const);
    const { shape, faceNames } = pulledUp(
      { occt, keep },
      { rims: [polygon({ occt, keep }, corners)], sides: [sides.map((name) => `flank.${name}`)] },
      [0, y, 0],
    );
    const renamed = (name: string) =>
      name === 'bottom' ? 'front' : name === 'top' ? 'back' : name.replace('flank.', '');
    return { shape, faceNames: faceNames.map(renamed) };
  });
}
