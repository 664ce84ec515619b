import { emboss } from './emboss.ts';
import { MADE_STEPS } from '../../recipes/steps/index.ts';
import { shapingVerb } from '../shared/shapingVerb.ts';

/** In the order in which people see them. */
export const SHAPE = [emboss, ...MADE_STEPS.map(shapingVerb)] as const;
