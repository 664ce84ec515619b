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

/** Keeps a worker that has nothing to do for the next `spawnWorker`: to start the kernel takes longer than most projects do to build. */
export function keepWorker(port: Port): void {
  if (warm) port.terminate();
  else warm = port;
}

function startWorker(): Port {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'kernel' });
  // What is said once, and before anybody listens, is kept for whoever will: that it is ready, or that it died.
  let isReady = false;
  let death: string | undefined;
  let hear: (message: FromWorker) => void = () => undefined;
  let mourn: (reason: string) => void = () => undefined;
  worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
    isReady ||= data.say === 'ready';
    hear(data);
  };
  worker.onerror = (event) => {
    death = event.message || 'Its file could not be loaded.';
    mourn(death);
  };
  return {
    post: (message) => worker.postMessage(message),
    listen(onMessage, onDeath) {
      hear = onMessage;
      mourn = onDeath;
      if (isReady) onMessage({ say: 'ready' });
      if (death !== undefined) onDeath(death);
    },
    terminate: () => worker.terminate(),
  };
}
