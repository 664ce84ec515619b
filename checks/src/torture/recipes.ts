/** Recipes under torture: random solids with random steps, whose numbers are then changed at random. */
import { builtRecipe, isRefusal, perform, verbNamed, type KadrelDocument } from '@kadrel/core';
import { BuildWatch, Evaluator, worldOf } from '@kadrel/kernel';
import { idOf, builtBy, numbers, type Statement } from '@kadrel/testing';

export type Libraries = ConstructorParameters<typeof Evaluator>[0];
type Random = () => number;

export interface RecipeVerdict {
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly class: string;
  readonly seed: number;
  readonly words: string;
}

const between = (random: Random, min: number, max: number): number =>
  Math.round((min + (max - min) * random()) * 100) / 100;
const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** What a solid begins as; its name is block. */
const BASES: readonly ((random: Random) => Statement[])[] = [
  (random) => [['box', { as: 'block', size: [0, 0, 0].map(() => between(random, 20, 60)) }]],
  (random) => [
    ['cylinder', { as: 'block', diameter: between(random, 20, 50), height: between(random, 20, 60) }],
  ],
  (random) => [
    [
      'prism',
      {
        as: 'block',
        sides: 3 + Math.floor(random() * 6),
        width: between(random, 30, 60),
        height: between(random, 20, 50),
      },
    ],
  ],
  (random) => [
    [
      'frustum',
      {
        as: 'block',
        sides: 4,
        width: 50,
        across: 'flats',
        top: between(random, 20, 45),
        height: between(random, 20, 50),
      },
    ],
  ],
  (random) => [
    ['box', { as: 'low', size: [50, 40, 15] }],
    ['box', { as: 'high', size: [25, 40, between(random, 25, 50)] }],
    ['union', { as: 'block', parts: ['low', 'high'] }],
  ],
  (random) => [
    ['box', { as: 'plate', size: [60, 50, 20] }],
    ['cylinder', { as: 'bore', diameter: between(random, 8, 30), height: 40, at: [30, 25, -10] }],
    ['subtract', { as: 'block', from: 'plate', parts: ['bore'] }],
  ],
];

/** What steps may refer to: an outline, a line seen from the front, and a pin that goes through. */
const besides = (random: Random): Statement[] => [
  [
    'circle',
    { as: 'mark', diameter: between(random, 4, 12), at: [between(random, 0, 30), between(random, 0, 30), 0] },
  ],
  [
    'line',
    { as: 'saw', from: [-100, 0, between(random, 3, 20)], to: [100, 0, between(random, 3, 20)], on: 'front' },
  ],
  [
    'cylinder',
    {
      as: 'pin',
      diameter: between(random, 4, 15),
      height: 200,
      at: [between(random, 0, 30), between(random, 0, 30), -80],
    },
  ],
];

const EDGES = [
  'all',
  'outward',
  'inward',
  'along x',
  'along z',
  'met',
  'around top',
  'around bottom',
  'top&front',
];
const FACES = ['top', 'bottom', 'front', 'right', 'side', 'side1', 'cut', 'bore'];

