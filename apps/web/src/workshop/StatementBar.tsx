/** Long, since the parts of the bar are small and are used nowhere else. */
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Menu,
  MenuButton,
  MenuItem,
  MenuItems,
} from '@headlessui/react';
import {
  findVerbs,
  formatAngle,
  formatLengthWithUnit,
  piecesIn,
  verbNamed,
  withClauses,
  type Piece,
  type Verb,
} from '@kadrel/core';
import clsx from 'clsx';
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import {
  entryText,
  exactNumber,
  hiddenBlanks,
  isShown,
  isTriple,
  type Statement,
} from '../session/statement.ts';
import { PATIENT_MS } from '../session/store.ts';
import { BlankField } from './BlankField.tsx';
import { MeasureReading } from './fit/MeasureReading.tsx';
import { useSession, useSessionState } from './context.ts';
import { RegionsPanel } from './RegionsPanel.tsx';
import { RowsPanel } from './RowsField.tsx';
import { startVerb } from './start.ts';

/** The verb in hand as one sentence with blanks; with no verb in hand, a search for one. */
export function StatementBar({ openOutput }: { openOutput: () => void }) {
  const statement = useSessionState((state) => state.statement);
  const findsAhead = useSessionState((state) => state.findsAhead);
  return (
    <section
      className="relative flex items-center gap-2 border-b border-rule bg-sheet px-3.5 text-[14px]"
      aria-label="Statement"
    >
      {statement && !findsAhead ? <Sentence statement={statement} /> : <FindVerb openOutput={openOutput} />}
      <SetAside />
    </section>
  );
}

/** Takes up what was typed into the statement that was left last. */
function SetAside() {
  const session = useSession();
  const setAside = useSessionState((state) => state.setAside);
  const isWorking = useSessionState((state) => state.statement?.phase === 'working');
  if (!setAside || isWorking) return null;
  const { name } = verbNamed(setAside.verb)!;
  return (
    <button
      type="button"
      className="quiet shrink-0 text-plum"
      title="Ctrl+Shift+Enter"
      onClick={() => session.takeUp()}
    >
      Again with what you had: {name}
    </button>
  );
}

/** Words that find what is no verb. */
const OUTPUT_WORDS = ['output', 'export', 'save', 'download', 'print', 'file', 'write'];
const OUTPUT = 'output';

/** Stands in the list where nothing is found. */
const NOTHING = 'nothing';
type Findable = Verb | typeof OUTPUT | typeof NOTHING;

/** Nothing stays chosen. */
const NOBODY = null as Findable | null;

/** So many at a time: a longer list would take longer to change than a letter takes to be typed. */
const MOST_SHOWN = 12;

function Option({ found }: { found: Findable }) {
  if (found === NOTHING)
    return (
      <ComboboxOption value={found} disabled className="menu-item text-ink2">
        No verb does that yet.
      </ComboboxOption>
    );
  const { name, about, key } =
    found === OUTPUT
      ? { name: 'Output', about: 'Write files: solids, facets, outlines, the project.', key: 'Ctrl+E' }
      : found;
  return (
    <ComboboxOption value={found} className="menu-item w-full">
      <span className="w-32 shrink-0 font-semibold">{name}</span>
      <span className="flex-1 truncate text-ink2">{about}</span>
      {key && <kbd className="key">{key}</kbd>}
    </ComboboxOption>
  );
}

/** What a text finds, the best first. */
function findableBy(typed: string): readonly Findable[] {
  const found = findVerbs(typed).filter((verb) => !verb.isUnlisted);
  const text = typed.trim().toLowerCase();
  const isOutput = text !== '' && OUTPUT_WORDS.some((word) => word.startsWith(text));
  const hits: readonly Findable[] = isOutput ? [OUTPUT, ...found] : found;
  return hits.length === 0 ? [NOTHING] : hits;
}

