/** Builds the solids of the demo projects, for a page that shows them without waiting for its kernel. Arguments: the file to write. */
import { writeFileSync } from 'node:fs';
import { afterEdits, isEditFault, surveyChecks } from '@kadrel/core';
import { askingOf, prebuiltKeys, prebuiltOf, type PrebuiltSolids } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { writePrebuilt } from '@kadrel/kernel/prebuiltFile';
import { DEMOS, playLedger } from './ledgers.ts';

const kernel = await loadKernel();

async function prebuilt(demo: (typeof DEMOS)[number]): Promise<PrebuiltSolids> {
  const { start, edits } = playLedger(demo);
  const document = afterEdits(start, edits);
  if (isEditFault(document)) throw new Error(`${demo.name} cannot be played.`);
  const { parts, wholes, shapes } = kernel.evaluate(document);
  const facts = new Map(shapes.map((shape) => [shape.key, shape]));
  const surveyed = await surveyChecks(document, askingOf(kernel, document));
  const keys = prebuiltKeys(document, Object.keys(wholes));
  return {
    ...prebuiltOf({ parts, wholes, factsOf: (key) => facts.get(key) }, keys),
    checks: { [keys.document]: surveyed },
  };
}

const all: PrebuiltSolids[] = [];
for (const demo of DEMOS) all.push(await prebuilt(demo));
const facts = new Map(all.flatMap((one) => one.facts).map((shape) => [shape.key, shape]));
const together = <T>(records: readonly Readonly<Record<string, T>>[]) =>
  Object.assign({}, ...records) as Record<string, T>;
writeFileSync(
  process.argv[2]!,
  writePrebuilt({
    facts: [...facts.values()],
    wholes: together(all.map((one) => one.wholes)),
    checks: together(all.map((one) => one.checks)),
  }),
);
