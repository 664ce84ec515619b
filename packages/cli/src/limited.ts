/** Runs the headless runner in a thread of its own, and ends it when a piece of work takes too long. */
import { Worker, isMainThread, parentPort } from 'node:worker_threads';
import { main, type Begun } from './main.ts';

/** Starts the thread, which is this file too, and returns the exit code. */
export async function runLimited(args: readonly string[]): Promise<number> {
  const thread = new Worker(new URL(import.meta.url), { argv: [...args] });
  let timer: NodeJS.Timeout | undefined;
  thread.on('message', ({ work, limitSeconds }: Begun) => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      process.stderr.write(
        `${work} took longer than ${limitSeconds} s and was ended; nothing more was written. Make it simpler, or allow more: --limit SECONDS.\n`,
      );
      void thread.terminate();
    }, limitSeconds * 1000);
  });
  return new Promise((resolve, reject) => {
    thread.once('error', reject);
    thread.once('exit', (code) => {
      clearTimeout(timer);
      resolve(code);
    });
  });
}

if (!isMainThread)
  process.exitCode = await main(process.argv.slice(2), (begun) => parentPort!.postMessage(begun));
