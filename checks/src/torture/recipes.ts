/** Recipes under torture: random solids with random steps, whose numbers are then changed at random. */
import { builtRecipe, isRefusal, perform, verbNamed, type KadrelDocument } from '@kadrel/core';
import { BuildWatch, Evaluator, isFatal, worldOf } from '@kadrel/kernel';
import { idOf, builtBy, numbers, type Statement } from '@kadrel/testing';
import { between, someSolid, someStep, type Names } from './recipeStatements.ts';

export type Libraries = ConstructorParameters<typeof Evaluator>[0];

export interface RecipeVerdict {
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly class: string;
  readonly seed: number;
  readonly words: string;
}

/** Names of faces that a step cannot have made: those of the base. @param pin the id of what cuts through it */
const isOfBase = (name: string, pin: string): boolean =>
  !/fillet|chamfer|inner|rim|cut|corner|mirrored|hull|relief|imprint|engraving/.test(name) &&
  !name.startsWith(`${pin}.`);

/** The kernel stopped over a content, and is of no more use. */
export class KernelStopped extends Error {
  constructor(
    readonly key: string,
    cause: unknown,
  ) {
    super(String(cause), { cause });
    this.name = 'KernelStopped';
  }
}

interface Trying {
  /** Contents over which the kernel has stopped, by their keys, and what is said of it. */
  readonly poisoned: ReadonlyMap<string, string>;
  readonly onBuilding: (key: string) => void;
}
const ANEW: Trying = { poisoned: new Map(), onBuilding: () => undefined };

/** One recipe: said step by step, its numbers changed, its steps switched off. Throws KernelStopped. */
export function tryRecipe(
  libraries: Libraries,
  seed: number,
  { poisoned, onBuilding } = ANEW,
): RecipeVerdict[] {
  const watch = new BuildWatch();
  let key = '';
  watch.onBuilding = (next) => {
    key = next;
    onBuilding(key);
  };
  watch.poisoned = poisoned;
  try {
    return triedBy(new Evaluator(libraries, watch), seed);
  } catch (error) {
    throw isFatal(error) ? new KernelStopped(key, error) : error;
  }
}

function triedBy(kernel: Evaluator, seed: number): RecipeVerdict[] {
  const random = numbers(seed * 104_729 + 11);
  const plain = builtBy(kernel, someSolid(random));
  const verdicts: RecipeVerdict[] = [];
  const tell = (step: string, words: string, outcome: RecipeVerdict['outcome'] = 'wrong') =>
    verdicts.push({ outcome, class: step, seed, words });
  let document = plain;
  const count = 3 + Math.floor(random() * 6);
  for (let i = 0; i < count; i++) {
    const statement = someStep(random, namesIn(kernel, document));
    const next = said(kernel, document, statement);
    if (typeof next === 'string') continue;
    const { words, outcome } = judged(kernel, { plain, before: document }, next);
    tell(statement[0], words, outcome);
    if (outcome === 'right') document = next;
  }
  const steps = builtRecipe(document, document.items[idOf(document, 'block')]!).steps.length;
  for (let i = 1; i <= steps; i++) {
    const number = between(random, 0.3, 9);
    const next = said(kernel, document, ['step', { part: 'block', step: String(i), depth: String(number) }]);
    if (typeof next !== 'string')
      tell('change', ...spread(judged(kernel, { plain, before: document }, next)));
  }
  if (steps > 1) {
    const place = () => String(1 + Math.floor(random() * steps));
    const next = said(kernel, document, ['step', { part: 'block', step: place(), to: place() }]);
    if (typeof next !== 'string') tell('order', ...spread(judged(kernel, { plain, before: document }, next)));
  }
  tell('settled', ...spread(sameWhenSettled(kernel, document)));
  const resized = withOtherSizes(kernel, document, random);
  if (typeof resized !== 'string')
    tell('sizes', ...spread(judged(kernel, { plain, before: document }, resized)));
  tell('off', ...spread(sameWithoutSteps(kernel, plain, document)));
  return verdicts;
}

const spread = ({ words, outcome }: Judged): [string, RecipeVerdict['outcome']] => [words, outcome];

/** The document after a statement, or why it was refused before the kernel was asked to build. */
function said(
  kernel: Evaluator,
  document: KadrelDocument,
  [verb, typed]: Statement,
): KadrelDocument | string {
  let ids = 1000;
  const world = worldOf(document, kernel, () => `q${++ids}`);
  const done = perform(verbNamed(verb)!, typed, document, world);
  return isRefusal(done) ? done.message : done.document;
}

interface Judged {
  readonly outcome: RecipeVerdict['outcome'];
  readonly words: string;
}
const wrong = (words: string): Judged => ({ outcome: 'wrong', words });
const RIGHT: Judged = { outcome: 'right', words: '' };

interface Earlier {
  /** Without any step. */
  readonly plain: KadrelDocument;
  readonly before: KadrelDocument;
}

