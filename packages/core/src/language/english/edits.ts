/** British English sentences: steps of profiles that cannot be done. */
import type { Facts } from './facts.ts';

export const CURVE_EDIT_SENTENCES = {
  'edit.corner-kind': () => 'Only corners between lines and arcs can be rounded.',
  'edit.ends-there': () => 'The path already ends at this point.',
  'edit.meets-none': () => 'Going on from this end, it meets no curve.',
  'edit.no-corners': () => 'The outline has no corners.',
  'edit.no-crossing': () => 'Nothing crosses this curve: there is nothing to trim it by.',
  'edit.no-curves': () => 'The profile has no curves left.',
  'edit.no-end': () => 'A closed outline has no end to extend.',
  'edit.no-room': ({ size, first, second }: Facts<'size' | 'first' | 'second'>) =>
    `There is no room for a radius of ${size} mm between ${first} and ${second}.`,
  'edit.off-plane': ({ name }: Facts<'name'>) => `${name} does not lie in its plane.`,
  'edit.one-crossing': () => 'Only one curve crosses this outline: two crossings bound the piece that goes.',
  'edit.short': ({ size, first, second }: Facts<'size' | 'first' | 'second'>) =>
    `${first} or ${second} is shorter than ${size} mm.`,
};
