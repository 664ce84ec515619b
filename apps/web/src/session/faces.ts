/** Faces of a part: their names, their triangles, and what verbs take of one. */
import {
  FACE_PLANE,
  FACE_STRIDE,
  readableName,
  verbNamed,
  type ItemId,
  type KadrelDocument,
  type SnapShape,
  type Typed,
} from '@kadrel/core';
import { factsOfPart, type Built } from './built.ts';
import { wherever } from './wherever.ts';

/** Faces of one part, by their names. */
export interface ChosenFace {
  readonly part: ItemId;
  readonly names: readonly string[];
}

/** What an imprint leaves on a part begins with this. */
const IMPRINT = 'imprint.';

/** The names of the faces of a part, each once, in the order of its faces. */
export function facesOf(built: Built, part: ItemId): string[] {
  const snaps = factsOfPart({ built }, part)?.snaps;
  return snaps ? [...new Set([...snaps.faceName].map((name) => snaps.names[name]!))] : [];
}

export const imprintsOf = (built: Built, part: ItemId): string[] =>
  facesOf(built, part).filter((name) => name.startsWith(IMPRINT));

export const wordsOfFace = (name: string, document: KadrelDocument): string =>
  name.startsWith(IMPRINT)
    ? `imprint on ${readableName(name.slice(IMPRINT.length), document)}`
    : readableName(name, document);

/** Corners of the triangles of the chosen faces, in the world. */
export function trianglesOf(
  { part, names }: ChosenFace,
  document: KadrelDocument,
  built: Built,
): Float32Array | undefined {
  const snaps = document.items[part] && factsOfPart({ built }, part)?.snaps;
  if (!snaps) return undefined;
  const corners: number[] = [];
  snaps.faceOfTriangle.forEach((face, t) => {
    if (!isNamed(snaps, face, names)) return;
    for (let k = 0; k < 3; k++) {
      const at = 3 * snaps.triangles[3 * t + k]!;
      corners.push(snaps.positions[at]!, snaps.positions[at + 1]!, snaps.positions[at + 2]!);
    }
  });
  return wherever(document, part, corners);
}

const isNamed = (snaps: SnapShape, face: number, names: readonly string[]) =>
  names.includes(snaps.names[snaps.faceName[face]!]!);

/** What a verb takes of a face: the plane that it draws on, or the face that it asks for. */
export function faceInto(
  verbId: string,
  { part, name, built }: { readonly part: ItemId; readonly name: string; readonly built: Built },
): Typed {
  const snaps = factsOfPart({ built }, part)?.snaps;
  const index = snaps ? snaps.faceName.findIndex((_, i) => isNamed(snaps, i, [name])) : -1;
  if (!snaps || index < 0) return {};
  const { blanks } = verbNamed(verbId)!;
  const isFlat = snaps.faceKind[index] === FACE_PLANE;
  const wanted = Object.entries(blanks).find(
    ([id, { type }]) => (type === 'plane' && isFlat) || (type === 'feature' && id === 'face'),
  );
  if (!wanted) return {};
  const at = FACE_STRIDE * index;
  const near = [snaps.faces[at]!, snaps.faces[at + 1]!, snaps.faces[at + 2]!];
  return { [wanted[0]]: { on: part, at: name, near } };
}

/** Blanks for an edge, of verbs that turn something about it, or turn it. */
const EDGE_BLANKS = ['edge', 'about', 'line'];

/** What a verb takes of an edge. */
export function edgeInto(verbId: string, edge: unknown): Typed {
  const { blanks } = verbNamed(verbId)!;
  const wanted = EDGE_BLANKS.find((id) => blanks[id]?.type === 'feature');
  return wanted === undefined ? {} : { [wanted]: edge };
}
