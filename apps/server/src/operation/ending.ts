/** A graceful end: nothing new is taken, what was begun is answered, and clients that keep talking are not waited for. */
import type { Server } from 'node:http';

/** What was begun has so long to be answered, ms. */
const DEADLINE_MS = 10_000;
const STEP_MS = 50;

/** Resolves when no connection is left; after the deadline those that are left are cut. */
export async function closeServer(server: Server, deadlineMs = DEADLINE_MS): Promise<void> {
  const closed = new Promise<void>((resolve) => server.close(() => resolve()));
  // Every answer from now on is the last one of its connection.
  server.prependListener('request', (_, response) => response.setHeader('Connection', 'close'));
  server.closeIdleConnections();
  const idle = setInterval(() => server.closeIdleConnections(), STEP_MS);
  const deadline = setTimeout(() => server.closeAllConnections(), deadlineMs);
  await closed;
  clearInterval(idle);
  clearTimeout(deadline);
}

/** The first signal ends gracefully, the second at once. @param end resolves when all is closed */
export function endOnSignals(end: () => Promise<void>): void {
  let isEnding = false;
  const onSignal = (signal: NodeJS.Signals): void => {
    if (isEnding) process.exit(signal === 'SIGINT' ? 130 : 143);
    isEnding = true;
    end().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, onSignal);
}
