/** What a sheet costs: all of its views, and again after one part has moved. */
import { sheetsOf, type KadrelDocument } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { builtBy, type Statement } from '@kadrel/testing';
import { line, median, ms, timed } from './bench.ts';

const ROUNDS = 5;

/** A shelter of some thirty solids: a slab, eight posts, two beams, battens, a roof and a bench. */
const SHELTER: readonly Statement[] = [
  ['box', { as: 'Slab', size: [6000, 2400, 150], at: [0, 0, -150] }],
  ['box', { as: 'Post', size: [100, 100, 2450], at: [175, 150, 0] }],
  ['grid', { as: 'Posts', parts: ['Post'], columns: 4, columnPitch: 1850, rows: 2, rowPitch: 2000 }],
  ['box', { as: 'Beam', size: [5900, 100, 150], at: [50, 150, 2450] }],
  ['box', { as: 'Roof', size: [6400, 2900, 30], at: [-200, -250, 2600] }],
  ['box', { as: 'Batten', size: [50, 2900, 30], at: [-200, -250, 2630] }],
  ['along', { as: 'Battens', parts: ['Batten'], count: 11, pitch: 635 }],
  ['box', { as: 'Slat', size: [3200, 70, 60], at: [1400, 1600, 390] }],
  ['along', { as: 'Slats', parts: ['Slat'], along: 'y', count: 5, pitch: 70 }],
  ['cylinder', { as: 'Bin', diameter: 400, height: 700, at: [800, 1900, 0] }],
  ['sheet', { views: 'four' }],
];

/** Four views of it, and the same after the bin has moved. */
export async function sheets(): Promise<void> {
  const libraries = await loadLibraries();
  const drawAll = (kernel: Evaluator, document: KadrelDocument) => {
    const [sheet] = sheetsOf(document);
    for (const view of Object.keys(sheet!.views))
      kernel.answer(document, { ask: 'drawn', sheet: sheet!.id, view });
  };
  const rounds = Array.from({ length: ROUNDS }, (_, i) => {
    const kernel = new Evaluator(libraries);
    const document = builtBy(kernel, SHELTER);
    kernel.evaluate(document);
    const all = timed(() => drawAll(kernel, document));
    const moved = builtBy(kernel, [...SHELTER, ['move', { parts: ['Bin'], by: [100 + i, 0, 0] }]]);
    return { all, again: timed(() => drawAll(kernel, moved)) };
  });
  const [all, again] = [median(rounds.map((one) => one.all)), median(rounds.map((one) => one.again))];
  line(
    'four views after one part has moved : drawing all',
    again / all,
    '≤ 0.4',
    `${ms(again)} : ${ms(all)}`,
  );
}
