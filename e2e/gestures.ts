/** A person who does anything at all, as a seed decides, and looks whether what was typed is still there. */
import { expect, type Locator, type Page } from '@playwright/test';
import { VERBS, type Verb } from '@kadrel/core';
import type { Person } from './person.ts';

/** What stands in the bar: the verb, and what was typed into it. */
interface InHand {
  readonly verb: string;
  readonly typed: Map<string, string>;
}

export class Restless {
  private inHand: InHand | null = null;
  readonly done: string[] = [];

  constructor(
    private readonly ada: Person,
    private readonly random: () => number,
  ) {}

  private get page(): Page {
    return this.ada.page;
  }

  private pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)]!;
  }

  private where(): { x: number; y: number } {
    // Off the dial and the captions.
    return { x: 260 + this.random() * 720, y: 130 + this.random() * 460 };
  }

  /** One thing after another; after each, nothing that was typed may be gone. */
  async goesOn(isOver: () => boolean): Promise<void> {
    const actions = [
      () => this.starts(),
      () => this.types(),
      () => this.types(),
      () => this.clicks(),
      () => this.clicks(),
      () => this.drags(),
      () => this.looksRound(),
      () => this.zooms(),
      () => this.walks(),
      () => this.leavesAndComesBack(),
      () => this.commits(),
      () => this.undoes(),
    ];
    while (!isOver()) {
      await this.pick(actions)();
      await this.ada.isReady();
      await this.nothingIsLost();
    }
  }

  private say(what: string): void {
    this.done.push(what);
  }

  private async starts(): Promise<void> {
    if (this.inHand) return;
    const verb = this.pick(VERBS.filter(({ id, blanks }) => id !== 'change' && !('view' in blanks)));
    this.say(`start ${verb.name}`);
    await this.page.keyboard.press('Escape');
    await this.page.keyboard.press('/');
    await this.page.keyboard.type(verb.name.toLowerCase());
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByTestId('verb')).toHaveText(verb.name);
    this.inHand = { verb: verb.name, typed: new Map() };
  }

  private typedFields(): Locator {
    return this.page.locator('section[aria-label="Statement"] input[data-entry]:not([data-words])');
  }

  private async types(): Promise<void> {
    const count = this.inHand ? await this.typedFields().count() : 0;
    if (!this.inHand || count === 0) return;
    const field = this.typedFields().nth(Math.floor(this.random() * count));
    const key = (await field.getAttribute('data-entry'))!;
    const verb = VERBS.find(({ name }) => name === this.inHand!.verb)!;
    const isNumber = isOf(verb, key, NUMBERS);
    if (!isNumber && !isOf(verb, key, WORDS)) return;
    const number = 1 + Math.floor(this.random() * 60);
    const text = isNumber ? String(number) : `oak ${number}`;
    this.say(`type ${text} into ${key}`);
    await field.focus();
    await field.fill(text);
    // Of two that exclude one another the later one stays.
    const rival = verb.blanks[key.split('.')[0]!]!.excludes;
    for (const other of [...this.inHand.typed.keys()])
      if (other.split('.')[0] === rival) this.inHand.typed.delete(other);
    this.inHand.typed.set(key, text);
  }

  private async clicks(): Promise<void> {
    const { x, y } = this.where();
    this.say(`click ${Math.round(x)}, ${Math.round(y)}`);
    await this.page.mouse.move(x, y, { steps: 2 });
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  private async drags(): Promise<void> {
    const [from, to] = [this.where(), this.where()];
    this.say(`drag ${Math.round(from.x)}, ${Math.round(from.y)} to ${Math.round(to.x)}, ${Math.round(to.y)}`);
    await this.page.mouse.move(from.x, from.y, { steps: 2 });
    await this.page.mouse.down();
    await this.page.mouse.move(to.x, to.y, { steps: 4 });
    await this.page.mouse.up();
  }

  private async looksRound(): Promise<void> {
    const [from, to] = [this.where(), this.where()];
    this.say('look round');
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down({ button: 'right' });
    await this.page.mouse.move(from.x + (to.x - from.x) / 8, from.y + (to.y - from.y) / 8, { steps: 3 });
    await this.page.mouse.up({ button: 'right' });
  }

  private async zooms(): Promise<void> {
    const { x, y } = this.where();
    this.say('zoom');
    await this.page.mouse.move(x, y);
    await this.page.mouse.wheel(0, (this.random() - 0.5) * 200);
  }

  private async walks(): Promise<void> {
    if (!this.inHand) return;
    this.say('Tab');
    await this.page.keyboard.press('Tab');
  }

  /** Esc leaves what is open; it comes back in one step. */
  private async leavesAndComesBack(): Promise<void> {
    if (!this.inHand || this.inHand.typed.size === 0) return;
    const { verb } = this.inHand;
    this.say('Esc, and again with what you had');
    for (let i = 0; i < 4 && (await this.page.getByTestId('verb').count()) > 0; i++)
      await this.page.keyboard.press('Escape');
    const back = this.page.getByRole('button', { name: `Again with what you had: ${verb}`, exact: true });
    // What had been carried out is not left: it stands in the model.
    if ((await back.count()) > 0) await back.click();
    else this.inHand = null;
  }

  private async commits(): Promise<void> {
    if (!this.inHand) return;
    this.say('Enter');
    await this.page.keyboard.press('Enter');
  }

  private async undoes(): Promise<void> {
    if (this.inHand) return;
    this.say('undo');
    await this.page.keyboard.press('Control+z');
  }

  /** The verb in hand is the same, and all that was typed is where it was. */
  private async nothingIsLost(): Promise<void> {
    const trail = () => this.done.slice(-12).join('\n');
    expect(this.ada.problems, trail()).toEqual([]);
    if (!this.inHand) return;
    await expect(this.page.getByTestId('verb'), trail()).toHaveText(this.inHand.verb);
    for (const [key, text] of this.inHand.typed)
      await expect(this.page.locator(`[data-entry="${key}"]`), `${key} after\n${trail()}`).toHaveValue(text);
    const isDone = (await this.page.getByText('done; change a blank to adjust').count()) > 0;
    if (!isDone) return;
    // It is in the model now; the next one begins anew.
    this.inHand = null;
    await this.page.keyboard.press('Escape');
  }
}

const NUMBERS = new Set(['length', 'angle', 'count', 'tally', 'vector', 'quantity', 'quantities']);
const WORDS = new Set(['name', 'text']);
const isOf = (verb: Verb, key: string, types: ReadonlySet<string>) =>
  types.has(verb.blanks[key.split('.')[0]!]!.type);
