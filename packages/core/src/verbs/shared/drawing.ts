/** What the Draw verbs share: a plane to draw on, and putting a profile there. */
import { reasonOf, type Reason } from '../../language/reason.ts';
import { definitionOf, worldFromPart, vectorOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument, NumVector } from '../../document/schema.ts';
import type { Figure } from '../../recipes/figures/index.ts';
import { figureKind } from '../../recipes/index.ts';
import { outlineOf } from '../../profiles/outline.ts';
import { traverseOf } from '../../profiles/traverse.ts';
import { carry, roundPoint, type Pose } from '../../space/pose.ts';
import type { Vec2 } from '../../space/vector2.ts';
import {
  needed,
  optional,
  refuse,
  refuseFor,
  type Outcome,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { addPart } from './addPart.ts';
import { degreesOf, inPlane } from '../../statement/planes.ts';

/** The plane that is drawn on; nothing but this blank ever changes it. */
export const onPlane = needed('plane', 'plane', 'plan, front, side, a named plane, or a flat face.', {
  default: 'plan',
});
export const namedAs = optional('name', 'name', 'What the profile is called.');

/** Puts a figure on a plane, its own origin where a world point falls on it. */
export function drawFigure(
  draft: KadrelDocument,
  context: VerbContext,
  drawn: { name: string; figure: Figure; plane: Pose; at: Vec2; exact?: NumVector | undefined },
): Outcome | Refusal {
  const fault = figureFault(drawn.figure);
  if (fault) return refuseFor(fault, fault.blank);
  const { plane, at } = drawn;
  // A number that depends on variables goes on doing so where the plane's axes are the world's.
  const isPlan = plane.turn.every((n, i) => n === (i % 4 === 0 ? 1 : 0)) && plane.shift.every((n) => n === 0);
  const exact = drawn.exact;
  const origin: NumVector =
    isPlan && exact ? [exact[0], exact[1], 0] : [...roundPoint(carry(plane, [at[0], at[1], 0]))];
  const id = addPart(draft, context, {
    name: drawn.name,
    base: { kind: 'profile', figure: drawn.figure },
    at: origin,
  });
  draft.items[id]!.placement.turn = degreesOf(plane);
  return { result: id, select: [id] };
}

/** Where a point stands on a plane. */
export const footOf = (plane: Pose, at: NumVector): Vec2 => inPlane(plane, vectorOf(at));

/** What is wrong with a figure, if anything. */
export function figureFault(figure: Figure): (Reason & { readonly blank?: string }) | undefined {
  const together = figureKind(figure).fault?.(figure);
  if (together) return together;
  if (figure.kind === 'traverse') {
    const { faults, legs } = traverseOf(figure);
    const empty = legs.findIndex(({ course }) => course.length === 0);
    if (empty >= 0) return { ...reasonOf('figure.leg-empty', { row: empty + 1 }), blank: 'legs' };
    const [fault] = faults;
    return fault && { ...fault, blank: 'legs' };
  }
  return outlineOf(figure).length === 0 ? reasonOf('figure.nothing', {}) : undefined;
}

/** The profiles that a body is to be made from, or why not. */
export function requireProfiles(
  draft: KadrelDocument,
  ids: readonly ItemId[],
  blank: string,
): Refusal | undefined {
  const other = ids.find((id) => definitionOf(draft, draft.items[id]!).recipe.base.kind !== 'profile');
  return other === undefined
    ? undefined
    : refuse('no-profile.draw', { name: draft.items[other]!.name }, blank);
}

/** The profiles themselves: a link stands for the one it is linked to, in the link's own place. */
export const frameOfProfiles = (draft: KadrelDocument, ids: readonly ItemId[]): Pose =>
  worldFromPart(draft, ids[0]!);
