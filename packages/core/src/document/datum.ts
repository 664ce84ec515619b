/** The datum: the point of a part that its X, Y, Z refer to. */
import { boxPoint, type Box } from '../space/box.ts';
import { carry } from '../space/pose.ts';
import { ORIGIN, type Vec3 } from '../space/vector.ts';
import { baseBox, definitionOf, worldFromPart } from './items.ts';
import type { Base, ItemId, KadrelDocument, Part } from './schema.ts';

type BoxOf = (id: ItemId) => Box | undefined;

/** Where the part's datum stands in its own frame; undefined when only the kernel could tell, and did not. */
export function datumInPart(part: Part, boxOf: BoxOf, base: Base = part.recipe.base): Vec3 | undefined {
  if (part.datum === 'own') return ORIGIN;
  if ('point' in part.datum) return [...part.datum.point];
  // Steps may reach beyond what the base says, or not as far; a link has those of what it is linked to.
  const { steps, base: own } = part.recipe;
  const known = steps.length === 0 && own.kind !== 'link' ? baseBox(base) : undefined;
  const box = known ?? boxOf(part.id) ?? baseBox(base);
  return box && boxPoint(box, part.datum);
}

/** Where the part's datum stands in the world. */
export function datumInWorld(document: KadrelDocument, part: Part, boxOf: BoxOf): Vec3 | undefined {
  const inPart = datumInPart(part, boxOf, definitionOf(document, part).recipe.base);
  return inPart && carry(worldFromPart(document, part.id), inPart);
}
