/** Racks: parts taken by clicks, by keys and by dragging, a bolt changed in size, a marble run, parts of one’s own with sizes and versions. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { violationsOf } from './axe.ts';
import { expect, test, type Page } from './tests.ts';
import type { Vec3 } from '@kadrel/core';
import { inNewProject, says, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

const racks = (page: Page) => page.getByRole('complementary', { name: 'Racks' });
const joints = (page: Page) => page.getByRole('list', { name: 'Joints' });
const onRack = (page: Page, name: string | RegExp) =>
  racks(page).getByRole('listitem').getByRole('button', { name });

async function chooses(page: Page, blank: string, option: string): Promise<void> {
  await page.locator(`[data-blank="${blank}"]`).click();
  await page.getByRole('menuitem', { name: option, exact: true }).click();
}

/** The same by keys alone: the list opens, what is typed finds its line. */
async function typesInto(page: Page, blank: string, letters: string): Promise<void> {
  await page.locator(`[data-blank="${blank}"]`).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('menu').or(page.getByRole('listbox'))).toBeVisible();
  await page.keyboard.type(letters);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menu').or(page.getByRole('listbox'))).toHaveCount(0);
}

/** Takes a part of the starter rack onto a dock, both by their names. */
async function takes(ada: Person, part: RegExp, onto?: string, name?: string): Promise<void> {
  const { page } = ada;
  await onRack(page, part).click();
  if (onto !== undefined) await chooses(page, 'onto', onto);
  if (name !== undefined) await page.getByRole('textbox', { name: 'name', exact: true }).fill(name);
  await ada.commits();
  await ada.types('Escape');
}

test(
  'a pipe run with two elbows and a tee is taken from the rack, each onto the last',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Pipes');
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    await racks(page).getByRole('searchbox', { name: 'Find on the racks' }).fill('pipe');
    await expect(racks(page).getByRole('listitem')).toHaveCount(5);
    await takes(ada, /^Pipe 40 short/, undefined, 'riser');
    await racks(page).getByRole('combobox', { name: 'Fits' }).selectOption('pipe 40');
    await takes(ada, /^Pipe 40 elbow/, 'riser · B', 'first');
    // Clicked in the view: where a place or a dock may be said, a dock that is caught is meant as one.
    await ada.fitsAll();
    await onRack(page, /^Pipe 40 tee/).click();
    await ada.clicksAt([0, -60, 160]);
    await expect(page.locator('[data-blank="onto"]')).toHaveText('B of first');
    await page.getByRole('textbox', { name: 'name', exact: true }).fill('tee');
    await ada.commits();
    await ada.types('Escape');
    await takes(ada, /^Pipe 40 elbow/, 'tee · B', 'second');
    await takes(ada, /^Pipe 40 cap/, 'tee · C', 'cap');
    await expect(joints(page).getByRole('listitem')).toHaveCount(4);
    await expect(joints(page).getByText('Apart by')).toHaveCount(0);
    // The lines of what is on the racks are drawn meanwhile.
    await expect(racks(page).locator('svg[data-drawn]')).toHaveCount(4, { timeout: 30_000 });
    expect(await violationsOf(page)).toEqual([]);
    expect(ada.problems).toEqual([]);
  },
);

test('a part is dragged from the rack on to a face, and another on to its dock', async ({ page }) => {
  const ada = await inNewProject(page, 'Dragged');
  await ada.makesBox(['200', '200', '20'], ['0', '0', '0'], 'plate');
  await ada.types('Escape');
  await page.getByRole('button', { name: 'Racks', exact: true }).click();
  await racks(page).getByRole('searchbox', { name: 'Find on the racks' }).fill('pipe');
  await racks(page).getByRole('button', { name: 'Pictures only' }).click();
  await dragsOut(ada, /^Pipe 40$/, [200, 0, 20]);
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  await ada.isReady();
  // Caught on the corner of the plate.
  expect((await ada.facts('Pipe 40 short')).box.min).toEqual([180, -20, 20]);
  await ada.types('Escape');
  await ada.fitsAll();
  const top = (await ada.facts('Pipe 40 short')).box.max[2];
  await dragsOut(ada, /^Pipe 40 cap/, [200, 0, top]);
  await expect(joints(page).getByRole('listitem')).toContainText('Pipe 40 short · B');
  await expect(joints(page).getByText('Apart by')).toHaveCount(0);
  await ada.types('Escape');
  // Let go where no view is: nothing is taken.
  const count = await page.getByRole('treeitem').count();
  await onRack(page, /^Pipe 40 tee/).hover();
  await page.mouse.down();
  await page.mouse.move(640, 20, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator('[data-blank="onto"]')).toHaveCount(0);
  await expect(page.getByRole('treeitem')).toHaveCount(count);
  expect(ada.problems).toEqual([]);
});

