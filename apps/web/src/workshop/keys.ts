/** Keys of the workshop: the verbs' own, made from their declarations, and a few for looking round. */
import { VERBS, verbNamed, type Camera, type Vec3 } from '@kadrel/core';
import { useEffect } from 'react';
import { flushSync } from 'react-dom';
import { entryKey, firstNumber, withOtherSign, type Entry } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import type { Stage } from '../viewport/stage.ts';
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
  ['Shift+Backspace', 'Next view'],
  ['V', 'One view or four'],
  ['Arrows', 'Nudge in the view; Shift ten times as far, Ctrl a tenth'],
  ['PageUp', 'Nudge up; PageDown down'],
  ['Ctrl+Enter', 'Again: the last statement on what is selected'],
  ['Shift+Enter', 'Revise the last statement'],
  ['Ctrl+Shift+Enter', 'Again with what you had: the statement that was left last'],
  ['F9', 'Flip the sign of the number in hand'],
  ['O', 'Only select: nothing can be dragged'],
  ['[', 'Smaller grips; ] larger'],
  ['X Y Z', 'While aligning: the side on that axis'],
  ['Ctrl+A', 'Select everything'],
  ['Ctrl+I', 'Select everything else'],
  ['Space', 'What lies behind, or the next within reach; held, a list'],
  ['Tab in a pick', 'The next within reach; after the last, the next blank'],
  ['Shift+letter', 'In a pick: one kind of snap for once (Snaps lists the letters)'],
  ['Shift+Y', 'In a pick: stay on the part that is caught'],
  ['Alt+arrows', 'In the tree: up, down, into the group above, or out of the group'],
  ['Ctrl+E', 'Output: write files'],
  ['Ctrl+S', 'Says how saving stands; nothing has to be saved by hand'],
  ['Esc in the tree', 'Gives the arrows to the view'],
  ['Ctrl+Z', 'Undo'],
  ['Ctrl+Shift+Z', 'Redo'],
  ['?', 'This sheet'],
];

const ALIGN_SIDES = ['leave', 'min', 'middle', 'max'];
/** From this altitude up, degrees, the arrows move over the ground; in a flatter view up is up. */
const FLAT_ALTITUDE = 20;

/** What an arrow key moves by, along the world's axes nearest to those of the view; undefined for other keys. */
export function nudgeStep(
  event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey'>,
  { right, up, toward, state }: Pick<Camera, 'right' | 'up' | 'toward' | 'state'>,
  nudge: number,
): Vec3 | undefined {
  const across = nearestAxis(right);
  const isFlat = Math.abs(state.altitude) < FLAT_ALTITUDE;
  // Seen from straight above, what is up on the screen lies away.
  const away = nearestAxis(Math.abs(state.altitude) === 90 ? up : [-toward[0], -toward[1], 0]);
  const upward: Vec3 = [0, 0, 1];
  const [vertical, deep] = isFlat ? [upward, away] : [away, upward];
  const directions: Readonly<Record<string, readonly [Vec3, 1 | -1]>> = {
    ArrowRight: [across, 1],
    ArrowLeft: [across, -1],
    ArrowUp: [vertical, 1],
    ArrowDown: [vertical, -1],
    PageUp: [deep, 1],
    PageDown: [deep, -1],
  };
  const found = directions[event.key];
  if (!found) return undefined;
  const [direction, sign] = found;
  const size = nudge * (event.shiftKey ? 10 : 1) * (event.ctrlKey || event.metaKey ? 0.1 : 1) * sign;
  return direction.map((n) => n * size + 0) as unknown as Vec3;
}

function nearestAxis(direction: Vec3): Vec3 {
  const axis = [0, 1].reduce((a, b) => (Math.abs(direction[b]!) > Math.abs(direction[a]!) + 1e-9 ? b : a));
  return [0, 1, 2].map((i) => (i === axis ? Math.sign(direction[axis]!) : 0)) as unknown as Vec3;
}

