/** The solids of what is exported, each once it is asked for. */
import { buildName, isFlatPart, placedOf, type ItemId, type KadrelDocument, type Placed } from '@kadrel/core';
import type { Exporting, Solids } from './exchange/declare.ts';
import { meshShape, type Mesh } from './facts/mesh.ts';
import type { Occt } from './occt/occt.ts';
import type { Parts } from './parts.ts';

/** A solid in a file: the part's name, and in a pattern or a group which one it is. */
function solidName(document: KadrelDocument, id: ItemId, { item, leaf, member }: Placed): string {
  const name = document.items[id]!.name;
  const own = item === id ? [] : [document.items[item]!.name];
  const more = item === leaf || member === '' ? [] : [member];
  return [name, ...own, ...more].join(' ');
}

/** What an item consists of, without drawn things that are no solids. */
const solidPlaced = (document: KadrelDocument, id: ItemId): Placed[] =>
  placedOf(document, id).filter(({ leaf }) => !isFlatPart(document, document.items[leaf]!));

/** Shapes and facets of the parts of a file, with names, colours and places. Both throw BuildError when they are asked for. */
export function solidsToExport(occt: Occt, parts: Parts, exporting: Exporting): Solids {
  const { document, chordMm } = exporting;
  const placed = () =>
    exporting.parts.flatMap((id) =>
      solidPlaced(document, id).map((one) => ({
        one,
        name: solidName(document, id, one),
        colour: document.items[id]!.colour,
        pose: one.pose,
      })),
    );
  const shapeOf = (one: Placed) => parts.built(document, one.leaf, one).named.shape;
  const meshes = new Map<string, Mesh>();
  const meshOf = (one: Placed) => {
    const known = meshes.get(buildName(one));
    const mesh = known ?? meshShape(occt, shapeOf(one), chordMm);
    meshes.set(buildName(one), mesh);
    return mesh;
  };
  return {
    occt,
    shapes: () => placed().map(({ one, ...rest }) => ({ ...rest, shape: shapeOf(one) })),
    meshes: () => placed().map(({ one, ...rest }) => ({ ...rest, mesh: meshOf(one) })),
  };
}
