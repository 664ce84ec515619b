/** Statements in plain words, for the ledger and the bar. */
import { readableName } from '../document/naming.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { formatAngle, formatLengthWithUnit } from '../quantity/format.ts';
import type { NamedPoint } from '../snapping/locate.ts';
import { EDGE_RULES, isChosenType, type ChosenType, type EdgeRule } from '../recipes/chosen.ts';
import { sentenceCase } from './letters.ts';
import { PLANES } from './planes.ts';
import { rowsOfText } from './rows.ts';
import type { Blank, Verb } from './declare.ts';
import { isEmpty, type Typed } from './resolving.ts';
import { filledIn, withClauses } from './template.ts';

/**
 * The statement in plain words, for the ledger. Parts are looked up in `before`, then in `after`, so that a deleted
 * or renamed part has the name that it had.
 */
export function wordStatement(
  verb: Verb,
  typed: Typed,
  after: KadrelDocument,
  before: KadrelDocument = after,
): string {
  const isUnsaid = (id: string) =>
    isEmpty(typed[id]) || isZero(typed[id]) || isUsual(verb.blanks[id]!, typed[id]);
  const kept = withClauses(verb.sentence, (clause, blanks) => (blanks.every(isUnsaid) ? '' : clause));
  return filledIn(kept, (id) => wordBlank(verb.blanks[id]!, typed[id], after, before))
    .replace(/^(\w+), /, '$1 ')
    .slice(0, 2000);
}

/** A choice or a frame as it is when nothing is said goes without saying. */
const isUsual = (blank: Blank, value: unknown) =>
  (blank.rare ||
    blank.type === 'choice' ||
    blank.type === 'regions' ||
    blank.type === 'frame' ||
    blank.type === 'direction') &&
  value === blank.default;

const isZero = (value: unknown) =>
  Array.isArray(value) && value.length === 3 && value.every((n) => n === '0' || n === 0);

/** One blank in words, with numbers in scene units. */
export function wordBlank(
  blank: Blank,
  typed: unknown,
  document: KadrelDocument,
  before: KadrelDocument = document,
): string {
  if (isEmpty(typed)) return '…';
  const nameOf = (id: unknown) =>
    (before.items[String(id)] ?? document.items[String(id)])?.name ?? String(id);
  if (blank.type === 'parts' || blank.type === 'part') {
    const names = (Array.isArray(typed) ? typed : [typed]).map(nameOf);
    return names.length > 3
      ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
      : joinNames(names);
  }
  if (blank.type === 'choice') return blank.choices?.[String(typed)] ?? String(typed);
  if (blank.type === 'drawing') return String((typed as { name?: unknown }).name ?? 'a file');
  if (blank.type === 'rows') return wordRows(typed, blank);
  if (blank.type === 'regions')
    return Array.isArray(typed) ? `${typed.length} region${typed.length === 1 ? '' : 's'}` : 'all regions';
  if (isChosenType(blank.type)) return wordChosen(typed, { type: blank.type, document: before });
  const worded = WORDS[blank.type]?.(typed, nameOf);
  if (worded !== undefined) return worded;
  if (blank.type === 'sheet' || blank.type === 'entry') return wordOnSheet(typed, [before, document]);
  if (blank.type === 'path' && Array.isArray(typed)) return `${typed.length} points`;
  if (Array.isArray(typed)) {
    const joint = blank.type === 'vector' && blank.positive ? ' × ' : ', ';
    return typed.map((text) => wordNumber(String(text), blank, document)).join(joint);
  }
  if (typeof typed === 'object') {
    return typed === null ? '…' : wordNamed(typed, nameOf);
  }
  return blank.type === 'length' || blank.type === 'angle' || blank.type === 'quantity'
    ? wordNumber(String(typed), blank, document)
    : String(typed);
}

function wordRows(typed: unknown, { label, columns }: Blank): string {
  const rows =
    typeof typed === 'string' ? rowsOfText(typed, Object.keys(columns ?? {})) : (typed as unknown[]);
  return `${rows.length} ${rows.length === 1 ? label.replace(/s$/, '') : label}`;
}

/** Names as they were typed, a single pick by its name, more of them by their number. */
function wordChosen(
  typed: unknown,
  { type, document }: { readonly type: ChosenType; readonly document: KadrelDocument },
): string {
  const readable = (name: string) =>
    readableName(name, document)
      .replace(/^(around|on from) /, 'all edges $1 ')
      .split('&')
      .join(' · ');
  const list = (Array.isArray(typed) ? typed : [typed]) as unknown[];
  const picked = list.filter((one) => typeof one === 'object') as Partial<NamedPoint>[];
  const words = list
    .filter((one): one is string => typeof one === 'string')
    .map((one) => ruleWords(one) ?? readable(one));
  if (picked.length === 1) words.push(readable(String(picked[0]!.at)));
  else if (picked.length > 1) words.push(`${picked.length} ${type}`);
  return joinNames(words);
}

const ruleWords = (typed: string): string | undefined =>
  EDGE_RULES[
    typed
      .trim()
      .toLowerCase()
      .replace(/^along /, '') as EdgeRule
  ];

