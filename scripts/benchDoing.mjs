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

/** Finds a verb by a word, fills blanks by their labels, and carries it out. */
export async function saysVerb(page, word, texts) {
  await page.keyboard.press('/');
  await page.keyboard.type(word);
  await page.keyboard.press('Enter');
  for (const [label, text] of Object.entries(texts)) await page.getByLabel(label, { exact: true }).fill(text);
  await page.keyboard.press('Enter');
  await isDone(page);
}

/** Ten thousand members of one box of side 5, as a grid. */
export async function makeGrid({ page, idle }) {
  await typeStatement(page, 'b', ['5', '5', '5', '0', '0', '0']);
  await page.keyboard.press('Enter');
  await idle();
  await saysVerb(page, 'grid', { columns: '100', 'column every': '10', rows: '100', 'row every': '10' });
  await idle();
  await page.keyboard.press('Escape');
}

/** Frames a second while the pointer is held down and moves, to and fro, by events made in the page. */
export const framesMoving = (page, seconds, { from, by, button }) =>
  page.evaluate(
    ([span, start, step, held]) =>
      new Promise((resolve) => {
        const host = document.querySelector('[data-pane="Home"]');
        const send = (type, times) =>
          host.dispatchEvent(
            new window.PointerEvent(type, {
              bubbles: true,
              button: held,
              buttons: held === 1 ? 4 : 1,
              pointerId: 1,
              clientX: start[0] + times * step[0],
              clientY: start[1] + times * step[1],
            }),
          );
        host.setPointerCapture = () => undefined;
        send('pointermove', 0);
        send('pointerdown', 0);
        const started = performance.now();
        let frames = 0;
        const next = () => {
          const time = performance.now() - started;
          if (time > span * 1000) {
            send('pointerup', frames % 60);
            resolve((frames * 1000) / time);
            return;
          }
          frames += 1;
          send('pointermove', frames % 60);
          requestAnimationFrame(next);
        };
        requestAnimationFrame(next);
      }),
    [seconds, from, by, button],
  );

/** Frames a second while the view orbits. */
export async function framesOrbiting(page, seconds) {
  const { x, y } = await page.locator('[data-pane="Home"]').boundingBox();
  return framesMoving(page, seconds, { from: [x + 200, y + 200], by: [1, 0], button: 1 });
}
