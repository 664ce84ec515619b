/** British English sentences: what would do instead, where it was looked for. */
import type { Facts } from '../facts.ts';

export const REMEDIES = {
  'largest.radius': ({ size }: Facts<'size'>) => `The largest radius that fits here is about ${size}.`,
  'largest.radii': ({ size }: Facts<'size'>) =>
    `The largest radius, with the radii of single edges in the same proportion, that fits here is about ${size}.`,
  'largest.width': ({ size }: Facts<'size'>) => `The largest width that fits here is about ${size}.`,
  'largest.thickness': ({ size }: Facts<'size'>) => `The largest thickness that fits here is about ${size}.`,
  'largest.distance': ({ size }: Facts<'size'>) => `The largest distance that fits here is about ${size}.`,
  'largest.clearance': ({ size }: Facts<'size'>) => `The largest clearance that fits here is about ${size}.`,
  'largest.none': () => 'No smaller one seems to fit either: choose others, or do this before other steps.',
  'largest.angle': ({ size }: Facts<'size'>) => `The largest angle that fits here is about ${size}.`,
};
