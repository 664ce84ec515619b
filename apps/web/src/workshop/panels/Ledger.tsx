import { ledgerOf, verbNamed, type Edit } from '@kadrel/core';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { useEffect, useMemo, useRef, type CSSProperties, type Ref } from 'react';
import { useSession, useSessionState } from '../context.ts';

/** Of a statement that takes two lines; what it takes is measured once it is shown. */
const LINE_PX = 36;
const OVERSCAN = 8;

/** What the browser says once it is laid out: to ask before would have the whole page laid out for each line. */
const heightOfLine = (
  line: Element,
  entry: ResizeObserverEntry | undefined,
  { itemSizeCache, options, indexFromElement }: Virtualizer<HTMLDivElement, Element>,
): number =>
  entry?.borderBoxSize[0]?.blockSize ??
  itemSizeCache.get(options.getItemKey(indexFromElement(line))) ??
  LINE_PX;

/** The statements in force, in plain words; click one to look at the model as it was then. */
export function Ledger() {
  const edits = useSessionState((state) => state.edits);
  const earlier = useSessionState((state) => state.earlier);
  const lookingAt = useSessionState((state) => state.lookingAt);
  const lines = useMemo(() => ledgerOf(edits), [edits]);
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => frame.current,
    estimateSize: () => LINE_PX,
    getItemKey: (index) => lines[index]!.id,
    measureElement: heightOfLine,
    overscan: OVERSCAN,
  });
  const { scrollToIndex } = virtual;
  useEffect(() => {
    if (lines.length === 0) return;
    // With the next picture: now it would have the whole page laid out first.
    const request = requestAnimationFrame(() => scrollToIndex(lines.length - 1));
    return () => cancelAnimationFrame(request);
  }, [lines.length, scrollToIndex]);
  if (lines.length === 0) return <p className="px-3.5 text-ink3">Nothing has been done yet.</p>;
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-y-auto pb-2">
      {earlier > 0 && <p className="px-3.5 text-[12px] text-ink3">Earlier statements are on their way.</p>}
      <ol className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ key, index, start }) => (
          <Line
            key={key}
            ref={virtual.measureElement}
            edit={lines[index]!}
            index={index}
            isLast={index === lines.length - 1}
            isNow={(lookingAt ?? lines.length) === index + 1}
            style={{ position: 'absolute', top: start, width: '100%' }}
          />
        ))}
      </ol>
    </div>
  );
}

interface LineProps {
  readonly ref: Ref<HTMLLIElement>;
  readonly edit: Edit;
  readonly index: number;
  readonly isLast: boolean;
  readonly isNow: boolean;
  readonly style: CSSProperties;
}

function Line({ ref, edit, index, isLast, isNow, style }: LineProps) {
  const session = useSession();
  const { verb: id, title } = edit.line;
  const known = verbNamed(id)?.name ?? '';
  const verb = title.startsWith(known) && known !== '' ? known : title.split(' ')[0]!;
  return (
    <li
      ref={ref}
      data-index={index}
      className={clsx('group flex items-start', isNow && 'bg-sheet')}
      style={style}
    >
      <button
        type="button"
        className="flex min-w-0 flex-1 gap-2 px-3.5 py-0.5 text-left text-[12px] text-ink2"
        title="Look at the model after this statement"
        onClick={() => session.lookAt(isLast ? null : index + 1)}
      >
        <span className="num w-5 shrink-0 text-right text-ink3">{index + 1}</span>
        <span className="min-w-0 break-words">
          <b className="font-semibold text-ink">{verb}</b>
          {title.slice(verb.length)}
        </span>
      </button>
      {isLast && <LastLine />}
    </li>
  );
}

/** What can be done with the last statement. */
function LastLine() {
  const session = useSession();
  return (
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
  );
}
