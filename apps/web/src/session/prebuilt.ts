/**
 * Solids that this build of the kernel has built before, so that a project is seen without waiting for it: in the browser's own
 * database what was shown of each project last, and those of the demo projects, which come with the page.
 */
import type { PrebuiltSolids } from '@kadrel/kernel';
import { KERNEL_BUILD, PREBUILT_URL } from '@kadrel/kernel/browser';
import { readPrebuilt } from '@kadrel/kernel/prebuiltFile';
import { delMany, get, keys, set, update } from 'idb-keyval';
import { solidStore } from '../common/solidStore.ts';

/** Projects whose solids are kept, the last ones that were looked at. */
const MAX_PROJECTS = 20;
/** Solids of one project; larger ones are not kept. */
const MAX_BYTES = 64_000_000;

const SEEN = 'seen';
const ofBuild = (projectId: string) => `${KERNEL_BUILD} ${projectId}`;

/** What need not be built of a project; undefined where nothing is known of it. Never rejects: without it all is built. */
export async function prebuiltFor(projectId: string): Promise<PrebuiltSolids | undefined> {
  if (!KERNEL_BUILD) return undefined;
  try {
    return (await get<PrebuiltSolids>(ofBuild(projectId), solidStore())) ?? (await shipped());
  } catch {
    // A browser that keeps nothing, or a server that is away: nothing is lost but time.
    return undefined;
  }
}

/** Those of the demo projects. */
async function shipped(): Promise<PrebuiltSolids | undefined> {
  const answer = await fetch(PREBUILT_URL);
  return answer.ok ? readPrebuilt(new Uint8Array(await answer.arrayBuffer())) : undefined;
}

/** Keeps what was built of a project, and gives up what other builds of the kernel have left, and what was not seen for long. */
export async function keepPrebuilt(projectId: string, solids: PrebuiltSolids): Promise<void> {
  if (!KERNEL_BUILD || bytesIn(solids) > MAX_BYTES) return;
  const own = ofBuild(projectId);
  let last: readonly string[] = [];
  await update<readonly string[]>(
    SEEN,
    (seen = []) => (last = [own, ...seen.filter((one) => one !== own)].slice(0, MAX_PROJECTS)),
    solidStore(),
  );
  const stays = new Set([SEEN, ...last.filter((one) => one.startsWith(`${KERNEL_BUILD} `))]);
  await delMany(
    (await keys(solidStore())).filter((one) => !stays.has(String(one))),
    solidStore(),
  );
  await set(own, solids, solidStore());
}

/** Of its arrays, which are nearly all of it. */
function bytesIn(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null) return 0;
  return Object.values(value).reduce<number>((sum, one) => sum + bytesIn(one), 0);
}
