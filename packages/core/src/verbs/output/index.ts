import { changeDimension } from './change-dimension.ts';
import { changeNote } from './change-note.ts';
import { changeSheet } from './change-sheet.ts';
import { changeSheetView } from './change-sheet-view.ts';
import { deleteSheet } from './delete-sheet.ts';
import { detail } from './detail.ts';
import { dimension } from './dimension.ts';
import { northArrow } from './north-arrow.ts';
import { placeOnSheet } from './place-on-sheet.ts';
import { sheet } from './sheet.ts';
import { sheetNote } from './sheet-note.ts';
import { sheetView } from './sheet-view.ts';
import { stackedModel } from './stacked-model.ts';
import { takeOffSheet } from './take-off-sheet.ts';

/** In the order in which people see them. */
export const OUTPUT = [
  sheet,
  sheetView,
  detail,
  dimension,
  sheetNote,
  northArrow,
  stackedModel,
  changeSheet,
  changeSheetView,
  changeDimension,
  changeNote,
  placeOnSheet,
  takeOffSheet,
  deleteSheet,
] as const;
