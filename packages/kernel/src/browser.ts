/** The kernel in the browser: in a worker of its own. */
import type { FromWorker, Port } from './protocol.ts';

let warm: Port | undefined;

/** Starts a worker ahead of time, while a project is still on its way; the next `spawnWorker` takes it. */
export function warmUpWorker(): void {
  warm ??= startWorker();
}

/** A worker of the page with a kernel in it. */
export function spawnWorker(): Port {
  const port = warm ?? startWorker();
  warm = undefined;
  return port;
}

function startWorker(): Port {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'kernel' });
  // What it says before anybody listens is kept for whoever will.
  const early: FromWorker[] = [];
  let death: string | undefined;
  let hear: (message: FromWorker) => void = (message) => early.push(message);
  let mourn: (reason: string) => void = (reason) => (death = reason);
  worker.onmessage = ({ data }: MessageEvent<FromWorker>) => hear(data);
  worker.onerror = (event) => mourn(event.message || 'Its file could not be loaded.');
  return {
    post: (message) => worker.postMessage(message),
    listen(onMessage, onDeath) {
      hear = onMessage;
      mourn = onDeath;
      early.forEach(onMessage);
      if (death !== undefined) onDeath(death);
    },
    terminate: () => worker.terminate(),
  };
}
