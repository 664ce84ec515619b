/** What the page costs, taken in Chromium on the built application: edits, many parts, the first look, long ledgers, and a tour. */
import { randomUUID } from 'node:crypto';
import {
  framesMoving,
  framesOrbiting,
  isDone,
  makeGrid,
  newProject,
  saysVerb,
  typeStatement,
} from './benchDoing.mjs';
import { benchTour } from './benchTour.mjs';
import { launchChromium } from './chromium.mjs';

const ROUNDS = 15;

/** A page of the demo account, with nothing in its cache. */
async function enterDemo(address) {
  const browser = await launchChromium();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(20_000);
  const scripts = [];
  page.on('response', (response) => {
    if (response.url().endsWith('.js')) scripts.push(response);
  });
  await page.goto(address);
  await page.getByRole('button', { name: 'Enter the demo' }).waitFor();
  const sizes = await Promise.all(scripts.map(async (one) => (await one.request().sizes()).responseBodySize));
  await page.getByRole('button', { name: 'Enter the demo' }).click();
  await page.getByRole('button', { name: 'New project' }).waitFor();
  const idle = () => page.waitForFunction(() => window.kadrel?.isIdle, null, { timeout: 120_000 });
  return { browser, page, idle, firstScriptBytes: sizes.reduce((sum, one) => sum + one, 0) };
}

/** A new project in the demo account, and what is done in it again and again. */
async function openWorkshop(address) {
  const { browser, page, idle } = await enterDemo(address);
  await newProject({ page, idle }, 'Bench');
  return { browser, page, idle };
}

/** Ten thousand members: frames a second with and without outlines; and how long four hundred parts take to open. */
async function manyParts(address) {
  const { browser, page, idle } = await openWorkshop(address);
  await makeGrid({ page, idle });
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
  const opened = await openedTwice(browser, page);
  await browser.close();
  return { faces, edges, ...opened };
}

/** A project in a browser that has kept nothing of it, and again in the same one, which has kept what was built by then. */
async function openedTwice(browser, before) {
  const fresh = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    storageState: await before.context().storageState(),
  });
  const page = await fresh.newPage();
  const timed = async (open) => {
    const started = Date.now();
    await open();
    await page.waitForFunction(() => window.kadrel?.isIdle, null, { timeout: 120_000 });
    return Date.now() - started;
  };
  const open = await timed(() => page.goto(before.url()));
  await page.waitForTimeout(5000);
  return { open, again: await timed(() => page.reload()) };
}

/** The hive, cut open: frames a second while its section plane is dragged, and while the view orbits. */
async function draggingSection(address) {
  const { browser, page, idle } = await enterDemo(address);
  await page.getByRole('link', { name: 'Open Orchard hive' }).click();
  await idle();
  const name = 'Through the bee space';
  await page.getByRole('treeitem', { name }).click();
  await page.getByRole('button', { name: `Show ${name}` }).click();
  await idle();
  await page.keyboard.press('Escape');
  const orbiting = await framesOrbiting(page, 6);
  await page.waitForTimeout(3000);
  // By the arrow that stands square to it, in the middle of what it cuts.
  const { from, by } = await page.evaluate(async (section) => {
    const { min, max } = (await window.kadrel.facts(section)).box;
    const middle = min.map((n, i) => (n + max[i]) / 2);
    const [a, b] = [middle, [middle[0], middle[1] + 100, middle[2]]].map((at) => window.kadrel.screenOf(at));
    const away = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const way = [(b[0] - a[0]) / away, (b[1] - a[1]) / away];
    return { from: [a[0] + 25 * way[0], a[1] + 25 * way[1]], by: way };
  }, name);
  const before = (await placesOf(page))[name];
  const dragging = await framesMoving(page, 6, { from, by, button: 0 });
  await idle();
  if ((await placesOf(page))[name] === before) throw new Error('the section plane was not dragged');
  await browser.close();
  return { orbiting, dragging };
}

/** What the page works by itself (scripts, styles, layout) for each frame of `move`, ms. @param move tells how many frames a second it made */
async function workPerFrame(page, seconds, move) {
  const client = await page.context().newCDPSession(page);
  await client.send('Performance.enable');
  const worked = async () => {
    const { metrics } = await client.send('Performance.getMetrics');
    const of = (name) => metrics.find((one) => one.name === name).value;
    return 1000 * (of('ScriptDuration') + of('LayoutDuration') + of('RecalcStyleDuration'));
  };
  const before = await worked();
  const perSecond = await move(seconds);
  return ((await worked()) - before) / (perSecond * seconds);
}

