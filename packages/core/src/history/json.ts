/** What JSON from elsewhere may be: bounded in depth and size, and all of its text such as a database can keep. */

/** How deep and how large. Recipes are about ten deep; the largest outline that is taken has 20,000 curves. */
export const MAX_DEPTH = 40;
/** A value with more values within it than this is not looked through. */
export const MAX_VALUES = 400_000;

/** Whether two plain values say the same, in whatever order: a database keeps the keys of objects in its own. */
export function isSameJson(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [mine, theirs] = [Object.keys(a), Object.keys(b)];
  if (Array.isArray(a) !== Array.isArray(b) || mine.length !== theirs.length) return false;
  return mine.every(
    (key) =>
      Object.hasOwn(b, key) &&
      isSameJson((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
  );
}

/** A sentence that says why a value is not taken; undefined where it is. Costs no more than the bounds allow. */
export function jsonFault(value: unknown): string | undefined {
  let count = 0;
  let layer: unknown[] = [value];
  for (let depth = 0; layer.length > 0; depth++) {
    if (depth > MAX_DEPTH) return `It is nested more than ${MAX_DEPTH} deep.`;
    count += layer.length;
    if (count > MAX_VALUES) return `It holds more than ${MAX_VALUES} values.`;
    const next: unknown[] = [];
    for (const one of layer) {
      if (typeof one === 'string' && !isCleanText(one)) return BAD_TEXT;
      if (typeof one !== 'object' || one === null) continue;
      if (!Array.isArray(one) && !Object.keys(one).every(isCleanText)) return BAD_TEXT;
      for (const inner of Object.values(one)) next.push(inner);
    }
    layer = next;
  }
  return undefined;
}
const BAD_TEXT = 'A text holds a character that cannot be stored: NUL, or half of a pair.';

/** Half of a surrogate pair without its other half, or NUL. */
const UNSTORABLE = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
const isCleanText = (text: string): boolean => text.search(UNSTORABLE) < 0;

/** The same value, with characters that cannot be stored left out of its texts and keys. */
export function cleanJson<T>(value: T): T {
  return jsonFault(value) === undefined ? value : (cleaned(value) as T);
}

function cleaned(value: unknown): unknown {
  if (typeof value === 'string') return value.replace(UNSTORABLE, '');
  if (Array.isArray(value)) return value.map(cleaned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [key.replace(UNSTORABLE, ''), cleaned(inner)]),
  );
}

/** A copy that shares nothing with the value. */
export function copyJson(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(copyJson);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, copyJson(inner)]));
}
