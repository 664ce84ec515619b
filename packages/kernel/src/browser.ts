/** The kernel in the browser: in a worker of its own. */
import type { FromWorker, Port } from './protocol.ts';

export function spawnWorker(): Port {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'kernel' });
  return {
    post: (message) => worker.postMessage(message),
    listen(onMessage, onDeath) {
      worker.onmessage = ({ data }: MessageEvent<FromWorker>) => onMessage(data);
      worker.onerror = (event) => onDeath(event.message || 'The kernel could not be started.');
    },
    terminate: () => worker.terminate(),
  };
}
