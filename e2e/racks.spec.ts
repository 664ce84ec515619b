/** Racks: a pipe run taken by clicks and keys, a bolt changed in size, a part of one’s own put there, followed and brought to its newer version. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { inNewProject, selects, startsVerb } from './doing.ts';
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

test('a pipe run with two elbows and a tee is taken from the rack, each onto the last', async ({ page }) => {
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
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  expect(ada.problems).toEqual([]);
});

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

test('a part put on a rack is followed, shown what it would become, and brought to its newer version; a copy of its own stays', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Blocks');
  await ada.makesBox(['20', '20', '10'], ['0', '0', '0'], 'block');
  await ada.types('Escape');
  await selects(page, 'block');
  await page.getByRole('button', { name: 'Racks', exact: true }).click();
  await racks(page).getByRole('button', { name: 'Put on the rack' }).click();
  await expect(
    racks(page).getByRole('region', { name: 'My rack' }).getByRole('button', { name: 'block', exact: true }),
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
});
