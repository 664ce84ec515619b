/** Entry of the browser's worker. */
import initFacets from 'manifold-3d';
import facetsUrl from 'manifold-3d/manifold.wasm?url';
import init from 'replicad-opencascadejs';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import { BuildWatch } from './buildWatch.ts';
import type { FromWorker, ToWorker } from './protocol.ts';
import { serve } from './serve.ts';

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: ArrayBuffer[]): void;
  onmessage: ((event: MessageEvent<ToWorker>) => void) | null;
};
const post = (message: FromWorker, transfer: ArrayBuffer[]) => scope.postMessage(message, transfer);

const [occt, facetter] = await Promise.all([
  init({ locateFile: () => wasmUrl, print: () => undefined, printErr: () => undefined }),
  initFacets({ locateFile: () => facetsUrl }),
]);
facetter.setup();
const answer = serve({ libraries: { occt, facetter }, watch: new BuildWatch() }, post);
scope.onmessage = ({ data }) => answer(data);
post({ say: 'ready' }, []);
