/** British English sentences: measuring and wanted fits. */
import type { Facts } from './facts.ts';

export const CHECK_SENTENCES = {
  grades: () => 'Say the fit as hole/shaft, as in H7/g6: D to S, grades 5 to 11.',
  limits: ({ name }: Facts<'name'>) => `${name} has no limits.`,
  'limits.clearance': () => 'Limits are of a clearance: leave them empty, or choose clearance.',
  'limits.lengths': () => 'Limits are for lengths and angles. Leave them empty.',
  'missing.distance-angle': () => 'A distance or an angle is between two: pick the other one.',
  'missing.least': () => 'Say how much clearance: at least, at most, or both.',
  'of-one': ({ distance }: Facts<'distance'>) =>
    `This is told of one thing alone: leave “to” empty, or choose ${distance}.`,
  'too-many.part': () => 'Choose one part, or two.',
};