/** Marks the fields that the bar puts the typing into. */
export const ENTRY_ATTRIBUTE = 'data-entry';
const TYPED_INTO_A_FIELD = /^[\d.\-+(]$/;

/** Marks fields in which nothing is typed that is not in the model: undo there means the model. */
export const UNTOUCHED_ATTRIBUTE = 'data-untouched';
const undoesTheModel = (event: KeyboardEvent) =>
  (event.ctrlKey || event.metaKey) &&
  event.key.toLowerCase() === 'z' &&
  event.target instanceof HTMLElement &&
  event.target.hasAttribute(UNTOUCHED_ATTRIBUTE);

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

/** While the focus stands on a pick just because the verb put it there, a number goes to the verb's first number. */
function toFirstNumber(session: Session): void {
  const { statement } = session.store.getState();
  if (statement?.phase !== 'open' || !statement.isFocusGiven || statement.focus?.axis !== null) return;
  const type = verbNamed(statement.verb)!.blanks[statement.focus.blank]!.type;
  const first = PICKS.has(type) ? firstNumber(statement) : null;
  if (!first) return;
  flushSync(() => session.focus(first));
  fieldOf(first)?.focus();
  fieldOf(first)?.select();
}
const PICKS = new Set(['point', 'feature', 'direction', 'path', 'parts', 'part']);

const fieldOf = (entry: Entry) =>
  document.querySelector<HTMLInputElement>(`[${ENTRY_ATTRIBUTE}="${entryKey(entry)}"]`);

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
  const { statement } = session.store.getState();
  const { focus } = statement ?? {};
  const text = focus && fieldOf(focus)?.value.trim();
  if (!focus || !text) return;
  session.type(focus, withOtherSign(text));
}

/** How saving stands, in a sentence. */
function savingWords(session: Session): string {
  const { state, aside } = session.store.getState().save;
  if (aside.length > 0) return 'Not all is saved: the header says what is not.';
  if (state === 'saved') return 'All is saved: every statement is, as soon as it is carried out.';
  return state === 'conflict'
    ? 'Not saved: the header says why.'
    : 'Not all is saved yet; it is on its way to the server.';
}

interface ScreenActions {
  readonly openSheet: () => void;
  readonly openOutput: () => void;
  readonly toggleViews: () => void;
}