function wordTies(typed: unknown, nameOf: (id: unknown) => string): string {
  if (typeof typed === 'string') return typed;
  const list = (Array.isArray(typed) ? typed : [typed]) as unknown[];
  if (list.length > 2 && typeof list[0] === 'object') return `${list.length} places`;
  return list
    .map((one) =>
      typeof one === 'object' && one !== null && !Array.isArray(one) ? wordNamed(one, nameOf) : String(one),
    )
    .join(typeof list[0] === 'object' ? ' and ' : ', ');
}

/** Types of blanks that are worded by what stands in them and by names alone. */
const WORDS: Readonly<
  Partial<Record<Blank['type'], (typed: unknown, nameOf: (id: unknown) => string) => string>>
> = {
  rackPart: (typed) => wordRackPart(typed),
  parameters: (typed) => wordParameters(typed),
  dock: (typed, nameOf) => wordDock(typed, nameOf),
  view: () => 'this view',
  frame: (typed, nameOf) => wordAxes(typed, nameOf),
  direction: (typed, nameOf) => wordAxes(typed, nameOf),
  plane: (typed, nameOf) => wordPlane(typed, nameOf),
  ties: (typed, nameOf) => wordTies(typed, nameOf),
};

const wordRackPart = (typed: unknown): string =>
  typeof typed === 'object' && typed !== null && 'name' in typed ? String(typed.name) : String(typed);

function wordParameters(typed: unknown): string {
  if (typeof typed !== 'object' || typed === null) return String(typed);
  return joinNames(
    Object.entries(typed)
      .filter(([, text]) => !isEmpty(text))
      .map(([name, text]) => `${name} ${String(text)}`),
  );
}

/** `elbow · A`, as picked, or as it was typed. */
function wordDock(typed: unknown, nameOf: (id: unknown) => string): string {
  if (typeof typed !== 'object' || typed === null) return nameOf(typed);
  const { on, dock, member, of } = typed as Readonly<Record<string, unknown>>;
  const which = member === undefined || member === '' ? '' : ` ${String(member)}`;
  const whose = of === undefined || of === on ? '' : ` · ${nameOf(of)}`;
  return `${dock === undefined || dock === '' ? '' : `${String(dock)} of `}${nameOf(on)}${which}${whose}`;
}

/** The name of a sheet, or of what stands on one, now or before. */
function wordOnSheet(typed: unknown, documents: readonly KadrelDocument[]): string {
  const id = String(typed);
  for (const { sheets } of documents) {
    const own = Object.hasOwn(sheets, id) ? sheets[id] : undefined;
    if (own) return own.name;
    for (const sheet of Object.values(sheets)) {
      const entry = sheet.views[id] ?? sheet.dimensions[id] ?? sheet.notes[id];
      if (entry) return entry.name;
    }
  }
  return id;
}

function wordPlane(typed: unknown, nameOf: (id: unknown) => string): string {
  if (typeof typed === 'string') return typed in PLANES ? typed : nameOf(typed);
  return typeof typed === 'object' && typed !== null && 'points' in typed
    ? 'a plane through three points'
    : wordNamed(typed as object, nameOf);
}

function wordNamed(typed: object, nameOf: (id: unknown) => string): string {
  if ('pin' in typed) return `pin ${String(typed.pin)}`;
  if ('dock' in typed) return wordDock(typed, nameOf);
  const { on, at, snap, member } = typed as Partial<NamedPoint>;
  const which = member === undefined || member === '' ? '' : ` ${member}`;
  if (at === undefined || at === '') return `${nameOf(on)}${which}`;
  return `${snap === undefined ? '' : `${snap} `}${at.split('&').join(' · ')} of ${nameOf(on)}${which}`;
}

/** A frame or a direction in words. */
function wordAxes(typed: unknown, nameOf: (id: unknown) => string): string {
  if (typeof typed === 'string')
    return /^[+-]?[xyz]$/i.test(typed)
      ? typed.toUpperCase().replace('+', '').replace('-', '−')
      : sentenceCase(typed);
  if (Array.isArray(typed)) return typed.map(String).join(', ');
  const { bearing, altitude, points } = typed as { bearing?: number; altitude?: number; points?: unknown };
  if (bearing !== undefined && altitude !== undefined)
    return `view ${formatAngle(bearing)} ${formatAngle(altitude)}`;
  return points === undefined ? wordNamed(typed as object, nameOf) : 'three points';
}

const joinNames = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** Texts that came from a pick or a drag are exact millimetres; they are shown in scene units, all others as typed. */
function wordNumber(text: string, blank: Blank, document: KadrelDocument): string {
  const scene = blank.paper ? { ...document.scene, units: 'mm' as const } : document.scene;
  const exact = /^(-?\d+(?:\.\d+)?(?:e[+-]?\d+)?) mm$/.exec(text);
  if (exact && blank.kind !== 'angle' && blank.type !== 'angle')
    return formatLengthWithUnit(Number(exact[1]), scene);
  if ((blank.kind === 'angle' || blank.type === 'angle') && /^-?\d+(\.\d+)?$/.test(text))
    return formatAngle(Number(text));
  return text;
}
