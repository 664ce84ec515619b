import type { KadrelDocument } from '@kadrel/core';
import { built, idOf, type Statement } from '@kadrel/testing';
import type { Libraries } from './builder.ts';
import { documentKey } from './content/documentKey.ts';
import { Evaluator, type Evaluation } from './evaluate.ts';
import { evaluationOf, prebuiltKeys, prebuiltOf } from './fromPrebuilt.ts';
import { KnownFacts } from './knownFacts.ts';
import { sharedLibraries } from './node.ts';
import type { PrebuiltSolids } from './prebuilt.ts';
import { readPrebuilt, writePrebuilt } from './prebuiltFile.ts';

let libraries: Libraries;
beforeAll(async () => {
  libraries = await sharedLibraries();
});

const STATEMENTS: readonly Statement[] = [
  ['box', { as: 'plate', size: [100, 60, 8] }],
  ['cylinder', { as: 'drill', diameter: 8, height: 20, at: [15, 15, -5] }],
  ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
  ['box', { as: 'post', size: [10, 10, 40], at: [200, 0, 0] }],
  ['along', { as: 'posts', parts: ['post'], count: 5, pitch: 30, growth: [0, 0, 5] }],
  ['box', { as: 'far', size: [5, 5, 5], at: [0, 300, 0] }],
  ['cylinder', { as: 'near', diameter: 5, height: 5, at: [0, 300, 5] }],
  ['group', { parts: ['far', 'near'], as: 'pair' }],
  ['along', { as: 'pairs', parts: ['pair'], along: 'y', count: 3, pitch: 20 }],
];

/** What a kernel builds of a document, and what is kept of that, by way of a file. */
function keptOf(document: KadrelDocument): { evaluation: Evaluation; kept: PrebuiltSolids } {
  const evaluation = new Evaluator(libraries).evaluate(document);
  const shown = new KnownFacts().shown(document, evaluation, { isPassing: false });
  const keys = prebuiltKeys(document, Object.keys(evaluation.wholes));
  return { evaluation, kept: readPrebuilt(writePrebuilt({ ...prebuiltOf(shown, keys), checks: {} })) };
}

test('a document of which all was built before comes to the same without a kernel', () => {
  const document = built(STATEMENTS);
  const { evaluation, kept } = keptOf(document);
  const { parts, wholes, notices } = evaluation;
  expect(Object.keys(wholes)).toHaveLength(2);
  const again = evaluationOf(document, new KnownFacts(kept).prebuilt);
  expect(again).toMatchObject({ parts, wholes, notices, failures: [] });
  // All that the page is told has gone through the file: facts with their arrays, to the last bit.
  expect([...kept.facts]).toEqual(evaluation.shapes);
});

test('a change of anything is not taken for what was built', () => {
  const { kept } = keptOf(built(STATEMENTS));
  const { prebuilt } = new KnownFacts(kept);
  const moved = built([...STATEMENTS, ['move', { parts: ['post'], by: [0, 0, 1] }]]);
  const grown = built([...STATEMENTS, ['change', { parts: ['plate'], size: ['100', '60', '9'] }]]);
  expect(evaluationOf(grown, prebuilt)).toBeUndefined();
  expect(evaluationOf(moved, prebuilt)).toBeUndefined();
  expect(evaluationOf(built([...STATEMENTS, ['hide', { parts: ['bracket'] }]]), prebuilt)).toBeDefined();
});

test('only what has changed is built by a new kernel, and what is asked of the others', () => {
  const document = built(STATEMENTS);
  const { evaluation, kept } = keptOf(document);
  const { prebuilt, keys } = new KnownFacts(kept);
  const kernel = new Evaluator(libraries);
  const options = { prebuilt, known: new Set(keys) };
  const { wholes, shapes } = kernel.evaluate(document, options);
  expect([wholes, shapes, kernel.heldShapes]).toEqual([evaluation.wholes, [], 0]);
  const grown = built([...STATEMENTS, ['change', { parts: ['far'], size: ['5', '5', '4'] }]]);
  const again = kernel.evaluate(grown, options);
  // The box that was changed, and the cylinder beside it, since both are measured together.
  expect([again.shapes.length, kernel.heldShapes]).toEqual([1, 2]);
  expect(again.wholes).toEqual(new Evaluator(libraries).evaluate(grown).wholes);
  const whole = new Evaluator(libraries).measure(document, idOf(document, 'bracket'));
  expect(kernel.measure(document, idOf(document, 'bracket'))).toEqual(whole);
});

test('a solid without one of its steps is not kept, so that what it lacks is told again', () => {
  const document = built([
    ['box', { as: 'block', size: [10, 10, 10] }],
    ['fillet', { part: 'block', edges: 'along x', radius: 20 }],
    ['box', { as: 'other', size: [10, 10, 20] }],
  ]);
  const { evaluation, kept } = keptOf(document);
  expect([evaluation.failures.length, kept.facts.length]).toEqual([1, 1]);
  expect(evaluationOf(document, new KnownFacts(kept).prebuilt)).toBeUndefined();
});

test('documents have the same key in whatever order they are written', () => {
  const document = built(STATEMENTS);
  const turned = Object.fromEntries(Object.entries(document.items).reverse());
  expect(documentKey({ ...document, items: turned })).toBe(documentKey(document));
  expect(documentKey(built(STATEMENTS.slice(0, -1)))).not.toBe(documentKey(document));
});
