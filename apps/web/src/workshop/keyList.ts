/** The keys of the workshop that are no verb's, in the order in which they are tried; the sheet of keys is made from them too. */
import { isHandled } from '../session/statement.ts';
import { verbNamed } from '@kadrel/core';
import { flushSync } from 'react-dom';
import type { Session, SessionState } from '../session/store.ts';
import type { Stage } from '../viewport/stage.ts';
import { BEGINS_A_NUMBER, flipSign, focusField } from './fieldKeys.ts';
import { fitView } from '../viewport/viewing.ts';
import { nudgeStep } from './nudgeStep.ts';

/** What keys may do to the screen. */
export interface ScreenActions {
  readonly openKeys: () => void;
  readonly openOutput: () => void;
  readonly toggleViews: () => void;
}

/** A key that was pressed, and what stood around it. */
export interface Pressed {
  readonly event: KeyboardEvent;
  /** As `Ctrl+Shift+Z`; Shift is named for letters alone. */
  readonly key: string;
  readonly session: Session;
  readonly state: SessionState;
  /** Null until the views are there. */
  readonly stage: Stage | null;
  readonly screen: ScreenActions;
  /** A button has the focus, or a row of the tree, which take some keys for themselves. */
  readonly onButton: boolean;
}

/** A key, and what it does when. */
export interface KeyDeclaration {
  /** Which presses are meant: by their names, or by what they are. */
  readonly keys: readonly string[] | ((at: Pressed) => boolean);
  /** Lines of the sheet. */
  readonly shown?: readonly (readonly [key: string, about: string])[];
  /** Whether it is its turn; else those after it are asked. */
  readonly when?: (at: Pressed) => boolean;
  /** False lets the browser go on with the key. */
  readonly run: (at: Pressed) => unknown;
}

const isOpen = ({ state }: Pressed) => state.statement?.phase === 'open';
/** The statement in hand turns something about the axes of a joint. */
const isJoining = (at: Pressed) => isOpen(at) && isHandled(at.state.statement, 'joins');
/** What is said of the joint so far is enough to see it turn. */
const isTurning = (at: Pressed) =>
  isJoining(at) &&
  turnBlank(at) in verbNamed(at.state.statement!.verb)!.blanks &&
  ['joint', 'dock', 'onto'].some((blank) => at.state.statement!.typed[blank] !== undefined);
const isNotOpen = (at: Pressed) => !isOpen(at);
const withShift = ({ event }: Pressed) => event.shiftKey;

/** In the order in which they are tried. */
export const KEYS: readonly KeyDeclaration[] = [
  {
    keys: ['Escape'],
    shown: [
      ['Esc', 'Leave the statement without a trace in the model'],
      ['Esc in the tree', 'Gives the arrows to the view'],
    ],
    run: escape,
  },
  {
    keys: ['Ctrl+E'],
    shown: [['Ctrl+E', 'Output: write files']],
    run: ({ screen }) => screen.openOutput(),
  },
  {
    keys: ['Ctrl+S'],
    shown: [['Ctrl+S', 'Says how saving stands; nothing has to be saved by hand']],
    run: ({ session }) => session.announce(savingWords(session)),
  },
  { keys: ['Ctrl+Z'], shown: [['Ctrl+Z', 'Undo']], run: ({ session }) => session.undo() },
  {
    keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
    shown: [['Ctrl+Shift+Z', 'Redo']],
    run: ({ session }) => session.redo(),
  },
  {
    keys: ['Ctrl+A'],
    shown: [['Ctrl+A', 'Select everything']],
    run: ({ session }) => session.selectAll(),
  },
  {
    keys: ['Ctrl+I'],
    shown: [['Ctrl+I', 'Select everything else']],
    run: ({ session }) => session.selectOthers(),
  },
  { keys: ['?', 'Shift+?'], shown: [['?', 'This sheet']], run: ({ screen }) => screen.openKeys() },
  { keys: ['/'], shown: [['/', 'Find a verb']], run: findVerb },
  {
    keys: ['Ctrl+Enter'],
    shown: [['Ctrl+Shift+Enter', 'Again with what you had: the statement that was left last']],
    when: withShift,
    run: ({ session }) => session.takeUp(),
  },
  {
    keys: ['F9'],
    shown: [['F9', 'Flip the sign of the number in hand']],
    run: ({ session }) => flipSign(session),
  },
  {
    keys: ['Ctrl+Enter'],
    shown: [['Ctrl+Enter', 'Again: the last statement on what is selected']],
    when: isNotOpen,
    run: ({ session }) => session.again(),
  },
  {
    keys: ['Enter'],
    shown: [['Shift+Enter', 'Revise the last statement']],
    when: (at) => withShift(at) && isNotOpen(at),
    run: ({ session }) => session.revise(),
  },
  {
    keys: ['X', 'Y', 'Z'],
    shown: [['X Y Z', 'While aligning: the side on that axis']],
    when: (at) => isOpen(at) && isHandled(at.state.statement, 'aligns'),
    run: nextSide,
  },
  {
    keys: ['X', 'Y', 'Z', 'Shift+X', 'Shift+Y', 'Shift+Z'],
    shown: [
      ['X Y Z', 'While joining docks: a quarter turn about that axis of the joint; with Shift the other way'],
    ],
    when: isTurning,
    run: quarterTurn,
  },
  {
    keys: ['N', 'Shift+N'],
    shown: [['N', 'While joining docks: the next free dock of what moves; with Shift of the other part']],
    when: isJoining,
    run: (at) => at.session.nextDock(withShift(at) ? 'onto' : 'dock'),
  },
  {
    keys: (at) => nudgeOf(at) !== undefined,
    shown: [
      ['Arrows', 'Nudge in the view; Shift ten times as far, Ctrl a tenth'],
      ['PageUp', 'Nudge up; PageDown down'],
    ],
    when: (at) => isNotOpen(at) && !at.onButton,
    run: (at) => void at.session.nudge(nudgeOf(at)!),
  },
  {
    keys: ['Enter'],
    shown: [['Enter', 'Commit the statement']],
    when: (at) => isOpen(at) && !at.onButton,
    run: ({ session }) => void session.commit(),
  },
  {
    keys: ['Tab'],
    shown: [['Tab', 'Next blank of the statement; during a move, the axis that it is locked to']],
    when: (at) => isOpen(at) && !at.onButton,
    run: ({ session, event }) => session.walk(event.shiftKey ? -1 : 1),
  },
  {
    keys: ({ event, state }) => state.statement !== null && BEGINS_A_NUMBER.test(event.key) && !event.ctrlKey,
    run({ session }) {
      focusField(session);
      return false;
    },
  },
  {
    keys: ['F', 'Shift+F'],
    shown: [
      ['F', 'Fit to the selection'],
      ['Shift+F', 'Fit to everything'],
    ],
    run: ({ key, stage }) => stage && fitView(stage.panes.active, key === 'F' ? 'selection' : 'all'),
  },
  {
    keys: ['Backspace'],
    shown: [
      ['Backspace', 'Previous view'],
      ['Shift+Backspace', 'Next view'],
    ],
    run: ({ event, stage }) =>
      event.shiftKey ? stage?.panes.active.travel.forth() : stage?.panes.active.travel.back(),
  },
  { keys: ['V'], shown: [['V', 'One view or four']], run: ({ screen }) => screen.toggleViews() },
  {
    keys: ['O'],
    shown: [['O', 'Only select: nothing can be dragged']],
    run: ({ session, state }) => session.set({ isSelectOnly: !state.isSelectOnly }),
  },
  {
    keys: ['[', ']'],
    shown: [['[', 'Smaller grips; ] larger']],
    run: ({ key, session, state }) =>
      session.set({ gripScale: Math.max(0.5, Math.min(2.5, state.gripScale * (key === ']' ? 1.25 : 0.8))) }),
  },
  {
    keys: ['R'],
    when: ({ state: { statement } }) => statement?.phase === 'done' && statement.step !== null,
    run: ({ session }) => session.goOn('every'),
  },
];

