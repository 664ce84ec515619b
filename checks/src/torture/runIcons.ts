/** `npm run torture -- icons [OF EACH SET] [EVERY]`: areas of so many icons of each of three sets, and the volume of every so many. */
import { loadPainter } from '@kadrel/cli/painter';
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { areaVerdict, icons, volumeVerdict, type Verdict } from './icons.ts';
import { clock, isReported, printTable, say, type Outcome } from './table.ts';

const [AREA, VOLUME] = ['area', 'volume when raised'];

export async function runIcons([ofEachSet = '400', every = '1']: readonly string[]): Promise<void> {
  await loadPainter();
  const kernel = new Evaluator(await loadLibraries());
  const outcomes: Outcome[] = [];
  const times = new Map<string, number>();
  const tried = (name: string, verdict: () => Verdict) => {
    const started = performance.now();
    const one = verdict();
    times.set(name, (times.get(name) ?? 0) + performance.now() - started);
    outcomes.push({ class: name, outcome: one.outcome });
    if (isReported(one)) say(`${one.outcome}: ${name}, ${one.name}: ${one.words}`);
  };
  const isTimeLeft = clock();
  for (const [i, icon] of icons(Number(ofEachSet)).entries()) {
    if (!isTimeLeft()) break;
    tried(AREA, () => areaVerdict(icon));
    if (i % Number(every) === 0) tried(VOLUME, () => volumeVerdict(kernel, icon));
  }
  printTable([AREA, VOLUME], outcomes, times);
  if (outcomes.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