/** A sound closed solid of positive volume whose old faces are called as before, or a step that is named with a place and a remedy. */
function judged(kernel: Evaluator, { plain, before }: Earlier, after: KadrelDocument): Judged {
  const id = idOf(after, 'block');
  const problem = kernel.problemOf(after, id);
  if (problem) {
    if (problem.step === null) return wrong(`the base is blamed: ${problem.reason}`);
    if (!/[.]$/.test(problem.reason) || problem.remedy === '' || problem.places.length === 0)
      return wrong(`no sentence: ${problem.reason}`);
    return { outcome: 'refused', words: `${problem.reason} ${problem.remedy}` };
  }
  const measures = kernel.measure(after, id);
  if (!(measures.volume > 0) || !measures.closed || !measures.watertight)
    return wrong(`volume ${measures.volume}, closed ${measures.closed}`);
  const pin = idOf(after, 'pin');
  // What a cut had taken away may come back; what was never there may not.
  const were = new Set([plain, before].flatMap((document) => [...namesOf(kernel, document)]));
  const strange = [...namesOf(kernel, after)].filter((name) => isOfBase(name, pin) && !were.has(name));
  if (strange.length > 0) return wrong(`faces that were not there: ${strange.join(', ')}`);
  return RIGHT;
}

function namesOf(kernel: Evaluator, document: KadrelDocument): Set<string> {
  const { snaps } = kernel.facts(document, idOf(document, 'block'));
  return new Set([...snaps.faceName].flatMap((i) => snaps.names[i]!.split('+')));
}

/** What a further step may name: sorted, so that they do not hang on the order in which the kernel has them. */
function namesIn(kernel: Evaluator, document: KadrelDocument): Names {
  const { snaps } = kernel.facts(document, idOf(document, 'block'));
  const sorted = (used: Uint32Array) => [...new Set(used)].map((i) => snaps.names[i]!).sort();
  return {
    faces: sorted(snaps.faceName),
    edges: sorted(snaps.curveName).filter((name) => name.split('&').length === 2),
    corners: sorted(snaps.pointName).filter((name) => name.split('&').length > 2),
  };
}

/** Settled, the part is as large as before, and has no steps any more. */
function sameWhenSettled(kernel: Evaluator, document: KadrelDocument): Judged {
  const id = idOf(document, 'block');
  const next = said(kernel, document, ['settle', { part: 'block' }]);
  if (typeof next === 'string') return { outcome: 'refused', words: next };
  const [was, is] = [document, next].map((one) => kernel.measure(one, id));
  const isSame = Math.abs(is!.volume / was!.volume - 1) < SAME_VOLUME && is!.watertight;
  const { steps } = builtRecipe(next, next.items[id]!);
  return isSame && steps.length === 0
    ? RIGHT
    : wrong(`${steps.length} steps, ${is!.volume} for ${was!.volume}`);
}
/** Relative: free surfaces are summed in other pieces. */
const SAME_VOLUME = 1e-6;

/** Another number for each size of the base, or for one of the parts or profiles that it is made of. */
function withOtherSizes(
  kernel: Evaluator,
  document: KadrelDocument,
  random: () => number,
): KadrelDocument | string {
  const made = ['block', 'bore', 'low', 'outline', 'section'].filter((name) =>
    Object.values(document.items).some((item) => item.name === name),
  );
  const name = made.findLast((one) => sizesOf(document, one).length > 0);
  if (name === undefined) return 'Nothing of it has sizes.';
  const other = (size: number) => Math.round(size * between(random, 0.8, 1.25) * 100) / 100;
  const sizes = sizesOf(document, name).map(([key, size]) => [
    key,
    typeof size === 'number' ? other(size) : size.map(other),
  ]);
  return said(kernel, document, ['change', { parts: [name], ...Object.fromEntries(sizes) }]);
}

type Size = [key: string, size: number | number[]];

/** Lengths of a base by the names of its fields. */
function sizesOf(document: KadrelDocument, name: string): Size[] {
  const { base } = document.items[idOf(document, name)]!.recipe;
  return Object.entries(base).filter(
    (entry): entry is Size =>
      SIZES.has(entry[0]) && (typeof entry[1] === 'number' || Array.isArray(entry[1])),
  );
}
const SIZES: ReadonlySet<string> = new Set(['size', 'diameter', 'bore', 'height', 'width', 'thickness']);

/** Switched off, the steps leave the base as it was, bit for bit. */
function sameWithoutSteps(kernel: Evaluator, plain: KadrelDocument, document: KadrelDocument): Judged {
  let off = document;
  const { steps } = builtRecipe(document, document.items[idOf(document, 'block')]!);
  for (let i = 1; i <= steps.length; i++) {
    const next = said(kernel, off, ['step', { part: 'block', step: String(i), state: 'off' }]);
    if (typeof next === 'string') return wrong(next);
    off = next;
  }
  const [was, is] = [plain, off].map((one) => JSON.stringify(kernel.measure(one, idOf(one, 'block'))));
  return was === is ? RIGHT : wrong(`${is} instead of ${was}`);
}
