/** Plain solids: bounded by planes, cylinders, cones, balls and rings, and exact under any linear map. */
import { z } from 'zod';
import { schemasOf } from '../declare.ts';
import { box } from './box.ts';
import { cap } from './cap.ts';
import { cone } from './cone.ts';
import { cylinder } from './cylinder.ts';
import { frustum } from './frustum.ts';
import { prism } from './prism.ts';
import { sphere } from './sphere.ts';
import { torus } from './torus.ts';
import { tube } from './tube.ts';
import { wedge } from './wedge.ts';

export const PLAIN_SOLIDS = [box, cylinder, sphere, cone, tube, torus, prism] as const;

/** Those that a linear map turns into something else. */
export const OTHER_PRIMITIVES = [wedge, cap, frustum] as const;

/** What has a verb of its own that is made from its numbers, in the order in which people see them. */
export const PRIMITIVES = [...PLAIN_SOLIDS, ...OTHER_PRIMITIVES] as const;

export const solidBase = z.discriminatedUnion('kind', schemasOf(PLAIN_SOLIDS));
/** Bases that stand for themselves: no operands, no map. */
export type SolidBase = z.infer<typeof solidBase>;
