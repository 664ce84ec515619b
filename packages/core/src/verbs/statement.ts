/** Statements: a verb with its blanks as typed. Resolving, performing and wording them, the same for screen and headless. */
import { partNamed, valueOf } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, NumVector } from '../document/schema.ts';
import { change, type Change } from '../history/edit.ts';
import { formatAngle, formatLengthWithUnit } from '../quantity/format.ts';
import { readQuantity, type Quantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { solveVariables } from '../quantity/variables.ts';
import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import { refuse, type Blank, type Outcome, type Refusal, type Verb } from './declare.ts';

/** Blanks as typed: texts, lists of texts, part names or ids, `{ on, at, snap }` for points. */
export type Typed = Readonly<Record<string, unknown>>;

/** A point told by names: a corner `top&front&right`, an edge `top&front`, or a face `top` of a part. */
export interface NamedPoint {
  readonly on: string;
  readonly at: string;
  readonly snap?: string | undefined;
}

/** What must be known of built geometry, and where ids come from. */
export interface World {
  newId(): ItemId;
  boxOf(part: ItemId): Box | undefined;
  /** The world point that the names mean, or why there is none. */
  locate(part: ItemId, point: NamedPoint): Vec3 | Refusal;
}

export interface Performed extends Change {
  readonly outcome: Outcome;
  readonly title: string;
}

type Reader = (text: string, kind: QuantityKind, now?: number) => Num;

/** Reads texts in the document's units and variables; a text that uses variables keeps its formula. Throws QuantityError. */
export function quantityReader(document: KadrelDocument): Reader {
  let variables: ReadonlyMap<string, Quantity> | undefined;
  return (text, kind, now) => {
    variables ??= solveVariables(document.variables, document.scene.units).values;
    const context = { units: document.scene.units, variables, ...(now === undefined ? {} : { now }) };
    const { value, uses } = readQuantity(text, kind, context);
    return uses.length > 0 && !/\bnow\b/.test(text) ? { formula: text.trim(), value } : value;
  };
}

/** The values of the blanks, or the first reason why there are none. */
export function resolveStatement(
  verb: Verb,
  typed: Typed,
  document: KadrelDocument,
  world: World,
): Record<string, unknown> | Refusal {
  const read = quantityReader(document);
  const values: Record<string, unknown> = {};
  for (const [id, blank] of Object.entries(verb.blanks)) {
    const given = isEmpty(typed[id]) ? blank.default : typed[id];
    if (isEmpty(given)) {
      if (!blank.optional)
        return refuse(
          'missing',
          `Still empty: ${blank.about.charAt(0).toLowerCase()}${blank.about.slice(1)}`,
          id,
        );
      continue;
    }
    const value = resolveBlank(blank, id, given, { document, read, world });
    if (isRefusal(value)) return value;
    values[id] = value;
  }
  return values;
}

/** Carries the statement out on a copy of the document. Nothing happens to `document` either way. */
export function perform(
  verb: Verb,
  typed: Typed,
  document: KadrelDocument,
  world: World,
): Performed | Refusal {
  const values = resolveStatement(verb, typed, document, world);
  if (isRefusal(values)) return values;
  const read = quantityReader(document);
  let outcome: Outcome | Refusal = {};
  const done = change(document, (draft) => {
    outcome = verb.apply(draft, values as never, {
      newId: () => world.newId(),
      read,
      boxOf: (id) => world.boxOf(id),
    });
  });
  if (isRefusal(outcome)) return outcome;
  return {
    ...done,
    outcome,
    title: wordStatement(verb, { ...defaultsOf(verb), ...typed }, done.document, document),
  };
}

export function defaultsOf(verb: Verb): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(verb.blanks)
      .filter(([, blank]) => blank.default !== undefined)
      .map(([id, blank]) => [id, blank.default]),
  );
}

/** The blank that a failure to build is told under: the parts, where the verb has such a blank, else its first. */
export function blankToBlame({ blanks }: Verb): string {
  const ids = Object.keys(blanks);
  return ids.find((id) => blanks[id]!.type === 'parts') ?? ids[0]!;
}

export const isRefusal = (value: unknown): value is Refusal =>
  typeof value === 'object' && value !== null && (value as Refusal).refused === true;

const isEmpty = (value: unknown) =>
  value === undefined ||
  value === null ||
  value === '' ||
  (Array.isArray(value) && (value.length === 0 || value.every((v) => v === '')));
const sentenceCase = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

interface Resolving {
  readonly document: KadrelDocument;
  readonly read: Reader;
  readonly world: World;
}

function resolveBlank(blank: Blank, id: string, given: unknown, around: Resolving): unknown {
  const kind = blank.kind ?? (blank.type === 'angle' ? 'angle' : blank.type === 'count' ? 'count' : 'length');
  switch (blank.type) {
    case 'length':
    case 'angle':
      return readNumber(given, kind, blank, id, around);
    case 'count': {
      const count = readNumber(given, 'count', blank, id, around);
      return isRefusal(count) ? count : valueOf(count);
    }
    case 'vector':
      return readVector(given, blank, id, around);
    case 'point':
      return readPoint(given, blank, id, around);
    case 'quantity':
      return asText(given) ?? refuse('type', 'A number or a text belongs here.', id);
    case 'quantities':
      return threeTexts(given) ?? refuse('type', 'Three numbers belong here.', id);
    case 'part':
      return findPart(given, id, around.document);
    case 'parts':
      return findParts(given, blank, id, around.document);
    case 'choice': {
      const text = asText(given);
      if (text !== undefined && Object.hasOwn(blank.choices ?? {}, text)) return text;
      return refuse(
        'choice',
        `“${String(given)}” is not offered; choose ${Object.keys(blank.choices ?? {}).join(', ')}.`,
        id,
      );
    }
    case 'name':
    case 'text': {
      const text = typeof given === 'string' ? given.trim() : undefined;
      if (text !== undefined && text.length > 0 && text.length <= 120) return text;
      return refuse('text', 'A text of at most 120 characters belongs here.', id);
    }
  }
}

