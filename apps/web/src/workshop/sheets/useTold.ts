/** What the kernel tells of a sheet, view by view, again whenever the model changes. */
import {
  inOrder,
  type DrawnView,
  type KadrelDocument,
  type Sheet,
  type TiesFound,
  type Told,
} from '@kadrel/core';
import { useEffect, useState } from 'react';
import type { Session } from '../../session/store.ts';

export interface Drawing {
  readonly told: Told;
  /** How many of its views are drawn as the model is now, while more are coming. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  /** Why it could not be drawn anew. */
  readonly trouble: string | null;
}

const NOTHING: Drawing = { told: { views: {}, ties: {} }, progress: null, trouble: null };

/** What was told before stays until it is told anew. */
export function useTold(session: Session, document: KadrelDocument, sheet: Sheet | undefined): Drawing {
  const [drawing, setDrawing] = useState<Drawing>(NOTHING);
  const id = sheet?.id;
  useEffect(() => setDrawing(NOTHING), [id]);
  useEffect(() => {
    if (!sheet) return;
    let isOver = false;
    const follow = async () => {
      const views = inOrder(sheet.views);
      const tell = (change: (before: Drawing) => Drawing) => {
        if (!isOver) setDrawing(change);
      };
      const step = (done: number) => (done < views.length ? { done, of: views.length } : null);
      tell((before) => ({ ...before, progress: step(0), trouble: null }));
      const ties = (await session.ask(document, { ask: 'ties', sheet: sheet.id })) as TiesFound;
      tell((before) => ({ ...before, told: { ...before.told, ties } }));
      for (const [i, [view]] of views.entries()) {
        if (isOver) return;
        const drawn = (await session.ask(document, { ask: 'drawn', sheet: sheet.id, view })) as DrawnView;
        tell((before) => ({
          ...before,
          told: { ties: before.told.ties, views: { ...before.told.views, [view]: drawn } },
          progress: step(i + 1),
        }));
      }
    };
    follow().catch((error: unknown) => {
      const trouble = error instanceof Error ? error.message : String(error);
      if (!isOver) setDrawing((before) => ({ ...before, progress: null, trouble }));
    });
    return () => {
      isOver = true;
    };
  }, [session, document, sheet]);
  return drawing;
}
