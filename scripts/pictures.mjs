/** `node scripts/pictures.mjs`: takes the pictures of docs/screenshots anew, from the demo data and a fresh database. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium, launchChromium } from './chromium.mjs';
import { ROOT } from './project.mjs';
import { runScript, say } from './say.mjs';
import { withDemo } from './serving.mjs';

const DEMOS = ['Hive with faults', 'Orchard hive', 'Tram shelter, Hollin Road', 'Marble run set'];

/** The pictures on the cards of the demo projects, as the workshop makes them: they are seeded with the projects. */
async function keepCards(page) {
  const pictures = {};
  for (const name of DEMOS) {
    await page.getByRole('link', { name: `Open ${name}` }).click();
    await page.waitForFunction(() => window.kadrel?.isIdle);
    const id = new URL(page.url()).pathname.split('/').at(-1);
    const stored = page.waitForResponse(
      (response) => response.url().includes(`${id}/picture`) && response.ok(),
    );
    await stored;
    const answer = await page.request.get(`/api/projects/${id}/picture`);
    pictures[name] = (await answer.body()).toString('base64');
    await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
    say(`card of ${name}`);
  }
  writeFileSync(join(ROOT, 'apps/server/src/demo/pictures.json'), `${JSON.stringify(pictures, null, 2)}\n`);
}

