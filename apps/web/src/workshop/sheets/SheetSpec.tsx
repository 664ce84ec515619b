/** What stands on the open sheet, in numbers: its paper and title block, its views, dimensions and notes. */
import {
  DIMENSION_KINDS,
  ENTRY_KINDS,
  PAPER_CHOICES,
  TITLE_FIELDS,
  formatScale,
  inOrder,
  paperSizeOf,
  paperWords,
  sentenceCase,
  verbNamed,
  type Dimension,
  type Sheet,
  type SheetNote,
  type SheetView,
} from '@kadrel/core';
import clsx from 'clsx';
import { X } from 'lucide-react';
import { IconButton } from '../IconButton.tsx';
import { useSession, useSessionState } from '../context.ts';
import { Choice } from '../Choice.tsx';
import { Labelled } from '../Labelled.tsx';
import { NumberField } from '../NumberField.tsx';
import { Section } from '../Section.tsx';

/** Sets blanks of a verb for this sheet. */
type Say = (verb: string, typed: Readonly<Record<string, unknown>>) => Promise<boolean>;

interface OfSheet {
  readonly sheet: Sheet;
  readonly say: Say;
}

export function SheetSpec({ sheet }: { sheet: Sheet }) {
  const session = useSession();
  const selected = useSessionState((state) => state.sheetEntry);
  const say: Say = (verb, typed) => session.say(verb, { sheet: sheet.id, ...typed });
  const [view, dimension, note] = [
    selected === null ? undefined : sheet.views[selected],
    selected === null ? undefined : sheet.dimensions[selected],
    selected === null ? undefined : sheet.notes[selected],
  ];
  return (
    <aside className="flex h-full flex-col overflow-y-auto bg-paper" aria-label="Spec">
      <h2 className="panel-title">
        <span className="truncate">Spec · {sheet.name}</span>
        <span className="font-normal text-ink2">{paperWords(sheet.paper)}</span>
      </h2>
      {view && <ViewSpec key={selected} sheet={sheet} say={say} view={view} />}
      {dimension && <DimensionSpec key={selected} sheet={sheet} say={say} dimension={dimension} />}
      {note && <NoteSpec key={selected} sheet={sheet} say={say} note={note} />}
      <Entries sheet={sheet} say={say} />
      <SheetFields sheet={sheet} say={say} />
    </aside>
  );
}

const ENTRY_WORDS = { views: 'Views', dimensions: 'Dimensions', notes: 'Notes' } as const;

function Entries({ sheet, say }: OfSheet) {
  return ENTRY_KINDS.map((kind) => {
    const entries = inOrder<SheetView | Dimension | SheetNote>(sheet[kind]);
    return (
      <Section key={kind} title={ENTRY_WORDS[kind]}>
        {entries.length === 0 && <p className="px-3.5 text-ink3">None yet.</p>}
        <ul>
          {entries.map(([id, entry]) => (
            <EntryRow key={id} id={id} entry={entry} say={say} />
          ))}
        </ul>
      </Section>
    );
  });
}

interface EntryRowProps {
  readonly id: string;
  readonly entry: SheetView | Dimension | SheetNote;
  readonly say: Say;
}

function EntryRow({ id, entry, say }: EntryRowProps) {
  const session = useSession();
  const isSelected = useSessionState((state) => state.sheetEntry === id);
  return (
    <li className={clsx('group flex h-[26px] items-center gap-2 px-3.5', isSelected && 'bg-tint')}>
      <button
        type="button"
        className="flex min-w-0 flex-1 gap-2 text-left"
        aria-pressed={isSelected}
        onClick={() => session.set({ sheetEntry: id })}
      >
        <span className="truncate font-semibold">{entry.name}</span>
        <span className="truncate text-ink2">{wordsOf(entry)}</span>
      </button>
      <IconButton
        label={`Take ${entry.name} off the sheet`}
        title="Take off the sheet"
        onClick={() => void say('take-off-sheet', { entry: id })}
      >
        <X size={13} />
      </IconButton>
    </li>
  );
}

function wordsOf(entry: SheetView | Dimension | SheetNote): string {
  if ('text' in entry) return entry.text;
  if ('kind' in entry) return DIMENSION_KINDS[entry.kind];
  return formatScale(entry.scale);
}

/** A text of the sheet; what is emptied shows a dash. */
function TextRow({
  label,
  value,
  commit,
}: {
  label: string;
  value: string;
  commit: (text: string) => Promise<boolean>;
}) {
  return (
    <Labelled label={label}>
      <NumberField
        label={label}
        shown={value}
        raw={value}
        mayBeEmpty
        check={() => undefined}
        commit={(text) => commit(text.trim() === '' ? '-' : text)}
      />
    </Labelled>
  );
}

/** A choice of a verb that changes the sheet. */
function ChoiceRow({
  of: [verb, blank],
  value,
  commit,
}: {
  of: readonly [verb: string, blank: string];
  value: string;
  commit: (value: string) => void;
}) {
  const { label, choices } = verbNamed(verb)!.blanks[blank]!;
  return <Choice label={sentenceCase(label)} chosen={value} choices={choices!} choose={commit} />;
}

/** A length on paper, in millimetres whatever the scene's unit is. */
function PaperLength({
  label,
  value,
  commit,
}: {
  label: string;
  value: number;
  commit: (text: string) => Promise<boolean>;
}) {
  const session = useSession();
  const shown = String(Number(value.toFixed(3)));
  const read = (text: string) => (/^[\d\s+\-*/.()]+$/.test(text) ? `(${text}) * 1 mm` : text);
  return (
    <Labelled label={label} title="On paper, mm">
      <NumberField
        label={label}
        shown={shown}
        raw={`${value}`}
        check={(text) => session.quantityFault(read(text), 'length', value)}
        commit={commit}
      />
    </Labelled>
  );
}

