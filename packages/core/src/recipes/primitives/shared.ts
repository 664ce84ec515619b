/** What several plain solids have. */
import { valueOf, type Num } from '../numbers.ts';
import { length } from '../fields.ts';
import type { Box } from '../../space/box.ts';

export const diameterOf = (about: string) => length('Diameter', about, { above: 0, half: 'radius' });
export const heightOf = () => length('Height', 'Along Z.', { above: 0 });

export const ON_ITS_BOTTOM = ['centre', 'The centre of the bottom.'] as const;
export const ROUND_ITS_CENTRE = ['centre', 'Its centre.'] as const;

/** Round about Z, standing on its origin. */
export const upright = (diameter: number, height: Num): Box => ({
  min: [-diameter / 2, -diameter / 2, 0],
  max: [diameter / 2, diameter / 2, valueOf(height)],
});
