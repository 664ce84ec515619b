/** Drawing by number, finding regions, and making bodies from them, by hand. */
import { expect, test, type Page } from './tests.ts';
import { inNewProject, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

/** Rows of the traverse table, as they are typed. */
async function typesLegs(
  page: Page,
  legs: readonly (readonly [how: 'by' | 'bearing' | 'turn' | 'to', a: string, b: string])[],
): Promise<void> {
  const labels = {
    by: ['ΔX', 'ΔY'],
    bearing: ['Length', 'Bearing'],
    turn: ['Length', 'Turn right'],
    to: ['X', 'Y'],
  } as const;
  for (const [i, [how, a, b]] of legs.entries()) {
    await page.getByRole('button', { name: 'Add a leg' }).click();
    await page.getByLabel(`How leg ${i + 1} is told`).selectOption(how);
    await page.getByLabel(`${labels[how][0]}, leg ${i + 1}`, { exact: true }).fill(a);
    await page.getByLabel(`${labels[how][1]}, leg ${i + 1}`, { exact: true }).fill(b);
  }
}

async function chooses(page: Page, blank: RegExp, option: RegExp): Promise<void> {
  await page.getByRole('button', { name: blank }).click();
  await page.getByRole('option', { name: option }).click();
}

const fills = (page: Page, label: string, text: string) => page.getByLabel(label, { exact: true }).fill(text);

async function draws(ada: Person, verb: string, values: Readonly<Record<string, string>>): Promise<void> {
  await startsVerb(ada.page, verb);
  for (const [label, text] of Object.entries(values)) await fills(ada.page, label, text);
  await ada.commits();
  await ada.page.keyboard.press('Escape');
}

test(
  'a plan of rooms by traverse, with a wall told by length and bearing, then one length changed',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Rooms');
    await startsVerb(page, 'traverse');
    await typesLegs(page, [
      ['by', '10 m', '0'],
      ['bearing', '5 m', '0'],
      ['bearing', '4 m', '300'],
      ['to', '0', '7 m'],
    ]);
    await expect(page.getByText('7000 mm at 0°')).toBeVisible();
    await chooses(page, /^end: /, /straight leg/);
    await ada.commits();
    await page.keyboard.press('Escape');
    // Four more rooms beside and within it.
    for (const [x, y] of [
      ['0', '8 m'],
      ['4 m', '8 m'],
      ['8 m', '8 m'],
      ['12 m', '0'],
    ] as const) {
      await startsVerb(page, 'traverse');
      await typesLegs(page, [
        ['by', '3 m', '0'],
        ['turn', '2.5 m', '-90'],
        ['turn', '3 m', '-90'],
      ]);
      await fills(page, 'start X', x);
      await fills(page, 'start Y', y);
      await chooses(page, /^end: /, /straight leg/);
      await ada.commits();
      await page.keyboard.press('Escape');
    }
    await selects(page, 'Traverse');
    await startsVerb(page, 'wall');
    await fills(page, 'thickness', '200');
    await fills(page, 'height', '3 m');
    await chooses(page, /^side: /, /outside/);
    await ada.commits();
    await page.keyboard.press('Escape');
    const before = (await ada.facts('Wall')).box;
    expect(before.max[0]).toBeCloseTo(10_200, 6);
    // One length changed: the wall follows.
    await selects(page, 'Traverse');
    await page.getByRole('button', { name: '4 legs…' }).click();
    await fills(page, 'ΔX, leg 1', '12 m');
    await page.getByLabel('ΔX, leg 1', { exact: true }).press('Control+Enter');
    await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
    await ada.isReady();
    await page.keyboard.press('Escape');
    const after = (await ada.facts('Wall')).box;
    expect(after.max[0]).toBeCloseTo(12_200, 6);
    expect(ada.problems).toEqual([]);
  },
);

test('the room of 1000 × 500 cm, with its walls outside and inside the outline', async ({ page }) => {
  // Common practice, no source: both readings of a wall of 20 cm, 300 cm high.
  const ada = await inNewProject(page, 'Room');
  await startsVerb(page, 'traverse');
  await typesLegs(page, [
    ['by', '1000 cm', '0'],
    ['bearing', '500 cm', '0'],
    ['turn', '1000 cm', '-90'],
  ]);
  await chooses(page, /^end: /, /straight leg/);
  await ada.commits();
  await page.keyboard.press('Escape');
  for (const [side, name, area] of [
    [/outside/, 'Wall', 1040 * 540 - 1000 * 500],
    [/inside/, 'Wall 2', 1000 * 500 - 960 * 460],
  ] as const) {
    await selects(page, 'Traverse');
    await startsVerb(page, 'wall');
    await fills(page, 'thickness', '20 cm');
    await fills(page, 'height', '300 cm');
    await chooses(page, /^side: /, side);
    await ada.commits();
    await page.keyboard.press('Escape');
    expect((await ada.facts(name)).volume).toBeCloseTo(area * 300 * 1000, 3);
  }
  expect(ada.problems).toEqual([]);
});

