/** Keys of the workshop: those of `keyList.ts`, and the verbs' own, made from their declarations. */
import { VERBS } from '@kadrel/core';
import { useEffect } from 'react';
import type { Session } from '../session/store.ts';
import type { Stage } from '../viewport/stage.ts';
import { BEGINS_A_NUMBER, UNTOUCHED_ATTRIBUTE, toFirstNumber } from './fieldKeys.ts';
import { KEYS, type Pressed, type ScreenActions } from './keyList.ts';
import { startVerb } from './start.ts';

/** What takes text; a box to be ticked takes none. */
const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !target.matches(TICKED);
const TICKED = 'input[type="checkbox"]';
/** What the space bar and Enter work by themselves. */
const BUTTONS = `button,a,${TICKED}`;
/** A list that was opened gets the focus a moment later; until then its button has it. */
const OPENED = '[aria-haspopup="listbox"][aria-expanded="true"],[aria-haspopup="menu"][aria-expanded="true"]';
const isInDialog = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest(`[role="dialog"],[role="menu"],[role="listbox"],${OPENED}`) !== null;
const isWithin = (target: EventTarget | null, selector: string) =>
  target instanceof HTMLElement && target.closest(selector) !== null;

/** Keys that mean the same while a field has the focus: undo where nothing was typed into it, saving, output, the sign. */
function isOfTheScreen(event: KeyboardEvent): boolean {
  const isCtrl = event.ctrlKey || event.metaKey;
  const isUntouched = event.target instanceof HTMLElement && event.target.hasAttribute(UNTOUCHED_ATTRIBUTE);
  if (isCtrl && event.key.toLowerCase() === 'z') return isUntouched;
  return event.key === 'F9' || (isCtrl && /^[se]$/i.test(event.key));
}

function keyOf(event: KeyboardEvent): string {
  const name = event.key.length === 1 ? event.key.toUpperCase() : event.key;
  const shifted = event.shiftKey && event.key.length === 1 && /[A-Z]/.test(name);
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shifted ? 'Shift+' : ''}${name}`;
}

/** What the pointer is about goes first, also while a field has the focus: the hand is on the mouse. */
function pointerKey(event: KeyboardEvent, session: Session, stage: Stage | null): void {
  const onButton = isWithin(event.target, BUTTONS);
  if (event.altKey || isInDialog(event.target) || (onButton && event.key === ' ')) return;
  // With nothing to aim at, what is typed into a field is the field's.
  if (isField(event.target) && session.store.getState().statement?.phase !== 'open') return;
  if (stage?.pointer.onKey?.(event)) {
    event.preventDefault();
    event.stopPropagation();
    return;
  }
  if (BEGINS_A_NUMBER.test(event.key) && !event.ctrlKey) toFirstNumber(session);
  if (stage && event.key.length === 1) stage.catcher.isFresh = false;
}

/** Whether the key was one of ours. */
function handled(at: Pressed): boolean {
  const found = KEYS.find(
    ({ keys, when }) =>
      (typeof keys === 'function' ? keys(at) : keys.includes(at.key)) && (when === undefined || when(at)),
  );
  if (found) return found.run(at) !== false;
  const verb = VERBS.find(({ key }) => key === at.key);
  if (!verb || (at.onButton && at.key === 'Enter')) return false;
  startVerb(at.session, verb);
  return true;
}

/** Listens to the keys of the workshop. */
export function useKeys(session: Session, stage: Stage | null, screen: ScreenActions): void {
  useEffect(() => {
    const onPointerKey = (event: KeyboardEvent) => pointerKey(event, session, stage);
    const onKey = (event: KeyboardEvent) => {
      const isTyping = isField(event.target) && !isOfTheScreen(event);
      if (event.defaultPrevented || isTyping || isInDialog(event.target) || event.altKey) return;
      const onButton = isWithin(event.target, 'button,a,[role="button"],[role="slider"],[role="treeitem"]');
      const state = session.store.getState();
      if (handled({ event, key: keyOf(event), session, state, stage, screen, onButton }))
        event.preventDefault();
    };
    window.addEventListener('keydown', onPointerKey, true);
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onPointerKey, true);
      window.removeEventListener('keydown', onKey);
    };
  }, [session, stage, screen]);
}
