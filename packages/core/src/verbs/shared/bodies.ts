/** What the verbs that make bodies from profiles share. */
import type { BodyBase, Regions } from '../../recipes/bodies/index.ts';
import { isFlatPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { baseKind } from '../../recipes/index.ts';
import { NO_TURN, roundPoint, turnBack, type Pose } from '../../space/pose.ts';
import { worldDirection } from '../../statement/directions.ts';
import { combine } from './combine.ts';
import {
  isRefusal,
  needed,
  optional,
  refuse,
  type Direction,
  type Outcome,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { frameOfProfiles } from './drawing.ts';
import { addPart } from './addPart.ts';
import { asRefusal } from './recipeBlanks.ts';
import { degreesOf } from '../../statement/planes.ts';

export const profilesBlank = needed('parts', 'profiles', 'The profiles it is made from, all in one plane.', {
  least: 1,
});
export const regionsBlank = needed(
  'regions',
  'regions',
  'Click in one; “all” fills them by turns from the outside inward.',
  { default: 'all' },
);
export const howBlank = needed('choice', 'as', 'Whether it stands by itself.', {
  default: 'new',
  choices: { new: 'a new part', join: 'joined to', cut: 'cut out of' },
});
export const intoBlank = optional('part', 'part', 'What it is joined to or cut out of.');
export const endsBlank = needed(
  'choice',
  'ends',
  'A body, or a surface: only the sides, open where they end.',
  {
    default: 'capped',
    choices: { capped: 'as a body', open: 'as a surface' },
    rare: true,
  },
);
export const endsOf = (choice: string): 'capped' | 'open' => (choice === 'open' ? 'open' : 'capped');
export const asBlank = optional('name', 'name', 'What the new part is called.');

/** Regions as documents hold them: copies, since what a statement was given is shared. */
export const plainRegions = (regions: Regions): Regions =>
  regions === 'all' ? 'all' : regions.map(({ at, curves }) => ({ at: [...at], curves: [...curves] }));

/** A direction that leans out of the plane by less than this (sine) is taken to lie in it. */
const FLAT_SINE = 1e-3;

/** How far a way goes along the X and Y of a plane for each mm that it goes out of it; square to the plane where none is said. */
export function slantOf(along: Direction | undefined, plane: Pose): [number, number] | Refusal {
  if (!along) return [0, 0];
  const [x, y, z] = turnBack(plane.turn, worldDirection(along, NO_TURN));
  return Math.abs(z) < FLAT_SINE ? refuse('along', {}, 'along') : [x / z + 0, y / z + 0];
}

interface Body {
  readonly name: string;
  readonly base: BodyBase;
  readonly profiles: readonly ItemId[];
  readonly how: string;
  readonly into: ItemId | undefined;
}

/** A part with the recipe, in the place of its first profile; joined to another part or cut out of it where that is said. */
export function addBody(
  draft: KadrelDocument,
  { name, base, profiles, how, into }: Body,
  context: VerbContext,
): Outcome | Refusal {
  if (how !== 'new' && into === undefined) return refuse('missing.into', {}, 'into');
  const fault = asRefusal(baseKind(base)?.fault?.(base));
  if (fault) return fault;
  const frame = frameOfProfiles(draft, profiles);
  const id = addPart(draft, context, { name, base, at: [...roundPoint(frame.shift)] });
  draft.items[id]!.placement.turn = degreesOf(frame);
  if (how === 'new' || into === undefined) return { result: id, select: [id] };
  if (isFlatPart(draft, draft.items[into]!))
    return refuse('flat.solid', { name: draft.items[into]!.name }, 'into');
  const done = combine(
    draft,
    { how: how === 'join' ? 'union' : 'subtract', base: into, others: [id], as: undefined },
    context,
  );
  return isRefusal(done) ? { ...done, blank: 'into' } : done;
}
