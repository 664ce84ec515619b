/** Asks the kernel all that a fit report needs, a few pairs at a time, so that progress can be reported and the work be left off. */
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { inOrderMade, type Fit, type Measure } from '../document/fit.ts';
import { visibleParts } from '../document/items.ts';
import type {
  Fall,
  MeasuredFacts,
  PairFacts,
  Play,
  SolidPair,
  StandingSolid,
} from '../questions/fitFacts.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Box } from '../space/box.ts';
import type { Measuring, Question, Replies } from '../questions/question.ts';

/** What the kernel has answered for a report. */
export interface Surveyed {
  readonly solids: readonly StandingSolid[];
  /** What cannot be built. */
  readonly unbuilt: readonly ItemId[];
  readonly pairs: readonly { readonly pair: SolidPair; readonly facts: PairFacts }[];
  /** Of solids that nothing is seen to carry. */
  readonly falls: Readonly<Record<string, Fall>>;
  /** Of solids that lie in a pocket of another one. */
  readonly plays: Readonly<Record<string, Play>>;
  readonly fits: readonly { readonly fit: Fit; readonly facts: MeasuredFacts | null }[];
  readonly measures: readonly { readonly measure: Measure; readonly facts: MeasuredFacts | null }[];
}

/** What is looked at. */
export interface Scope {
  /** All that can be seen where nothing is said. */
  readonly parts?: readonly ItemId[] | undefined;
  /** Only pairs with one of these. */
  readonly among?: readonly ItemId[] | undefined;
  /** Only pairs of parts in two different ones of these. */
  readonly between?: readonly (readonly ItemId[])[] | undefined;
  /** What parts may not reach beyond: from the origin along X and Y, and how high, mm. */
  readonly site?: Vec3 | undefined;
  /** Solids farther apart than this, mm, have nothing to do with each other. */
  readonly reach: number;
  /** What is nearer than this, mm, touches. */
  readonly hair: number;
}

/** What is looked at when nothing is said, mm. */
export const USUAL_SCOPE: Scope = { reach: 5, hair: 1e-6 };

/** Asks the kernel, and waits for its reply. */
export type Asking = <K extends Question['ask']>(
  question: Extract<Question, { ask: K }>,
) => Promise<Replies[K] | null>;

/** Pairs in one question. */
const AT_ONCE = 4;

/** @param ask null where something is not there any more @param onDone how much of all is done, 0 to 1 */
export async function surveyFit(
  document: KadrelDocument,
  scope: Scope,
  { ask, onDone = () => {} }: { readonly ask: Asking; readonly onDone?: (share: number) => void },
): Promise<Surveyed> {
  const { reach, hair } = scope;
  const parts = scope.parts ?? visibleParts(document).map(({ id }) => id);
  const nearby = await ask<'nearby'>({ ask: 'nearby', parts, reach });
  if (!nearby) throw new Error('How these parts stand cannot be told.');
  const { solids, pairs: near, unbuilt } = nearby;
  const items = new Map(solids.map((one) => [one.tag, one.item]));
  const itemsOf = (pair: SolidPair) => pair.map((tag) => items.get(tag)!);
  const wanted = near.filter((pair) => isLookedAt(scope, itemsOf(pair)));
  const pairs: { pair: SolidPair; facts: PairFacts }[] = [];
  for (let from = 0; from < wanted.length; from += AT_ONCE) {
    const batch = wanted.slice(from, from + AT_ONCE);
    const facts = (await ask<'pairs'>({ ask: 'pairs', pairs: batch, reach })) ?? [];
    batch.forEach((pair, i) => facts[i] && pairs.push({ pair, facts: facts[i] }));
    onDone(Math.min(1, (from + AT_ONCE) / wanted.length) * PAIRS_SHARE);
  }
  const loose = scope.among || scope.between ? [] : notCarried(solids, pairs, hair);
  const falls = await askedOneByOne(loose, async (tag) => {
    const [fall] = (await ask<'falls'>({ ask: 'falls', solids: [tag], among: parts })) ?? [];
    return fall;
  });
  const held = inPockets(solids, pairs).slice(0, MAX_PLAYS);
  const plays = await askedOneByOne(held, async (tag) => {
    const [play] = (await ask<'play'>({ ask: 'play', solids: [tag], among: parts })) ?? [];
    return play;
  });
  const checks = await surveyChecks(document, ask);
  onDone(1);
  return { ...checks, solids, unbuilt, pairs, falls, plays };
}

