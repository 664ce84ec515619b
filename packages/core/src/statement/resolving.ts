/** What the readers of blanks share: numbers, vectors and parts, as they are typed. */
import { partNamed, valueOf } from '../document/items.ts';
import { type ItemId, type KadrelDocument, type Num, type NumVector } from '../document/schema.ts';
import { readQuantity, type Quantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { variablesOf } from '../document/variables.ts';
import { labelled } from '../language/reason.ts';
import { isRefusal, refuse, refuseFor, type Blank, type Asked, type Refusal } from './declare.ts';
import { sentenceCase } from './letters.ts';
import type { World } from './world.ts';

/** Blanks as typed: texts, lists of texts, part names or ids, `{ on, at, snap }` for points. */
export type Typed = Readonly<Record<string, unknown>>;

type Reader = (text: string, kind: QuantityKind, now?: number) => Num;

/** Reads texts in the document's units and variables; a text that uses variables keeps its formula. Throws QuantityError. */
export function quantityReader(document: KadrelDocument): Reader {
  let variables: ReadonlyMap<string, Quantity> | undefined;
  return (text, kind, now) => {
    variables ??= variablesOf(document).values;
    const context = { units: document.scene.units, variables, ...(now === undefined ? {} : { now }) };
    const { value, uses } = readQuantity(text, kind, context);
    return uses.length > 0 && !/\bnow\b/.test(text) ? { formula: text.trim(), value } : value;
  };
}

export const isEmpty = (value: unknown) =>
  value === undefined ||
  value === null ||
  value === '' ||
  (Array.isArray(value) && (value.length === 0 || value.every((v) => v === '')));

export interface Resolving {
  /** What stands in the other blanks. */
  readonly typed: Typed;
  readonly document: KadrelDocument;
  readonly read: Reader;
  readonly world: World;
}

export const asText = (given: unknown) =>
  typeof given === 'number' ? String(given) : typeof given === 'string' ? given : undefined;

export function threeTexts(given: unknown): [string, string, string] | undefined {
  if (!Array.isArray(given) || given.length !== 3) return undefined;
  const texts = given.map((value: unknown) => asText(value) ?? undefined);
  return texts.every((text) => text !== undefined) ? (texts as [string, string, string]) : undefined;
}

export function readNumber(
  given: unknown,
  kind: QuantityKind,
  { blank, id }: Asked,
  { read: usual, document }: Resolving,
): Num | Refusal {
  const read = blank.paper ? quantityReader(inMillimetres(document)) : usual;
  const text = asText(given);
  if (text === undefined) return refuse('type.number', {}, id);
  try {
    const value = read(text, kind);
    if (blank.positive && !(valueOf(value) > 0))
      return refuse('not-positive.more', { label: sentenceCase(blank.label) }, id);
    return value;
  } catch (error) {
    if (error instanceof QuantityError) return refuseFor(error, id);
    throw error;
  }
}

/** A document whose bare numbers are millimetres. */
const inMillimetres = (document: KadrelDocument): KadrelDocument => ({
  ...document,
  scene: { ...document.scene, units: 'mm' },
});

export function readVector(given: unknown, { blank, id }: Asked, around: Resolving): NumVector | Refusal {
  const texts = threeTexts(given);
  if (!texts) return refuse('type.xyz', {}, id);
  const read = texts.map((text, axis) => {
    const value =
      text.trim() === ''
        ? refuse('empty', { value: 'XYZ'[axis]! }, id)
        : readNumber(text, 'length', { blank, id }, around);
    return isRefusal(value) ? labelled(value, 'XYZ'[axis]!) : value;
  });
  return read.find(isRefusal) ?? (read as NumVector);
}

export const withBlank = <T>(read: T | Refusal, blank: string): T | Refusal =>
  isRefusal(read) ? { ...read, blank } : read;

export const POINT_BLANK: Blank = { type: 'point', label: 'point', about: '', optional: false };

export function findPart(given: unknown, id: string, document: KadrelDocument): ItemId | Refusal {
  const name = Array.isArray(given) && given.length === 1 ? (given[0] as unknown) : given;
  if (typeof name !== 'string') return refuse('type.name', {}, id);
  return partNamed(document, name)?.id ?? refuse('unknown-part', { of: name }, id);
}