/** A step that may or may not go: what cannot be named is refused when it is said. */
const STEPS: readonly ((random: Random) => Statement)[] = [
  (random) => ['fillet', { part: 'block', edges: oneOf(random, EDGES), radius: between(random, 0.5, 8) }],
  (random) => ['chamfer', { part: 'block', edges: oneOf(random, EDGES), width: between(random, 0.5, 6) }],
  (random) => [
    'shell',
    {
      part: 'block',
      thickness: between(random, 0.5, 6),
      ...(random() < 0.7 ? { open: oneOf(random, FACES) } : {}),
    },
  ],
  (random) => ['offset-face', { part: 'block', faces: oneOf(random, FACES), by: between(random, -8, 12) }],
  (random) => [
    'trim-solid',
    {
      parts: ['block'],
      plane: oneOf(random, ['plan', 'front', 'side']),
      at: between(random, -10, 30),
      keep: oneOf(random, ['front', 'behind']),
    },
  ],
  (random) => [
    'draft',
    { part: 'block', faces: oneOf(random, FACES), angle: between(random, -15, 20), foot: 'bottom' },
  ],
  (random) => ['mirror-join', { part: 'block', plane: oneOf(random, ['plan', 'front', 'side']) }],
  (random) => [
    'reshape',
    {
      part: 'block',
      places: oneOf(random, ['top', 'top&front', 'top&front&right', 'right']),
      by: [0, 0, 0].map(() => between(random, -6, 6)),
      folds: oneOf(random, ['beside', 'through', 'warp']),
    },
  ],
  (random) => [
    'soften',
    {
      part: 'block',
      level: oneOf(random, [1, 1, 2]),
      form: oneOf(random, ['smooth', 'facets']),
      ...(random() < 0.4 ? { sharp: oneOf(random, EDGES), sharpness: oneOf(random, [100, 60]) } : {}),
      ...(random() < 0.2 ? { corners: 'top' } : {}),
    },
  ],
  (random) => [
    'fillet',
    {
      part: 'block',
      edges: oneOf(random, EDGES),
      radius: between(random, 0.5, 5),
      to: between(random, 1, 6),
    },
  ],
  (random) => [
    'fillet',
    {
      part: 'block',
      edges: ['around top', 'along z'],
      radius: between(random, 0.5, 4),
      radii: [between(random, 0.5, 4)],
    },
  ],
  (random) => [
    'shell',
    {
      part: 'block',
      thickness: between(random, 0.5, 5),
      open: oneOf(random, FACES),
      side: oneOf(random, ['in', 'out']),
      ...(random() < 0.5 ? { other: oneOf(random, FACES), thicknesses: [between(random, 0.5, 6)] } : {}),
    },
  ],
  () => ['hull', { part: 'block', chord: 0.2 }],
  (random) => [
    'emboss',
    {
      part: 'block',
      profiles: ['mark'],
      how: oneOf(random, ['emboss', 'engrave', 'imprint']),
      depth: between(random, 0.3, 4),
    },
  ],
  (random) => [
    'cut-along',
    {
      parts: ['block'],
      profiles: [oneOf(random, ['saw', 'mark'])],
      keep: oneOf(random, ['front', 'behind']),
    },
  ],
  (random) => [
    'cut-by',
    {
      parts: ['block'],
      by: 'pin',
      keep: oneOf(random, ['front', 'behind']),
      ...(random() < 0.3 ? { clearance: between(random, 0.1, 1) } : {}),
    },
  ],
  (random) => [
    'offset-solid',
    { part: 'block', by: between(random, -3, 4), corners: oneOf(random, ['round', 'square']) },
  ],
];

/** Names of faces that a step cannot have made: those of the base. @param pin the id of what cuts through it */
const isOfBase = (name: string, pin: string): boolean =>
  !/fillet|chamfer|inner|rim|cut|corner|mirrored|hull|relief|imprint|engraving/.test(name) &&
  !name.startsWith(`${pin}.`);

/** The kernel stopped over a content, and is of no more use. */
export class KernelStopped extends Error {
  constructor(
    readonly key: string,
    cause: WebAssembly.RuntimeError,
  ) {
    super(cause.message, { cause });
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
    throw error instanceof WebAssembly.RuntimeError ? new KernelStopped(key, error) : error;
  }
}

function triedBy(kernel: Evaluator, seed: number): RecipeVerdict[] {
  const random = numbers(seed * 104_729 + 11);
  const base = [...oneOf(random, BASES)(random), ...besides(random)];
  const plain = builtBy(kernel, base);
  const verdicts: RecipeVerdict[] = [];
  const tell = (step: string, words: string, outcome: RecipeVerdict['outcome'] = 'wrong') =>
    verdicts.push({ outcome, class: step, seed, words });
  let document = plain;
  const count = 3 + Math.floor(random() * 6);
  for (let i = 0; i < count; i++) {
    const statement = oneOf(random, STEPS)(random);
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