function ViewSpec({ view, say, sheet }: OfSheet & { view: SheetView }) {
  const id = Object.keys(sheet.views).find((one) => sheet.views[one] === view)!;
  const change = (typed: Readonly<Record<string, unknown>>) =>
    say('change-sheet-view', { view: id, ...typed });
  const [x, y] = view.at;
  const place = (typed: Readonly<Record<string, unknown>>) =>
    say('place-on-sheet', { entry: id, x: `${x} mm`, y: `${y} mm`, ...typed });
  return (
    <Section title={`View: ${view.name}`}>
      <TextRow label="Name" value={view.name} commit={(to) => change({ to })} />
      <TextRow label="Scale" value={formatScale(view.scale)} commit={(scale) => change({ scale })} />
      <PaperLength label="From left" value={x} commit={(text) => place({ x: text })} />
      <PaperLength label="From below" value={y} commit={(text) => place({ y: text })} />
      <ChoiceRow
        of={['change-sheet-view', 'hidden']}
        value={view.hidden}
        commit={(hidden) => void change({ hidden })}
      />
      <ChoiceRow
        of={['change-sheet-view', 'smooth']}
        value={view.smooth}
        commit={(smooth) => void change({ smooth })}
      />
      <ChoiceRow
        of={['change-sheet-view', 'centres']}
        value={view.centres}
        commit={(centres) => void change({ centres })}
      />
    </Section>
  );
}

/** Starts a statement about what is selected on the sheet, which clicks on it go on with. */
function EntryAction({ words, verb }: { words: string; verb: string }) {
  const session = useSession();
  return (
    <div className="px-3.5 py-[3px]">
      <button type="button" className="quiet" onClick={() => session.start(verb)}>
        {words}
      </button>
    </div>
  );
}

function DimensionSpec({ dimension, say, sheet }: OfSheet & { dimension: Dimension }) {
  const id = Object.keys(sheet.dimensions).find((one) => sheet.dimensions[one] === dimension)!;
  const change = (typed: Readonly<Record<string, unknown>>) =>
    say('change-dimension', { dimension: id, ...typed });
  return (
    <Section title={`Dimension: ${dimension.name}`}>
      <EntryAction words="Measure something else" verb="change-dimension" />
      <PaperLength label="Beside" value={dimension.offset} commit={(offset) => change({ offset })} />
      <TextRow label="Tolerance" value={dimension.suffix} commit={(suffix) => change({ suffix })} />
      <TextRow label="Instead" value={dimension.words} commit={(words) => change({ words })} />
    </Section>
  );
}

function NoteSpec({ note, say, sheet }: OfSheet & { note: SheetNote }) {
  const id = Object.keys(sheet.notes).find((one) => sheet.notes[one] === note)!;
  const [x, y] = note.at;
  const place = (typed: Readonly<Record<string, unknown>>) =>
    say('place-on-sheet', { entry: id, x: `${x} mm`, y: `${y} mm`, ...typed });
  const change = (typed: Readonly<Record<string, unknown>>) => say('change-note', { note: id, ...typed });
  return (
    <Section title={`Note: ${note.name}`}>
      {!note.north && (
        <>
          <TextRow label="Words" value={note.text} commit={(text) => change({ text })} />
          <EntryAction words="Point to something else" verb="change-note" />
        </>
      )}
      <PaperLength label="Letters" value={note.height} commit={(height) => change({ height })} />
      <PaperLength label="From left" value={x} commit={(text) => place({ x: text })} />
      <PaperLength label="From below" value={y} commit={(text) => place({ y: text })} />
    </Section>
  );
}

/** A usual size, or a width and a height, which make it paper of its own size. */
function PaperRows({ sheet: { paper }, say }: OfSheet) {
  const { width, height } = paper;
  const usual = paperSizeOf(paper);
  const change = (typed: Readonly<Record<string, unknown>>) => say('change-sheet', typed);
  const own = (typed: Readonly<Record<string, unknown>>) =>
    change({ paper: 'own', width: `${width} mm`, height: `${height} mm`, ...typed });
  return (
    <>
      <Labelled label="Paper">
        <select
          className="field"
          aria-label="Paper"
          value={usual ?? 'own'}
          onChange={({ target: { value } }) => void change({ paper: value })}
        >
          {Object.entries(PAPER_CHOICES)
            .filter(([size]) => size !== 'own' || usual === undefined)
            .map(([size, words]) => (
              <option key={size} value={size}>
                {words}
              </option>
            ))}
        </select>
      </Labelled>
      <PaperLength label="Width" value={width} commit={(text) => own({ width: text })} />
      <PaperLength label="Height" value={height} commit={(text) => own({ height: text })} />
    </>
  );
}

function SheetFields({ sheet, say }: OfSheet) {
  const change = (typed: Readonly<Record<string, unknown>>) => say('change-sheet', typed);
  return (
    <Section title="Title block and paper">
      {(Object.keys(TITLE_FIELDS) as (keyof typeof TITLE_FIELDS)[]).map((field) => (
        <TextRow
          key={field}
          label={TITLE_FIELDS[field]}
          value={sheet.title[field]}
          commit={(text) => change({ [field]: text })}
        />
      ))}
      <PaperRows sheet={sheet} say={say} />
      <ChoiceRow
        of={['change-sheet', 'lines']}
        value={sheet.lines}
        commit={(lines) => void change({ lines })}
      />
      <ChoiceRow
        of={['change-sheet', 'list']}
        value={sheet.partsList ? 'yes' : 'no'}
        commit={(list) => void change({ list })}
      />
    </Section>
  );
}
