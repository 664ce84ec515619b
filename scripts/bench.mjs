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
import { benchSaving } from './benchSaving.mjs';
import { ensurePostgres, startTestCluster } from './postgres.mjs';
import { runScript } from './say.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const ROUNDS = 15;

/** A new project in the demo account, and what is done in it again and again. */
async function openWorkshop(address) {
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
  const idle = () => page.waitForFunction(() => window.kadrel?.isIdle, null, { timeout: 120_000 });
  await idle();
  return { browser, page, idle };
}

/** Frames a second while the view orbits, by pointer events made in the page. */
const framesOrbiting = (page, seconds) =>
  page.evaluate(
    (span) =>
      new Promise((resolve) => {
        const host = document.querySelector('[data-pane]');
        const { left, top } = host.getBoundingClientRect();
        const send = (type, x) =>
          host.dispatchEvent(
            new window.PointerEvent(type, {
              bubbles: true,
              button: 1,
              pointerId: 1,
              clientX: left + x,
              clientY: top + 200,
            }),
          );
        host.setPointerCapture = () => undefined;
        send('pointerdown', 200);
        const started = performance.now();
        let frames = 0;
        const step = () => {
          const time = performance.now() - started;
          if (time > span * 1000) {
            send('pointerup', 200);
            resolve((frames * 1000) / time);
            return;
          }
          frames += 1;
          send('pointermove', 200 + (frames % 2 === 0 ? 1 : 3) + frames);
          requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    seconds,
  );

/** Ten thousand members: frames a second with and without outlines; and how long four hundred parts take to open. */
async function manyParts(address) {
  const { browser, page, idle } = await openWorkshop(address);
  await page.keyboard.press('b');
  for (const text of ['5', '5', '5', '0', '0', '0']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await idle();
  const repeat = async (columns, rows) => {
    await page.keyboard.press('/');
    await page.keyboard.type('grid');
    await page.keyboard.press('Enter');
    for (const [label, text] of [
      ['columns', columns],
      ['column every', 10],
      ['rows', rows],
      ['row every', 10],
    ])
      await page.getByLabel(label, { exact: true }).fill(String(text));
    await page.keyboard.press('Enter');
    await page.getByText('done; change a blank to adjust').waitFor({ timeout: 60_000 });
    await idle();
    await page.keyboard.press('Escape');
  };
  await repeat(100, 100);
  await page.keyboard.press('Shift+F');
  await idle();
  const show = async (display) => {
    await page.getByRole('button', { name: /perspective|parallel/ }).click();
    await page.getByRole('menuitem', { name: display, exact: true }).click();
    await idle();
  };
  const edges = await framesOrbiting(page, 6);
  // Frames that were asked for are still being drawn.
  await page.waitForTimeout(5000);
  await show('shaded');
  const faces = await framesOrbiting(page, 6);
  await page.waitForTimeout(5000);
  // Four hundred of them, each a part of its own.
  await page.getByRole('treeitem', { name: 'Box grid' }).click();
  await page.getByLabel('Columns', { exact: true }).fill('20');
  await page.getByLabel('Columns', { exact: true }).press('Enter');
  await idle();
  await page.getByLabel('Rows', { exact: true }).fill('20');
  await page.getByLabel('Rows', { exact: true }).press('Enter');
  await idle();
  await page.getByRole('button', { name: 'Dissolve' }).click();
  await page.waitForFunction(() => Object.keys(window.kadrel.document.items).length === 400);
  await idle();
  await page.waitForFunction(() => window.kadrel.unsaved === 0, null, { timeout: 60_000 });
  const started = Date.now();
  await page.reload();
  await idle();
  const open = Date.now() - started;
  await browser.close();
  return { faces, edges, open };
}

/** Time from Enter on a subtraction to the first frame that shows its result. */
async function editToPicture(address) {
  const { browser, page, idle } = await openWorkshop(address);
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
  const line = (what, ratio, aim, detail) =>
    process.stdout.write(
      `${what.padEnd(66)} ${ratio.toFixed(2).padStart(6)}   aim ${aim.padEnd(10)} ${detail}\n`,
    );
  await benchSaving(line);
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
    line('edit to picture in Chromium, one boolean : 150 ms', time / 150, '< 1', `${time.toFixed(1)} ms`);
    const { faces, edges, open } = await manyParts(address);
    line(
      'orbit 10,000 members with edges : as one instanced mesh, faces only',
      faces / edges,
      '≤ 2',
      `${edges.toFixed(1)} : ${faces.toFixed(1)} frames/s`,
    );
    line('opening 400 parts, from reload to rest : 3 s', open / 3000, '≤ 1', `${open} ms`);
    await endChild(child);
  } finally {
    await cluster.stop();
  }
});
