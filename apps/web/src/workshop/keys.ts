/** Keys of the workshop: the verbs' own, made from their declarations, and a few for looking round. */
import { VERBS } from '@kadrel/core';
import { useEffect } from 'react';
import { entryKey } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import type { Viewport } from '../viewport/viewport.ts';
import { startVerb } from './start.ts';

/** Keys that are no verb's: key → what it does. The shortcuts sheet lists them. */
export const OTHER_KEYS: readonly (readonly [key: string, about: string])[] = [
  ['/', 'Find a verb'],
  ['Tab', 'Next blank of the statement'],
  ['Enter', 'Commit the statement'],
  ['Esc', 'Leave the statement without a trace'],
  ['F', 'Fit to the selection'],
  ['Shift+F', 'Fit to everything'],
  ['Backspace', 'Previous view'],
  ['Ctrl+A', 'Select everything'],
  ['Ctrl+Z', 'Undo'],
  ['Ctrl+Shift+Z', 'Redo'],
  ['?', 'This sheet'],
];

/** Marks the fields that the bar puts the typing into. */
export const ENTRY_ATTRIBUTE = 'data-entry';
const TYPED_INTO_A_FIELD = /^[\d.\-+(]$/;

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
const isInDialog = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest('[role="dialog"],[role="menu"],[role="listbox"]') !== null;

function keyOf(event: KeyboardEvent): string {
  const name = event.key.length === 1 ? event.key.toUpperCase() : event.key;
  const shifted = event.shiftKey && event.key.length === 1 && /[A-Z]/.test(name);
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shifted ? 'Shift+' : ''}${name}`;
}

export function useKeys(session: Session, viewport: Viewport | null, openSheet: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isField(event.target) || isInDialog(event.target) || event.altKey) return;
      const key = keyOf(event);
      if (handle(key, event)) event.preventDefault();
    };

    const handle = (key: string, event: KeyboardEvent): boolean => {
      const { statement, lookingAt, document: model } = session.store.getState();
      const onButton =
        event.target instanceof HTMLElement &&
        event.target.closest('button,a,[role="button"],[role="slider"],[role="treeitem"]') !== null;
      if (key === 'Escape') {
        if (lookingAt !== null) session.lookAt(null);
        else if (statement) session.leave();
        else session.select([]);
        return true;
      }
      if (key === 'Ctrl+Z') return (session.undo(), true);
      if (key === 'Ctrl+Shift+Z' || key === 'Ctrl+Y') return (session.redo(), true);
      if (key === 'Ctrl+A')
        return (
          session.select(
            Object.values(model.items)
              .filter((part) => part.parent === null && part.visible)
              .map((part) => part.id),
          ),
          true
        );
      if (key === '?' || key === 'Shift+?') return (openSheet(), true);
      if (key === '/') {
        document.querySelector<HTMLElement>('[data-testid="find-verb"]')?.focus();
        return true;
      }
      if (statement?.phase === 'open' && !onButton) {
        if (key === 'Enter') return (void session.commit(), true);
        if (key === 'Tab') return (session.walk(event.shiftKey ? -1 : 1), true);
      }
      if (statement && TYPED_INTO_A_FIELD.test(event.key) && !event.ctrlKey) return focusEntry();
      if (key === 'F' || key === 'Shift+F') return (viewport?.fit(key === 'F' ? 'selection' : 'all'), true);
      if (key === 'Backspace') return (viewport?.previousView(), true);
      const verb = VERBS.find((candidate) => candidate.key === key);
      if (!verb || (onButton && key === 'Enter')) return false;
      startVerb(session, verb);
      return true;
    };

    /** The key that is pressed goes into the field by itself, once that has the focus. */
    const focusEntry = (): boolean => {
      const { statement } = session.store.getState();
      if (!statement?.focus) return false;
      const field = document.querySelector<HTMLInputElement>(
        `[${ENTRY_ATTRIBUTE}="${entryKey(statement.focus)}"]`,
      );
      field?.focus();
      field?.select?.();
      return false;
    };

    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [session, viewport, openSheet]);
}