/** Presses on a part of a rack and lets go over a point of the model. */
async function dragsOut(ada: Person, part: RegExp, to: Vec3): Promise<void> {
  await onRack(ada.page, part).hover();
  await ada.page.mouse.down();
  const { x, y } = await ada.screenOf(to);
  await ada.page.mouse.move(x - 40, y - 30, { steps: 6 });
  await ada.pointsAt(to);
  await ada.page.mouse.up();
}

test(
  'an elbow is turned by keys while it is taken and afterwards, held, and follows; the same without a page',
  { tag: '@long' },
  async ({ page }, { outputDir }) => {
    const ada = await inNewProject(page, 'Turned');
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    await takes(ada, /^Pipe 40 short/, undefined, 'riser');
    await onRack(page, /^Pipe 40 elbow/).click();
    await chooses(page, 'onto', 'riser · B');
    await page.keyboard.press('z');
    await expect(page.getByRole('textbox', { name: 'turn', exact: true })).toHaveValue('90');
    await page.getByRole('textbox', { name: 'name', exact: true }).fill('first');
    await ada.commits();
    await ada.types('Escape');
    await joints(page).getByRole('button', { name: 'Turn J1' }).click();
    await expect(page.getByRole('textbox', { name: 'turn', exact: true })).toHaveValue('90');
    await page.keyboard.press('z');
    await expect(page.getByRole('textbox', { name: 'turn', exact: true })).toHaveValue('180');
    await ada.commits();
    await ada.types('Escape');
    await joints(page).getByRole('button', { name: 'Hold J1' }).click();
    await ada.isReady();
    // What it hangs on becomes longer, and it goes along.
    await selects(page, 'riser');
    await page.getByRole('button', { name: 'Close the racks' }).click();
    await page.getByRole('textbox', { name: 'Length', exact: true }).fill('400');
    await page.keyboard.press('Enter');
    await ada.isReady();
    await expect(joints(page).getByText('Apart by')).toHaveCount(0);
    const { box } = await ada.facts('first');
    const ledger = [
      { verb: 'take', part: 'Pipe 40', size: 'short', follow: 'follows', as: 'riser' },
      { verb: 'take', part: 'Pipe 40 elbow', onto: 'riser: B', turn: '90', follow: 'follows', as: 'first' },
      { verb: 'change-joint', joint: 'J1', turn: '180' },
      { verb: 'change-joint', joint: 'J1', held: 'held' },
      { verb: 'change-taken', part: 'riser', values: { long: '400' } },
    ];
    mkdirSync(outputDir, { recursive: true });
    const file = join(outputDir, 'pipes.json');
    writeFileSync(file, JSON.stringify({ kadrel: 1, ledger }));
    const printed = execFileSync(process.execPath, ['packages/cli/bin/kadrel.mjs', 'run', file, '--measure']);
    const { parts } = JSON.parse(printed.toString()) as { parts: Record<string, { box: object }> };
    expect(parts.first!.box).toEqual(box);
    expect(box.min[2]).toBeGreaterThan(390);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'twelve tiles and a tower are taken from the rack and stand without a fault',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Marbles');
    await startsVerb(page, 'Take from rack');
    await typesInto(page, 'part', 'Tower');
    await page.getByRole('textbox', { name: 'name', exact: true }).fill('tile 0');
    await ada.commits();
    await ada.types('Escape');
    for (let i = 1; i <= 12; i++) {
      await startsVerb(page, 'Take from rack');
      await typesInto(page, 'part', i % 2 === 1 ? 'Straight track' : 'Bend track');
      await chooses(page, 'onto', `tile ${i - 1} · ${isTurnedRound(i - 1) || i === 1 ? 'A' : 'B'}`);
      await brings(page, 'by', isTurnedRound(i) ? 'B' : 'A');
      await page.getByRole('textbox', { name: 'name', exact: true }).fill(`tile ${i}`);
      await ada.commits();
      await ada.types('Escape');
    }
    await expect(joints(page).getByRole('listitem')).toHaveCount(12);
    await expect(joints(page).getByText('Apart by')).toHaveCount(0);
    await page.getByRole('button', { name: /^Fit/ }).click();
    const report = page.getByRole('complementary', { name: 'Fit report' });
    await expect(report.getByRole('status').filter({ hasText: 'No faults.' })).toBeVisible({
      timeout: 60_000,
    });
    expect(ada.problems).toEqual([]);
  },
);

