/** Jest's global setup: a throwaway database for the server's tests, unless one is given. */
import { ensurePostgres, startTestCluster } from './postgres.mjs';

export default async function setup() {
  if (process.env.TEST_DATABASE_URL) return;
  ensurePostgres();
  const cluster = await startTestCluster();
  process.env.TEST_DATABASE_URL = cluster.database('kadrel_test');
  globalThis.__kadrelCluster = cluster;
}
