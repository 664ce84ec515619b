import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: false,
    rolldownOptions: { input: { limited: 'src/limited.ts' }, output: { entryFileNames: '[name].js' } },
  },
  logLevel: 'error',
});
