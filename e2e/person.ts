/** What a person does, in their own words: tests read like what they do. */
import { expect, type Page } from '@playwright/test';
import type { KadrelDocument, Vec3 } from '@kadrel/core';
// What the page offers on `window` is declared there.
import type {} from '../apps/web/src/workshop/console.ts';

export class Person {
  readonly problems: string[] = [];

  constructor(readonly page: Page) {
    page.on('pageerror', (error) => this.problems.push(error.message));
    page.on('console', (message) => message.type() === 'error' && this.problems.push(message.text()));
  }

  async entersTheDemo(): Promise<void> {
    await this.page.goto('/');
    await this.page.getByRole('button', { name: 'Enter the demo' }).click();
    await expect(this.page.getByRole('heading', { name: 'Projects' })).toBeVisible();
  }

  async createsProject(name: string, units = 'mm'): Promise<void> {
    await this.page.getByRole('button', { name: 'New project' }).click();
    await this.page.getByLabel('Name').fill(name);
    await this.page.getByLabel('Scene units').selectOption(units);
    await this.page.getByRole('button', { name: 'Create' }).click();
    await this.isReady();
  }

  async opens(name: string): Promise<void> {
    await this.page
      .getByRole('link', { name: `Open ${name}` })
      .first()
      .click();
    await this.isReady();
  }

  /** The kernel has nothing to do, and the views are at rest. */
  async isReady(): Promise<void> {
    await this.page.waitForFunction(() => window.kadrel?.isIdle === true, null, { timeout: 90_000 });
  }

  async isSaved(): Promise<void> {
    await expect(this.page.getByTestId('save-state')).toContainText('saved ·', { timeout: 60_000 });
    await this.page.waitForFunction(() => window.kadrel?.unsaved === 0);
  }

  async types(...keys: string[]): Promise<void> {
    for (const key of keys) {
      if (/^[A-Z][a-z]+$|\+/.test(key) && key.length > 1) await this.page.keyboard.press(key);
      else await this.page.keyboard.type(key);
    }
  }

  /** A box by its numbers, as one types them. */
  async makesBox(
    sizes: readonly [string, string, string],
    at?: readonly [string, string, string],
    name?: string,
  ): Promise<void> {
    await this.page.keyboard.press('b');
    for (const text of [...sizes, ...(at ?? [])]) await this.types(text, 'Tab');
    if (name !== undefined) await this.page.getByLabel('name', { exact: true }).fill(name);
    await this.commits();
  }

  async commits(): Promise<void> {
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByText('done; change a blank to adjust')).toBeVisible();
    await this.isReady();
  }

  async screenOf(point: Vec3): Promise<{ x: number; y: number }> {
    const [x, y] = await this.page.evaluate((p) => window.kadrel!.screenOf(p), point);
    return { x, y };
  }

  async pointsAt(point: Vec3, off: { x: number; y: number } = { x: 2, y: 2 }): Promise<void> {
    const { x, y } = await this.screenOf(point);
    await this.page.mouse.move(x + off.x, y + off.y, { steps: 4 });
    // What is caught follows at the next frame.
    await this.page.evaluate(
      () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
    );
  }

  async clicksAt(point: Vec3): Promise<void> {
    await this.pointsAt(point);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  /** Turns the camera to a view by its menu, and waits until it has come to rest. */
  async looks(view: string): Promise<void> {
    await this.page.getByRole('button', { name: /perspective|parallel/ }).click();
    await this.page.getByRole('menuitem', { name: view, exact: true }).click();
    await this.isReady();
  }

  async fitsAll(): Promise<void> {
    await this.page.keyboard.press('Shift+F');
    await this.isReady();
  }

  document(): Promise<KadrelDocument> {
    return this.page.evaluate(() => window.kadrel!.document);
  }

  facts(part: string) {
    return this.page.evaluate((name) => window.kadrel!.facts(name), part);
  }

  fact(label: string) {
    return this.page.getByTestId(`fact-${label}`);
  }
}
