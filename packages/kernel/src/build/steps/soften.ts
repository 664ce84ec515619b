/** A solid with flat faces as the cage of a smooth one. */
import type { Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, scope, type Occt } from '../../occt/occt.ts';
import { sewn } from '../surfaces.ts';
import { flatFacesOf, isSameCorner, solidOfFaces, type FlatFace } from './polyhedron.ts';
import { patchFace } from './patchFace.ts';
import { patchesOf, refined, type Cage, type CageFace } from './refined.ts';

type Soften = Extract<Content, { readonly kind: 'soften' }>;

/** More faces than this take minutes to be joined. */
const MAX_FACES = 1600;
/** A quad is laid out in two facets, since its corners seldom lie in one plane. */
const FACETS_A_QUAD = 2;

/** Patches and facets are called like the face of the cage that they came from. Throws BuildError. */
export function buildSoftened(occt: Occt, of: NamedShape, { level, form }: Soften): NamedShape {
  return scope((keep) => {
    let cage = cageOf(flatFacesOf(occt, of, keep));
    requireFew(cage, 4 ** (level - 1) * (form === 'facets' ? FACETS_A_QUAD : 1));
    for (let i = 0; i < level; i++) cage = refined(cage);
    if (form === 'facets') return solidOfFaces(occt, facetsOf(cage), 'The softened solid');
    const faces = patchesOf(cage).map((patch) => patchFace(occt, patch, keep));
    return sewn(occt, faces, 'The softened solid', keep);
  });
}

/** @param times how many faces come of each corner of a face */
function requireFew({ faces }: Cage, times: number): void {
  const corners = faces.reduce((sum, one) => sum + one.corners.length, 0);
  if (corners * times <= MAX_FACES) return;
  throw new BuildError(
    `Softened, it would have ${corners * times} faces, and ${MAX_FACES} is the most.`,
    'Take fewer levels, or a coarser solid.',
  );
}

function cageOf(flat: readonly FlatFace[]): Cage {
  const points: Vec3[] = [];
  const indexOf = (at: Vec3): number => {
    const known = points.findIndex((one) => isSameCorner(one, at));
    return known >= 0 ? known : points.push(at) - 1;
  };
  const faces = flat.map(({ name, loops }): CageFace => {
    const [border, hole] = loops;
    if (hole)
      throw new BuildError(
        'A face has a hole in it, which a cage cannot have.',
        'Split the solid, so that its faces run round the hole in pieces.',
        [hole[0]!],
      );
    return { name, corners: border!.map(indexOf) };
  });
  return { points, faces };
}

const facetsOf = ({ points, faces }: Cage): FlatFace[] =>
  faces.flatMap(({ name, corners }) => {
    const [a, b, c, d] = corners.map((i) => points[i]!) as [Vec3, Vec3, Vec3, Vec3];
    return [
      { name, loops: [[a, b, c]] },
      { name, loops: [[a, c, d]] },
    ];
  });
