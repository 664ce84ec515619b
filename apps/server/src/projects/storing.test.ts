import { superfluous } from './storing.ts';

test('snapshots thin out with age: few are kept, and none lies farther from the next than that one is old', () => {
  let kept = [0];
  for (let revision = 50; revision <= 50_000; revision += 50) {
    const all = [...kept, revision];
    const gone = new Set(superfluous(all));
    kept = all.filter((one) => !gone.has(one));
    expect(kept[0]).toBe(0);
    expect(kept.at(-1)).toBe(revision);
    for (let i = 1; i + 1 < kept.length; i++)
      expect(kept[i]! - kept[i - 1]!).toBeLessThanOrEqual(Math.max(50, revision - kept[i]!));
  }
  expect(kept.length).toBeLessThan(25);
});
