/** The kernel in the browser: in a worker of its own. */
import type { FromWorker, Port } from './protocol.ts';
import workerUrl from './worker.ts?worker&url';

/** The worker's file is named after all that is in it; while it is served as it is written, it has no such name. */
const NAME = /worker-([\w-]+)\.js$/;

/** Tells builds of the kernel apart: equal ones build equal solids. Empty where that cannot be told. */
export const KERNEL_BUILD = NAME.exec(workerUrl)?.[1] ?? '';

/** Where the page's server has solids that are built already, by this kernel. */
export const PREBUILT_URL = workerUrl.replace(NAME, 'prebuilt-$1.msgpack');

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
  const worker = new Worker(workerUrl, { type: 'module', name: 'kernel' });
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