export function useKeys(session: Session, stage: Stage | null, screen: ScreenActions): void {
  useEffect(() => {
    // What the pointer is about goes first, also while a field has the focus: the hand is on the mouse.
    const onPointerKey = (event: KeyboardEvent) => {
      const isMenu = isInDialog(event.target);
      const onButton = event.target instanceof HTMLElement && event.target.closest('button,a') !== null;
      if (event.altKey || isMenu || (onButton && event.key === ' ')) return;
      // With nothing to aim at, what is typed into a field is the field's.
      if (isField(event.target) && session.store.getState().statement?.phase !== 'open') return;
      if (stage?.onKey?.(event)) {
        event.preventDefault();
        event.stopPropagation();
        return;
      }
      if (TYPED_INTO_A_FIELD.test(event.key) && !event.ctrlKey) toFirstNumber(session);
      if (stage && event.key.length === 1) stage.catcher.isFresh = false;
    };
    const onKey = (event: KeyboardEvent) => {
      const isOfTheScreen =
        event.key === 'F9' || ((event.ctrlKey || event.metaKey) && /^[se]$/i.test(event.key));
      const isTyping = isField(event.target) && !undoesTheModel(event) && !isOfTheScreen;
      if (event.defaultPrevented || isTyping || isInDialog(event.target) || event.altKey) return;
      const key = keyOf(event);
      if (handle(key, event)) event.preventDefault();
    };

    const handle = (key: string, event: KeyboardEvent): boolean => {
      const { statement, lookingAt, document: model, omitting, selection, face } = session.store.getState();
      const onButton =
        event.target instanceof HTMLElement &&
        event.target.closest('button,a,[role="button"],[role="slider"],[role="treeitem"]') !== null;
      if (key === 'Escape') {
        const tree =
          event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('[role="treeitem"]') : null;
        // From the tree the keys go to the view first; what is selected stays.
        if (tree) {
          tree.blur();
          return true;
        }
        if (lookingAt !== null) session.lookAt(null);
        else if (statement) session.leave();
        else if (omitting !== null) session.set({ omitting: null });
        else if (face) session.selectFace(null);
        else if (selection.length > 0) session.select([]);
        else session.openGroup(null);
        return true;
      }
      if (key === 'Ctrl+E') return (screen.openOutput(), true);
      if (key === 'Ctrl+S') return (session.announce(savingWords(session)), true);
      if (key === 'Ctrl+Z') return (session.undo(), true);
      if (key === 'Ctrl+Shift+Z' || key === 'Ctrl+Y') return (session.redo(), true);
      if (key === 'Ctrl+A') return (session.selectAll(), true);
      if (key === 'Ctrl+I') return (session.selectOthers(), true);
      if (key === '?' || key === 'Shift+?') return (screen.openSheet(), true);
      if (key === '/') {
        // What is done makes room for the search, which must be there before the next key comes.
        if (statement?.phase === 'done') flushSync(() => session.leave());
        document.querySelector<HTMLElement>('[data-testid="find-verb"]')?.focus();
        return true;
      }
      if (event.shiftKey && key === 'Ctrl+Enter') return (session.takeUp(), true);
      if (key === 'F9') return (flipSign(session), true);
      if (key === 'Ctrl+Enter' && statement?.phase !== 'open') return (session.again(), true);
      if (event.shiftKey && key === 'Enter' && statement?.phase !== 'open') return (session.revise(), true);
      if (statement?.phase === 'open' && statement.verb === 'align' && /^[XYZ]$/.test(key))
        return (nextSide(key.toLowerCase()), true);
      if (statement?.phase !== 'open' && !onButton && stage) {
        const step = nudgeStep(event, stage.active.camera, model.scene.nudge);
        if (step) return (void session.nudge(step), true);
      }
      if (statement?.phase === 'open' && !onButton) {
        if (key === 'Enter') return (void session.commit(), true);
        if (key === 'Tab') return (session.walk(event.shiftKey ? -1 : 1), true);
      }
      if (statement && TYPED_INTO_A_FIELD.test(event.key) && !event.ctrlKey) return focusEntry();
      if (key === 'F' || key === 'Shift+F')
        return (stage?.active.fit(key === 'F' ? 'selection' : 'all'), true);
      if (key === 'Backspace')
        return (event.shiftKey ? stage?.active.nextView() : stage?.active.previousView(), true);
      if (key === 'V') return (screen.toggleViews(), true);
      if (key === 'O') return (session.set({ isSelectOnly: !session.store.getState().isSelectOnly }), true);
      if (key === '[' || key === ']') return (resizeGrips(key === ']' ? 1.25 : 0.8), true);
      if (key === 'R' && statement?.phase === 'done' && statement.step) return (session.goOn('every'), true);
      const verb = VERBS.find((candidate) => candidate.key === key);
      if (!verb || (onButton && key === 'Enter')) return false;
      startVerb(session, verb);
      return true;
    };

    const resizeGrips = (by: number) => {
      const { gripScale } = session.store.getState();
      session.set({ gripScale: Math.max(0.5, Math.min(2.5, gripScale * by)) });
    };

    /** Goes round the sides of one axis. */
    const nextSide = (axis: string) => {
      const { statement } = session.store.getState();
      const at = ALIGN_SIDES.indexOf(String(statement?.typed[axis]));
      session.setBlank(axis, ALIGN_SIDES[(at + 1) % ALIGN_SIDES.length]);
    };

    /** The key that is pressed goes into the field by itself, once that has the focus. */
    const focusEntry = (): boolean => {
      const { statement } = session.store.getState();
      if (!statement?.focus) return false;
      const field = fieldOf(statement.focus) ?? rowInHand();
      field?.focus();
      field?.select?.();
      return false;
    };

    window.addEventListener('keydown', onPointerKey, true);
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onPointerKey, true);
      window.removeEventListener('keydown', onKey);
    };
  }, [session, stage, screen]);
}
