/** What the kernel tells of a sheet, view by view; again where what it rests on has changed. */
import {
  inOrder,
  type DrawnView,
  type KadrelDocument,
  type Sheet,
  type SheetView,
  type TiesFound,
  type SheetReplies,
} from '@kadrel/core';
import { useEffect, useRef, useState } from 'react';
import type { Session } from '../../session/store.ts';

export interface Drawing {
  readonly replies: SheetReplies;
  /** How many of its views are drawn as the model is now, while more are coming. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  /** Why it could not be drawn anew. */
  readonly trouble: string | null;
  /** Somebody stopped it before all views were drawn. */
  readonly isStopped: boolean;
}

const NOTHING: Drawing = {
  replies: { views: {}, ties: {} },
  progress: null,
  trouble: null,
  isStopped: false,
};

/** What a drawn view rests on: documents share what has not changed. */
interface Basis {
  readonly items: KadrelDocument['items'];
  readonly kept: KadrelDocument['views'];
  readonly view: SheetView;
}

const isSame = (a: Basis | undefined, b: Basis) =>
  a !== undefined && a.items === b.items && a.kept === b.kept && isSameLook(a.view, b.view);

/** Where a view is put, and how its lines are drawn, is no matter of the kernel's. */
const isSameLook = (a: SheetView, b: SheetView) =>
  JSON.stringify([a.look, a.anchor, a.parts]) === JSON.stringify([b.look, b.anchor, b.parts]);

/** What was drawn before stays until it is drawn anew; `again` goes on where it was stopped. */
export function useSheetReplies(
  session: Session,
  document: KadrelDocument,
  sheet: Sheet,
): Drawing & { readonly again: () => void } {
  const [drawing, setDrawing] = useState<Drawing>(NOTHING);
  const [round, setRound] = useState(0);
  const bases = useRef(new Map<string, Basis>());
  useEffect(() => {
    bases.current.clear();
    setDrawing(NOTHING);
  }, [sheet.id]);
  useEffect(() => {
    let isOver = false;
    const tell = (change: (before: Drawing) => Drawing) => {
      if (!isOver) setDrawing(change);
    };
    follow({ session, document, sheet, bases: bases.current, tell, isOver: () => isOver }).catch(
      (error: unknown) => {
        tell((before) => ({ ...before, progress: null, ...whyNot(error) }));
      },
    );
    return () => {
      isOver = true;
    };
  }, [session, document, sheet, round]);
  return { ...drawing, again: () => setRound((before) => before + 1) };
}

function whyNot(error: unknown): Pick<Drawing, 'trouble' | 'isStopped'> {
  if ((error as { code?: string }).code === 'cancelled') return { trouble: null, isStopped: true };
  return { trouble: error instanceof Error ? error.message : String(error), isStopped: false };
}

interface Following {
  readonly session: Session;
  readonly document: KadrelDocument;
  readonly sheet: Sheet;
  readonly bases: Map<string, Basis>;
  readonly tell: (change: (before: Drawing) => Drawing) => void;
  readonly isOver: () => boolean;
}

async function follow({ session, document, sheet, bases, tell, isOver }: Following): Promise<void> {
  const basisOf = (view: SheetView): Basis => ({ items: document.items, kept: document.views, view });
  const wanted = inOrder(sheet.views).filter(([id, view]) => !isSame(bases.get(id), basisOf(view)));
  const step = (done: number) => (done < wanted.length ? { done, of: wanted.length } : null);
  tell((before) => ({ ...before, progress: step(0), trouble: null, isStopped: false }));
  const ties = (await session.ask(document, { ask: 'ties', sheet: sheet.id })) as TiesFound;
  tell((before) => ({ ...before, replies: { ...before.replies, ties } }));
  for (const [i, [id, view]] of wanted.entries()) {
    if (isOver()) return;
    const drawn = (await session.ask(document, { ask: 'drawn', sheet: sheet.id, view: id })) as DrawnView;
    if (isOver()) return;
    bases.set(id, basisOf(view));
    tell((before) => ({
      ...before,
      replies: { ties: before.replies.ties, views: { ...before.replies.views, [id]: drawn } },
      progress: step(i + 1),
    }));
  }
}
