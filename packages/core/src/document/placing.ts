/** Putting parts to where they are to stand in the world. */
import { chain, degreesOfTurn, inverse, isIdentity, isSameTurn, turnBack, type Pose } from '../space/pose.ts';
import { cleanLength, roundAngle } from '../space/rounding.ts';
import type { Vec3 } from '../space/vector.ts';
import { poseOfPlacement, shiftedBy, valueOf, worldFromParent } from './items.ts';
import type { KadrelDocument, NumVector, Part } from './schema.ts';

/** Shifts a part by a world vector. An axis along which nothing moves keeps its formula and its bits. */
export function shiftPart(draft: KadrelDocument, part: Part, by: Vec3): void {
  const { turn } = worldFromParent(draft, part.id);
  const local = isIdentity(turn) ? by : turnBack(turn, by);
  part.placement.origin = shiftedBy(part.placement.origin, local);
}

/** Puts a part's own frame to a world pose. Numbers that do not change keep their formula and their bits. */
export function placePart(draft: KadrelDocument, part: Part, pose: Pose): void {
  const parent = worldFromParent(draft, part.id);
  const local =
    isIdentity(parent.turn) && parent.shift.every((n) => n === 0) ? pose : chain(inverse(parent), pose);
  const keep = (old: NumVector, now: Vec3) =>
    old.map((n, axis) => (valueOf(n) === now[axis] ? n : now[axis]!)) as NumVector;
  part.placement.origin = keep(
    part.placement.origin,
    local.shift.map((n) => cleanLength(n)) as unknown as Vec3,
  );
  if (!isSameTurn(poseOfPlacement(part.placement).turn, local.turn))
    part.placement.turn = keep(
      part.placement.turn,
      degreesOfTurn(local.turn).map(roundAngle) as unknown as Vec3,
    );
}
