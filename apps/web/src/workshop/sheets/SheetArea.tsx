/** A drawing sheet instead of the views: its paper, which can be zoomed and moved, and what stands on it. */
import { composeSheet, type Sheet, type SheetPicture } from '@kadrel/core';
import { useMemo } from 'react';
import { shownDocument } from '../../session/store.ts';
import { useSession, useSessionState } from '../context.ts';
import { caughtOn } from './caught.ts';
import { Paper } from './Paper.tsx';
import { useSheetReplies, type Drawing } from './useSheetReplies.ts';

/** The open sheet, if there is one. */
export function SheetArea({ openOutput }: { openOutput: () => void }) {
  const openSheet = useSessionState((state) => state.openSheet);
  const sheet = useSessionState(({ document }) =>
    openSheet === null ? undefined : document.sheets[openSheet],
  );
  return sheet ? <OpenSheet sheet={sheet} openOutput={openOutput} /> : null;
}

interface OpenSheetProps {
  readonly sheet: Sheet;
  readonly openOutput: () => void;
}

function OpenSheet({ sheet, openOutput }: OpenSheetProps) {
  const session = useSession();
  const present = useSessionState((state) => state.document);
  const lookingAt = useSessionState((state) => state.lookingAt);
  const edits = useSessionState((state) => state.edits);
  const document = useMemo(
    () => shownDocument({ document: present, edits, lookingAt }),
    [present, edits, lookingAt],
  );
  const shown = document.sheets[sheet.id] ?? sheet;
  const drawing = useSheetReplies(session, document, shown);
  const { replies, progress, trouble, isStopped } = drawing;
  const picture = useMemo(() => composeSheet(document, shown, replies), [document, shown, replies]);
  const catches = useMemo(() => caughtOn(shown, replies), [shown, replies]);
  return (
    <section
      className="absolute inset-0 z-20 flex flex-col bg-ground"
      aria-label={`Sheet: ${shown.name}`}
      data-drawn={progress === null && trouble === null && !isStopped}
    >
      <SheetBar sheet={shown} openOutput={openOutput} />
      <Paper sheet={shown} picture={picture} catches={catches} />
      <Faults picture={picture} />
      <DrawingState {...drawing} stop={() => session.cancelWork()} />
    </section>
  );
}

interface DrawingStateProps extends Pick<Drawing, 'progress' | 'trouble' | 'isStopped'> {
  readonly stop: () => void;
  readonly again: () => void;
}

/** How far it is drawn, and what can be done about that. */
function DrawingState({ progress, trouble, isStopped, stop, again }: DrawingStateProps) {
  const words = isStopped
    ? 'Stopped: some views show the model as it was before, or nothing.'
    : (trouble ?? (progress && `Drawing view ${progress.done + 1} of ${progress.of}…`));
  return (
    <div className="absolute right-3 bottom-2 flex items-center gap-2">
      <p role="status" className="rounded border border-rule bg-sheet px-2 py-0.5 text-ink2 empty:hidden">
        {words}
      </p>
      {progress && (
        <button type="button" className="button" onClick={stop}>
          Stop drawing
        </button>
      )}
      {isStopped && (
        <button type="button" className="button" onClick={again}>
          Draw again
        </button>
      )}
    </div>
  );
}

/** Each names the entry that it is of, and selects it. */
function Faults({ picture }: { picture: SheetPicture }) {
  const session = useSession();
  if (picture.faults.length === 0) return null;
  return (
    <ul
      aria-label="What is wrong on this sheet"
      className="absolute bottom-2 left-3 max-h-40 max-w-[60%] overflow-y-auto rounded border border-bad bg-sheet py-1"
    >
      {picture.faults.map(({ of, words }) => (
        <li key={`${of} ${words}`}>
          <button
            type="button"
            className="w-full px-3 py-0.5 text-left text-bad hover:bg-tint"
            onClick={() => session.set({ sheetEntry: of })}
          >
            {words}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What is added to a sheet most, and the way back. */
const ADDED = [
  ['sheet-view', 'View'],
  ['dimension', 'Dimension'],
  ['sheet-note', 'Note'],
  ['detail', 'Detail'],
  ['north-arrow', 'North'],
] as const;

function SheetBar({ sheet, openOutput }: OpenSheetProps) {
  const session = useSession();
  return (
    <header className="flex h-9 shrink-0 items-center gap-1 border-b border-rule bg-sheet px-3">
      <h2 className="mr-2 truncate font-bold">{sheet.name}</h2>
      {ADDED.map(([verb, words]) => (
        <button key={verb} type="button" className="quiet" onClick={() => session.start(verb)}>
          {words}
        </button>
      ))}
      <button type="button" className="quiet" onClick={openOutput}>
        Write to a file
      </button>
      <span className="flex-1" />
      <button type="button" className="quiet" onClick={() => session.openSheet(null)}>
        Back to the views
      </button>
    </header>
  );
}
