import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vite';
import { SHIPPED } from './src/screens/licences.ts';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');

/** The full licence of every package that ships, in one text beside the page. */
const licenceFile = (): Plugin => ({
  name: 'licences',
  generateBundle() {
    const texts = SHIPPED.map(({ name, licence }) => {
      const folder = [join(ROOT, 'node_modules', name), join(ROOT, 'apps/web/node_modules', name)].find(
        (path) => existsSync(path),
      );
      if (!folder) throw new Error(`${name} is listed in licences.ts, and is not installed.`);
      const file = readdirSync(folder).find((entry) => /^licen[cs]e/i.test(entry));
      return `${name}, ${licence}\n\n${file ? readFileSync(join(folder, file), 'utf8') : 'The package brings no licence text.'}\n`;
    });
    this.emitFile({
      type: 'asset',
      fileName: 'licences.txt',
      source: texts.join(`\n${'-'.repeat(100)}\n\n`),
    });
  },
});

/** The kernel's glue asks for a Node module behind a check that is never true in a browser. */
const withoutNode = (): Plugin => ({
  name: 'without-node',
  enforce: 'pre',
  resolveId: (id) => (id === 'node:module' || id === 'module' ? '\0no-node' : undefined),
  load: (id) => (id === '\0no-node' ? 'export const createRequire = undefined;' : undefined),
});

export default defineConfig({
  plugins: [withoutNode(), react(), tailwindcss(), licenceFile()],
  worker: { format: 'es', plugins: () => [withoutNode()] },
  // The workshop is one chunk, the core with it, and three.js another; the first screens wait for neither.
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: 'three', test: /node_modules[\\/]three[\\/]/ }] } },
    },
  },
  server: { proxy: { '/api': process.env.KADREL_API ?? 'http://127.0.0.1:4180' } },
});
