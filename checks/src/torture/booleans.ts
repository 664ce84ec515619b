/** Combinations under torture: seeded scenes, each by every way of combining, held against facets, formulas and one another. */
import { isRefusal, perform, plainWorld, verbNamed } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import type { ManifoldToplevel } from 'manifold-3d';
import { idOf, measured, numbers } from '../bench.ts';
import { CLASSES, HOWS } from './cases.ts';
import { together, type How } from './facets.ts';
import { tellScene, type Told } from './telling.ts';

type Libraries = ConstructorParameters<typeof Evaluator>[0];

export interface Verdict {
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly class: string;
  readonly seed: number;
  readonly how: How;
  readonly words: string;
}

/** The widest tolerance that combinations tell of, mm. */
const TOLD_MM = 1e-5;
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
  const told = tellScene(facets, scene);
  if (!told) return [];
  const operands = told.names.map((name) => kernel.problemOf(told.document, idOf(told.document, name)));
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
  const toldTolerance: How[] = [];
  const verdicts = order.map((how): Verdict => {
    const result = combined(kernel, told, how);
    const truth = together(facets, how, told.truth);
    const largest = Math.max(...told.truth.map(({ solid }) => solid.volume()));
    const expected = truth.solid.volume();
    truth.solid.delete();
    const slack = truth.error + SAME * largest;
    const name = { class: of.class, seed: of.seed, how };
    found.set(how, result.volume);
    if (result.isTold) toldTolerance.push(how);
    if (result.volume === undefined) {
      // Nothing in common, and nothing left, are right answers where there is nothing.
      const isEmpty = result.isEmpty && expected <= slack;
      if (isEmpty) found.set(how, 0);
      return { ...name, outcome: isEmpty ? 'right' : 'refused', words: result.words };
    }
    if (Math.abs(result.volume - expected) > slack)
      return { ...name, outcome: 'wrong', words: `${result.volume} instead of ${expected} ± ${slack}` };
    // The same again by a fresh start: what was built in between must not matter.
    const again = how === repeated ? combined(new Evaluator(libraries), told, how) : result;
    if (again.volume !== result.volume)
      return { ...name, outcome: 'wrong', words: `${result.volume}, and ${again.volume} when built again` };
    return { ...name, outcome: 'right', words: '' };
  });
  for (const { solid } of told.truth) solid.delete();
  const [union, common] = [found.get('union'), found.get('intersect')];
  const cut = found.get('subtract');
  const operandFacts = told.names.map((name) => measured(kernel, told.document, name));
  const volumes = operandFacts.map(({ volume }) => volume);
  const area = operandFacts.reduce((sum, one) => sum + one.area, 0);
  if (volumes.length !== 2) return verdicts;
  // Source: inclusion and exclusion.
  const [a, b] = volumes as [number, number];
  // A tolerance that is told is no lie: what lies within it may be missing.
  const within = toldTolerance.length > 0 ? TOLD_MM * area : 0;
  const bound = SAME * Math.max(a, b) + within;
  const differ = (how: How, off: number) => {
    if (Math.abs(off) <= bound) return;
    const at = verdicts.findIndex((one) => one.how === how && one.outcome === 'right');
    if (at >= 0)
      verdicts[at] = { ...verdicts[at]!, outcome: 'wrong', words: `inclusion and exclusion miss by ${off}` };
  };
  if (union !== undefined && common !== undefined) differ('union', union + common - a - b);
  if (cut !== undefined && common !== undefined) differ('subtract', cut + common - a);
  return verdicts;
}

function combined(
  kernel: Evaluator,
  told: Told,
  how: How,
): { volume?: number; isEmpty: boolean; isTold?: boolean; words: string } {
  const { document } = told;
  const [first, ...others] = told.names;
  const typed = how === 'subtract' ? { from: first!, parts: others } : { parts: told.names };
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
  const isTold = kernel.noticesFor(made.document, id).some(({ what }) => what === 'fuzzy');
  return { isEmpty: false, isTold, words: '', volume: measured(kernel, made.document, 'result').volume };
}
