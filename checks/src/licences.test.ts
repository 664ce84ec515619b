/** The About page against the packages themselves. Source: the `license` field of each package's own package.json. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SHIPPED } from '../../apps/web/src/screens/licences.ts';

const ROOT = join(import.meta.dirname, '../..');
const manifest = (name: string) => {
  const path = [join(ROOT, 'node_modules', name), join(ROOT, 'apps/web/node_modules', name)]
    .map((folder) => join(folder, 'package.json'))
    .find(existsSync);
  return JSON.parse(readFileSync(path!, 'utf8')) as { license: string };
};

test.each(SHIPPED.map(({ name, licence }) => [name, licence]))('%s is under %s', (name, licence) => {
  expect(manifest(name).license).toBe(licence);
});

test('everything that the page depends on is listed', () => {
  const { dependencies } = JSON.parse(readFileSync(join(ROOT, 'apps/web/package.json'), 'utf8')) as {
    dependencies: Record<string, string>;
  };
  const ours = Object.keys(dependencies).filter((name) => !name.startsWith('@kadrel/'));
  expect(SHIPPED.map(({ name }) => name)).toEqual(
    expect.arrayContaining([...ours, 'replicad-opencascadejs', 'manifold-3d']),
  );
});