/** One question a solid, so that the work can be left off between them. */
async function askedOneByOne<T>(
  tags: readonly string[],
  tell: (tag: string) => Promise<T | undefined>,
): Promise<Record<string, T>> {
  const replies: Record<string, T> = {};
  for (const tag of tags) {
    const one = await tell(tag);
    if (one !== undefined) replies[tag] = one;
  }
  return replies;
}

/** Pairs with one of the chosen, or between two of the chosen groups. */
function isLookedAt({ among, between }: Scope, items: readonly ItemId[]): boolean {
  if (between) {
    const [a, b] = items.map((item) => between.findIndex((group) => group.includes(item)));
    return a! >= 0 && b! >= 0 && a !== b;
  }
  return !among || items.some((item) => among.includes(item));
}

/** Kept measures and wanted fits alone. */
export async function surveyChecks(document: KadrelDocument, ask: Asking): Promise<Surveyed> {
  const fits = await measuredOf(inOrderMade(document.fits), ask);
  const measures = await measuredOf(inOrderMade(document.measures), ask);
  return {
    solids: [],
    unbuilt: [],
    pairs: [],
    falls: {},
    plays: {},
    fits: fits.map(({ one, facts }) => ({ fit: one, facts })),
    measures: measures.map(({ one, facts }) => ({ measure: one, facts })),
  };
}

/** How much of the work the pairs are. */
const PAIRS_SHARE = 0.9;

/** What the kernel is asked for a kept measure or a wanted fit. */
export const measuringOf = (one: Fit | Measure): Measuring => ({
  from: one.from,
  ...(one.to ? { to: one.to } : {}),
  ...('direction' in one && one.direction ? { direction: one.direction } : {}),
  ...('path' in one && one.path ? { path: one.path } : {}),
});

async function measuredOf<T extends Fit | Measure>(all: readonly T[], ask: Asking) {
  const found: { one: T; facts: MeasuredFacts | null }[] = [];
  for (const one of all) {
    found.push({ one, facts: await ask<'measured'>({ ask: 'measured', ...measuringOf(one) }) });
  }
  return found;
}

/** Free play is said of at most so many solids: each is let go six ways. */
const MAX_PLAYS = 24;

/** Solids that lie beside or within a larger one, whose box holds theirs along two axes at least, and do not overlap it. */
function inPockets(solids: readonly StandingSolid[], pairs: Surveyed['pairs']): string[] {
  const known = new Map(solids.map((one) => [one.tag, one]));
  const held = new Set<string>();
  for (const { pair, facts } of pairs) {
    if (facts.overlap) continue;
    const [a, b] = pair.map((tag) => known.get(tag)!);
    if (isHeld(a!.box, b!.box)) held.add(pair[0]);
    else if (isHeld(b!.box, a!.box)) held.add(pair[1]);
  }
  return [...held];
}

const isHeld = (own: Box, other: Box): boolean =>
  [0, 1, 2].filter((i) => other.min[i]! < own.min[i]! && other.max[i]! > own.max[i]!).length >= 2 &&
  [0, 1, 2].every((i) => other.min[i]! < own.max[i]! && other.max[i]! > own.min[i]!);

/** A face that looks down, or up, by less than this (cosine) carries nothing. */
const CARRIES = 0.1;

/** Solids above the bed that neither stand on another one nor are stuck in one. */
function notCarried(solids: readonly StandingSolid[], pairs: Surveyed['pairs'], hair: number): string[] {
  const carried = new Set(solids.filter(({ box }) => box.min[2] <= hair).map(({ tag }) => tag));
  for (const {
    pair: [a, b],
    facts: { overlap, contact },
  } of pairs) {
    if (overlap) carried.add(a).add(b);
    // Edges and points may carry too; the fall tells.
    if (contact?.kind !== 'area') continue;
    if (contact.normal[2] < -CARRIES) carried.add(a);
    if (contact.normal[2] > CARRIES) carried.add(b);
  }
  return solids.filter(({ tag }) => !carried.has(tag)).map(({ tag }) => tag);
}
