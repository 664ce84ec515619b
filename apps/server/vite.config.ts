import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: false,
    sourcemap: true,
    rolldownOptions: {
      input: { main: 'src/main.ts', worker: 'src/worker.ts' },
      output: { keepNames: true, entryFileNames: '[name].js' },
    },
  },
});
