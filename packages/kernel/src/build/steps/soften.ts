/** A solid with flat faces as the cage of a smooth one. */
import { faultOf, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { endsOfEdge } from '../../occt/edges.ts';
import { BuildError, scope, type Keep, type Occt } from '../../occt/occt.ts';
import { sewn } from '../surfaces.ts';
import { edgesChosen } from './chosen.ts';
import { Corners, type FlatFace } from '../flatFaces.ts';
import { cornersAt, flatFacesOf, solidOfFaces, type FoundFlat } from './polyhedron.ts';
import { closedPatches } from './closedPatches.ts';
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
    const patches = patchesOf(cage);
    const closed = closedPatches(
      occt,
      patches.map((patch, i) => ({ ...patch, corners: cage.faces[i]!.corners })),
    );
    if (closed) return closed;
    const faces = patches.map((patch) => patchFace({ occt, keep }, patch));
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
  const { corners: fixed = [] } = content;
  const flat = flatFacesOf({ occt, keep }, of);
  const corners = new Corners();
  const faces = flat.flatMap((face) =>
    withoutHoles(face).map((border): CageFace => ({
      name: face.name,
      corners: border.map((at) => corners.indexOf(at)),
    })),
  );
  return {
    points: corners.points,
    faces,
    sharp: sharpEdgesOf(occt, of, { content, corners, keep }),
    fixed: new Set(fixed.flatMap((place) => cornersAt(flat, place)).map((at) => corners.indexOf(at))),
  };
}

/** How sharp the chosen edges are, by the numbers of their corners: where several choices mean one edge, as the last of them says. */
function sharpEdgesOf(
  occt: Occt,
  of: NamedShape,
  { content, corners, keep }: Caging & { readonly corners: Corners },
): Map<string, number> {
  const { sharp = [], sharpness = PERCENT, sharpnesses = [] } = content;
  const found = new Map<string, number>();
  sharp.forEach((one, i) => {
    for (const { edge } of edgesChosen(occt, of, { chosen: [one], keep })) {
      const [a, b] = endsOfEdge({ occt, keep }, edge).map((at) => corners.indexOf(at));
      found.set(edgeKey(a!, b!), (sharpnesses[i] ?? sharpness) / PERCENT);
    }
  });
  return found;
}
const PERCENT = 100;

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
