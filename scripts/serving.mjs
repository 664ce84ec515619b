/** The built application with its demo, on a fresh database that goes when the work is done. */
import { startTestCluster } from './postgres.mjs';
import { endChild, ensureBuilt, migrate, startServer } from './project.mjs';

/** @param database its name @param work is given the address */
export async function withDemo(database, work) {
  ensureBuilt();
  const cluster = await startTestCluster();
  try {
    const environment = {
      DATABASE_URL: cluster.database(database),
      PORT: '0',
      KADREL_DEMO: '1',
      KADREL_RATE: '1000000',
    };
    migrate(environment);
    const { child, address } = await startServer(environment);
    try {
      return await work(address);
    } finally {
      await endChild(child);
    }
  } finally {
    await cluster.stop();
  }
}