/** A prism of a hundred faces: what a frame takes of the page while its top is pulled up by its arrow, and while the view orbits. */
async function pullingFace(address) {
  const { browser, page, idle } = await openWorkshop(address);
  await saysVerb(page, 'prism', { sides: '98', width: '60', height: '20' });
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+F');
  await idle();
  const orbiting = await workPerFrame(page, 6, (seconds) => framesOrbiting(page, seconds));
  await page.waitForTimeout(3000);
  const [foot, above] = await page.evaluate(() =>
    [20, 21].map((height) => window.kadrel.screenOf([0, 0, height])),
  );
  const up = Math.hypot(above[0] - foot[0], above[1] - foot[1]);
  const way = [(above[0] - foot[0]) / up, (above[1] - foot[1]) / up];
  // What was made is selected; a click within it selects its face.
  await page.mouse.click(foot[0] + 20, foot[1]);
  await idle();
  const from = foot.map((n, i) => n + 45 * way[i]);
  // By so much that it goes up by steps of the grid.
  const by = way.map((n) => 4 * n);
  const dragging = await workPerFrame(page, 6, (seconds) =>
    framesMoving(page, seconds, { from, by, button: 0 }),
  );
  await idle();
  if ((await stepsIn(page)) !== 1) throw new Error('the face was not pulled');
  await browser.close();
  return { orbiting, dragging };
}

const stepsIn = (page) =>
  page.evaluate(() =>
    Object.values(window.kadrel.document.items).reduce((sum, { recipe }) => sum + recipe.steps.length, 0),
  );

const placesOf = (page) =>
  page.evaluate(() =>
    Object.fromEntries(
      Object.values(window.kadrel.document.items).map(({ name, placement }) => [
        name,
        JSON.stringify(placement.origin),
      ]),
    ),
  );

/** From a view that turns by a hair to the second frame after it, ms: what any change takes until it is seen. */
const plainFrame = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve) => {
        const host = document.querySelector('[data-pane="Home"]');
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
        send('pointermove', 204);
        const started = performance.now();
        send('pointermove', 205);
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            resolve(performance.now() - started);
            send('pointerup', 205);
          }),
        );
      }),
  );

/** Time from Enter on a subtraction to the first frame that shows its result, and of a plain frame; and how long until it is built. */
async function editToPicture(address) {
  const { browser, page, idle } = await openWorkshop(address);
  const make = async (key, texts) => {
    await typeStatement(page, key, texts);
    await page.keyboard.press('Enter');
    await isDone(page);
    await page.keyboard.press('Escape');
  };
  await make('b', ['100', '60', '8']);
  const times = [];
  const frames = [];
  for (let round = 0; round < ROUNDS; round++) {
    await page.waitForTimeout(400);
    frames.push(await plainFrame(page));
    await idle();
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
            let said = 0;
            const look = () => {
              if (!document.querySelector('[data-testid="fact-faces, edges"]')?.textContent?.startsWith('7'))
                return void requestAnimationFrame(look);
              const told = performance.now() - started;
              requestAnimationFrame(() =>
                requestAnimationFrame(() => resolve({ said, told, drawn: performance.now() - started })),
              );
            };
            window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
            said = performance.now() - started;
            look();
          }),
      ),
    );
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
    await idle();
  }
  await browser.close();
  const middle = (list) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)];
  const [said, told, drawn] = ['said', 'told', 'drawn'].map((stage) =>
    middle(times.map((one) => one[stage])),
  );
  return { said, told, drawn, frame: middle(frames) };
}

/** From a click on the card of the hive, with nothing of the workshop loaded, to a model that is built and drawn. */
async function firstLook(address) {
  const { browser, page, idle, firstScriptBytes } = await enterDemo(address);
  const card = page.getByRole('link', { name: /Orchard hive/ }).first();
  await card.waitFor();
  const started = Date.now();
  await card.click();
  await idle();
  const time = Date.now() - started;
  await browser.close();
  return { time, firstScriptBytes };
}

const LONG_LEDGER = 5000;