function FindVerb({ openOutput }: { openOutput: () => void }) {
  const session = useSession();
  const [typed, setTyped] = useState('');
  const found = useMemo(() => findableBy(typed), [typed]);
  const more = found.length - MOST_SHOWN;
  const choose = (chosen: Findable | null) => {
    if (!chosen || chosen === NOTHING) return;
    setTyped('');
    (document.activeElement as HTMLElement | null)?.blur();
    if (chosen === OUTPUT) openOutput();
    else startVerb(session, chosen);
  };
  return (
    <Combobox<Findable | null, false> value={NOBODY} onChange={choose} immediate>
      <ComboboxInput
        data-testid="find-verb"
        aria-label="Find a verb"
        placeholder="What do you want to do?  Press / and type"
        className="w-full bg-transparent py-1 outline-none placeholder:text-ink3"
        displayValue={() => typed}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => event.currentTarget.select()}
        onBlur={() => session.set({ findsAhead: false })}
        onKeyDown={(event) => {
          // The key that leads here leads nowhere else.
          if (event.key === '/' && typed === '') event.preventDefault();
          if (event.key !== 'Escape') return;
          setTyped('');
          // The field keeps its own text.
          event.currentTarget.value = '';
          event.currentTarget.blur();
        }}
      />
      <ComboboxOptions
        modal={false}
        anchor={{ to: 'bottom start', gap: 8 }}
        className="menu w-[520px] [--anchor-max-height:27rem]"
      >
        {found.slice(0, MOST_SHOWN).map((one, place) => (
          // By its place: a row is filled anew, and not made anew.
          <Option key={place} found={one} />
        ))}
        {more > 0 && (
          <ComboboxOption value={NOTHING} disabled className="menu-item text-ink2">
            and {more} more: go on typing
          </ComboboxOption>
        )}
      </ComboboxOptions>
    </Combobox>
  );
}

/** The sentence cut into words and blanks; a clause whose blank is not shown is left out. */
function piecesOf(verb: Verb, statement: Statement): Piece[] {
  const kept = withClauses(verb.sentence, (clause, ids) => {
    if (!ids.every((id) => isShown(statement, id))) return '';
    const [rival] = ids.flatMap((id) => verb.blanks[id]!.excludes ?? []);
    const isSecond =
      rival !== undefined && verb.sentence.indexOf(`{${rival}}`) < verb.sentence.indexOf(clause);
    return isSecond && isShown(statement, rival) ? ` or${clause.replace(/^,/, '')}` : clause;
  });
  return piecesIn(kept.slice(verb.name.length));
}

function Sentence({ statement }: { statement: Statement }) {
  const session = useSession();
  const verb = verbNamed(statement.verb)!;
  const bar = useRef<HTMLDivElement>(null);
  const isWorking = statement.phase === 'working';
  useEffect(() => {
    // What is committed is done: the next key is a verb's, and no longer the field's.
    const { activeElement } = document;
    if (
      statement.editId !== null &&
      activeElement instanceof HTMLElement &&
      bar.current?.contains(activeElement)
    )
      activeElement.blur();
  }, [statement.editId]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.defaultPrevented) return;
    if (event.key === 'Enter') void session.commit();
    else if (event.key === 'Escape') {
      (document.activeElement as HTMLElement | null)?.blur();
      session.leave();
    } else if (event.key === 'Tab') session.walk(event.shiftKey ? -1 : 1);
    else return;
    event.preventDefault();
  };
  return (
    <>
      <div
        ref={bar}
        role="group"
        aria-label={`Statement: ${verb.name}`}
        className="flex min-w-0 flex-1 items-center gap-1.5 overflow-x-auto py-1 [scrollbar-width:thin]"
        onKeyDown={onKeyDown}
      >
        <span className="mr-0.5 text-[15px] font-[650] whitespace-nowrap text-plum" data-testid="verb">
          {verb.name}
        </span>
        {piecesOf(verb, statement).map((piece, i) =>
          'words' in piece ? (
            <span key={i} className={clsx('whitespace-nowrap', piece.words.startsWith(',') && '-ml-1')}>
              {piece.words}
            </span>
          ) : (
            <BlankField
              key={piece.blank}
              id={piece.blank}
              blank={verb.blanks[piece.blank]!}
              statement={statement}
            />
          ),
        )}
        <MoreBlanks statement={statement} />
      </div>
      <RowsPanel statement={statement} />
      <RegionsPanel statement={statement} />
      <Refused statement={statement} bar={bar} />
      <Notes statement={statement} />
      <Waits statement={statement} />
      <MeasureReading />
      {isWorking ? <Working /> : <Hints statement={statement} />}
    </>
  );
}

