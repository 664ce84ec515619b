/** A solid with flat faces as the cage of a smooth one. */
import { faultOf, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { endsOfEdge } from '../../occt/edges.ts';
import { BuildError, scope, type Keep, type Occt } from '../../occt/occt.ts';
import { sewn } from '../surfaces.ts';
import { edgesChosen } from './chosen.ts';
import {
  Corners,
  cornersAt,
  flatFacesOf,
  solidOfFaces,
  type FlatFace,
  type FoundFlat,
} from './polyhedron.ts';
import { patchFace } from './patchFace.ts';
import { holedFaces } from './holedFaces.ts';
import { ringFaces } from './ringFaces.ts';
import { edgeKey, patchesOf, refined, type Cage, type CageFace } from './refined.ts';

type Soften = Extract<Content, { readonly kind: 'soften' }>;

/** More faces than this take minutes to be joined. */
const MAX_FACES = 1600;
/** A quad is laid out in two facets, since its corners seldom lie in one plane. */
const FACETS_A_QUAD = 2;

/** Patches and facets are called like the face of the cage that they came from. Throws BuildError. */
export function buildSoftened(occt: Occt, of: NamedShape, content: Soften): NamedShape {
  return scope((keep) => {
    const { level, form } = content;
    let cage = cageOf(occt, of, { content, keep });
    requireFew(cage, 4 ** (level - 1) * (form === 'facets' ? FACETS_A_QUAD : 1));
    for (let i = 0; i < level; i++) cage = refined(cage);
    if (form === 'facets') return solidOfFaces(occt, facetsOf(cage), 'The softened solid');
    const faces = patchesOf(cage).map((patch) => patchFace({ occt, keep }, patch));
    return sewn({ occt, keep }, faces, 'The softened solid');
  });
}

/** @param times how many faces come of each corner of a face */
function requireFew({ faces }: Cage, times: number): void {
  const corners = faces.reduce((sum, one) => sum + one.corners.length, 0);
  if (corners * times <= MAX_FACES) return;
  throw new BuildError(faultOf('soften.faces', { faces: corners * times, max: MAX_FACES }));
}

interface Caging {
  readonly content: Soften;
  readonly keep: Keep;
}

function cageOf(occt: Occt, of: NamedShape, { content, keep }: Caging): Cage {
  const { sharp = [], sharpness = 100, corners: fixed = [] } = content;
  const flat = flatFacesOf({ occt, keep }, of);
  const corners = new Corners();
  const faces = flat.flatMap((face) =>
    withoutHoles(face).map((border): CageFace => ({
      name: face.name,
      corners: border.map((at) => corners.indexOf(at)),
    })),
  );
  const edges = sharp.length === 0 ? [] : edgesChosen(occt, of, { chosen: sharp, keep });
  const ends = edges.map(({ edge }) => endsOfEdge({ occt, keep }, edge).map((at) => corners.indexOf(at)));
  return {
    points: corners.points,
    faces,
    sharp: new Set(ends.map(([a, b]) => edgeKey(a!, b!))),
    sharpness: sharpness / 100,
    fixed: new Set(fixed.flatMap((place) => cornersAt(flat, place)).map((at) => corners.indexOf(at))),
  };
}

/** A cage has no holes in its faces: faces run round the one that is there, and fill what lies between several. */
function withoutHoles({ loops, normal }: FoundFlat): (readonly Vec3[])[] {
  const [border, hole, another] = loops;
  if (!hole) return [border!];
  const round = another ? undefined : ringFaces({ border: border!, hole, normal });
  const between = round ?? holedFaces(loops, normal);
  if (between) return between;
  throw new BuildError(faultOf('soften.holes-touch', {}), [hole[0]!]);
}

const facetsOf = ({ points, faces }: Cage): FlatFace[] =>
  faces.flatMap(({ name, corners }) => {
    const [a, b, c, d] = corners.map((i) => points[i]!) as [Vec3, Vec3, Vec3, Vec3];
    return [
      { name, loops: [[a, b, c]] },
      { name, loops: [[a, c, d]] },
    ];
  });
