/**
 * The statement in hand: its verb, what stands in its blanks, and which entry has the focus. Pure functions on plain data.
 * Long, since all changes of a statement in hand stand here, as pure functions.
 */
import {
  isChosenType,
  blanksIn,
  defaultsOf,
  starterPart,
  verbNamed,
  type Blank,
  type Handling,
  type KadrelDocument,
  type RackPart,
  type Refusal,
  type Step,
  type Verb,
  type Vec3,
} from '@kadrel/core';

/** What stands in blanks, as typed. */
export type Typed = Readonly<Record<string, unknown>>;

/** One field of the bar: a blank, or one of the three numbers of a blank. */
export interface Entry {
  readonly blank: string;
  /** 0, 1, 2 for X, Y, Z; null for a blank with one field. */
  readonly axis: 0 | 1 | 2 | null;
}
/** An entry as a text. */
export const entryKey = ({ blank, axis }: Entry): string => (axis === null ? blank : `${blank}.${axis}`);

/** An entry by its key. */
export function entryOf(key: string): Entry {
  const [blank, axis] = key.split('.');
  return { blank: blank!, axis: axis === undefined ? null : (Number(axis) as 0 | 1 | 2) };
}

/** The statement in hand. */
export interface Statement {
  readonly verb: string;
  readonly typed: Typed;
  /** Words for points that were picked, by blank. */
  readonly labels: Readonly<Record<string, string>>;
  readonly focus: Entry | null;
  /** Entries that the user has typed: a drag leaves them alone. */
  readonly held: ReadonlySet<string>;
  readonly phase: 'open' | 'working' | 'done';
  readonly refusal: Refusal | null;
  /** The document before it was carried out, where what it names may be gone since; null before. */
  readonly before: KadrelDocument | null;
  /** The edit that it became; while it is the last one, the statement can still be adjusted. */
  readonly editId: string | null;
  /** What stood in its blanks when it was carried out; null before. */
  readonly sent: Typed | null;
  /** What should be known of how it was understood, once it was carried out. */
  readonly notes: readonly string[];
  /** The step to a copy that it left behind, for a pattern to go on with. */
  readonly step: Step | null;
  /** A frame that is being picked: a feature, or three points one after another. */
  readonly picking: Picking | null;
  /** What stood in its blanks when it was started. */
  readonly started: Typed;
  /** What it waits for, after a click that found nothing to fill. */
  readonly waits: string | null;
  /** The focus stands where the verb has put it, and not the one who works. */
  readonly isFocusGiven: boolean;
}

/** A frame that is being picked. */
export interface Picking {
  readonly how: 'feature' | 'points';
  readonly points: readonly unknown[];
}

/** A statement with what was given and what is usual. */
export function startStatement(verb: Verb, given: Typed = {}): Statement {
  const typed = { ...defaultsOf(verb), ...given };
  const statement: Statement = {
    verb: verb.id,
    typed,
    labels: {},
    focus: null,
    held: new Set(),
    notes: [],
    phase: 'open',
    refusal: null,
    editId: null,
    sent: null,
    before: null,
    step: null,
    picking: null,
    started: typed,
    waits: null,
    isFocusGiven: true,
  };
  return { ...statement, focus: firstOpen(statement) };
}

/** Whether something was typed, picked or chosen since it was started. */
export const isTouched = ({ typed, started, held, labels }: Statement): boolean =>
  held.size > 0 || Object.keys(labels).length > 0 || (typed !== started && !isSame(typed, started));

const isSame = (a: Typed, b: Typed) => JSON.stringify(a) === JSON.stringify(b);

/** The statement where it is open and something was typed into it: what is worth keeping. */
export const openOne = (statement: Statement | null): Statement | null =>
  statement?.phase === 'open' && isTouched(statement) ? statement : null;

/** Whether a blank is three fields in a row. An optional point is one field, since it is mostly picked. */
export const isTriple = (blank: Blank): boolean =>
  blank.type === 'vector' || blank.type === 'quantities' || (blank.type === 'point' && !blank.optional);

const ENTRIES = new Map<string, readonly Entry[]>();

/** The entries in the order of the sentence: the way that Tab goes. Asked at every move of the pointer: found once for each verb. */
export function entriesOf(verb: Verb): readonly Entry[] {
  const known = ENTRIES.get(verb.id);
  if (known) return known;
  const entries = blanksIn(verb.sentence).flatMap((blank): Entry[] =>
    isTriple(verb.blanks[blank]!)
      ? ([0, 1, 2] as const).map((axis) => ({ blank, axis }))
      : [{ blank, axis: null }],
  );
  ENTRIES.set(verb.id, entries);
  return entries;
}