/** Brings blanks into a long sentence that are seldom wanted. */
function MoreBlanks({ statement }: { statement: Statement }) {
  const session = useSession();
  const verb = verbNamed(statement.verb)!;
  const hidden = statement.phase === 'open' ? hiddenBlanks(statement) : [];
  if (hidden.length === 0) return null;
  return (
    <Menu>
      <MenuButton className="quiet whitespace-nowrap text-ink2" aria-label="More blanks">
        more…
      </MenuButton>
      <MenuItems modal={false} anchor={{ to: 'bottom end', gap: 6 }} className="menu w-80">
        {hidden.map((id) => (
          <MenuItem key={id}>
            <button
              type="button"
              className="menu-item"
              onClick={() => session.focus({ blank: id, axis: isTriple(verb.blanks[id]!) ? 0 : null })}
            >
              <span className="w-28 shrink-0 font-semibold">{verb.blanks[id]!.label}</span>
              <span className="flex-1 text-ink2">{verb.blanks[id]!.about}</span>
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}

/** What is wrong, below the blank that it is about. */
function Refused({ statement, bar }: { statement: Statement; bar: React.RefObject<HTMLDivElement | null> }) {
  const [left, setLeft] = useState(14);
  const { refusal } = statement;
  useLayoutEffect(() => {
    // To ask where something is has the whole page laid out.
    if (!refusal) return;
    const blank =
      refusal.blank === undefined ? null : bar.current?.querySelector(`[data-blank="${refusal.blank}"]`);
    const start = bar.current?.getBoundingClientRect().left ?? 0;
    setLeft(blank ? Math.max(14, blank.getBoundingClientRect().left - start + 14) : 14);
  }, [refusal, bar]);
  if (!refusal) return null;
  return (
    <p
      role="alert"
      data-testid="refusal"
      className="absolute top-full z-30 mt-0.5 max-w-xl rounded border border-bad bg-sheet px-3 py-1.5 text-[13px] text-bad shadow"
      style={{ left: Math.min(left, window.innerWidth - 600) }}
    >
      {refusal.message}
      {refusal.at !== undefined && <span className="num ml-2 text-ink3">character {refusal.at + 1}</span>}
    </p>
  );
}

/** What should be known of a statement that was carried out. */
function Notes({ statement: { phase, notes, refusal } }: { statement: Statement }) {
  if (phase !== 'done' || notes.length === 0 || refusal) return null;
  return (
    <div
      role="status"
      className="absolute top-full left-3.5 z-30 mt-0.5 max-w-xl rounded border border-rule bg-sheet px-3 py-1.5 text-[13px] shadow"
    >
      {notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
    </div>
  );
}

/** What the statement waits for, after a click that found nothing to fill. */
function Waits({ statement: { waits, refusal } }: { statement: Statement }) {
  if (waits === null || refusal) return null;
  return (
    <p
      role="status"
      data-testid="waits"
      className="absolute top-full left-3.5 z-30 mt-0.5 max-w-xl rounded border border-plum bg-sheet px-3 py-1.5 text-[13px] shadow"
    >
      {waits}
    </p>
  );
}

function Hints({ statement }: { statement: Statement }) {
  const session = useSession();
  const isDone = statement.phase === 'done';
  return (
    <div className="flex shrink-0 items-center gap-1.5 pl-2 text-[13px] text-ink2">
      <Result statement={statement} />
      {isDone && <GoOn statement={statement} />}
      {isDone && <span className="max-[859px]:sr-only">done; change a blank to adjust</span>}
      <kbd className="key max-[859px]:hidden">Enter</kbd>
      <span className="max-[859px]:hidden">{isDone ? 'adjust' : 'place'}</span>
      <button
        type="button"
        className="quiet inline-flex items-center gap-1.5 px-1!"
        onClick={() => session.leave()}
      >
        <kbd className="key">Esc</kbd> {isDone ? 'close' : 'leave'}
      </button>
    </div>
  );
}

/** After a copy was left behind: the pattern that goes on with its step. */
function GoOn({ statement: { step } }: { statement: Statement }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  if (!step) return null;
  const size =
    step.kind === 'along' ? formatLengthWithUnit(Math.hypot(...step.by), scene) : formatAngle(step.angle);
  return (
    <span className="flex items-center gap-1" role="group" aria-label="Go on with copies">
      <button type="button" className="button" onClick={() => session.goOn('every')}>
        <i>n</i> in all, every <span className="num">{size}</span>
      </button>
      <button type="button" className="button" onClick={() => session.goOn('across')}>
        <i>n</i> across <span className="num">{size}</span>
      </button>
    </span>
  );
}

/** What the text in the focused field comes to, where it is more than a number. */
function Result({ statement }: { statement: Statement }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const { focus } = statement;
  const blank = focus && verbNamed(statement.verb)!.blanks[focus.blank];
  if (!focus || !blank || !['length', 'vector', 'point'].includes(blank.type)) return null;
  const text = entryText(statement, focus);
  if (exactNumber(text) !== undefined || /^[-\d.\s]*$/.test(text)) return null;
  const value = session.readLength(text);
  return value === undefined ? null : <span className="num">= {formatLengthWithUnit(value, scene)}</span>;
}

/** Less than this is not worth telling, s. */
const SHORT_S = 3;

/** Whole seconds until all is built, at the rate so far; undefined while little can be said, or little is left. */
function timeLeft({ done, of, since }: { done: number; of: number; since: number }): number | undefined {
  if (done === 0) return undefined;
  const left = (((performance.now() - since) / done) * (of - done)) / 1000;
  return left > SHORT_S ? Math.ceil(left) : undefined;
}

/** Progress of what the kernel is at, once it takes longer than a moment. */
function Working() {
  const session = useSession();
  const kernel = useSessionState((state) => state.kernel);
  const items = useSessionState((state) => state.document.items);
  const [isLong, setIsLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setIsLong(true), PATIENT_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!isLong) return null;
  const name = kernel.at === 'working' && kernel.part !== undefined ? items[kernel.part]?.name : undefined;
  const isCounted = kernel.at === 'working' && kernel.of > 1;
  const counted = isCounted ? `, ${kernel.done + 1} of ${kernel.of}` : '';
  const left = kernel.at === 'working' ? timeLeft(kernel) : undefined;
  const rest = left === undefined ? '' : `, about ${left} s left`;
  const words =
    kernel.at === 'starting'
      ? 'The kernel is starting…'
      : `Working${name ? ` on ${name}` : ''}${counted}${rest}…`;
  const progress = kernel.at === 'working' && kernel.of > 0 ? { value: kernel.done, max: kernel.of } : {};
  return (
    <div className="flex shrink-0 items-center gap-2 text-[13px]" role="status">
      <span>{words}</span>
      <progress className="h-1.5 w-24 accent-(--plum)" aria-label="Progress" {...progress} />
      <button type="button" className="button" onClick={() => session.cancelWork()}>
        Cancel
      </button>
    </div>
  );
}
