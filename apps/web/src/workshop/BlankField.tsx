/** The fields of the statement bar, one for each type of blank. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import {
  AXES,
  ENTRY_KINDS,
  emptyDocument,
  formatLengthFinely,
  inOrder,
  sheetsOf,
  topParts,
  wordBlank,
  type Blank,
  type KadrelDocument,
  type Sheet,
} from '@kadrel/core';
import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import { live } from '../session/live.ts';
import {
  entryKey,
  entryText,
  exactNumber,
  isTriple,
  type Entry,
  type Statement,
} from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';
import { DrawingFileField } from './DrawingFileField.tsx';
import { ChosenField } from './ChosenField.tsx';
import { PlaneField, RegionsField } from './DrawingFields.tsx';
import { ENTRY_ATTRIBUTE, flipSign } from './fieldKeys.ts';
import { commitsByEnter, isAt, useFocusedButton, type FieldProps } from './PickList.tsx';
import { DirectionField, DockField, FrameField } from './PickedFields.tsx';
import { ParametersField, RackPartField, SizeField } from './racks/RackFields.tsx';
import { RowsField } from './RowsField.tsx';

/** Fields of their own; all other blanks are typed. */
const FIELDS: Readonly<Partial<Record<Blank['type'], React.ComponentType<FieldProps>>>> = {
  part: PartsField,
  parts: PartsField,
  choice: ChoiceField,
  sheet: SheetField,
  entry: SheetField,
  frame: FrameField,
  direction: DirectionField,
  dock: DockField,
  rackPart: RackPartField,
  size: SizeField,
  parameters: ParametersField,
  plane: PlaneField,
  drawing: DrawingFileField,
  regions: RegionsField,
  edges: ChosenField,
  faces: ChosenField,
  places: ChosenField,
  rows: RowsField,
};

/** The field of a blank. */
export function BlankField({ id, blank, statement }: { id: string; blank: Blank; statement: Statement }) {
  const isBad = statement.refusal?.blank === id;
  const Field = FIELDS[blank.type];
  if (Field) return <Field id={id} blank={blank} statement={statement} isBad={isBad} />;
  if (blank.type === 'view')
    return <span className="blank">{wordBlank(blank, statement.typed[id], EMPTY)}</span>;
  if (isTriple(blank))
    return (
      <span className="inline-flex gap-1.5" data-blank={id}>
        {([0, 1, 2] as const).map((axis) => (
          <TextField
            key={axis}
            entry={{ blank: id, axis }}
            blank={blank}
            statement={statement}
            isBad={isBad}
          />
        ))}
      </span>
    );
  return (
    <span data-blank={id}>
      <TextField entry={{ blank: id, axis: null }} blank={blank} statement={statement} isBad={isBad} />
    </span>
  );
}

/** What the pointer makes of a field stays chosen in it, so that a number typed now takes its place. */
function showLive(field: HTMLInputElement, text: string): void {
  field.value = text;
  if (document.activeElement === field) field.select();
}

/** Numbers that may be less than zero. */
const SIGNED_TYPES = new Set(['length', 'angle', 'vector', 'quantity', 'quantities']);
const PICKED_TYPES = new Set(['point', 'spot', 'feature', 'target', 'path', 'ties']);
/** A kept view is worded without looking into the document. */
const EMPTY = emptyDocument();

function TextField({ entry, blank, statement, isBad }: Omit<FieldProps, 'id'> & { entry: Entry }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const scene = blank.paper ? { ...document.scene, units: 'mm' as const } : document.scene;
  const field = useRef<HTMLInputElement>(null);
  const key = entryKey(entry);
  const raw = entryText(statement, entry);
  const exact = exactNumber(raw);
  const label = statement.labels[entry.blank];
  const shown =
    label ??
    pickedWords(blank, statement.typed[entry.blank], document) ??
    (exact === undefined ? shownPoint(raw, scene) : formatLengthFinely(exact, scene));
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';

  useEffect(() => {
    if (field.current && field.current.value !== shown) field.current.value = shown;
  }, [shown]);
  useEffect(() => live.listen(key, (text) => field.current && showLive(field.current, text)), [key]);
  useEffect(() => {
    if (!isActive) return;
    field.current?.focus({ preventScroll: false });
    field.current?.select();
  }, [isActive]);

  const axis = entry.axis === null ? undefined : AXES[entry.axis];
  const isNumber = !['name', 'text'].includes(blank.type);
  return (
    <label className={clsx('blank', isNumber && 'num')} data-active={isActive} data-bad={isBad}>
      {axis && (
        <b aria-hidden style={{ color: `var(--${axis})` }}>
          {axis.toUpperCase()}
        </b>
      )}
      <input
        ref={field}
        {...{ [ENTRY_ATTRIBUTE]: key, ...(isNumber ? {} : { 'data-words': true }) }}
        aria-label={axis ? `${blank.label} ${axis.toUpperCase()}` : blank.label}
        title={blank.about}
        aria-invalid={isBad}
        defaultValue={shown}
        placeholder={PICKED_TYPES.has(blank.type) ? 'pick…' : blank.optional ? '…' : ''}
        autoComplete="off"
        spellCheck={false}
        disabled={statement.phase === 'working'}
        onFocus={() => !isActive && session.focus(entry)}
        onInput={(event) => session.type(entry, event.currentTarget.value)}
      />
      {isActive && SIGNED_TYPES.has(blank.type) && !blank.positive && (
        <button
          type="button"
          tabIndex={-1}
          className="px-0.5 text-ink2 hover:text-plum"
          aria-label={`Other sign of ${blank.label}`}
          title="Other sign (F9)"
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => flipSign(session)}
        >
          ±
        </button>
      )}
    </label>
  );
}

