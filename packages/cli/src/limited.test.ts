import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const folder = mkdtempSync(join(tmpdir(), 'kadrel-limit-'));
afterAll(() => rmSync(folder, { recursive: true }));

const BIN = join(import.meta.dirname, '../bin/kadrel.mjs');
/** Some thousands of holes in one statement: many seconds of work in one call of the kernel. */
const LONG = {
  kadrel: 1,
  ledger: [
    { verb: 'box', as: 'plate', size: ['1000', '1000', '8'] },
    { verb: 'cylinder', as: 'drill', diameter: '4', height: '20', at: ['10', '10', '-5'] },
    {
      verb: 'grid',
      as: 'drills',
      parts: ['drill'],
      columns: '40',
      columnPitch: '15',
      rows: '40',
      rowPitch: '15',
    },
    { verb: 'subtract', as: 'sieve', from: 'plate', parts: ['drills'] },
  ],
};

test('a statement that takes too long is ended, named, and leaves nothing half written', () => {
  const path = join(folder, 'long.json');
  writeFileSync(path, JSON.stringify(LONG));
  const { status, stderr, stdout } = spawnSync(
    process.execPath,
    [BIN, 'run', path, '--measure', '--limit', '0.2'],
    { encoding: 'utf8' },
  );
  expect(stderr).toMatch(/^(Statement \d|Measuring).* took longer than 0\.2 s and was ended/);
  expect([status, stdout]).toEqual([1, '']);
});

test('results and the exit code come out of the thread whole', () => {
  const { status, stdout } = spawnSync(process.execPath, [BIN, 'verbs', '--json'], { encoding: 'utf8' });
  expect(status).toBe(0);
  expect((JSON.parse(stdout) as { verbs: object[] }).verbs.length).toBeGreaterThan(50);
});
