/** `npm run bench`: speed as ratios in one run; the last line is taken in Chromium on the built application. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import {
  ROOT,
  checkNode,
  endChild,
  ensureBuilt,
  ensureDebianPackages,
  ensureNodeModules,
  migrate,
  startServer,
} from './project.mjs';
import { ensurePostgres, startTestCluster } from './postgres.mjs';
import { runScript } from './say.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const ROUNDS = 15;

/** Time from Enter on a subtraction to the first frame that shows its result. */
async function editToPicture(address) {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      '--use-gl=angle',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
      '--ignore-gpu-blocklist',
      '--disable-background-networking',
      '--disable-quic',
    ],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(20_000);
  await page.goto(address);
  await page.getByRole('button', { name: 'Enter the demo' }).click();
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByLabel('Name').fill('Bench');
  await page.getByRole('button', { name: 'Create' }).click();
  const idle = () => page.waitForFunction(() => window.kadrel?.isIdle);
  await idle();
  const make = async (key, texts) => {
    await page.keyboard.press(key);
    for (const text of texts) {
      await page.keyboard.type(text);
      await page.keyboard.press('Tab');
    }
    await page.keyboard.press('Enter');
    await page.getByText('done; change a blank to adjust').waitFor();
    await page.keyboard.press('Escape');
  };
  await make('b', ['100', '60', '8']);
  const times = [];
  for (let round = 0; round < ROUNDS; round++) {
    // Tab goes from the diameter past the radius, which is then hidden, to the height and to the centre.
    await make('c', [`${6 + round / 10}`, '20', '30', '30', '-5']);
    await page.getByRole('treeitem', { name: 'Box', exact: true }).click();
    await page.getByRole('treeitem', { name: 'Cylinder', exact: true }).click({ modifiers: ['Control'] });
    await page.keyboard.press('x');
    // A person's Enter comes when the picture of what was chosen stands.
    await page.waitForTimeout(400);
    times.push(
      await page.evaluate(
        () =>
          new Promise((resolve) => {
            const started = performance.now();
            const look = () =>
              document.querySelector('[data-testid="fact-faces, edges"]')?.textContent?.startsWith('7')
                ? requestAnimationFrame(() =>
                    requestAnimationFrame(() => resolve(performance.now() - started)),
                  )
                : requestAnimationFrame(look);
            window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
            look();
          }),
      ),
    );
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
    await idle();
  }
  await browser.close();
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}

await runScript(async () => {
  checkNode();
  ensurePostgres();
  ensureDebianPackages({ chromium: () => existsSync(CHROMIUM) });
  ensureNodeModules();
  ensureBuilt();
  const { build } = await import('vite');
  await build({
    root: join(ROOT, 'checks'),
    configFile: join(ROOT, 'checks/vite.config.ts'),
    logLevel: 'error',
  });
  const { status } = spawnSync(process.execPath, ['checks/dist/speed.js'], { cwd: ROOT, stdio: 'inherit' });
  if (status !== 0) process.exitCode = 1;
  const cluster = await startTestCluster();
  try {
    const environment = {
      DATABASE_URL: cluster.database('kadrel_bench'),
      PORT: '0',
      KADREL_DEMO: '1',
      KADREL_RATE: '1000000',
    };
    migrate(environment);
    const { child, address } = await startServer(environment);
    const time = await editToPicture(address);
    await endChild(child);
    process.stdout.write(
      `${'edit to picture in Chromium, one boolean : 150 ms'.padEnd(66)} ${(time / 150).toFixed(2).padStart(6)}   aim ${'< 1'.padEnd(10)} ${time.toFixed(1)} ms\n`,
    );
  } finally {
    await cluster.stop();
  }
});
