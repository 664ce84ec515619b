import { expect, test } from '@playwright/test';
import type { KadrelDocument } from '@kadrel/core';
import { migrate, startServer } from '../scripts/project.mjs';
import { manyBoxes } from './edits.ts';
import { startTestCluster } from '../scripts/postgres.mjs';

/** Kills, all of them in `npm run torture -- browser`. */
const ROUNDS = process.env.KADREL_TRIALS === 'all' ? [0, 1, 2] : [1];

test('server and database are killed in the middle of saving: what was acknowledged is there', async () => {
  const cluster = await startTestCluster({ durable: true });
  cluster.database('kadrel_crash');
  const environment = () => ({
    DATABASE_URL: cluster.urlOf('kadrel_crash'),
    PORT: '0',
    KADREL_DEMO: '1',
    KADREL_RATE: '1000000',
  });
  migrate(environment());
  let server = await startServer(environment());
  let cookie = '';
  const call = (method: string, path: string, body?: unknown) =>
    fetch(`${server.address}/api${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  cookie = (await call('POST', '/demo')).headers.getSetCookie()[0]!.split(';')[0]!;
  const { id } = (await (await call('POST', '/projects', { name: 'Crash', scene: {} })).json()) as {
    id: string;
  };
  const edits = manyBoxes(120);
  let acknowledged = 0;

  for (const round of ROUNDS) {
    // Saves run on while both are killed; those whose answer never came may or may not be there.
    const killAt = 20 + 30 * round;
    let killed: Promise<void> | undefined;
    try {
      for (let base = acknowledged; base < edits.length; base++) {
        const answer = await call('POST', `/projects/${id}/edits`, { base, edits: [edits[base]] });
        if (answer.status !== 201) break;
        acknowledged = base + 1;
        if (acknowledged === killAt)
          killed = new Promise((resolve) =>
            setTimeout(() => {
              server.child.kill('SIGKILL');
              void cluster.crash().then(resolve);
            }, 7),
          );
      }
    } catch {
      // The connection broke, as it should.
    }
    expect(killed).toBeDefined();
    await killed;
    server = await startServer(environment());
    const { revision, document } = (await (await call('GET', `/projects/${id}`)).json()) as {
      revision: number;
      document: KadrelDocument;
    };
    expect(revision).toBeGreaterThanOrEqual(acknowledged);
    expect(Object.keys(document.items)).toHaveLength(revision);
    for (let i = 0; i < acknowledged; i++) expect(document.items[`b${i}`]?.name).toBe(`box ${i}`);
    acknowledged = revision;
  }
  server.child.kill('SIGKILL');
  await cluster.stop();
});