test('a turned bottle stopper with a bore, its axis moved', async ({ page }) => {
  const ada = await inNewProject(page, 'Stopper');
  await startsVerb(page, 'traverse');
  await page.getByRole('button', { name: /^plane: / }).click();
  await page.getByRole('menuitem', { name: /Front/ }).click();
  await expect(page.getByText('draws on front').first()).toBeAttached();
  await fills(page, 'start X', '4');
  await page.getByRole('button', { name: /^legs: / }).focus();
  await typesLegs(page, [
    ['to', '14', '0'],
    ['to', '14', '8'],
    ['to', '10', '8'],
    ['to', '8', '30'],
    ['to', '4', '30'],
  ]);
  await chooses(page, /^end: /, /straight leg/);
  await ada.commits();
  await page.keyboard.press('Escape');
  await selects(page, 'Traverse');
  await startsVerb(page, 'revolve');
  await ada.commits();
  await page.keyboard.press('Escape');
  const inner = Math.PI * 4 ** 2 * 30;
  const outer = Math.PI * 14 ** 2 * 8 + ((Math.PI * 22) / 3) * (100 + 80 + 64);
  const { volume } = await ada.facts('Turned');
  expect(volume).toBeCloseTo(outer - inner, 6);
  await selects(page, 'Turned');
  await expect(page.getByTestId('bore')).toHaveText('Leaves a bore of 8 mm');
  await page.getByLabel('Axis X', { exact: true }).fill('2');
  await page.keyboard.press('Enter');
  await ada.isReady();
  await expect
    .poll(async () => (await ada.facts('Turned')).volume)
    .toBeCloseTo(Math.PI * 12 ** 2 * 8 + ((Math.PI * 22) / 3) * (64 + 48 + 36) - Math.PI * 2 ** 2 * 30, 6);
  // Moved into the profile, it is refused with the reason.
  await page.getByLabel('Axis X', { exact: true }).fill('6');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('refusal')).toContainText('crosses its axis');
  expect(ada.problems).toEqual([]);
});

test('nested outlines: the ring between is raised, then the inner one by another height', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Nested');
  await draws(ada, 'rectangle', { width: '100', height: '60' });
  await draws(ada, 'circle', { diameter: '30', 'centre X': '50', 'centre Y': '30' });
  await ada.fitsAll();
  const raises = async (point: readonly [number, number, number], height: string) => {
    await selects(page, 'Rectangle', 'Circle');
    await startsVerb(page, 'raise');
    await page.getByRole('button', { name: /^regions: / }).click();
    await page.getByRole('menuitem', { name: /click in them/ }).click();
    await ada.isReady();
    await ada.clicksAt(point);
    await expect(page.getByRole('button', { name: 'regions: 1 region' })).toBeVisible();
    await fills(page, 'height', height);
    await ada.commits();
    await page.keyboard.press('Escape');
  };
  await raises([10, 10, 0], '10');
  await raises([50, 30, 0], '25');
  const disc = Math.PI * 15 ** 2;
  expect((await ada.facts('Raised')).volume).toBeCloseTo((6000 - disc) * 10, 6);
  expect((await ada.facts('Raised 2')).volume).toBeCloseTo(disc * 25, 6);
  // The profile changes, and both follow.
  await selects(page, 'Circle');
  await page.getByLabel('Diameter', { exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await ada.facts('Raised 2')).volume).toBeCloseTo(Math.PI * 100 * 25, 6);
  expect((await ada.facts('Raised')).volume).toBeCloseTo((6000 - Math.PI * 100) * 10, 6);
  expect(ada.problems).toEqual([]);
});