/** A project with a part and thousands of edits: how long it takes to open, and how long one more edit takes in it, and in an empty one. */
async function longLedger(address) {
  const { browser, page, idle } = await openWorkshop(address);
  const nudged = async () => {
    await typeStatement(page, 'b', ['20', '20', '20', '0', '0', '0']);
    const started = Date.now();
    await page.keyboard.press('Enter');
    await isDone(page);
    await idle();
    const done = Date.now();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await page.waitForFunction(() => Object.keys(window.kadrel.document.items).length === 0);
    return { say: done - started, undo: Date.now() - done };
  };
  await nudged();
  const short = await nudged();
  await page.waitForFunction(() => window.kadrel.unsaved === 0);
  await filled(page, LONG_LEDGER);
  const started = Date.now();
  await page.reload();
  await idle();
  const open = Date.now() - started;
  await nudged();
  const long = await nudged();
  await browser.close();
  return { open, short, long };
}

/** So many edits of the grid's step after those that a project has. */
async function filled(page, count) {
  const { origin, pathname } = new URL(page.url());
  const project = `${origin}/api${pathname}`;
  const { revision } = await (await page.request.get(project)).json();
  for (let done = 0; done < count; done += 500) {
    const edits = Array.from({ length: 500 }, (_, i) => ({
      id: randomUUID(),
      kind: 'do',
      patches: [{ op: 'replace', path: ['scene', 'grid'], value: 1 + ((done + i) % 9) }],
      inverses: [{ op: 'replace', path: ['scene', 'grid'], value: 5 }],
      line: { verb: 'scene', values: { grid: '5 mm' }, title: 'Grid 5 mm', author: 'Ada', time: 1 },
    }));
    const answer = await page.request.post(`${project}/edits`, {
      data: { base: revision + done, edits },
    });
    if (!answer.ok()) throw new Error(`edits were not taken: ${answer.status()} ${await answer.text()}`);
  }
}

/** @param line prints a ratio */
export async function benchPage(address, line) {
  const { said, told, drawn, frame } = await editToPicture(address);
  line(
    'edit to picture in Chromium, one boolean, over a plain frame : 100 ms',
    (drawn - frame) / 100,
    '≤ 1',
    `said ${said.toFixed(0)}, built and told ${told.toFixed(0)}, drawn ${drawn.toFixed(0)} ms; a frame ${frame.toFixed(0)} ms`,
  );
  const look = await firstLook(address);
  line('the hive, from its card to rest, nothing loaded : 2.5 s', look.time / 2500, '≤ 1', `${look.time} ms`);
  line(
    'scripts of the first screen : 200 kB',
    look.firstScriptBytes / 200_000,
    '≤ 1',
    `${Math.round(look.firstScriptBytes / 1000)} kB`,
  );
  const { faces, edges, open, again } = await manyParts(address);
  line(
    'orbit 10,000 members with edges : as one instanced mesh, faces only',
    faces / edges,
    '≤ 2',
    `${edges.toFixed(1)} : ${faces.toFixed(1)} frames/s`,
  );
  line('opening 400 parts that the browser has kept nothing of : 2 s', open / 2000, '≤ 1', `${open} ms`);
  line('opening 400 parts again : 2 s', again / 2000, '≤ 1', `${again} ms`);
  const { orbiting, dragging } = await draggingSection(address);
  line(
    'a frame while a section plane of the hive is dragged : while the view orbits',
    orbiting / dragging,
    '≤ 1.5',
    `${(1000 / dragging).toFixed(0)} : ${(1000 / orbiting).toFixed(0)} ms`,
  );
  const pulling = await pullingFace(address);
  line(
    'work of a move while a face of a hundred is pulled, over a plain frame : 10 ms',
    (pulling.dragging - pulling.orbiting) / 10,
    '≤ 1',
    `${pulling.dragging.toFixed(1)} : ${pulling.orbiting.toFixed(1)} ms`,
  );
  const ledger = await longLedger(address);
  line(`opening a project with ${LONG_LEDGER} edits : 3 s`, ledger.open / 3000, '≤ 1', `${ledger.open} ms`);
  const both = ({ say, undo }) => say + undo;
  line(
    '  an edit and its undo in it : in an empty one',
    both(ledger.long) / both(ledger.short),
    '≤ 1.2',
    `${both(ledger.long)} : ${both(ledger.short)} ms`,
  );
  await benchTour(await enterDemo(address), line);
}
