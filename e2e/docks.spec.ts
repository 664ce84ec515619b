/** Docks: made by a pick, joined by clicks with quarter turns by keys, filled all at once, and closed again after a change. */
import { violationsOf } from './axe.ts';
import { expect, test, type Page } from './tests.ts';
import { choosesIn, inNewProject, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

const joints = (page: Page) => page.getByRole('list', { name: 'Joints' });
const origins = (page: Page) =>
  page.evaluate(() => Object.values(window.kadrel!.document.items).map(({ placement }) => placement.origin));

/** A dock in the middle of a face of a box, by the number of the shortcut and a typed place. */
async function docksAt(ada: Person, place: string, typed: Record<string, string>): Promise<void> {
  const { page } = ada;
  await page.keyboard.press('Shift+J');
  await page.getByRole('textbox', { name: 'place', exact: true }).fill(place);
  await page.keyboard.press('Tab');
  for (const [label, text] of Object.entries(typed))
    await page.getByRole('textbox', { name: label, exact: true }).fill(text);
  await ada.commits();
  await ada.types('Escape');
}

test('a dock is picked on a face, joined by two clicks, turned by keys, and drifts when a size is changed', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Brackets');
  await ada.makesBox(['100', '20', '10'], ['0', '0', '0'], 'beam');
  await ada.types('Escape');
  await ada.makesBox(['60', '20', '10'], ['0', '100', '0'], 'other');
  await ada.types('Escape');
  for (const [point, name] of [
    [[100, 10, 5], 'end'],
    [[30, 100, 5], 'side'],
  ] as const) {
    await page.keyboard.press('Shift+J');
    await ada.clicksAt(point);
    await page.getByRole('textbox', { name: 'called', exact: true }).fill(name);
    await ada.commits();
    await ada.types('Escape');
  }
  await page.keyboard.press('j');
  await ada.clicksAt([30, 100, 5]);
  await ada.clicksAt([100, 10, 5]);
  await page.keyboard.press('z');
  await expect(page.getByRole('textbox', { name: 'turn', exact: true })).toHaveValue('90');
  await page.keyboard.press('Shift+Z');
  await expect(page.getByRole('textbox', { name: 'turn', exact: true })).toHaveValue('');
  await ada.commits();
  await ada.types('Escape');
  await expect(joints(page).getByRole('listitem')).toContainText('J1 other · side on beam · end');
  // The front of the other lies on the right of the beam, middle on middle.
  const facts = await ada.facts('other');
  expect(facts.box.min[0]).toBeCloseTo(100, 9);
  expect(facts.box.min[2]).toBeCloseTo(0, 9);
  await page.getByRole('treeitem', { name: 'beam', exact: true }).click();
  await page.getByRole('textbox', { name: 'Length', exact: true }).fill('120');
  await page.keyboard.press('Enter');
  await expect(joints(page).getByRole('listitem')).toContainText('Apart by 20');
  await expect(page.getByRole('button', { name: 'Joints 1 fault 1' })).toBeVisible();
  expect(await violationsOf(page)).toEqual([]);
  await joints(page).getByRole('button', { name: 'Close again' }).click();
  await expect(joints(page).getByText('Apart by')).toHaveCount(0);
  expect((await ada.facts('other')).box.min[0]).toBeCloseTo(120, 9);
  expect(ada.problems).toEqual([]);
});

test('posts are joined to eight brackets at once, by keys alone', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Posts');
  await ada.makesBox(['60', '60', '5'], ['0', '0', '0'], 'bracket');
  await ada.types('Escape');
  await docksAt(ada, '30, 30, 5', { kind: 'post' });
  await page.getByRole('treeitem', { name: 'bracket', exact: true }).focus();
  await page.keyboard.press('Enter');
  await startsVerb(page, 'Grid');
  await page.getByRole('textbox', { name: 'columns', exact: true }).fill('4');
  await page.getByRole('textbox', { name: 'column every', exact: true }).fill('200');
  await page.getByRole('textbox', { name: 'rows', exact: true }).fill('2');
  await page.getByRole('textbox', { name: 'row every', exact: true }).fill('300');
  await ada.commits();
  await ada.types('Escape');
  await ada.makesBox(['40', '40', '400'], ['0', '600', '0'], 'post');
  await ada.types('Escape');
  await docksAt(ada, '20, 620, 0', { kind: 'post' });
  await page.getByRole('treeitem', { name: 'post', exact: true }).focus();
  await page.keyboard.press('Enter');
  await startsVerb(page, 'Join all');
  await ada.commits();
  await expect(joints(page).getByRole('listitem')).toHaveCount(8);
  const posts = (await origins(page)).filter(([, , z]) => z === 5);
  expect(posts).toHaveLength(8);
  expect(posts).toContainEqual([610, 310, 5]);
  expect(ada.problems).toEqual([]);
});

test('a run of held pieces goes along when the first is moved, and closes in a ring', async ({ page }) => {
  const ada = await inNewProject(page, 'Ring');
  await ada.makesBox(['100', '20', '10'], ['0', '0', '0'], 'piece');
  await ada.types('Escape');
  await docksAt(ada, '0, 10, 5', { called: 'start' });
  await docksAt(ada, '90, 20, 5', { called: 'end' });
  await startsVerb(page, 'Run');
  await choosesIn(page, 'end', 'piece · end');
  await choosesIn(page, 'start', 'piece · start');
  await page.getByRole('textbox', { name: 'pieces', exact: true }).fill('4');
  await choosesIn(page, 'held', 'held: it goes along');
  await ada.commits();
  await ada.types('Escape');
  await expect(joints(page).getByRole('listitem')).toHaveCount(3);
  // Four at right angles come back to where they began.
  await startsVerb(page, 'Join docks');
  await choosesIn(page, 'dock', 'piece 4 · end');
  await choosesIn(page, 'onto', 'piece · start');
  await choosesIn(page, 'moves', 'nothing: they are only told to be joined');
  await ada.commits();
  await ada.types('Escape');
  await expect(joints(page).getByText('Apart by')).toHaveCount(0);
  await selects(page, 'piece');
  await page.getByRole('textbox', { name: 'Place Z', exact: true }).fill('40');
  await page.keyboard.press('Enter');
  await ada.isReady();
  await expect(joints(page).getByText('Apart by')).toHaveCount(0);
  expect((await ada.facts('piece 4')).box.min[2]).toBeCloseTo(40, 9);
  expect(ada.problems).toEqual([]);
});