async function takeAll(address) {
  ensureChromium();
  const browser = await launchChromium();
  const page = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    baseURL: address,
  });
  page.setDefaultTimeout(90_000);
  const take = async (name) => {
    await page.waitForTimeout(700);
    await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
    say(name);
  };
  const idle = () => page.waitForFunction(() => window.kadrel?.isIdle);
  const pointAt = async (point, dx, dy) => {
    const [x, y] = await page.evaluate((p) => window.kadrel.screenOf(p), point);
    await page.mouse.move(x + dx, y + dy, { steps: 5 });
    await page.waitForTimeout(250);
  };

  await page.goto(`${address}/sign-in`);
  await page.getByRole('button', { name: 'Enter the demo' }).waitFor();
  await take('sign-in');
  await page.getByRole('button', { name: 'Enter the demo' }).click();
  await keepCards(page);
  const hive = page.getByRole('link', { name: 'Open Orchard hive' });
  await hive.click();
  await idle();
  await page.waitForTimeout(2500);
  await page.getByRole('treeitem', { name: 'Cover' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('treeitem', { name: 'Upper box' }).click();
  await take('workshop');
  const cut = page.getByRole('treeitem', { name: 'Through the bee space' });
  await cut.click();
  await page.getByRole('button', { name: 'Show Through the bee space' }).click();
  await idle();
  await take('section');
  await page.keyboard.press('Control+z');
  await idle();

  await page.getByRole('button', { name: /^Fit/ }).click();
  await page.getByRole('button', { name: 'Look again' }).waitFor();
  const report = page.getByRole('complementary', { name: 'Fit report' });
  await report.getByRole('button').filter({ hasText: 'Bee space' }).click();
  await idle();
  await take('fit');
  await page.getByRole('button', { name: 'Close the fit report' }).click();
  await page.keyboard.press('Shift+F');
  await idle();

  await page.getByRole('treeitem', { name: 'Roof' }).click();
  await page.keyboard.press('m');
  await pointAt([475, -15, 472], 2, 1);
  await page.mouse.down();
  await page.mouse.up();
  await pointAt([460, 0, 502], 3, -2);
  await take('move');
  // What was touched, the statement.
  for (let i = 0; i < 2; i++) await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Account: Demo' }).click();
  await page.getByRole('menuitem', { name: 'Dark', exact: true }).click();
  await page.getByRole('button', { name: 'Combine' }).click();
  await take('workshop-dark');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Account: Demo' }).click();
  await page.getByRole('menuitem', { name: 'Light', exact: true }).click();

  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await page.getByRole('link', { name: 'Open Tram shelter' }).click();
  await idle();
  await page.waitForTimeout(2500);
  await page.getByRole('button', { name: 'Plan and elevations', exact: true }).click();
  await page.locator('[data-drawn="true"]').waitFor();
  await page.getByRole('button', { name: /^Across the bench/ }).click();
  await take('sheet');
  await page.getByRole('button', { name: 'Back to the views' }).click();
  const part = (name) => page.getByRole('treeitem', { name, exact: true });
  await part('Slab').click();
  for (const name of ['Front posts', 'Back posts', 'Roof', 'Bench seat', 'Walls'])
    await part(name).click({ modifiers: ['Control'] });
  await page.keyboard.press('/');
  await page.keyboard.type('stacked model');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.locator('[data-drawn="true"]').waitFor();
  await page.keyboard.press('Escape');
  await take('slices');
  await page.getByRole('button', { name: 'Back to the views' }).click();
  await page.keyboard.press('Control+z');
  await idle();
  await part('Bench seat').click();
  await part('Slab').click({ modifiers: ['Control'] });
  const align = page.getByRole('group', { name: 'Align', exact: true });
  await align.getByRole('group', { name: 'Align X' }).getByRole('button', { name: 'least' }).click();
  await align.getByRole('group', { name: 'Align Y' }).getByRole('button', { name: 'greatest' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');

  await page.keyboard.press('v');
  await idle();
  await part('Bench seat').click();
  await take('four-views');
  await page.keyboard.press('v');
  await page.waitForTimeout(700);
  await idle();

  await page.keyboard.press('d');
  for (const [point, dx, dy] of [
    [[2400, 1600, 390], 0, 1],
    [[2400, 0, 0], 0, 1],
  ]) {
    await pointAt(point, dx, dy);
    await page.mouse.down();
    await page.mouse.up();
  }
  await page.keyboard.press('Escape');

  // A leg of the bench goes where the line of a front post crosses that of the other leg.
  await part('Bench leg left').click();
  await page.keyboard.press('m');
  await pointAt([1700, 1630, 0], 0, 1);
  await page.mouse.down();
  await page.mouse.up();
  for (const point of [
    [2025, 150, 0],
    [4220, 1630, 0],
  ]) {
    await pointAt(point, 1, 1);
    await page.waitForTimeout(700);
  }
  await pointAt([2025, 1630, 0], 2, 2);
  await take('guide-rays');
  // What was touched, the statement, the selection.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Escape');

  // More front posts over the same span, before they are set.
  await part('Front posts').click();
  await page.keyboard.press('/');
  await page.keyboard.type('set pattern');
  await page.keyboard.press('Enter');
  await page.getByLabel('in all', { exact: true }).fill('7');
  await page.waitForTimeout(600);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');

  await page.getByTitle('How parts are selected').click();
  await page.getByRole('radio', { name: 'fence', exact: true }).click();
  await page.keyboard.press('Escape');
  const corners = [
    [1150, 1350, 0],
    [4750, 1350, 0],
    [5000, 2350, 0],
    [3600, 2150, 900],
    [1150, 2150, 900],
  ];
  const [[x, y], ...others] = await page.evaluate(
    (points) => points.map((point) => window.kadrel.screenOf(point)),
    corners,
  );
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(...others[0], { steps: 4 });
  await page.mouse.up();
  for (const corner of others.slice(1, 3)) await page.mouse.click(...corner);
  await page.mouse.move(...others[3], { steps: 4 });
  await page.waitForTimeout(300);
  await page.keyboard.press('Escape');
  await page.getByTitle('How parts are selected').click();
  await page.keyboard.press('Escape');

  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await page.getByRole('link', { name: 'Open Marble run set' }).click();
  await idle();
  await page.waitForTimeout(2500);
  await take('marble-run');
  const starts = async (verb) => {
    await page.keyboard.press('/');
    await page.keyboard.type(verb);
    await page.keyboard.press('Enter');
  };
  const gives = async (point) => {
    await pointAt(point, 0, 0);
    await page.mouse.down();
    await page.mouse.up();
  };
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+F');
  await idle();
  const chooses = async (blank, option) => {
    await page.locator(`[data-blank="${blank}"]`).click();
    await page.getByRole('menuitem', { name: option, exact: true }).click();
  };
  await starts('join docks');
  await chooses('dock', 'Bend track · A');
  await chooses('onto', 'Straight track · B');
  await take('joining');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Racks', exact: true }).click();
  await page.locator('aside[aria-label="Racks"] svg[data-drawn]').nth(17).waitFor();
  await page.getByRole('combobox', { name: 'Fits' }).selectOption('track end');
  await page
    .getByRole('listitem')
    .getByRole('button', { name: /^Bend track/ })
    .click();
  await chooses('onto', 'Straight track · B');
  await idle();
  await take('racks');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Close the racks' }).click();
  await starts('line');
  await gives([20, -110, 0]);
  await pointAt([110, -120, 0], 0, 0);
  await take('drawing-a-line');
  await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 640, height: 400 });
  await page.getByRole('button', { name: 'Parts', exact: true }).click();
  await take('small');
  await page.getByRole('button', { name: 'Parts', exact: true }).click();
  await page.setViewportSize({ width: 1280, height: 800 });

  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await hive.waitFor();
  await takeShaping(page, { take, idle });
  await page.reload();
  await hive.locator('img').waitFor();
  await take('projects');
  await browser.close();
}

/** A tray with a step that no longer goes, a face of it in hand, and a cross that was softened; the project goes again. */
async function takeShaping(page, { take, idle }) {
  const says = async (verb, values, choices = {}) => {
    await page.keyboard.press('/');
    await page.keyboard.type(verb);
    await page.keyboard.press('Enter');
    for (const [blank, options] of Object.entries(choices)) {
      await page.locator(`[data-blank="${blank}"]`).click();
      for (const option of options)
        await page.getByRole('option', { name: option, exact: true }).last().click();
      // A list of one choice closes by itself.
      if (blank !== 'sides') await page.keyboard.press('Escape');
    }
    for (const [label, text] of Object.entries(values))
      await page.getByRole('textbox', { name: label, exact: true }).fill(text);
  };
  const done = async () => {
    await page.keyboard.press('Enter');
    await idle();
    await page.keyboard.press('Escape');
  };
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByLabel('Name').fill('Bee feeder');
  await page.getByRole('button', { name: 'Create' }).click();
  await idle();
  await says('box', { 'size X': '120', 'size Y': '80', 'size Z': '40', name: 'Tray' });
  await done();
  await says('fillet', { radius: '12' }, { edges: ['all edges along Z'] });
  await done();
  await says('fillet', { radius: '6' }, { edges: ['all edges around bottom'] });
  await done();
  await says('shell', { thickness: '3' }, { open: ['top'] });
  await done();
  await page.getByLabel('Radius of step 1').fill('3');
  await page.getByLabel('Radius of step 1').press('Enter');
  await idle();
  await page.keyboard.press('Shift+F');
  await idle();
  await take('steps');
  await page.keyboard.press('Escape');
  await says('offset face', { distance: '25' }, { faces: ['top'] });
  await idle();
  await take('offset-face');
  await page.keyboard.press('Escape');
  await page.getByRole('treeitem', { name: 'Tray' }).click({ position: { x: 60, y: 12 } });
  await page.keyboard.press('Delete');
  await idle();
  await page.keyboard.press('Escape');
  await says('box', { 'size X': '40', 'size Y': '40', 'size Z': '40', name: 'Float' });
  await done();
  const sides = { faces: ['left', 'right', 'front', 'back'], sides: ['leaving its outline behind'] };
  await says('offset face', { distance: '40' }, sides);
  await done();
  await says('soften', {});
  await done();
  await page.keyboard.press('Shift+F');
  await idle();
  await take('softened');
  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await page.getByRole('link', { name: 'Open Bee feeder' }).waitFor();
}

await runScript(() => withDemo('kadrel_pictures', takeAll));
