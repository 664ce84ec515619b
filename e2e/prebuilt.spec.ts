import { expect, test, type Page } from '@playwright/test';
import { selects } from './doing.ts';
import { Person } from './person.ts';

/** From then on no kernel can be loaded, until what is returned is called. */
async function withholdsKernel(page: Page): Promise<() => void> {
  let give = () => {};
  const given = new Promise<void>((resolve) => (give = resolve));
  await page.route('**/*.wasm', async (route) => {
    await given;
    await route.continue();
  });
  return give;
}

const volume = (page: Page) => page.getByTestId('fact-volume');

/** The browser keeps what was built: it does so once nothing has changed for a while. */
const keepsSolids = (page: Page) =>
  expect
    .poll(async () => (await page.evaluate(keptInBrowser)).map((name) => name.split(' ').length), {
      timeout: 60_000,
    })
    .toContain(WORDS_OF_PROJECT);
/** A build of the kernel and a project; the names of its solids have one word more, and are written before. */
const WORDS_OF_PROJECT = 2;

/** The names of the entries. */
async function keptInBrowser(): Promise<string[]> {
  // Opened before the page has made it, it would stay empty.
  const names = (await indexedDB.databases()).map(({ name }) => name);
  if (!names.includes('kadrel-solids')) return [];
  return new Promise<string[]>((resolve, reject) => {
    const opening = indexedDB.open('kadrel-solids');
    opening.onerror = () => reject(opening.error!);
    opening.onsuccess = () => {
      const asked = opening.result.transaction('solids').objectStore('solids').getAllKeys();
      asked.onsuccess = () => {
        opening.result.close();
        resolve(asked.result as string[]);
      };
    };
  });
}

test('the demo projects are seen, measured and caught before there is a kernel, and edited with it', async ({
  page,
}) => {
  const ada = new Person(page);
  const giveKernel = await withholdsKernel(page);
  await ada.entersTheDemo();
  await ada.opens('Orchard hive');
  await selects(page, 'Floor');
  await expect(volume(page)).toContainText(/\d/);
  // A measure that is kept says what it came to.
  await expect(page.getByText(/between 6 mm and 9/)).toBeVisible();
  await expect(page.getByText('is being measured')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('b');
  await ada.types('20', 'Tab', '20', 'Tab', '20', 'Enter');
  await expect(page.getByRole('status').getByText('The kernel is starting…')).toBeVisible();
  giveKernel();
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible({ timeout: 60_000 });
  await ada.isReady();
  expect(ada.problems).toEqual([]);
});

test('what was built in a project is seen at once when it is opened again', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Seen again');
  await ada.makesBox(['100', '60', '8'], ['0', '0', '0'], 'Plate');
  await page.keyboard.press('Escape');
  await selects(page, 'Plate');
  await expect(volume(page)).toContainText('48 000');
  await ada.isSaved();
  await keepsSolids(page);
  await withholdsKernel(page);
  await page.reload();
  await ada.isReady();
  await selects(page, 'Plate');
  await expect(volume(page)).toContainText('48 000');
  expect(ada.problems).toEqual([]);

  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.goto('/projects');
  await page.getByRole('button', { name: 'Account: Demo' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Enter the demo' })).toBeVisible();
  expect(await page.evaluate(keptInBrowser)).toEqual([]);
});
