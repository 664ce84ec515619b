/**
 * Run after every change of dependencies: `node scripts/mend-lock.mjs`. Packages for other platforms that a registry
 * does not carry are left out of the lock by `npm install`, and then missed by `npm ci`. This adds an entry for each; npm
 * never fetches them here, since their platform does not fit.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './project.mjs';
import { say } from './say.mjs';

const PATH = join(ROOT, 'package-lock.json');
const SYSTEMS = [
  'android',
  'darwin',
  'freebsd',
  'linux',
  'openbsd',
  'netbsd',
  'openharmony',
  'sunos',
  'win32',
  'aix',
];
const PROCESSORS = [
  'arm',
  'arm64',
  'ia32',
  'loong64',
  'mips64el',
  'ppc64',
  'riscv64',
  's390x',
  'x64',
  'universal',
];

const lock = JSON.parse(readFileSync(PATH, 'utf8'));
const { packages } = lock;

function isThere(parent, name) {
  for (let folder = parent; ; folder = folder.slice(0, Math.max(0, folder.lastIndexOf('node_modules/')))) {
    if (packages[`${folder ? `${folder.replace(/\/$/, '')}/` : ''}node_modules/${name}`]) return true;
    if (!folder) return false;
  }
}

/** What a package's name says of its platform. */
function platformOf(name) {
  const words = name.split(/[-/]/);
  const os = SYSTEMS.filter((system) => words.includes(system));
  const cpu = PROCESSORS.filter((processor) =>
    words.some((word) => word === processor || (processor === 'arm' && /^arm(v7)?$/.test(word))),
  );
  return { os: os.length > 0 ? os : ['none'], cpu: cpu.length > 0 ? cpu : ['none'] };
}

let added = 0;
for (const [path, entry] of Object.entries({ ...packages }))
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {}))
    if (!isThere(path, name)) {
      packages[`node_modules/${name}`] = {
        version: version.replace(/^[^\d]*/, ''),
        ...platformOf(name),
        ...(entry.dev ? { dev: true } : {}),
        optional: true,
      };
      added += 1;
    }
lock.packages = Object.fromEntries(Object.entries(packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(PATH, `${JSON.stringify(lock, null, 2)}\n`);
say(`${added} entries added.`);
