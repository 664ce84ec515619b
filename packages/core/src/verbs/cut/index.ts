import { cutAlongProfile } from './cut-along.ts';
import { cutByPart } from './cut-by.ts';
import { splitSolid } from './split-solid.ts';
import { trimSolid } from './trim-solid.ts';

/** In the order in which people see them. */
export const CUT = [splitSolid, trimSolid, cutAlongProfile, cutByPart] as const;
