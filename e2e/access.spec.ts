/** axe finds no fault on any screen, panel, menu, dialog or state. */
import type { RunOptions } from 'axe-core';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { VERBS, type Verb } from '@kadrel/core';
import { violationsOf } from './axe.ts';
import { inNewProject, selects, startsVerb } from './doing.ts';
import { Person } from './person.ts';

/** What axe finds on a page, collected, so that one run tells of all states. */
class Checks {
  private readonly found: string[] = [];

  constructor(private readonly page: Page) {}

  /** All rules but the contrast of colours, which takes longest. */
  look(where: string): Promise<void> {
    return this.add(where, { rules: { 'color-contrast': { enabled: false } } });
  }

  /** All rules. */
  lookClosely(where: string): Promise<void> {
    return this.add(where, {});
  }

  private async add(where: string, options: RunOptions): Promise<void> {
    const violations = await violationsOf(this.page, options);
    this.found.push(...violations.map((violation) => `${where}: ${violation}`));
  }

  /** Opens something by a button, looks, and closes it. */
  async opened(button: Locator, where: string): Promise<void> {
    await button.click();
    await this.look(where);
    await this.page.keyboard.press('Escape');
  }

  end(): void {
    expect(this.found).toEqual([]);
  }
}

test('the plain screens, in light and dark', async ({ page }) => {
  const checks = new Checks(page);
  const ada = new Person(page);
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme });
    await page.goto('/sign-in');
    await expect(page.getByRole('button', { name: 'Enter the demo' })).toBeVisible();
    await checks.lookClosely(`sign-in, ${colorScheme}`);
    await page.getByRole('button', { name: 'I am new here' }).click();
    await checks.look(`sign-up, ${colorScheme}`);
    await page.goto('/about');
    await checks.look(`about, ${colorScheme}`);
    await page.goto('/no-such-page');
    await checks.look(`not found, ${colorScheme}`);
    await ada.entersTheDemo();
    await expect(page.getByRole('link', { name: 'Open Orchard hive' }).first()).toBeVisible();
    await checks.lookClosely(`projects, ${colorScheme}`);
    await checks.opened(page.getByRole('button', { name: 'New project' }), `new project, ${colorScheme}`);
    await checks.opened(page.getByRole('button', { name: /^More for/ }).first(), `card menu, ${colorScheme}`);
    await page.goto('/account');
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await checks.lookClosely(`account, ${colorScheme}`);
    await page.context().clearCookies();
  }
  checks.end();
});

test('the workshop as it opens, with a part selected and a statement in hand', async ({ page }) => {
  const checks = new Checks(page);
  const ada = await inNewProject(page, 'At first sight');
  await checks.look('empty project');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await checks.lookClosely('statement in hand');
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await checks.lookClosely('part selected');
  checks.end();
});

test('the workshop: panels, menus and dialogs, in light, dark and small', async ({ page }) => {
  const checks = new Checks(page);
  const ada = await inNewProject(page, 'Access');
  await checks.look('empty project');
  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await ada.opens('Orchard hive');
  const button = (name: string | RegExp) =>
    page.getByRole('button', { name, exact: typeof name === 'string' });
  for (const name of [
    'Make',
    'Draw',
    'Place',
    'Check',
    'Sheets',
    'Edit',
    'Snaps',
    'Pointer',
    'Keys',
    'Output',
  ])
    await checks.opened(button(name), name);
  await checks.opened(button(/^Select/), 'Select');
  await checks.opened(button(/ · grid /), 'scene');
  await checks.opened(button(/perspective · /), 'view menu');
  await checks.opened(button('Account: Demo'), 'account menu');
  for (const part of ['Roof', 'Lower frames', 'Upper box', 'Lower box']) {
    await selects(page, part);
    await checks.look(`Spec of ${part}`);
  }
  await page.getByRole('button', { name: 'Through the bee space', exact: true }).click();
  await expect(page.locator('[data-drawn="true"]')).toBeVisible();
  await checks.lookClosely('sheet');
  await page.getByRole('button', { name: /^Right 1:5/ }).click();
  await checks.look('view of a sheet');
  await checks.opened(button('Write to a file'), 'files of sheets');
  await button('Back to the views').click();
  await button(/^Fit/).click();
  await expect(button('Look again')).toBeVisible();
  await page
    .getByRole('complementary', { name: 'Fit report' })
    .getByRole('button')
    .filter({ hasText: 'Bee space' })
    .click();
  await checks.lookClosely('fit report');
  await button('Close the fit report').click();
  await selects(page, 'Roof', 'Cover');
  await checks.lookClosely('Spec of two');
  await page.getByRole('treeitem', { name: 'Roof', exact: true }).press('F2');
  await checks.look('numbering');
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await page.keyboard.type('e');
  await checks.look('search');
  await page.keyboard.press('Escape');
  await page.keyboard.press('v');
  await checks.look('four views');
  await page.keyboard.press('v');
  for (const name of ['Parts', 'Variables', 'Ledger'])
    await page
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .first()
      .click();
  await checks.look('folded panels');
  await button('Account: Demo').click();
  await page.getByRole('menuitem', { name: 'Dark', exact: true }).click();
  await checks.lookClosely('dark');
  await page.setViewportSize({ width: 640, height: 400 });
  await checks.lookClosely('small');
  for (const name of ['Parts', 'Spec', 'Verbs', 'Snaps']) {
    await button(name).click();
    await checks.look(`small: ${name}`);
    await (['Parts', 'Spec'].includes(name) ? button(name).click() : page.keyboard.press('Escape'));
  }
  checks.end();
});

/** Verbs that have every type of blank among them. */
function coveringVerbs(): Verb[] {
  const seen = new Set<string>();
  return VERBS.filter((verb) => {
    const fresh = Object.values(verb.blanks).filter(({ type }) => !seen.has(type));
    fresh.forEach(({ type }) => seen.add(type));
    return verb.id !== 'change' && fresh.length > 0;
  });
}

test('every type of blank in the bar, a statement that is refused, and one that is done', async ({
  page,
}) => {
  const checks = new Checks(page);
  const ada = await inNewProject(page, 'Verbs');
  for (const { id, name } of coveringVerbs()) {
    await page.keyboard.press('Escape');
    await startsVerb(page, name.toLowerCase());
    await expect(page.getByTestId('verb'), id).toHaveText(name);
    await checks.look(name);
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await startsVerb(page, 'sphere');
  await page.keyboard.type('2 qq');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('refusal')).toBeVisible();
  await checks.lookClosely('refused');
  await page.keyboard.press('Escape');
  await ada.makesBox(['40', '30', '20']);
  await checks.lookClosely('done');
  await startsVerb(page, 'traverse');
  await page.getByRole('button', { name: 'Add a leg' }).click();
  await checks.lookClosely('leg table');
  checks.end();
});
