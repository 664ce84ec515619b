/** All that can be caught on a sheet. */
import { inOrder, type Sheet, type Told } from '@kadrel/core';
import { paperPlace, type Caught } from '../../session/onSheet.ts';

export const caughtOn = ({ views }: Sheet, replies: Told): Caught[] =>
  inOrder(views).flatMap(([id, view]) =>
    (replies.views[id]?.catches ?? []).map((caught) => ({
      view: id,
      at: paperPlace(view, caught.at),
      caught,
    })),
  );