/** What was picked, in words; undefined for what is typed. */
const pickedWords = (blank: Blank, value: unknown, document: KadrelDocument): string | undefined =>
  typeof value === 'object' &&
  value !== null &&
  (!Array.isArray(value) ||
    (blank.type === 'path' && Array.isArray(value[0])) ||
    (blank.type === 'ties' && typeof value[0] === 'object'))
    ? wordBlank(blank, value, document)
    : undefined;

/** Three exact numbers in one field, in scene units. */
function shownPoint(raw: string, scene: Parameters<typeof formatLengthFinely>[1]): string {
  const numbers = raw.split(', ').map(exactNumber);
  return numbers.length === 3 && numbers.every((n) => n !== undefined)
    ? numbers.map((n) => formatLengthFinely(n, scene)).join(', ')
    : raw;
}

function PartsField({ id, blank, statement, isBad }: FieldProps) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const entry: Entry = { blank: id, axis: null };
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';
  const button = useFocusedButton({ isActive });
  const isMany = blank.type === 'parts';
  const value = statement.typed[id];
  const chosen = isMany ? ((value as string[] | undefined) ?? []) : ((value as string | undefined) ?? '');
  const options = topParts(document);
  // What was deleted by it still has the name that it had.
  const words = wordBlank(blank, value, document, statement.before ?? document);
  return (
    <Listbox
      value={chosen}
      multiple={isMany}
      disabled={statement.phase === 'working'}
      onChange={(next: string | string[]) => session.setBlank(id, next)}
    >
      <ListboxButton
        ref={button}
        className="blank"
        data-blank={id}
        data-active={isActive}
        data-bad={isBad}
        aria-label={`${blank.label}: ${words}`}
        title={blank.about}
        onFocus={() => !isActive && session.focus(entry)}
        onKeyDownCapture={statement.phase === 'open' ? commitsByEnter(session, button) : undefined}
      >
        {chosen.length === 0 ? (
          <span className="text-ink3">{isMany ? 'click parts…' : 'click a part…'}</span>
        ) : (
          words
        )}
      </ListboxButton>
      <ListboxOptions
        modal={false}
        anchor={{ to: 'bottom start', gap: 6 }}
        className="menu max-h-80 min-w-44 overflow-auto"
      >
        {options.map((part) => (
          <ListboxOption
            key={part.id}
            value={part.id}
            className="menu-item data-selected:font-semibold data-selected:text-plum"
          >
            <span
              className="size-2.5 rounded-xs border border-black/20"
              style={{ background: part.colour }}
            />
            {part.name}
          </ListboxOption>
        ))}
        {options.length === 0 && <p className="px-3 py-1.5 text-ink2">There are no parts yet.</p>}
      </ListboxOptions>
    </Listbox>
  );
}

/** A sheet, or what stands on one: chosen from a list by its name. */
function SheetField({ id, blank, statement, isBad }: FieldProps) {
  const sheets = useSessionState((state) => state.document.sheets);
  const on = sheets[String(statement.typed[blank.of ?? ''] ?? '')] ?? sheetsOf({ sheets }).at(-1);
  const entries =
    blank.type === 'sheet' ? sheetsOf({ sheets }).map((one) => [one.id, one] as const) : entriesOn(on, blank);
  const choices = Object.fromEntries(entries.map(([key, { name }]) => [key, name]));
  return <ChoiceField id={id} blank={{ ...blank, choices }} statement={statement} isBad={isBad} />;
}

const entriesOn = (sheet: Sheet | undefined, { among = ENTRY_KINDS }: Blank) =>
  sheet ? among.flatMap((kind) => inOrder<{ order: number; name: string }>(sheet[kind])) : [];

function ChoiceField({ id, blank, statement, isBad }: FieldProps) {
  const session = useSession();
  const entry: Entry = { blank: id, axis: null };
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';
  const button = useFocusedButton({ isActive });
  /** The list gives the focus back to its button when it closes; a blank that the choice asks for keeps it. */
  const isClosing = useRef(false);
  const value = (statement.typed[id] as string | undefined) ?? '';
  return (
    <Listbox
      value={value}
      disabled={statement.phase === 'working'}
      onChange={(next: string) => {
        isClosing.current = true;
        session.setBlank(id, next);
      }}
    >
      <ListboxButton
        ref={button}
        className="blank"
        data-blank={id}
        data-active={isActive}
        data-bad={isBad}
        aria-label={`${blank.label}: ${blank.choices?.[value] ?? 'not chosen'}`}
        title={blank.about}
        onFocus={() => {
          if (!isActive && !isClosing.current) session.focus(entry);
          isClosing.current = false;
        }}
        onKeyDownCapture={statement.phase === 'open' ? commitsByEnter(session, button) : undefined}
      >
        {blank.choices?.[value] ?? (
          <span className="text-ink3">{blank.choices?.[blank.unsaid ?? ''] ?? '…'}</span>
        )}
      </ListboxButton>
      <ListboxOptions modal={false} anchor={{ to: 'bottom start', gap: 6 }} className="menu">
        {Object.entries(blank.choices ?? {}).map(([choice, words]) => (
          <ListboxOption
            key={choice}
            value={choice}
            className="menu-item data-selected:font-semibold data-selected:text-plum"
          >
            {words}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
