/** What is within reach of the pointer as a list, and the field for a distance along a guide: both at the pointer. */
import clsx from 'clsx';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { Stage } from '../viewport/stage.ts';
import { useSession } from './context.ts';

/** What is within reach of the pointer, as a list. */
export function CatchList({ stage }: { stage: Stage }) {
  const shown = useStore(stage.catcher.lists.shown, (state) => state.list);
  if (!shown) return null;
  return (
    <ul
      className="menu absolute z-20 w-64"
      style={{
        left: Math.max(4, Math.min(shown.left, stage.canvas.clientWidth - 264)),
        top: Math.max(4, Math.min(shown.top, stage.canvas.clientHeight - 34 * shown.rows.length - 16)),
      }}
      data-within-reach=""
      aria-label="Within reach"
      onPointerDown={(event) => event.stopPropagation()}
    >
      {shown.rows.map(({ title, detail }, i) => (
        <li key={`${title} ${detail} ${i}`}>
          <button type="button" className="menu-item" onClick={() => shown.choose(i)}>
            <kbd className={clsx('key', i > 8 && 'invisible')}>{i + 1}</kbd>
            <span className="font-semibold">{title}</span>
            <span className="flex-1 truncate text-ink2">{detail}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** A number typed while a guide is caught: the distance along it. */
export function AlongGuide({ stage }: { stage: Stage }) {
  const typing = useStore(stage.catcher.lists.shown, (state) => state.typing);
  const session = useSession();
  const field = useRef<HTMLInputElement>(null);
  const [isBad, setIsBad] = useState(false);
  useEffect(() => {
    setIsBad(false);
    // What was typed first stands in the field; the next characters follow it.
    const input = field.current;
    input?.focus();
    input?.setSelectionRange(input.value.length, input.value.length);
  }, [typing]);
  if (!typing) return null;
  const close = () => stage.catcher.lists.stopTyping();
  return (
    <label
      className="blank absolute z-20 bg-sheet shadow-md"
      style={{ left: typing.left, top: typing.top }}
      data-bad={isBad}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <span className="text-ink2">along {typing.words}</span>
      <input
        ref={field}
        className="num"
        aria-label={`Distance along ${typing.words}`}
        aria-invalid={isBad}
        defaultValue={typing.text}
        autoComplete="off"
        onBlur={close}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') return close();
          if (event.key !== 'Enter') return;
          const mm = session.readLength(event.currentTarget.value);
          setIsBad(mm === undefined);
          if (mm === undefined) return;
          typing.take(mm);
          close();
        }}
      />
    </label>
  );
}