test('a loft from square to round, with a hollow', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Loft');
  const svg = (outer: string, inner: string) =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><path d="${outer}"/><path d="${inner}"/></svg>`,
    );
  const bring = async (name: string, content: Buffer, z: string) => {
    await startsVerb(page, 'bring in');
    await page
      .getByLabel('SVG or DXF file')
      .setInputFiles({ name: `${name}.svg`, mimeType: 'image/svg+xml', buffer: content });
    await expect(page.getByText('80 mm × 80 mm · 2 outlines')).toBeVisible();
    if (z !== '0') {
      await page.getByRole('button', { name: /^plane: / }).click();
      await page.getByRole('menuitem', { name: 'Plane', exact: true }).click();
    }
    await ada.commits();
    await page.keyboard.press('Escape');
  };
  await bring('square', svg('M0 0H80V80H0Z', 'M10 10H70V70H10Z'), '0');
  await startsVerb(page, 'work plane');
  await fills(page, 'offset', '60');
  await ada.commits();
  await page.keyboard.press('Escape');
  const ring = (r: number) => `M${40 - r} 40a${r} ${r} 0 1 1 ${2 * r} 0a${r} ${r} 0 1 1 ${-2 * r} 0z`;
  await bring('round', svg(ring(40), ring(30)), '60');
  await selects(page, 'square', 'round');
  await startsVerb(page, 'loft');
  await ada.commits();
  const { volume, box } = await ada.facts('Loft');
  expect(box.max[2]).toBeCloseTo(60, 6);
  // Between what the two ends would make as prisms.
  expect(volume).toBeGreaterThan(Math.PI * (1600 - 900) * 60);
  expect(volume).toBeLessThan((6400 - 3600) * 60);
  expect(ada.problems).toEqual([]);
});

test(
  'an outline brought in from a file in millimetres, embossed on a cylinder',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Jar');
    await draws(ada, 'cylinder', { diameter: '60', height: '80' });
    await startsVerb(page, 'work plane');
    await page.getByRole('button', { name: /^from: / }).click();
    await page.getByRole('menuitem', { name: /Front/ }).click();
    await fills(page, 'offset', '40');
    await ada.commits();
    await page.keyboard.press('Escape');
    await startsVerb(page, 'bring in');
    await page.getByLabel('SVG or DXF file').setInputFiles({
      name: 'leaf.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10"><path d="M0 5A10 10 0 0 1 20 5A10 10 0 0 1 0 5Z"/></svg>',
      ),
    });
    await expect(page.getByText(/20 mm × .* · 1 outline/)).toBeVisible();
    await page.getByRole('button', { name: /^plane: / }).click();
    await page.getByRole('menuitem', { name: 'Plane', exact: true }).click();
    await fills(page, 'at X', '-10');
    await fills(page, 'at Y', '-40');
    await fills(page, 'at Z', '30');
    await ada.commits();
    await page.keyboard.press('Escape');
    await selects(page, 'Cylinder', 'leaf');
    await startsVerb(page, 'emboss');
    await fills(page, 'depth', '0.8');
    await ada.commits();
    await page.keyboard.press('Escape');
    const whole = Math.PI * 900 * 80;
    const { volume } = await ada.facts('Cylinder');
    // About as much as its area times the depth.
    expect(volume - whole).toBeGreaterThan(Math.PI * 100 * 0.8);
    expect(volume - whole).toBeLessThan(Math.PI * 100 * 0.9);
    await selects(page, 'Cylinder');
    await page.getByRole('button', { name: 'Take out' }).click();
    await expect.poll(async () => (await ada.facts('Cylinder')).volume).toBeCloseTo(whole, 6);
    expect(ada.problems).toEqual([]);
  },
);

test('a name plate with its text engraved', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Plate');
  await ada.makesBox(['80', '24', '4'], ['0', '0', '0'], 'Plate');
  await page.keyboard.press('Escape');
  await startsVerb(page, 'text');
  await fills(page, 'text', 'Hive 7');
  await fills(page, 'height', '10');
  await page.getByRole('button', { name: /^plane: / }).focus();
  await ada.clicksAt([5, 20, 4]);
  await expect(page.getByRole('button', { name: /^plane: .*Plate/ })).toBeVisible();
  await fills(page, 'at X', '10');
  await fills(page, 'at Y', '7');
  await fills(page, 'at Z', '4');
  await ada.commits();
  await page.keyboard.press('Escape');
  await selects(page, 'Hive 7');
  await startsVerb(page, 'raise');
  await fills(page, 'height', '-1');
  await chooses(page, /^as: /, /cut out of/);
  await page.getByRole('button', { name: /^part: / }).click();
  await page.getByRole('option', { name: 'Plate' }).click();
  await ada.commits();
  const { volume, box } = await ada.facts('Plate');
  expect(box.max).toEqual([80, 24, 4]);
  expect(volume).toBeLessThan(80 * 24 * 4 - 50);
  expect(volume).toBeGreaterThan(80 * 24 * 4 - 300);
  expect(ada.problems).toEqual([]);
});
