/**
 * A tour of all demo projects and of a grid of ten thousand members, as a person goes through them: how long the page was busy without
 * a pause. Seconds are shared among the projects; a seed decides what is done.
 */
import { isDone, makeGrid, newProject } from './benchDoing.mjs';
import { randomOf } from './random.mjs';

const SECONDS = Number(process.env.TOUR_SECONDS ?? 300);
/** A task of the page that is longer than this (ms) is felt. */
const FELT_MS = 50;
const PROJECTS = [/Orchard hive(?!.*faults)/, /Tram shelter/, /Marble run/, /with faults/];

/** What a person does with the mouse and the keys, each under a name. */
const actionsOf = (page, random) => {
  const place = () => [330 + random() * 500, 190 + random() * 380];
  const dragged = async (button) => {
    await page.mouse.move(...place());
    await page.mouse.down({ button });
    for (let i = 0; i < 12; i++) await page.mouse.move(...place(), { steps: 2 });
    await page.mouse.up({ button });
  };
  const typed = async (keys) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  return {
    hovers: async () => {
      for (let i = 0; i < 8; i++) await page.mouse.move(...place(), { steps: 6 });
    },
    orbits: () => dragged('middle'),
    zooms: async () => {
      await page.mouse.move(...place());
      for (let i = 0; i < 6; i++) await page.mouse.wheel(0, random() < 0.5 ? 240 : -240);
    },
    frames: () => typed(['Shift+F']),
    chooses: async () => {
      await page.mouse.click(...place());
    },
    moves: async () => {
      await page.mouse.click(...place());
      await typed(['m', '1', '2', 'Tab', '5']);
      await page.mouse.move(...place(), { steps: 8 });
      await typed(['Escape', 'Escape', 'Escape']);
    },
    makes: async () => {
      await typed(['b']);
      await page.mouse.move(...place(), { steps: 8 });
      await typed(['4', '0', 'Tab', '3', '0', 'Tab', '2', '0', 'Enter']);
      await isDone(page);
      await typed(['Escape', 'Control+z']);
    },
    searches: async () => {
      await typed(['/', 'g', 'r', 'i', 'd', 'Escape']);
    },
  };
};

/** Goes about in the project that is open. */
async function goAbout({ page, idle, random }, seconds) {
  const actions = Object.entries(actionsOf(page, random));
  const end = Date.now() + seconds * 1000;
  for (let i = 0; Date.now() < end; i++) {
    const [name, act] = actions[i % actions.length];
    await page.evaluate((doing) => (window.doing = doing), name);
    await act();
    await idle();
  }
}

const watch = () => {
  window.longTasks = [];
  window.doing = 'opens';
  new window.PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) window.longTasks.push({ doing: window.doing, duration });
  }).observe({ type: 'longtask' });
};

/** @param line prints a ratio */
export async function benchTour({ browser, page, idle }, line) {
  await page.addInitScript(watch);
  await page.reload();
  const random = randomOf(7);
  const address = page.url();
  const tasks = [];
  const openers = [
    ...PROJECTS.map((name) => async () => {
      await page.getByRole('link', { name }).first().click();
      await idle();
    }),
    async () => {
      await newProject({ page, idle }, 'Tour');
      await makeGrid({ page, idle });
    },
  ];
  for (const open of openers) {
    await page.goto(address);
    await open();
    await goAbout({ page, idle, random }, SECONDS / openers.length);
    tasks.push(...(await page.evaluate(() => window.longTasks)));
  }
  await browser.close();
  const isOpening = ({ doing }) => doing === 'opens';
  const opening = Math.max(0, ...tasks.filter(isOpening).map(({ duration }) => duration));
  const felt = tasks.filter((one) => one.duration > FELT_MS && !isOpening(one));
  const longest = felt.reduce((max, one) => Math.max(max, one.duration), FELT_MS);
  const told = [...new Set(felt.map(({ doing }) => doing))].map((name) => {
    const times = felt.filter(({ doing }) => doing === name).map(({ duration }) => duration);
    return `${name} ${times.length} (${Math.max(...times)} ms)`;
  });
  line(
    `longest task of the page in a tour of ${SECONDS} s : ${FELT_MS} ms`,
    longest / FELT_MS,
    '≤ 1',
    `${felt.length} longer${told.length ? `: ${told.join(', ')}` : ''}; besides, while projects open, ${opening} ms`,
  );
}
