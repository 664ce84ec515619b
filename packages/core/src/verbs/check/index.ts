import { changeCheck } from './change-check.ts';
import { forgetCheck } from './forget-check.ts';
import { meant } from './meant.ts';
import { measure } from './measure.ts';
import { wantedFit } from './wanted-fit.ts';

/** In the order in which people see them. */
export const CHECK = [measure, wantedFit, meant, changeCheck, forgetCheck] as const;
