/** How the members of a pattern stand: data only. core/src/patterns says where that puts them. */
import { z } from 'zod';
import { schemasOf } from '../declare.ts';
import { along } from './along.ts';
import { around } from './around.ts';
import { grid } from './grid.ts';
import { path } from './path.ts';
import { reflection } from './reflection.ts';

export type { Growth } from './along.ts';
export type { Spacing } from './spacing.ts';
export type { WayCurve } from './path.ts';

export const LAYOUTS = [along, around, grid, path, reflection] as const;

export const layoutSchema = z.discriminatedUnion('kind', schemasOf(LAYOUTS));
export type Layout = z.infer<typeof layoutSchema>;
export type LayoutOf<K extends Layout['kind']> = Extract<Layout, { kind: K }>;

const fromZero = () => z.number().int().nonnegative();
/** Which member: its place in the row, or column, row and level of a grid; counted from 0. */
export const memberKeySchema = z.tuple([fromZero(), fromZero(), fromZero()]);
export type MemberKey = z.infer<typeof memberKeySchema>;
