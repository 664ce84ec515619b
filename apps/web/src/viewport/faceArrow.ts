/** The arrow that stands on chosen faces, and pulls them out of the solid or pushes them in. */
import { isHandled } from '../session/statement.ts';
import {
  carry,
  definitionOf,
  faceGeometry,
  facetNear,
  isSurface,
  isWhole,
  outwardAt,
  partNamed,
  sharesName,
  subtract,
  type ItemId,
  type KadrelDocument,
  type Part,
  type SnapInstance,
  type SnapShape,
  type Vec3,
} from '@kadrel/core';
import { listIn, type PickedPlace } from '../session/chosen.ts';
import { sortOf } from '../session/places.ts';
import type { SessionState } from '../session/state.ts';

/** The arrow on selected faces. */
export interface FaceArrow {
  readonly part: ItemId;
  /** On the first of the faces, in the world. */
  readonly anchor: Vec3;
  /** Out of the solid there, length 1. */
  readonly normal: Vec3;
}

type Known = Pick<SessionState, 'statement' | 'places' | 'document'>;

/** The faces that an arrow would move: those of Offset face in hand, or the selected ones; null where there are none. */
function facesInHand({ statement, places, document }: Known) {
  if (statement?.phase === 'open') {
    const { part, faces } = statement.typed;
    const id = typeof part === 'string' ? partNamed(document, part)?.id : undefined;
    if (!isHandled(statement, 'pulls') || id === undefined) return null;
    return { part: id, list: listIn(faces) as readonly (PickedPlace | string)[] };
  }
  return places?.list.every((one) => sortOf(one) === 'face') ? places : null;
}

/** Undefined where no face is chosen, or the part has no form. */
export function faceArrow(known: Known, instances: readonly SnapInstance[]): FaceArrow | undefined {
  const chosen = facesInHand(known);
  const [first] = chosen?.list ?? [];
  const item = chosen && known.document.items[chosen.part];
  if (!chosen || first === undefined || !item || !canBePulled(item, known.document)) return undefined;
  const instance = instances.find(({ part }) => part === chosen.part);
  if (!instance) return undefined;
  const { name, near } = typeof first === 'string' ? { name: first } : { name: first.at, near: first.near };
  const { shape, pose } = instance;
  const faces = [...shape.faceName.keys()].filter((i) => sharesName(name, shape.names[shape.faceName[i]!]!));
  const at = faces.map((face) => footOn(shape, face, near as Vec3 | undefined));
  const best = faces.reduce((a, _, b) => (gapTo(at[b], near) < gapTo(at[a], near) ? b : a), 0);
  const foot = at[best];
  if (!foot) return undefined;
  const anchor = carry(pose, foot);
  const normal = outwardAt(instance, faces[best]!, anchor);
  return normal && { part: chosen.part, anchor, normal };
}

/** Faces of surfaces, and of what consists of several parts, are moved in other ways. */
const canBePulled = (item: Part, document: KadrelDocument): boolean =>
  !item.locked && !isWhole(document, item) && !isSurface(definitionOf(document, item));

const gapTo = (at: Vec3 | undefined, near: readonly number[] | undefined): number =>
  at ? (near ? Math.hypot(...subtract(at, near as unknown as Vec3)) : 0) : Infinity;

/** The middle of a flat face; of another, the middle of its facet nearest to a place, in the frame of the part. */
function footOn(shape: SnapShape, face: number, near: Vec3 | undefined): Vec3 | undefined {
  const geometry = faceGeometry(shape, face);
  return geometry?.kind === 'plane' ? geometry.at : facetNear(shape, face, near ?? [0, 0, 0])?.middle;
}
