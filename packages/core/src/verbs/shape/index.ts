import { emboss } from './emboss.ts';
import { mirrorJoin } from './mirror-join.ts';
import { offsetFace } from './offset-face.ts';
import { reshape } from './reshape.ts';
import { MADE_STEPS } from '../../recipes/steps/index.ts';
import { shapingVerb } from '../shared/shapingVerb.ts';

/** In the order in which people see them. */
export const SHAPE = [...MADE_STEPS.map(shapingVerb), offsetFace, reshape, mirrorJoin, emboss] as const;
