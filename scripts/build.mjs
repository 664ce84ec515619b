/** Builds the page and the server, and compresses what is served. */
import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { build } from 'vite';
import { ROOT, WEB_DIST, run } from './project.mjs';
import { runScript, say } from './say.mjs';

/** Measured on the kernel's 23 MB: level 6 takes 2 s for 5.9 MB, level 9 takes 11 s for 5.6 MB. */
const LEVEL = 6;
const COMPRESSED = /\.(js|css|html|svg|wasm|json|txt|msgpack)$/;
const MIN_BYTES = 1000;

function* files(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* files(path);
    else yield path;
  }
}

function compress(path) {
  const bytes = readFileSync(path);
  const { BROTLI_PARAM_QUALITY, BROTLI_PARAM_SIZE_HINT, BROTLI_PARAM_LGWIN } = constants;
  const params = {
    [BROTLI_PARAM_QUALITY]: LEVEL,
    [BROTLI_PARAM_SIZE_HINT]: bytes.length,
    [BROTLI_PARAM_LGWIN]: 24,
  };
  writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params }));
  writeFileSync(`${path}.gz`, gzipSync(bytes, { level: LEVEL }));
}

/** The demo projects' solids, named after the kernel that has built them, as the page asks for them. */
function prebuild() {
  const assets = join(WEB_DIST, 'assets');
  const worker = readdirSync(assets).find((name) => /^worker-[\w-]+\.js$/.test(name));
  const file = join(assets, worker.replace(/^worker-(.*)\.js$/, 'prebuilt-$1.msgpack'));
  run('node', ['--import', 'tsx', join(ROOT, 'apps/server/src/demo/prebuild.ts'), file]);
}

await runScript(async () => {
  for (const app of ['apps/web', 'apps/server'])
    await build({ root: join(ROOT, app), configFile: join(ROOT, app, 'vite.config.ts'), logLevel: 'warn' });
  prebuild();
  for (const path of files(WEB_DIST))
    if (COMPRESSED.test(path) && statSync(path).size > MIN_BYTES) compress(path);
  say('Built.');
});
