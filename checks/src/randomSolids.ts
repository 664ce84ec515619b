/** Random boxes and cylinders, for checks by the ray caster. */
import { boxPoint, worldFromPart, type Box, type KadrelDocument, type Vec3 } from '@kadrel/core';
import type { Statement } from '@kadrel/testing';
import type { PlainShape } from './rayCaster.ts';

/** How a random solid stands. */
export type Placing = 'turned' | 'along the axes';

/** What makes a solid, and where it is. */
export interface Rolled {
  readonly statements: readonly Statement[];
  /** Round it, in the world: a box, or of what is turned the ball round it as a box. */
  readonly box: Box;
}

/** A box or a cylinder at a random place, along the axes or turned anyhow. */
export function rolledSolid(random: () => number, as: string, placing: Placing): Rolled {
  const whole = (low: number, high: number) => Math.round(low + (high - low) * random());
  const at: Vec3 = [whole(-30, 30), whole(-30, 30), whole(-20, 20)];
  const isBox = random() < 0.5;
  const diameter = whole(6, 26);
  const size: Vec3 = isBox ? [whole(5, 30), whole(5, 30), whole(5, 30)] : [diameter, diameter, whole(5, 35)];
  const low: Vec3 = isBox ? at : [at[0] - diameter / 2, at[1] - diameter / 2, at[2]];
  const solid: Statement = isBox
    ? ['box', { as, size, at }]
    : ['cylinder', { as, diameter, height: size[2], at }];
  const box = { min: low, max: low.map((n, i) => n + size[i]!) as unknown as Vec3 };
  if (placing === 'along the axes') return { statements: [solid], box };
  const turn = [0, 1, 2].map(() => Math.floor(360 * random()));
  const middle = boxPoint(box, [0, 0, 0]);
  const turns = turn.map((angle, i): Statement => [
    'turn',
    { parts: [as], angle, about: 'xyz'[i], centre: 'point', at: [...middle] },
  ]);
  const reach = Math.hypot(...size) / 2;
  const ball = {
    min: middle.map((n) => n - reach) as unknown as Vec3,
    max: middle.map((n) => n + reach) as unknown as Vec3,
  };
  return { statements: [solid, ...turns], box: ball };
}

/** A box or a cylinder of a document, for the ray caster. */
export function plainShape(document: KadrelDocument, id: string): PlainShape {
  const { base } = document.items[id]!.recipe;
  const pose = worldFromPart(document, id);
  if (base.kind === 'box') return { kind: 'box', size: base.size as unknown as Vec3, pose };
  if (base.kind !== 'cylinder') throw new Error(base.kind);
  return { kind: 'cylinder', radius: (base.diameter as number) / 2, height: base.height as number, pose };
}
