import { duplicate } from './duplicate.ts';
import { along } from './along.ts';
import { around } from './around.ts';
import { grid } from './grid.ts';
import { path } from './path.ts';
import { reflect } from './reflect.ts';
import { pattern } from './pattern.ts';
import { omit } from './omit.ts';
import { free } from './free.ts';
import { dissolve } from './dissolve.ts';
import { unlink } from './unlink.ts';

/** In the order in which people see them. */
export const REPEAT = [
  duplicate,
  along,
  around,
  grid,
  path,
  reflect,
  pattern,
  omit,
  free,
  dissolve,
  unlink,
] as const;