/** Keys that the pointer's situation takes, and those of the tree: they are listed with the others. */
const ELSEWHERE: readonly (readonly [key: string, about: string])[] = [
  ['Space', 'What lies behind, or the next within reach; held, a list'],
  ['Tab in a pick', 'The next within reach; after the last, the next blank'],
  ['Shift+letter', 'In a pick: one kind of snap for once (Snaps lists the letters)'],
  ['Shift+Y', 'In a pick: stay on the part that is caught'],
  ['Alt+arrows', 'In the tree: up, down, into the group above, or out of the group'],
];

/** For the sheet. */
export const KEY_LINES = [...KEYS.flatMap(({ shown = [] }) => shown), ...ELSEWHERE];

/** Steps out of what one is in, the innermost first. */
function escape({ event, session, state }: Pressed): void {
  const { statement, lookingAt, builtPreview, omitting, places, selection } = state;
  const tree =
    event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('[role="treeitem"]') : null;
  // From the tree the keys go to the view first; what is selected stays.
  if (tree) tree.blur();
  else if (lookingAt !== null) session.lookAt(null);
  else if (builtPreview?.upTo) void session.lookUpTo(null);
  else if (statement) session.leave();
  else if (omitting !== null) session.set({ omitting: null });
  else if (places) session.selectPlaces(null);
  else if (selection.length > 0) session.select([]);
  else session.openGroup(null);
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

function findVerb({ session, state }: Pressed): void {
  // What is done makes room for the search, which must be there before the next key comes.
  if (state.statement?.phase === 'done') flushSync(() => session.leave());
  if (state.statement?.phase === 'working') flushSync(() => session.set({ findsAhead: true }));
  document.querySelector<HTMLElement>('[data-testid="find-verb"]')?.focus();
}

const ALIGN_SIDES = ['leave', 'min', 'middle', 'max'];

/** Goes round the sides of one axis. */
const TURN_BLANKS = { X: 'tiltX', Y: 'tiltY', Z: 'turn' } as const;
const turnBlank = ({ key }: Pressed) => TURN_BLANKS[key.slice(-1) as keyof typeof TURN_BLANKS];

function quarterTurn(at: Pressed): void {
  at.session.quarterTurn(turnBlank(at), withShift(at) ? -1 : 1);
}

function nextSide({ key, session, state }: Pressed): void {
  const axis = key.toLowerCase();
  const at = ALIGN_SIDES.indexOf(String(state.statement?.typed[axis]));
  session.setBlank(axis, ALIGN_SIDES[(at + 1) % ALIGN_SIDES.length]);
}

const nudgeOf = ({ event, stage, state }: Pressed) =>
  stage ? nudgeStep(event, stage.panes.active.camera, state.document.scene.nudge) : undefined;
