/** The rasteriser's own code, compiled once a process: it may be started only once. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { initWasm } from '@resvg/resvg-wasm';

let painter: Promise<void> | undefined;

export function loadPainter(): Promise<void> {
  const wasm = createRequire(import.meta.url).resolve('@resvg/resvg-wasm/index_bg.wasm');
  return (painter ??= initWasm(readFileSync(wasm)));
}
