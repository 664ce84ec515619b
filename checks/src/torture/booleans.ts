/** Combinations under torture: seeded scenes, each by every way of combining, held against facets, formulas and one another. */
import { isRefusal, perform, plainWorld, verbNamed } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import type { ManifoldToplevel } from 'manifold-3d';
import { idOf, measured, numbers } from '@kadrel/testing';
import { CLASSES, HOWS, PATTERNS } from './cases.ts';
import { together, type How } from './facets.ts';
import { tellScene, type Predicted } from './telling.ts';

type Libraries = ConstructorParameters<typeof Evaluator>[0];

export interface Verdict {
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly class: string;
  readonly seed: number;
  readonly how: How;
  readonly words: string;
}

/** The widest tolerance that combinations tell of, mm. */
const REPORTED_MM = 1e-5;
/** Volumes that are off by this part of the largest operand are the same: intersection curves are within 1e-7 mm. */
const SAME = 1e-6;

/** One scene, combined all ways, some twice. */
export function trial(
  libraries: Libraries,
  facets: ManifoldToplevel,
  of: { class: string; seed: number },
): Verdict[] {
  const random = numbers(of.seed * 7919 + 17);
  const scene = CLASSES[of.class]!(random);
  const kernel = new Evaluator(libraries);
  const predicted = tellScene(facets, scene);
  if (!predicted) return [];
  const operands = predicted.names.map((name) =>
    kernel.problemOf(predicted.document, idOf(predicted.document, name)),
  );
  const failed = operands.find((problem) => problem !== undefined);
  if (failed)
    return HOWS.map((how) => ({
      class: of.class,
      seed: of.seed,
      how,
      outcome: 'refused',
      words: `operand: ${failed.reason}`,
    }));
  const order = [...HOWS].sort(() => random() - 0.5);
  const repeated = order[Math.floor(random() * order.length)];
  const found = new Map<How, number | undefined>();
  const fuzzy: How[] = [];
  const verdicts = order.map((how): Verdict => {
    const result = combined(kernel, predicted, how);
    const truth = together(facets, how, predicted.truth);
    const largest = Math.max(...predicted.truth.map(({ solid }) => solid.volume()));
    const expected = truth.solid.volume();
    truth.solid.delete();
    const slack = truth.error + SAME * largest;
    const name = { class: of.class, seed: of.seed, how };
    found.set(how, result.volume);
    if (result.isReported) fuzzy.push(how);
    if (result.volume === undefined) {
      // Nothing in common, and nothing left, are right answers where there is nothing.
      const isEmpty = result.isEmpty && expected <= slack;
      if (isEmpty) found.set(how, 0);
      return { ...name, outcome: isEmpty ? 'right' : 'refused', words: result.words };
    }
    if (Math.abs(result.volume - expected) > slack)
      return { ...name, outcome: 'wrong', words: `${result.volume} instead of ${expected} ± ${slack}` };
    // The same again by a fresh start: what was built in between must not matter.
    const again = how === repeated ? combined(new Evaluator(libraries), predicted, how) : result;
    if (again.volume !== result.volume)
      return { ...name, outcome: 'wrong', words: `${result.volume}, and ${again.volume} when built again` };
    return { ...name, outcome: 'right', words: '' };
  });
  const misfit = predicted.names.findIndex((_, i) => !isAsLaidOut(kernel, predicted, i));
  for (const { solid } of predicted.truth) solid.delete();
  // Members of a pattern may overlap, and it measures them one by one.
  if (of.class === PATTERNS) return verdicts;
  if (misfit >= 0)
    return verdicts.map((one) => ({
      ...one,
      outcome: 'wrong',
      words: `operand ${misfit} is not what it says`,
    }));
  return predicted.names.length !== 2
    ? verdicts
    : countedTwice(verdicts, { kernel, predicted, found, fuzzy });
}

/** Whether an operand has the volume of its facets. */
function isAsLaidOut(kernel: Evaluator, { document, names, truth }: Predicted, i: number): boolean {
  const { solid, error } = truth[i]!;
  const { volume } = measured(kernel, document, names[i]!);
  return Math.abs(volume - solid.volume()) <= error + SAME * volume;
}

interface Found {
  readonly kernel: Evaluator;
  readonly predicted: Predicted;
  readonly found: ReadonlyMap<How, number | undefined>;
  /** What was combined with a tolerance that was reported. */
  readonly fuzzy: readonly How[];
}

/** Marks what contradicts the other results. Source: inclusion and exclusion. */
function countedTwice(verdicts: Verdict[], { kernel, predicted, found, fuzzy }: Found): Verdict[] {
  const facts = predicted.names.map((name) => measured(kernel, predicted.document, name));
  const [a, b] = facts.map(({ volume }) => volume) as [number, number];
  const area = facts.reduce((sum, one) => sum + one.area, 0);
  // A tolerance that is reported is no lie: what lies within it may be missing.
  const bound = SAME * Math.max(a, b) + (fuzzy.length > 0 ? REPORTED_MM * area : 0);
  const [union, common, cut] = [found.get('union'), found.get('intersect'), found.get('subtract')];
  const off = new Map<How, number>();
  if (union !== undefined && common !== undefined) off.set('union', union + common - a - b);
  if (cut !== undefined && common !== undefined) off.set('subtract', cut + common - a);
  return verdicts.map((one) => {
    const miss = off.get(one.how) ?? 0;
    return one.outcome === 'right' && Math.abs(miss) > bound
      ? { ...one, outcome: 'wrong', words: `inclusion and exclusion miss by ${miss}` }
      : one;
  });
}

function combined(
  kernel: Evaluator,
  predicted: Predicted,
  how: How,
): { volume?: number; isEmpty: boolean; isReported?: boolean; words: string } {
  const { document } = predicted;
  const [first, ...others] = predicted.names;
  const typed = how === 'subtract' ? { from: first!, parts: others } : { parts: predicted.names };
  let ids = 0;
  const made = perform(
    verbNamed(how)!,
    { as: 'result', ...typed },
    document,
    plainWorld(document, () => `made${++ids}`),
  );
  if (isRefusal(made)) return { isEmpty: false, words: made.message };
  const problem = kernel.problemOf(made.document, idOf(made.document, 'result'));
  if (problem)
    return {
      isEmpty: /^(Nothing is left|The parts do not meet)/.test(problem.reason),
      words: problem.reason,
    };
  const id = idOf(made.document, 'result');
  const isReported = kernel
    .noticesFor(made.document, id)
    .some(({ what }) => what === 'fuzzy' || what === 'loose');
  return { isEmpty: false, isReported, words: '', volume: measured(kernel, made.document, 'result').volume };
}
