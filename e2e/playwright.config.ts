import { defineConfig } from '@playwright/test';

const isRoot = process.getuid?.() === 0;

/** Debian's Chromium, with software drawing and without its calls home. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // Guards against a hang, not a measure of speed: a shared machine can be four times slower than a calm one.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  // Files side by side: each test has a project, and mostly a person, of its own.
  workers: 2,
  reporter: process.env.PLAYWRIGHT_JSON
    ? [['list'], ['json', { outputFile: process.env.PLAYWRIGHT_JSON }]]
    : [['list']],
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4180',
    viewport: { width: 1280, height: 800 },
    // Software draws every pixel of the views: half as many each way are enough to see by.
    deviceScaleFactor: 0.5,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        ...(isRoot ? ['--no-sandbox'] : []),
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--ignore-gpu-blocklist',
        // The views are drawn with WebGL as ever; to put the page together needs none of it, and is quicker so.
        '--disable-gpu-compositing',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