/** Bends go to the right and to the left in turn, so that the run never meets itself. */
const isTurnedRound = (tile: number) => tile > 0 && tile % 4 === 0;

/** A blank that is seldom wanted is brought into the bar, and filled. */
async function brings(page: Page, blank: string, text: string): Promise<void> {
  await page.getByRole('button', { name: 'More blanks' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${blank} `) }).click();
  await page.getByRole('textbox', { name: blank, exact: true }).fill(text);
}

test(
  'a part of one’s own gets words and sizes, its picture is kept, and a stranger sees none of it',
  { tag: '@long' },
  async ({ page, browser }) => {
    const ada = await inNewProject(page, 'Shelves');
    await says(ada, 'Set variable', { typed: { variable: 'width', value: '120' } });
    await ada.makesBox(['width', '40', '8'], ['0', '0', '0'], 'shelf');
    await ada.types('Escape');
    await selects(page, 'shelf');
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    await racks(page).getByRole('button', { name: 'Put on the rack' }).click();
    const mine = racks(page).getByRole('region', { name: 'My rack' });
    await mine.getByRole('button', { name: 'Words and sizes of shelf' }).click();
    const dialog = page.getByRole('dialog', { name: 'Words and sizes of shelf' });
    await dialog.getByRole('textbox', { name: 'What it is' }).fill('A board with square ends.');
    await dialog.getByRole('textbox', { name: 'Words that find it' }).fill('plank, ledge');
    await dialog.getByRole('textbox', { name: 'Label of width' }).fill('How wide');
    await dialog.getByRole('button', { name: 'New size' }).click();
    await dialog.getByRole('textbox', { name: 'Name of size' }).fill('wide');
    await dialog.getByRole('textbox', { name: 'How wide of size wide' }).fill('2 apples');
    await dialog.getByRole('button', { name: 'Put version 2 on the rack' }).click();
    await expect(dialog.getByRole('alert')).toContainText('shelf, size wide:');
    await dialog.getByRole('textbox', { name: 'How wide of size wide' }).fill('30 cm');
    expect(await violationsOf(page)).toEqual([]);
    await dialog.getByRole('button', { name: 'Put version 2 on the rack' }).click();
    await expect(dialog).toHaveCount(0);
    await racks(page).getByRole('searchbox', { name: 'Find on the racks' }).fill('ledge');
    await mine.getByRole('button', { name: /^shelf/ }).click();
    await expect(page.locator('[data-blank="size"]')).toHaveText('wide');
    await page.getByRole('textbox', { name: 'name', exact: true }).fill('long one');
    await ada.commits();
    await ada.types('Escape');
    expect((await ada.facts('long one')).volume).toBeCloseTo(300 * 40 * 8, 6);
    await mine.getByRole('button', { name: 'Rename My rack' }).click();
    await page.getByRole('textbox', { name: 'New name of My rack' }).fill('Boards');
    await page.keyboard.press('Enter');
    const boards = racks(page).getByRole('region', { name: 'Boards' });
    await expect(boards.locator('svg[data-drawn]')).toHaveCount(1);
    // As it was kept: the page that is opened next need not draw it.
    await page.reload();
    await ada.isReady();
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    const kept = page.waitForResponse((answer) => answer.url().includes('/picture?version=2') && answer.ok());
    await expect(boards.locator('svg[data-drawn]')).toHaveCount(1);
    await kept;
    const others = await browser.newContext();
    const eve = await inNewProject(await others.newPage(), 'Elsewhere');
    await eve.page.getByRole('button', { name: 'Racks', exact: true }).click();
    await expect(racks(eve.page).getByRole('region', { name: 'Starter rack' })).toBeVisible();
    await expect(racks(eve.page).getByRole('region', { name: 'Boards' })).toHaveCount(0);
    await others.close();
    expect(ada.problems).toEqual([]);
  },
);

test('a bolt goes through two plates, and becomes an M10, by keys alone', async ({ page }) => {
  const ada = await inNewProject(page, 'Bolted');
  await ada.makesBox(['60', '60', '8'], ['0', '0', '0'], 'lower');
  await ada.types('Escape');
  await ada.makesBox(['60', '60', '10'], ['0', '0', '8'], 'upper');
  await ada.types('Escape');
  for (const [name, place] of [
    ['lower', '30, 30, 8'],
    ['upper', '30, 30, 18'],
  ] as const) {
    await selects(page, name);
    await startsVerb(page, 'Hole');
    await page.getByRole('textbox', { name: 'place', exact: true }).fill(place);
    await typesInto(page, 'thread', 'M8');
    await ada.commits();
    await ada.types('Escape');
  }
  await startsVerb(page, 'Take from rack');
  await typesInto(page, 'part', 'Hexagon head');
  await typesInto(page, 'size', 'M8');
  await typesInto(page, 'onto', 'upper');
  await page.getByRole('textbox', { name: 'name', exact: true }).fill('bolt');
  await ada.commits();
  await ada.types('Escape');
  expect((await ada.facts('bolt')).box.max[2]).toBeCloseTo(18 + 5.3, 9);
  await selects(page, 'bolt');
  await startsVerb(page, 'Change rack part');
  await typesInto(page, 'size', 'M10');
  await ada.commits();
  expect((await ada.facts('bolt')).box.max[2]).toBeCloseTo(18 + 6.4, 9);
  await expect(joints(page)).toContainText('Does not match: size 10 on 8');
  expect(ada.problems).toEqual([]);
});

test(
  'a part put on a rack is followed, shown what it would become, and brought to its newer version; a copy of its own stays',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Blocks');
    await ada.makesBox(['20', '20', '10'], ['0', '0', '0'], 'block');
    await ada.types('Escape');
    await selects(page, 'block');
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    // Another test may have left one.
    await racks(page).getByRole('combobox', { name: 'Rack', exact: true }).selectOption('a new rack');
    await racks(page).getByRole('button', { name: 'Put on the rack' }).click();
    await expect(
      racks(page)
        .getByRole('region', { name: 'My rack' })
        .getByRole('button', { name: 'block', exact: true }),
    ).toBeVisible();
    const mine = racks(page)
      .getByRole('region', { name: 'My rack' })
      .getByRole('listitem')
      .getByRole('button')
      .first();
    for (const [name, x] of [
      ['follower', '100'],
      ['own', '200'],
    ] as const) {
      await mine.click();
      if (name === 'own') {
        await page.locator('[data-blank="follow"]').click();
        await page.getByRole('option', { name: 'its own' }).click();
      }
      await page.getByRole('textbox', { name: 'to', exact: true }).fill(`${x}, 0, 0`);
      await page.getByRole('textbox', { name: 'name', exact: true }).fill(name);
      await ada.commits();
      await ada.types('Escape');
    }
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    await selects(page, 'block');
    await page.getByRole('textbox', { name: 'Height', exact: true }).fill('30');
    await page.keyboard.press('Enter');
    await ada.isReady();
    await page.getByRole('button', { name: 'Racks', exact: true }).click();
    await racks(page).getByRole('button', { name: 'Put version 2 on the rack' }).click();
    const newer = racks(page).getByRole('region', { name: 'Newer version of follower' });
    await newer.getByRole('button', { name: 'What would change' }).click();
    await expect(newer).toContainText('→');
    await newer.getByRole('button', { name: 'Take it' }).click();
    await expect(newer).toHaveCount(0);
    await ada.isReady();
    expect((await ada.facts('follower')).volume).toBeCloseTo(20 * 20 * 30, 6);
    expect((await ada.facts('own')).volume).toBeCloseTo(20 * 20 * 10, 6);
    expect(ada.problems).toEqual([]);
  },
);
