/** Anything at all is done in the workshop, and nothing that was typed is lost: `GESTURES=600` goes on for so many seconds. */
import { expect, test } from '@playwright/test';
import { randomOf } from '../scripts/random.mjs';
import { Restless } from './gestures.ts';
import { Person } from './person.ts';

const SECONDS = Number(process.env.GESTURES ?? 15);
const SEED = Number(process.env.SEED ?? 1);

test('whatever is clicked, dragged and typed, no number and no statement is lost', async ({ page }) => {
  test.setTimeout((SECONDS + 300) * 1000);
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.opens('Orchard hive');
  const person = new Restless(ada, randomOf(SEED));
  const end = Date.now() + SECONDS * 1000;
  await person.goesOn(() => Date.now() > end);
  expect(person.done.length).toBeGreaterThan(5);
});
