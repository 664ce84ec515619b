/** A part of `npm run torture -- icons`: what comes in against an independent rasteriser, and what is raised from it. */
import { loadPainter } from '@kadrel/cli/painter';
import { Evaluator } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { trials } from '@kadrel/testing';
import { areaVerdict, iconNamed, icons, paintedArea, volumeVerdict } from './icons.ts';

beforeAll(loadPainter);

test('the rasteriser itself agrees with the formula of a circle', () => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><circle cx="12" cy="12" r="9"/></svg>';
  const { area, error } = paintedArea({ name: 'disc', svg });
  expect(Math.abs(area - Math.PI * 81)).toBeLessThan(error);
  expect(error).toBeLessThan(0.5);
});

test('icons of three sets come in with the area that they paint', () => {
  const all = icons(trials(100));
  expect(all).toHaveLength(3 * trials(100));
  expect(all.map(areaVerdict).filter(({ outcome }) => outcome !== 'right')).toEqual([]);
});

test.each([
  ['@phosphor-icons/core', 'eyes-fill', 'two holes that begin at the same height'],
  ['@phosphor-icons/core', 'bone-fill', 'free curves that stand still at their end'],
  ['heroicons', 'academic-cap', 'borders that run within a hair of each other'],
])('%s, %s: %s', (of, file) => {
  expect(areaVerdict(iconNamed(of, file))).toMatchObject({ outcome: 'right' });
});

test('bodies raised from icons have that area times their height', async () => {
  const kernel = new Evaluator(await sharedLibraries());
  const verdicts = icons(trials(20)).map((icon) => volumeVerdict(kernel, icon));
  expect(verdicts.filter(({ outcome }) => outcome === 'wrong')).toEqual([]);
  expect(verdicts.filter(({ outcome }) => outcome === 'right').length).toBeGreaterThan(trials(20) * 2);
});
