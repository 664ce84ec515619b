/** Every sentence of a refusal in British English, by its code. A further language is a further folder of the same codes and facts. */
import { CHECK_SENTENCES } from './check.ts';
import { COMBINE_SENTENCES } from './combine.ts';
import { CUT_SENTENCES } from './cut.ts';
import { CURVE_EDIT_SENTENCES } from './edits.ts';
import { DRAW_SENTENCES } from './draw.ts';
import { EDIT_SENTENCES } from './edit.ts';
import { FILE_SENTENCES } from './files.ts';
import { JOIN_SENTENCES } from './join.ts';
import { KERNEL_SENTENCES } from './kernel.ts';
import { MAKE_SENTENCES } from './make.ts';
import { NUMBERS_SENTENCES } from './numbers.ts';
import { OUTPUT_SENTENCES } from './output.ts';
import { PAGE_SENTENCES } from './page.ts';
import { PLACE_SENTENCES } from './place.ts';
import { RECIPE_SENTENCES } from './recipes.ts';
import { REPEAT_SENTENCES } from './repeat.ts';
import { SHAPE_SENTENCES } from './shape.ts';
import { SHARED_SENTENCES } from './shared.ts';
import { STATEMENT_SENTENCES } from './statement.ts';

/** The groups that it is put together from: no code stands in two of them. */
export const GROUPS = [
  CHECK_SENTENCES,
  COMBINE_SENTENCES,
  CUT_SENTENCES,
  CURVE_EDIT_SENTENCES,
  DRAW_SENTENCES,
  EDIT_SENTENCES,
  FILE_SENTENCES,
  JOIN_SENTENCES,
  KERNEL_SENTENCES,
  MAKE_SENTENCES,
  NUMBERS_SENTENCES,
  OUTPUT_SENTENCES,
  PAGE_SENTENCES,
  PLACE_SENTENCES,
  RECIPE_SENTENCES,
  REPEAT_SENTENCES,
  SHAPE_SENTENCES,
  SHARED_SENTENCES,
  STATEMENT_SENTENCES,
];

export const ENGLISH = {
  ...CHECK_SENTENCES,
  ...COMBINE_SENTENCES,
  ...CUT_SENTENCES,
  ...CURVE_EDIT_SENTENCES,
  ...DRAW_SENTENCES,
  ...EDIT_SENTENCES,
  ...FILE_SENTENCES,
  ...JOIN_SENTENCES,
  ...KERNEL_SENTENCES,
  ...MAKE_SENTENCES,
  ...NUMBERS_SENTENCES,
  ...OUTPUT_SENTENCES,
  ...PAGE_SENTENCES,
  ...PLACE_SENTENCES,
  ...RECIPE_SENTENCES,
  ...REPEAT_SENTENCES,
  ...SHAPE_SENTENCES,
  ...SHARED_SENTENCES,
  ...STATEMENT_SENTENCES,
};
