/** `npm run torture -- WHAT …`: long trials. */
import { runGolden } from '../golden/runGolden.ts';
import { runAssemblies } from './runAssemblies.ts';
import { runBooleans } from './runBooleans.ts';
import { runEdits } from './runEdits.ts';
import { runHeld } from './runHeld.ts';
import { runIcons } from './runIcons.ts';
import { runPages } from './runPages.ts';
import { runRecipes } from './runRecipes.ts';
import { serveScenes } from './sceneThread.ts';

const RUNS: Readonly<Record<string, (rest: readonly string[]) => Promise<void>>> = {
  assemblies: runAssemblies,
  booleans: runBooleans,
  edits: runEdits,
  golden: runGolden,
  held: runHeld,
  icons: runIcons,
  pages: runPages,
  recipes: runRecipes,
  // What the threads of `booleans` are started with.
  scenes: serveScenes,
};
const [what = 'booleans', ...rest] = process.argv.slice(2);
const run = RUNS[what];
if (!run) throw new Error(`There is no torture named ${what}: say ${Object.keys(RUNS).join(' or ')}.`);
await run(rest);