const asText = (given: unknown) =>
  typeof given === 'number' ? String(given) : typeof given === 'string' ? given : undefined;

function threeTexts(given: unknown): [string, string, string] | undefined {
  if (!Array.isArray(given) || given.length !== 3) return undefined;
  const texts = given.map((value: unknown) => asText(value) ?? undefined);
  return texts.every((text) => text !== undefined) ? (texts as [string, string, string]) : undefined;
}

function readNumber(
  given: unknown,
  kind: QuantityKind,
  blank: Blank,
  id: string,
  { read }: Resolving,
): Num | Refusal {
  const text = asText(given);
  if (text === undefined) return refuse('type', 'A number or a text belongs here.', id);
  try {
    const value = read(text, kind);
    if (blank.positive && !(valueOf(value) > 0))
      return refuse('not-positive', `${sentenceCase(blank.label)} must be more than zero.`, id);
    return value;
  } catch (error) {
    if (error instanceof QuantityError) return refuse(error.code, error.message, id, error.at);
    throw error;
  }
}

function readVector(given: unknown, blank: Blank, id: string, around: Resolving): NumVector | Refusal {
  const texts = threeTexts(given);
  if (!texts) return refuse('type', 'Three numbers belong here, for X, Y and Z.', id);
  const read = texts.map((text, axis) => {
    const value =
      text.trim() === ''
        ? refuse('empty', `${'XYZ'[axis]} is empty.`, id)
        : readNumber(text, 'length', blank, id, around);
    return isRefusal(value) ? { ...value, message: `${'XYZ'[axis]}: ${value.message}` } : value;
  });
  return read.find(isRefusal) ?? (read as NumVector);
}

function readPoint(given: unknown, blank: Blank, id: string, around: Resolving): NumVector | Refusal {
  if (Array.isArray(given)) return readVector(given, blank, id, around);
  const named = given as Partial<NamedPoint>;
  if (typeof given !== 'object' || typeof named.on !== 'string' || typeof named.at !== 'string')
    return refuse('type', 'A point is three numbers, or { "on": part, "at": face names joined by & }.', id);
  const part = findPart(named.on, id, around.document);
  if (typeof part !== 'string') return part;
  const found = around.world.locate(part, named as NamedPoint);
  return isRefusal(found) ? { ...found, blank: id } : [...found];
}

function findPart(given: unknown, id: string, document: KadrelDocument): ItemId | Refusal {
  const name = Array.isArray(given) && given.length === 1 ? (given[0] as unknown) : given;
  if (typeof name !== 'string') return refuse('type', 'The name of one part belongs here.', id);
  return partNamed(document, name)?.id ?? refuse('unknown-part', `There is no part named ${name}.`, id);
}

function findParts(given: unknown, blank: Blank, id: string, document: KadrelDocument): ItemId[] | Refusal {
  const names: unknown[] = Array.isArray(given) ? given : [given];
  const found = names.map((name) => findPart(name, id, document));
  const fault = found.find(isRefusal);
  if (fault) return fault;
  const ids = [...new Set(found as ItemId[])];
  const least = blank.least ?? 1;
  if (ids.length < least)
    return refuse('too-few', `${sentenceCase(blank.label)}: choose at least ${least}.`, id);
  return ids;
}

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
  const fill = (template: string) =>
    template.replace(/\{(\w+)\}/g, (_, id: string) => wordBlank(verb.blanks[id]!, typed[id], after, before));
  const kept = verb.sentence.replace(/\[([^\]]*)\]/g, (_, clause: string) => {
    const ids = [...clause.matchAll(/\{(\w+)\}/g)].map(([, id]) => id!);
    return ids.every((id) => isEmpty(typed[id]) || isZero(typed[id])) ? '' : clause;
  });
  return fill(kept)
    .replace(/^(\w+), /, '$1 ')
    .slice(0, 2000);
}

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
  if (Array.isArray(typed)) {
    const joint = blank.type === 'vector' && blank.positive ? ' × ' : ', ';
    return typed.map((text) => wordNumber(String(text), blank, document)).join(joint);
  }
  if (typeof typed === 'object') {
    const { on, at, snap } = typed as NamedPoint;
    return `${snap ?? 'point'} ${at} of ${nameOf(on)}`;
  }
  return blank.type === 'length' || blank.type === 'angle' || blank.type === 'quantity'
    ? wordNumber(String(typed), blank, document)
    : String(typed);
}

const joinNames = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** Texts that came from a pick or a drag are exact millimetres; they are shown in scene units, all others as typed. */
function wordNumber(text: string, blank: Blank, { scene }: KadrelDocument): string {
  const exact = /^(-?\d+(?:\.\d+)?(?:e[+-]?\d+)?) mm$/.exec(text);
  if (exact && blank.kind !== 'angle' && blank.type !== 'angle')
    return formatLengthWithUnit(Number(exact[1]), scene);
  if ((blank.kind === 'angle' || blank.type === 'angle') && /^-?\d+(\.\d+)?$/.test(text))
    return formatAngle(Number(text));
  return text;
}
