/**
 * Edits under torture: patches at random, most of them wrong, against a document. None may throw, change what was there, or leave a
 * document that the whole schema refuses.
 */
import { afterEdits, documentSchema, isEditFault, type Edit, type KadrelDocument } from '@kadrel/core';
import { built, numbers } from '@kadrel/testing';
import type { Outcome } from './table.ts';

type Random = () => number;
type Patch = Edit['patches'][number];
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

export const startingDocument = (): KadrelDocument =>
  built([
    ['variable', { name: 'gap', value: '0.2 mm' }],
    ['box', { as: 'plate', size: [40, 30, 8] }],
    ['cylinder', { as: 'drill', diameter: '6 + gap', height: 20, at: [20, 15, -5] }],
    ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
    ['grid', { as: 'rack', parts: ['bracket'], columns: 3, columnPitch: 50 }],
    ['rectangle', { as: 'outline', width: 30, height: 10 }],
    ['raise', { as: 'bar', profiles: ['outline'], height: 5 }],
    ['pin', { as: 'corner', at: [1, 2, 3] }],
  ]);

const WRONG_KEYS = ['length', '__proto__', 'constructor', 'nowhere', '-1', '1e9', 4294967294, 7, 0, ''];
const WRONG_VALUES: readonly unknown[] = [
  undefined,
  null,
  0,
  -1,
  5e7,
  4294967295,
  1e300,
  'a\0b',
  '\ud800',
  'x'.repeat(5000),
  '',
  [],
  {},
  { kind: 'link', to: 'nowhere' },
  { formula: 'gap', value: 1 },
];

/** A place of the document, as deep as chance goes, and then perhaps astray. */
function place(random: Random, document: KadrelDocument): Patch['path'] {
  const path: (string | number)[] = [];
  let at: unknown = document;
  while (typeof at === 'object' && at !== null && (path.length < 2 || random() < 0.75)) {
    const keys = Object.keys(at);
    if (keys.length === 0) break;
    const key = pick(random, keys);
    path.push(Array.isArray(at) ? Number(key) : key);
    at = (at as Record<string, unknown>)[key];
  }
  if (random() < 0.3) path.push(pick(random, WRONG_KEYS));
  if (random() < 0.1) path[Math.floor(random() * path.length)] = pick(random, WRONG_KEYS);
  return path.length === 0 ? ['items'] : path;
}

/** Something that stands elsewhere in the document, or something wrong. */
function value(random: Random, document: KadrelDocument): unknown {
  if (random() < 0.4) return pick(random, WRONG_VALUES);
  let at: unknown = document;
  for (const key of place(random, document))
    at =
      typeof at === 'object' && at !== null && Object.hasOwn(at, key)
        ? (at as Record<string, unknown>)[key]
        : at;
  return at;
}

export function randomEdit(document: KadrelDocument, seed: number): Edit {
  const random = numbers(seed * 6007 + 5);
  const patch = (): Patch => ({
    op: pick(random, ['add', 'replace', 'remove'] as const),
    path: place(random, document),
    value: value(random, document),
  });
  return {
    id: `fuzz-${String(seed).padStart(6, '0')}`,
    kind: 'do',
    patches: Array.from({ length: 1 + Math.floor(random() * 3) }, patch),
    inverses: [],
    line: { verb: 'change', values: {}, title: 'Fuzz', author: 'Ada', time: 1 },
  };
}

/** Refused with a sentence, or taken and sound; what was there stays as it was. */
export function editVerdict(document: KadrelDocument, seed: number): Outcome & { readonly words: string } {
  const before = JSON.stringify(document);
  const edit = randomEdit(document, seed);
  const sent = JSON.stringify(edit);
  const outcomeOf = (outcome: Outcome['outcome'], words: string) => ({ class: 'edits', outcome, words });
  let after: ReturnType<typeof afterEdits>;
  try {
    after = afterEdits(document, [edit]);
  } catch (error) {
    return outcomeOf('wrong', `it threw ${String(error)}: ${sent.slice(0, 300)}`);
  }
  if (JSON.stringify(document) !== before)
    return outcomeOf('wrong', `what was there has changed: ${sent.slice(0, 300)}`);
  if (JSON.stringify(edit) !== sent)
    return outcomeOf('wrong', `the edit itself has changed: ${sent.slice(0, 300)}`);
  if (isEditFault(after)) return outcomeOf('refused', after.message);
  const parsed = documentSchema.safeParse(after);
  return parsed.success
    ? outcomeOf('right', '')
    : outcomeOf('wrong', `${parsed.error.issues[0]!.message}: ${sent.slice(0, 300)}`);
}
