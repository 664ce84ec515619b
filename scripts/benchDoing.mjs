/** What several benches do in the workshop. */

/** A project of a name, from the list of projects. */
export async function newProject({ page, idle }, name) {
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
  await idle();
}

/** Starts a verb by its key and types into its fields, one after another. */
export async function typeStatement(page, key, texts) {
  await page.keyboard.press(key);
  for (const text of texts) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
}

export const isDone = (page) => page.getByText('done; change a blank to adjust').waitFor({ timeout: 60_000 });

/** Ten thousand members of one box of side 5, as a grid. */
export async function makeGrid({ page, idle }) {
  await typeStatement(page, 'b', ['5', '5', '5', '0', '0', '0']);
  await page.keyboard.press('Enter');
  await idle();
  await page.keyboard.press('/');
  await page.keyboard.type('grid');
  await page.keyboard.press('Enter');
  for (const [label, text] of [
    ['columns', '100'],
    ['column every', '10'],
    ['rows', '100'],
    ['row every', '10'],
  ])
    await page.getByLabel(label, { exact: true }).fill(text);
  await page.keyboard.press('Enter');
  await isDone(page);
  await idle();
  await page.keyboard.press('Escape');
}
