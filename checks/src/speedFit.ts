/** What a fit report costs: of the hive's kind of assembly, again after one part has moved, and of many parts. */
import { USUAL_SCOPE, visibleParts, type KadrelDocument } from '@kadrel/core';
import { Evaluator, fitReportOf, rawDistance } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { built, type Statement } from '@kadrel/testing';
import { line, median, ms, plateWithHoles, timed } from './bench.ts';

const ROUNDS = 3;

/** Forty solids: a floor, a grid of posts that stand on it, and a cap on each. */
const ASSEMBLY: readonly Statement[] = [
  ['box', { as: 'Floor', size: [500, 400, 20], at: [0, 0, 0] }],
  ['box', { as: 'Post', size: [30, 30, 60], at: [20, 20, 20] }],
  ['grid', { as: 'Posts', parts: ['Post'], columns: 5, columnPitch: 32, rows: 4, rowPitch: 32 }],
  ['cylinder', { as: 'Cap', diameter: 28, height: 6, at: [35, 35, 80] }],
  ['grid', { as: 'Caps', parts: ['Cap'], columns: 5, columnPitch: 32, rows: 4, rowPitch: 32 }],
  ['cylinder', { as: 'Pin', diameter: 10, height: 30, at: [35, 35, 86] }],
];

async function survey(kernel: Evaluator, document: KadrelDocument): Promise<number> {
  const start = performance.now();
  await fitReportOf(kernel, document, USUAL_SCOPE);
  return performance.now() - start;
}

/** The report of forty solids, and again after a pin has moved. */
export async function fits(): Promise<void> {
  const libraries = await loadLibraries();
  const times: { first: number; again: number }[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const kernel = new Evaluator(libraries);
    const document = built(ASSEMBLY);
    kernel.evaluate(document);
    const first = await survey(kernel, document);
    const moved = built([...ASSEMBLY, ['move', { parts: ['Pin'], by: [1 + i, 0, 0] }]]);
    times.push({ first, again: await survey(kernel, moved) });
  }
  const [first, again] = [median(times.map((one) => one.first)), median(times.map((one) => one.again))];
  line('fit report of 42 solids : 3 s', first / 3000, '≤ 1', ms(first));
  line(
    '  again after one part has moved : the first time',
    again / first,
    '≤ 0.2',
    `${ms(again)} : ${ms(first)}`,
  );
  platesApart(libraries);
  many(libraries);
}

type Libraries = Awaited<ReturnType<typeof loadLibraries>>;

/** Two plates with 100 holes, 5 mm apart: the distance, and the same by the kernel alone. */
function platesApart(libraries: Libraries): void {
  const one = plateWithHoles(10, 10);
  const other = one.map(([verb, typed]): Statement => [verb, renamed(typed)]);
  const document = built([...one, ...other, ['move', { parts: ['other holed'], by: [0, 0, 13] }]]);
  const kernel = new Evaluator(libraries);
  const [a, b] = visibleParts(document).map(({ id }) => id);
  const ask = (reach: number) => kernel.answer(document, { ask: 'pairs', pairs: [[a!, b!]], reach });
  ask(50);
  const ours = median(Array.from({ length: ROUNDS }, (_, i) => timed(() => ask(51 + i))));
  const raw = timed(() => rawDistance(libraries, kernel, { document, parts: [a!, b!] }));
  line(
    'distance of two plates with 100 holes : the raw kernel call',
    ours / raw,
    '≤ 0.02',
    `${ms(ours)} : ${ms(raw)}`,
  );
}

const renamed = (typed: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(typed).map(([key, value]) => [
      key,
      key === 'as' || key === 'from'
        ? `other ${String(value)}`
        : key === 'parts'
          ? (value as string[]).map((name) => `other ${name}`)
          : value,
    ]),
  );

/** Pairs among a hundred, a thousand and ten thousand parts in a row. */
function many(libraries: Libraries): void {
  const kernel = new Evaluator(libraries);
  const times = [100, 1000, 10_000].map((count) => {
    const document = built([
      ['box', { as: 'block', size: [5, 5, 5] }],
      ['along', { as: 'row', parts: ['block'], count, pitch: 10 }],
    ]);
    const parts = visibleParts(document).map(({ id }) => id);
    kernel.answer(document, { ask: 'nearby', parts, reach: 5 });
    return median(
      Array.from({ length: ROUNDS }, () =>
        timed(() => kernel.answer(document, { ask: 'nearby', parts, reach: 5 })),
      ),
    );
  });
  line(
    'pairs among 10,000 in a row : ten times those among 1,000',
    times[2]! / times[1]! / 10,
    '≤ 1.5',
    times.map(ms).join(', '),
  );
}