/** What stands in an entry, as it was typed. */
export function entryText({ typed }: Pick<Statement, 'typed'>, { blank, axis }: Entry): string {
  const value = typed[blank];
  if (axis !== null) return Array.isArray(value) ? String((value as unknown[])[axis] ?? '') : '';
  if (Array.isArray(value)) return value.join(', ');
  // What was picked is shown by its label, or in words by the field.
  if (typeof value === 'object') return '';
  return value === undefined ? '' : String(value);
}

/** Whether something stands in a blank. */
export const isFilled = (value: unknown) =>
  value !== undefined && value !== '' && !(Array.isArray(value) && value.length === 0);

/** The first empty blank that wants filling (of two that exclude one another, the first), else the usual one. */
export function firstOpen(statement: Statement): Entry | null {
  const verb = verbNamed(statement.verb)!;
  const entries = entriesOf(verb);
  const isEmpty = ({ blank }: Entry) => !isFilled(statement.typed[blank]);
  const isWanted = ({ blank }: Entry) => {
    const { optional, excludes } = verb.blanks[blank]!;
    return !optional || (excludes !== undefined && !isFilled(statement.typed[excludes]));
  };
  const wanted = entries.find((entry) => isEmpty(entry) && isWanted(entry));
  const usual = entries.find(({ blank }) => blank === FIRST[statement.verb]);
  const other = entries.find(({ blank }) => verb.blanks[blank]!.type !== 'parts');
  return wanted ?? usual ?? other ?? null;
}

/** The blank that most statements of a verb begin with, where none must be filled. */
const FIRST: Readonly<Record<string, string>> = { move: 'from', turn: 'angle' };

/** The statement with a text typed into an entry. Three fields are filled up with zeros where they are empty. */
export function withText(
  statement: Statement,
  entry: Entry,
  text: string,
  by: 'hand' | 'pointer' = 'hand',
): Statement {
  const verb = verbNamed(statement.verb)!;
  const { excludes, type } = verb.blanks[entry.blank]!;
  const value =
    entry.axis === null
      ? type === 'point' || type === 'feature' || type === 'spot'
        ? pointFrom(text)
        : text
      : triple(statement.typed[entry.blank], entry.axis, text);
  const held = new Set(statement.held);
  if (by === 'hand') held.add(entryKey(entry));
  const { [entry.blank]: _, ...labels } = statement.labels;
  const typed = {
    ...statement.typed,
    [entry.blank]: value,
    ...(excludes !== undefined && isFilled(value) ? { [excludes]: undefined } : {}),
  };
  return { ...statement, typed, labels, held, refusal: null, isFocusGiven: false };
}

/** `15, 15, 0` in one field; anything else stays as typed, so that it can be mended. */
function pointFrom(text: string): unknown {
  if (text.trim() === '') return undefined;
  const parts = text.split(/[,;]/).map((part) => part.trim());
  return parts.length === 3 ? parts : [text];
}

function triple(value: unknown, axis: number, text: string): string[] {
  const present = Array.isArray(value) ? value.map(String) : ['', '', ''];
  return [0, 1, 2].map((i) => (i === axis ? text : (present[i] ?? '')));
}

/** Exact millimetres as a text: reads back bit for bit in any scene. */
export const exactMm = (mm: number): string => `${mm === 0 ? 0 : mm} mm`;

/** Texts that a pick or a drag wrote. */
export const exactNumber = (text: string): number | undefined => {
  const found = /^(-?\d+(?:\.\d+)?(?:e[+-]?\d+)?) mm$/.exec(text);
  return found ? Number(found[1]) : undefined;
};

/** Values from the pointer; entries that were typed by hand stay. */
export function withPointer(
  statement: Statement,
  blank: string,
  numbers: readonly number[],
  label?: string,
): Statement {
  const verb = verbNamed(statement.verb)!;
  const old = statement.typed[blank];
  const texts = numbers.map((n, axis) => {
    const key = isTriple(verb.blanks[blank]!) ? `${blank}.${axis}` : blank;
    return statement.held.has(key)
      ? Array.isArray(old)
        ? String((old as unknown[])[axis])
        : String(old)
      : exactMm(n);
  });
  const { [blank]: _, ...labels } = statement.labels;
  const value = numbers.length === 1 ? texts[0] : texts;
  const { excludes } = verb.blanks[blank]!;
  return {
    ...statement,
    typed: {
      ...statement.typed,
      [blank]: value,
      ...(excludes === undefined ? {} : { [excludes]: undefined }),
    },
    labels: label === undefined ? labels : { ...labels, [blank]: label },
    refusal: null,
  };
}

