/** Profiles together: their curves in one frame. */
import { definitionOf, worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { AT_ORIGIN, chain, inverse, type Pose } from '../space/pose.ts';
import type { Affine2 } from '../space/vector2.ts';
import { carryCurve } from './curve.ts';
import { outlineOf, type Path } from './outline.ts';

/** A profile in the frame of another. */
export interface Section {
  readonly pose: Pose;
  readonly paths: readonly Path[];
}

/** The curves of a profile in its own frame; none of what is no profile. */
export function pathsOf(document: KadrelDocument, id: ItemId): Path[] {
  const { base } = definitionOf(document, document.items[id]!).recipe;
  return base.kind === 'profile' ? outlineOf(base.figure) : [];
}

/** Profiles in the frame of the first one. */
export function sectionsOf(document: KadrelDocument, ids: readonly ItemId[]): Section[] {
  const back = inverse(worldFromPart(document, ids[0]!));
  return ids.map((id, i): Section => ({
    pose: i === 0 ? AT_ORIGIN : chain(back, worldFromPart(document, id)),
    paths: pathsOf(document, id),
  }));
}

/** A profile whose plane is off by more than this (mm, or the sine of an angle) does not lie in the plane of another. */
const SAME_PLANE = 1e-7;

/** Curves of several profiles in one plane; those of all but the first are named after their profile. */
export function pathsOnPlane(document: KadrelDocument, ids: readonly ItemId[]): Path[] | undefined {
  const paths: Path[] = [];
  for (const [i, { pose, paths: own }] of sectionsOf(document, ids).entries()) {
    if (i === 0) {
      paths.push(...own);
      continue;
    }
    const { turn: t, shift } = pose;
    if ([t[2], t[5], t[6], t[7], shift[2]].some((n) => Math.abs(n) > SAME_PLANE)) return undefined;
    const map: Affine2 = { x: [t[0], t[3]], y: [t[1], t[4]], shift: [shift[0], shift[1]] };
    for (const { closed, curves } of own)
      paths.push({
        closed,
        curves: curves.map(({ name, curve }) => ({
          name: `${ids[i]!}.${name}`,
          curve: carryCurve(map, curve),
        })),
      });
  }
  return paths;
}
