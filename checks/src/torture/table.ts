/** What came out of a torture run, as a table. */
export interface Outcome {
  readonly class: string;
  readonly outcome: 'right' | 'refused' | 'wrong';
}

/** @param times ms by class */
export function printTable(
  classes: readonly string[],
  outcomes: readonly Outcome[],
  times: ReadonlyMap<string, number>,
): void {
  row(['class', 'right', 'refused', 'wrong', 's']);
  row(['---', '---', '---', '---', '---']);
  for (const name of [...classes, 'all']) {
    const isMeant = (of: string) => name === 'all' || of === name;
    const list = outcomes.filter((one) => isMeant(one.class));
    const count = (outcome: Outcome['outcome']) => list.filter((one) => one.outcome === outcome).length;
    const ms = [...times].reduce((sum, [of, time]) => sum + (isMeant(of) ? time : 0), 0);
    row([name, count('right'), count('refused'), count('wrong'), (ms / 1000).toFixed(1)]);
  }
}

const row = (cells: readonly (string | number)[]) => say(`| ${cells.map(String).join(' | ')} |`);
export const say = (line: string): boolean => process.stdout.write(`${line}\n`);

/** `TORTURE_REFUSED=1` tells of refusals too, `TORTURE_MINUTES` ends a run by the clock. */
export const isReported = ({ outcome }: Pick<Outcome, 'outcome'>): boolean =>
  outcome === 'wrong' || (outcome === 'refused' && process.env.TORTURE_REFUSED !== undefined);
/** How often a run says how far it is, minutes. */
const REPORT_EVERY = 10;

/** Asked before each scene: whether there is time for it. Says now and then how many there have been. */
export function clock(): () => boolean {
  const start = performance.now();
  const end = start + Number(process.env.TORTURE_MINUTES ?? Infinity) * 60_000;
  let [asked, reported] = [0, 0];
  return () => {
    const minutes = (performance.now() - start) / 60_000;
    if (minutes >= reported + REPORT_EVERY) {
      reported = Math.floor(minutes);
      process.stderr.write(`${asked} after ${reported} min\n`);
    }
    asked += 1;
    return performance.now() < end;
  };
}
