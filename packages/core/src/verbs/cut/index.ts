import { cutAlongProfile } from './cut-along.ts';
import { splitSolid } from './split-solid.ts';
import { trimSolid } from './trim-solid.ts';

/** In the order in which people see them. */
export const CUT = [splitSolid, trimSolid, cutAlongProfile] as const;