/** More blanks than this make a sentence too long for the bar: then only what is filled is shown. */
const MAX_SHOWN = 8;

/** A part put into a blank, or taken out of it; where one is enough, the next blank that wants one has the focus. */
export function withPart(
  statement: Statement,
  { blank, part, how }: { blank: string; part: string; how: 'toggle' | 'add' },
): Statement {
  const { blanks } = verbNamed(statement.verb)!;
  if (blanks[blank]?.type === 'part') {
    const typed = { ...statement.typed, [blank]: part };
    const next = Object.keys(blanks).find(
      (id) => blanks[id]!.type === 'part' && !blanks[id]!.optional && typed[id] === undefined,
    );
    const focus = next === undefined ? statement.focus : { blank: next, axis: null };
    return { ...statement, typed, focus, refusal: null };
  }
  const present = (statement.typed[blank] as string[] | undefined) ?? [];
  const without = present.filter((id) => id !== part);
  const parts = present.includes(part) && how === 'toggle' ? without : [...without, part];
  return { ...statement, typed: { ...statement.typed, [blank]: parts }, refusal: null };
}

/** A number, or a sum in brackets, with the other sign. */
export function withOtherSign(text: string): string {
  const bare = text.trim();
  if (/^[-−]/.test(bare)) {
    const rest = bare.slice(1).trim();
    if (!/[+\-−]/.test(rest)) return rest;
    if (/^\([^()]*\)$/.test(rest)) return rest.slice(1, -1);
  }
  return /[+\-−]/.test(bare) ? `-(${bare})` : `-${bare}`;
}

/** Whether a blank stands in the bar: empty optional ones are left out of long and of finished sentences, and of two that exclude one another the empty one. */
export function isShown(statement: Statement, id: string): boolean {
  const { blanks } = verbNamed(statement.verb)!;
  const blank = blanks[id]!;
  const filled = (which: string) =>
    (typeof statement.typed[which] === 'object' && !Array.isArray(statement.typed[which])) ||
    entryText(statement, { blank: which, axis: null }).replaceAll(/[, ]/g, '') !== '';
  // What is seldom wanted, and stands as it does when nothing is said, goes without saying.
  const isUsual = blank.rare && blank.default !== undefined && statement.typed[id] === blank.default;
  if (isUsual && statement.focus?.blank !== id) return false;
  // A list that was emptied is there to be filled again.
  const isEmptied = isChosenType(blank.type) && Array.isArray(statement.typed[id]);
  if (!blank.optional || filled(id) || isEmptied || statement.focus?.blank === id) return true;
  if (statement.phase === 'done' || blank.rare) return false;
  if (isWithoutChoice(blank, statement.typed)) return false;
  if (blank.of !== undefined) return filled(blank.of);
  if (blank.askedBy) return statement.typed[blank.askedBy[0]] === blank.askedBy[1];
  // Of two that exclude one another both are offered until one is filled.
  if (blank.excludes !== undefined) return !filled(blank.excludes);
  return Object.values(blanks).filter(({ rare }) => !rare).length <= MAX_SHOWN;
}

/** A rack part without sizes, or without parameters, is not asked for any. */
function isWithoutChoice({ type, of }: Blank, typed: Statement['typed']): boolean {
  if ((type !== 'size' && type !== 'parameters') || of === undefined) return false;
  const given = typed[of];
  const part = typeof given === 'string' ? starterPart(given) : (given as Partial<RackPart> | undefined);
  const all = type === 'size' ? part?.sizes : part?.parameters;
  return all?.length === 0;
}

/** Blanks that are left out of a long sentence, for the list that brings them in. */
export function hiddenBlanks(statement: Statement): string[] {
  if (statement.phase === 'done') return [];
  return Object.keys(verbNamed(statement.verb)!.blanks).filter((id) => !isShown(statement, id));
}

