/** British English sentences: making primitives and taking parts from racks. */
import type { Facts } from './facts.ts';

export const MAKE_SENTENCES = {
  'count.levels': ({ index }: Facts<'index'>) => `Row ${index}: sides are a whole number from 3 to 100.`,
  'no-dock.named': ({ by }: Facts<'by'>) => `It has no dock named ${by} that goes there.`,
  'no-dock.none-docks': () => 'None of its docks matches there.',
  'size.of-rack-part': ({ name, size, words }: Facts<'name' | 'size' | 'words'>) =>
    `${name} has no size ${size}${words}.`,
  'size.levels': ({ index }: Facts<'index'>) => `Row ${index}: widths and heights are more than zero.`,
};
