/** What many things cost: blocks that touch, statements one after another, hundreds of holes. */
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { built, type Statement } from '@kadrel/testing';
import { inTurn, line, median, ms, timed } from './bench.ts';

type Libraries = Awaited<ReturnType<typeof loadLibraries>>;
type Corner = readonly [x: number, y: number, z: number];

export async function many(): Promise<void> {
  const libraries = await loadLibraries();
  await touchingBlocks(libraries);
  statements(libraries);
  grid(libraries);
}

/** Corners of blocks of side 10 that stand side by side in rows of ten, each touching its neighbours. */
const corners = (count: number): Corner[] =>
  Array.from({ length: count }, (_, i) => [10 * (i % 10), 10 * Math.floor(i / 10), 0]);

const united = (count: number) => {
  const blocks = corners(count).map((at, i): Statement => [
    'box',
    { as: `block ${i}`, size: [10, 10, 10], at },
  ]);
  return built([...blocks, ['union', { as: 'made', parts: blocks.map(([, { as }]) => as) }]]);
};

async function touchingBlocks(libraries: Libraries): Promise<void> {
  const wasm = await Module();
  wasm.setup();
  const meshes = () => {
    const blocks = corners(100).map((at) => wasm.Manifold.cube([10, 10, 10]).translate([...at]));
    const all = wasm.Manifold.union(blocks);
    // The work is put off until a number is asked for.
    all.volume();
    for (const solid of [...blocks, all]) solid.delete();
  };
  const [hundred, twoHundred] = [united(100), united(200)];
  const ours = () => evaluated(libraries, hundred);
  for (const warm of [ours, meshes]) warm();
  const [oursMs, meshMs] = inTurn(7, [ours, meshes]) as [number, number];
  line(
    'union of 100 touching blocks, checked : manifold-3d',
    oursMs / meshMs,
    '≤ 3',
    `${ms(oursMs)} : ${ms(meshMs)}`,
  );
  const more = median(Array.from({ length: 3 }, () => timed(() => evaluated(libraries, twoHundred))));
  line('union of 200 touching blocks : 3 s', more / 3000, '≤ 1', ms(more));
}

/** As a headless run does it: each statement on the document that the one before left, then all of it built. */
function statements(libraries: Libraries): void {
  const times = [1000, 2000, 4000].map((count) => {
    const boxes = Array.from({ length: count }, (_, i): Statement => [
      'box',
      { as: `box ${i}`, size: [5, 5, 5], at: [10 * (i % 50), 10 * Math.floor(i / 50), 0] },
    ]);
    return median(Array.from({ length: 3 }, () => timed(() => evaluated(libraries, built(boxes)))));
  });
  line(
    '1,000 box statements, built : 1.5 ms each',
    times[0]! / 1500,
    '≤ 1',
    `${times.map(ms).join(', ')} for 1,000, 2,000 and 4,000`,
  );
  line('  4,000 : four times 1,000', times[2]! / times[0]! / 4, '≤ 1.2', '');
}

/** A plate with 30 × 30 holes by a pattern. */
function grid(libraries: Libraries): void {
  const plate = (pitch: number) =>
    built([
      ['box', { as: 'plate', size: [320, 320, 8] }],
      ['cylinder', { as: 'drill', diameter: 6, height: 20, at: [15, 15, -5] }],
      ['grid', { as: 'drills', parts: ['drill'], columns: 30, columnPitch: pitch, rows: 30, rowPitch: 10 }],
      ['subtract', { as: 'made', from: 'plate', parts: ['drills'] }],
    ]);
  const times = [10, 9.9, 9.8].map((pitch) => timed(() => evaluated(libraries, plate(pitch))));
  line('a plate with 900 holes, ready to snap : 3 s', median(times) / 3000, '≤ 1', ms(median(times)));
}

/** All of a document built and checked, with what is drawn and snapped to of it. */
function evaluated(libraries: Libraries, document: ReturnType<typeof built>): void {
  // A fresh evaluator each time, so that nothing is found in its cache.
  const { failures, shapes } = new Evaluator(libraries).evaluate(document);
  if (failures.length > 0) throw new Error(failures[0]!.reason);
  if (shapes.length === 0) throw new Error('Nothing was drawn.');
}
