/** A sheet as it stands on paper, drawn in this process. */
import {
  composeSheet,
  type DrawnView,
  type KadrelDocument,
  type Sheet,
  type SheetPicture,
  type TiesFound,
} from '@kadrel/core';
import type { Evaluator } from './evaluate.ts';

/** Throws BuildError. */
export function pictureOfSheet(kernel: Evaluator, document: KadrelDocument, sheet: Sheet): SheetPicture {
  const views = Object.keys(sheet.views).map((view) => {
    const drawn = kernel.answer(document, { ask: 'drawn', sheet: sheet.id, view }) as DrawnView;
    return [view, drawn] as const;
  });
  const ties = kernel.answer(document, { ask: 'ties', sheet: sheet.id }) as TiesFound;
  return composeSheet(document, sheet, { views: Object.fromEntries(views), ties });
}
