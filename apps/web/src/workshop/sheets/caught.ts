/** All that can be caught on a sheet. */
import { inOrder, type Sheet, type SheetReplies } from '@kadrel/core';
import { paperPlace, type Caught } from '../../session/onSheet.ts';

export const caughtOn = ({ views }: Sheet, replies: SheetReplies): Caught[] =>
  inOrder(views).flatMap(([id, view]) =>
    (replies.views[id]?.catches ?? []).map((caught) => ({
      view: id,
      at: paperPlace(view, caught.at),
      caught,
    })),
  );
