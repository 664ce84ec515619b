import { Lines } from './lines.ts';

const settle = () => new Promise((resolve) => setImmediate(resolve));

test('work on one project waits for what came before, on another it does not, and a failure stops nobody', async () => {
  const lines = new Lines();
  const log: string[] = [];
  let release = () => {};
  const gate = new Promise<void>((resolve) => (release = resolve));
  const first = lines.inLine('a', async () => {
    await gate;
    log.push('first');
    throw new Error('It failed.');
  });
  const second = lines.inLine('a', () => Promise.resolve(log.push('second')));
  await lines.inLine('b', () => Promise.resolve(log.push('beside')));
  expect(log).toEqual(['beside']);
  release();
  await expect(first).rejects.toThrow('It failed.');
  await second;
  expect(log).toEqual(['beside', 'first', 'second']);
});

test('more than can be waited for are sent away, and the line goes on', async () => {
  const lines = new Lines();
  let release = () => {};
  const gate = new Promise<void>((resolve) => (release = resolve));
  const waiting = Array.from({ length: 500 }, () => lines.inLine('a', () => gate));
  await expect(lines.inLine('a', () => gate)).rejects.toMatchObject({ status: 503 });
  release();
  await Promise.all(waiting);
  await settle();
  await expect(lines.inLine('a', () => Promise.resolve('again'))).resolves.toBe('again');
});