/** The entry after, or before, the one in focus, of those in the bar; round and round. */
export function nextEntry(statement: Statement, step: 1 | -1): Entry | null {
  const entries = entriesOf(verbNamed(statement.verb)!).filter(({ blank }) => isShown(statement, blank));
  const { focus } = statement;
  const at = focus ? entries.findIndex((entry) => entryKey(entry) === entryKey(focus)) : -1;
  // From three numbers as a whole the way goes to the first of them.
  const within = at < 0 && focus ? entries.find(({ blank }) => blank === focus.blank) : undefined;
  if (within) return within;
  return entries[(at + step + entries.length) % entries.length] ?? null;
}

/** The statement with something picked into a blank, and the focus on what is picked or typed next. */
export function withPick(statement: Statement, blank: string, value: unknown, label?: string): Statement {
  const { [blank]: _, ...labels } = statement.labels;
  const { blanks } = verbNamed(statement.verb)!;
  const { excludes, next: after } = blanks[blank]!;
  const next = typeof after === 'function' ? after(statement.typed) : after;
  const type = next === undefined ? undefined : blanks[next]!.type;
  const isTripled = type === 'quantities' || type === 'vector';
  const filled: Statement = {
    ...statement,
    typed: {
      ...statement.typed,
      ...askedFor(statement, blank),
      ...(excludes === undefined ? {} : { [excludes]: undefined }),
      [blank]: value,
    },
    labels: label === undefined ? labels : { ...labels, [blank]: label },
    refusal: null,
    isFocusGiven: false,
  };
  return next === undefined ? filled : { ...filled, focus: { blank: next, axis: isTripled ? 0 : null } };
}

/** What is given is what is meant: the choice that asks for a blank follows it. */
function askedFor({ verb }: Statement, blank: string): Typed {
  const asked = verbNamed(verb)!.blanks[blank]?.askedBy;
  return asked ? { [asked[0]]: asked[1] } : {};
}

/** Where a choice asks for a blank of its own, that has the focus next. */
export function withChoice(statement: Statement, blank: string): Statement {
  const value = statement.typed[blank];
  const found = Object.entries(verbNamed(statement.verb)!.blanks).find(
    ([, { askedBy }]) => askedBy?.[0] === blank && askedBy[1] === value,
  );
  return found ? { ...statement, focus: { blank: found[0], axis: null } } : statement;
}

/** Done, and something else stands in its blanks since: what it would come to is shown. */
export const isChanged = ({ phase, typed, sent }: Statement): boolean => phase === 'done' && typed !== sent;

/** The pattern that goes on with the step to a copy: `every` keeps the step, `across` shares it out. */
export function goneOn(statement: Statement, how: 'every' | 'across'): Statement | null {
  const { step, typed, editId } = statement;
  if (!step || editId === null) return null;
  const { parts } = typed;
  const size = step.kind === 'along' ? exactMm(Math.hypot(...step.by)) : String(step.angle);
  const spacing = { count: '2', [how === 'every' ? 'pitch' : 'span']: size };
  const pattern =
    step.kind === 'along'
      ? { parts, along: axisWords(step.by), ...spacing }
      : { parts, axis: axisWords(step.axis), at: step.centre.map(exactMm), ...spacing };
  const begun = startStatement(verbNamed(step.kind)!, pattern);
  return { ...begun, phase: 'done', editId, focus: { blank: 'count', axis: null } };
}

/** A direction along an axis by its letter, any other by its numbers. */
function axisWords(by: Vec3): unknown {
  const axis = by.findIndex((n, i) => n !== 0 && by.every((m, k) => k === i || m === 0));
  return axis < 0 ? [...by] : `${by[axis]! < 0 ? '-' : ''}${'xyz'[axis]}`;
}

/** Copies are put again and again until Enter comes without another point. */
export const isEndOfCopies = ({ phase, typed }: Statement): boolean =>
  phase === 'open' && typed.leaving === 'each' && isFilled(typed.from) && !isFilled(typed.to);

/** Whether a statement is worked with in this way. */
export const isHandled = (statement: Pick<Statement, 'verb'> | null | undefined, how: Handling): boolean =>
  statement?.verb !== undefined && verbNamed(statement.verb)?.handling === how;

/** The axis that a motion is locked to, because its field has the focus: only with the fields of a shift. */
export function lockedAxis({ focus, verb }: Statement): 0 | 1 | 2 | null {
  return verbNamed(verb)!.handling === 'moves' && focus?.blank === 'by' ? focus.axis : null;
}
