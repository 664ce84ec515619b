/** Entry of the browser's worker. */
import init from 'replicad-opencascadejs';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import { Evaluator } from './evaluate.ts';
import type { FromWorker, ToWorker } from './protocol.ts';
import { serve } from './serve.ts';

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: ArrayBuffer[]): void;
  onmessage: ((event: MessageEvent<ToWorker>) => void) | null;
};
const post = (message: FromWorker, transfer: ArrayBuffer[]) => scope.postMessage(message, transfer);

const occt = await init({ locateFile: () => wasmUrl, print: () => undefined, printErr: () => undefined });
const answer = serve(new Evaluator(occt), post);
scope.onmessage = ({ data }) => answer(data);
post({ say: 'ready' }, []);
