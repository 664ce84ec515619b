/** British English sentences: measuring and wanted fits. */
import type { Facts } from './facts.ts';

export const CHECK_SENTENCES = {
  'measure-name': ({ follower }: Facts<'follower'>) =>
    `The variable ${follower} is set from it: leave quotation marks out of its name.`,
  'measure-used': ({ name, follower }: Facts<'name' | 'follower'>) =>
    `The variable ${follower} is set from ${name}: give it a value of its own first.`,
  'along-only': ({ along }: Facts<'along'>) => `Only a ${along} has one: choose that, or leave this empty.`,
  'missing.along': () => 'Say which way it is measured: X, Y or Z, or pick an edge or a face.',
  'missing.path': () => 'Say which path it follows: an edge, or a drawn line.',
  'missing.material': () => 'Say which material it is of.',
  grades: () => 'Say the fit as hole/shaft, as in H7/g6: D to S, grades 5 to 11.',
  limits: ({ name }: Facts<'name'>) => `${name} has no limits.`,
  'limits.clearance': () => 'Limits are of a clearance: leave them empty, or choose clearance.',
  'missing.distance-angle': () => 'A distance or an angle is between two: pick the other one.',
  'missing.least': () => 'Say how much clearance: at least, at most, or both.',
  'of-one': ({ distance }: Facts<'distance'>) =>
    `This is told of one thing alone: leave “to” empty, or choose ${distance}.`,
  'too-many.part': () => 'Choose one part, or two.',
};
