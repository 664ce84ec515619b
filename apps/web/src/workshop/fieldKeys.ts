/** Keys that are about the fields of the statement bar, wherever the focus is. */
import { CHOSEN_TYPES, verbNamed } from '@kadrel/core';
import { flushSync } from 'react-dom';
import { entryKey, withOtherSign, type Entry } from '../session/statement.ts';
import { firstNumber } from '../session/waiting.ts';
import type { Session } from '../session/store.ts';

/** Marks the fields that the bar puts the typing into. */
export const ENTRY_ATTRIBUTE = 'data-entry';
/** Marks fields in which nothing is typed that is not in the model: undo there means the model. */
export const UNTOUCHED_ATTRIBUTE = 'data-untouched';
/** What begins a number. */
export const BEGINS_A_NUMBER = /^[\d.\-+(]$/;

const fieldOf = (entry: Entry) =>
  document.querySelector<HTMLInputElement>(`[${ENTRY_ATTRIBUTE}="${entryKey(entry)}"]`);

const PICKS = new Set<string>([
  'point',
  'feature',
  'target',
  'direction',
  'path',
  'parts',
  'part',
  ...CHOSEN_TYPES,
]);

/** While the focus stands on a pick just because the verb put it there, a number goes to the verb's first number. */
export function toFirstNumber(session: Session): void {
  const { statement } = session.store.getState();
  if (statement?.phase !== 'open' || !statement.isFocusGiven || statement.focus?.axis !== null) return;
  const type = verbNamed(statement.verb)!.blanks[statement.focus.blank]!.type;
  const first = PICKS.has(type) ? firstNumber(statement) : null;
  if (!first) return;
  flushSync(() => session.focus(first));
  fieldOf(first)?.focus();
  fieldOf(first)?.select();
}

/** The key that is pressed goes into the field in hand by itself, once that has the focus. */
export function focusField(session: Session): void {
  const { statement } = session.store.getState();
  if (!statement?.focus) return;
  const field = fieldOf(statement.focus) ?? rowInHand();
  field?.focus();
  field?.select?.();
}

/** A row begins with so many numbers; what comes after may stay empty. */
const NUMBERS_OF_A_ROW = 2;

/** The first cell that is empty in the last row of the table in hand; of a new row where there is none. */
function rowInHand(): HTMLInputElement | undefined {
  const table = document.querySelector('[data-rows]');
  const empty = () =>
    [...(table?.querySelectorAll<HTMLInputElement>('tbody tr:last-child input') ?? [])]
      .slice(0, NUMBERS_OF_A_ROW)
      .find(({ value }) => value === '');
  if (table && !empty()) flushSync(() => table.querySelector<HTMLElement>('[data-add-row]')?.click());
  return empty();
}

/** The number in hand gets the other sign, as it stands. */
export function flipSign(session: Session): void {
  const { focus } = session.store.getState().statement ?? {};
  const text = focus && fieldOf(focus)?.value.trim();
  if (focus && text) session.type(focus, withOtherSign(text));
}
