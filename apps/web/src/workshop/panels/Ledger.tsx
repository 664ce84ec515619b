import { ledgerOf, verbNamed } from '@kadrel/core';
import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import { useSession, useSessionState } from '../context.ts';

/** The statements in force, in plain words; click one to look at the model as it was then. */
export function Ledger() {
  const session = useSession();
  const edits = useSessionState((state) => state.edits);
  const lookingAt = useSessionState((state) => state.lookingAt);
  const lines = ledgerOf(edits);
  const end = useRef<HTMLLIElement>(null);
  useEffect(() => {
    // Newer browsers answer with a promise, which is no clean-up.
    void end.current?.scrollIntoView({ block: 'nearest' });
  }, [lines.length]);
  return (
    <ol className="min-h-0 flex-1 overflow-y-auto pb-2">
      {lines.map((edit, i) => {
        const { verb: id, title } = edit.line;
        const known = verbNamed(id)?.name ?? '';
        const verb = title.startsWith(known) && known !== '' ? known : title.split(' ')[0]!;
        const isNow = lookingAt === null ? i === lines.length - 1 : lookingAt === i + 1;
        return (
          <li
            key={edit.id}
            ref={i === lines.length - 1 ? end : undefined}
            className={clsx('group flex items-start', isNow && 'bg-sheet')}
          >
            <button
              type="button"
              className="flex min-w-0 flex-1 gap-2 px-3.5 py-0.5 text-left text-[12px] text-ink2"
              title="Look at the model after this statement"
              onClick={() => session.lookAt(i === lines.length - 1 ? null : i + 1)}
            >
              <span className="num w-5 shrink-0 text-right text-ink3">{i + 1}</span>
              <span className="min-w-0 break-words">
                <b className="font-semibold text-ink">{verb}</b>
                {title.slice(verb.length)}
              </span>
            </button>
            {i === lines.length - 1 && (
              <span className="flex shrink-0 flex-col items-end">
                <button
                  type="button"
                  className="quiet text-[12px] text-plum"
                  title="Open its blanks again (Shift+Enter)"
                  onClick={() => session.revise()}
                >
                  Revise
                </button>
                <button
                  type="button"
                  className="quiet text-[12px] text-plum"
                  title="The same on what is selected now (Ctrl+Enter)"
                  onClick={() => session.again()}
                >
                  Again
                </button>
              </span>
            )}
          </li>
        );
      })}
      {lines.length === 0 && <li className="px-3.5 text-ink3">Nothing has been done yet.</li>}
    </ol>
  );
}
