/** Random values for the blanks of any verb, as somebody might type them. */
import { itemsIn, type Blank, type Column, type KadrelDocument, type Verb } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';

/** What values are chosen from. */
export interface Choosing {
  readonly random: () => number;
  readonly document: KadrelDocument;
  readonly kernel: Evaluator;
  /** For new names. */
  readonly label: string;
}

/** Pins and views that are there, for the verbs that name them. */
const KEPT: Readonly<Record<string, (document: KadrelDocument) => readonly string[]>> = {
  pin: ({ pins }) => Object.values(pins).map(({ name }) => name),
  view: ({ views }) => Object.keys(views),
};

const BLANK_IS_FILLED = 0.3;
/** Of a verb with many blanks most exclude one another. */
const MAX_FILLED = 2.5;
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><path d="M2 2h36v26h-36z M10 8c8 0 14 6 14 14h-14z"/></svg>';
const VIEW = { target: [0, 0, 0], bearing: 30, altitude: 25, height: 300, projection: 'parallel' };

/** Texts that mean something to the verb which has such a blank. */
const TEXTS: Readonly<Record<string, readonly string[]>> = {
  colour: ['#8899aa', '#d9c3a0'],
  datum: ['own', '0 0 -1', '-1 -1 -1', '1 0 1'],
  words: ['Ab', 'K 7'],
  text: ['Kadrel', 'Bo'],
  omit: ['2', '1, 3'],
  members: ['2', '1-2'],
  value: ['12', '2 * 8'],
  to: ['1', '2'],
};

export function valuesFor(verb: Verb, choosing: Choosing): Record<string, unknown> {
  const { random } = choosing;
  const filled = Object.entries(verb.blanks).filter(
    ([, blank]) =>
      (!blank.optional && blank.default === undefined) ||
      blank.neededUnless !== undefined ||
      random() < Math.min(BLANK_IS_FILLED, MAX_FILLED / Object.keys(verb.blanks).length),
  );
  return Object.fromEntries(
    filled.flatMap(([id, blank]) => {
      const value = valueOf(id, blank, choosing);
      return value === undefined ? [] : [[id, value]];
    }),
  );
}

const pick = <T>(random: () => number, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const between = (random: () => number, min: number, max: number) =>
  Math.round((min + random() * (max - min)) * 2) / 2;

function valueOf(id: string, blank: Blank, choosing: Choosing): unknown {
  const { random } = choosing;
  switch (blank.type) {
    case 'part':
      return namesIn(id, choosing)[0];
    case 'parts':
      return namesIn(id, choosing).slice(0, Math.max(blank.least ?? 1, Math.ceil(random() * 3)));
    case 'point':
      return random() < 0.5 ? threeOf(() => between(random, -60, 60)) : named(choosing, 3);
    case 'vector':
      return threeOf(() => between(random, blank.positive ? 3 : -30, 40));
    case 'frame':
      return pick(random, [
        'world',
        'own',
        'front',
        {
          points: [
            [0, 0, 0],
            [3, 1, 0],
            [0, 2, 1],
          ],
        },
      ]);
    case 'direction':
      return random() < 0.6 ? pick(random, ['x', '-x', 'y', 'z', '-z', [1, 2, 2]]) : named(choosing, 1);
    case 'feature':
      return random() < 0.8 ? named(choosing, pick(random, [1, 2])) : threeOf(() => between(random, -40, 40));
    case 'path':
      return random() < 0.5
        ? Array.from({ length: 3 }, () => threeOf(() => between(random, -60, 60)))
        : named(choosing, 2);
    case 'plane':
      return pick(random, ['plan', 'front', 'side', named(choosing, 1)]);
    case 'rows':
      return rowsOf(blank, random);
    default:
      return plainValue(id, blank, choosing);
  }
}

function plainValue(id: string, blank: Blank, { random, label, document }: Choosing): unknown {
  switch (blank.type) {
    case 'regions':
      return 'all';
    case 'drawing':
      return { svg: SVG, name: 'Sign' };
    case 'view':
      return VIEW;
    case 'count':
    case 'tally':
      return pick(random, [1, 2, 3, 4, 5]);
    case 'length':
    case 'angle':
    case 'quantity':
      return numberOf(blank, random);
    case 'quantities':
      return threeOf(() => pick(random, ['now', 'now + 2', String(between(random, 2, 50))]));
    case 'choice':
      return pick(random, Object.keys(blank.choices ?? {}));
    case 'name':
      if (KEPT[id]) return pick(random, KEPT[id](document));
      return id === 'as' || id === 'to' || id === 'name'
        ? label
        : (Object.keys(document.variables)[0] ?? 'w');
    default:
      if (KEPT[id]) return pick(random, KEPT[id](document));
      return pick(random, TEXTS[id] ?? ['2', '10', label]);
  }
}

function numberOf({ type, kind, positive }: Blank, random: () => number): unknown {
  const of = type === 'angle' ? 'angle' : kind;
  if (of === 'angle') return pick(random, [30, 45, 90, -60, 200, 360, 12.5]);
  if (of === 'count') return pick(random, [2, 3, 5, 8]);
  if (type === 'quantity' && random() < 0.3) return pick(random, ['now + 1', 'now * 2', 'w / 2']);
  if (random() < 0.1) return pick(random, ['w', 'w / 3', '1/2 in', '2 cm']);
  return between(random, positive ? 1 : -8, 30);
}

const threeOf = <T>(make: () => T): T[] => [make(), make(), make()];

function rowsOf({ columns = {} }: Blank, random: () => number): unknown {
  const cell = ([id, { kind, choices = {}, needed }]: [string, Column]): [string, unknown][] => {
    if (!needed && random() < 0.5) return [];
    if (kind === 'choice') return [[id, pick(random, Object.keys(choices))]];
    if (kind === 'count') return [[id, pick(random, [1, 3, 5])]];
    if (kind === 'angle') return [[id, pick(random, [30, 90, 135, 240])]];
    return [[id, kind === 'text' ? pick(random, ['a', 'b']) : between(random, 4, 50)]];
  };
  return Array.from(
    { length: 2 + Math.floor(random() * 3) },
    () => Object.fromEntries(Object.entries(columns).flatMap(cell)) as Record<string, unknown>,
  );
}

/** Names in a random order, those first that are likely to fit the blank. */
function namesIn(id: string, { random, document }: Choosing): string[] {
  const wantsProfile = /profile|curve|section|guides|path|rail|spine/.test(id);
  const rank = (kind: string) => ((kind === 'profile') === wantsProfile ? 0 : 1);
  return itemsIn(document)
    .map((item) => ({ name: item.name, at: rank(item.recipe.base.kind) + random() * 1.3 }))
    .sort((a, b) => a.at - b.at)
    .map(({ name }) => name);
}

/** A face (where one name meets), an edge (two) or a corner (three) of a solid that stands there. */
function named({ random, document, kernel }: Choosing, meeting: 1 | 2 | 3): unknown {
  const solids = itemsIn(document).filter(
    ({ recipe: { base } }) => !['pattern', 'group'].includes(base.kind),
  );
  const solid = pick(random, solids);
  if (!solid || kernel.problemOf(document, solid.id)) return undefined;
  const { names } = kernel.facts(document, solid.id).snaps;
  const fitting = names.filter((name) => name.split('&').length === meeting);
  return fitting.length === 0 ? undefined : { on: solid.name, at: pick(random, fitting) };
}
