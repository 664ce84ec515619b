/** A field of the statement bar that is a button with a list, and what such fields share. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import type { Blank } from '@kadrel/core';
import clsx from 'clsx';
import { useEffect, useRef, type KeyboardEvent, type RefObject } from 'react';
import { entryKey, type Entry, type Statement } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import { useSession } from './context.ts';

/** What every field of the bar is given. */
export interface FieldProps {
  readonly id: string;
  readonly blank: Blank;
  readonly statement: Statement;
  readonly isBad: boolean;
}

/** Whether an entry has the focus. */
export const isAt = (focus: Entry | null, entry: Entry) =>
  focus !== null && entryKey(focus) === entryKey(entry);

/** Takes the focus when Tab comes to a field that is a button. */
export function useFocusedButton({ isActive }: { readonly isActive: boolean }) {
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isActive) button.current?.focus();
  }, [isActive]);
  return button;
}

/** Enter carries the statement out here as in every field; the space bar and the arrows open the list. */
export const commitsByEnter =
  (session: Session, button: RefObject<HTMLButtonElement | null>) => (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || event.target !== button.current) return;
    event.preventDefault();
    event.stopPropagation();
    void session.commit();
  };

/** A line of a list. */
export interface Option {
  readonly key: string;
  readonly words: string;
  readonly choose: () => void;
  readonly isChosen?: boolean;
}

/** A button that opens a list of what may stand here, some of which is picked in the views. */
export function PickList({
  id,
  blank,
  statement,
  isBad,
  shown,
  options,
}: FieldProps & { shown: string; options: readonly Option[] }) {
  const session = useSession();
  const entry: Entry = { blank: id, axis: null };
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';
  const button = useFocusedButton({ isActive });
  return (
    <Menu>
      <MenuButton
        ref={button}
        className="blank"
        data-blank={id}
        data-active={isActive || (id === 'in' && statement.picking !== null)}
        data-bad={isBad}
        disabled={statement.phase === 'working'}
        aria-label={`${blank.label}: ${shown}`}
        title={blank.about}
        onFocus={() => !isActive && session.focus(entry)}
        onKeyDownCapture={commitsByEnter(session, button)}
      >
        {shown}
      </MenuButton>
      <MenuItems
        modal={false}
        anchor={{ to: 'bottom start', gap: 6 }}
        className="menu max-h-80 w-60 overflow-auto"
      >
        {options.map(({ key, words, choose, isChosen }) => (
          <MenuItem key={key}>
            <button
              type="button"
              className={clsx('menu-item', isChosen && 'font-semibold text-plum')}
              onClick={choose}
            >
              {words}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
