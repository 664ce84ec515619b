/**
 * Solids that this build of the kernel has built before, so that a project is seen without waiting for it: in the browser's own
 * database what was shown of each project last, and those of the demo projects, which come with the page.
 */
import type { PrebuiltSolids, ShapeFacts } from '@kadrel/kernel';
import { KERNEL_BUILD, PREBUILT_URL } from '@kadrel/kernel/browser';
import { readPrebuilt } from '@kadrel/kernel/prebuiltFile';
import { delMany, get, keys, promisifyRequest, set, setMany, update } from 'idb-keyval';
import { whenIdle } from '../common/idle.ts';
import { solidStore, timesForgotten } from '../common/solidStore.ts';

/** Projects whose solids are kept, the last ones that were looked at. */
const MAX_PROJECTS = 20;
/** Solids of one project; larger ones are not kept. */
const MAX_BYTES = 64_000_000;
/** What is written at a time: the page copies it in some milliseconds. */
const BATCH_BYTES = 2_000_000;
/** A page that is never at rest writes the next after so long, ms. */
const AT_LAST_MS = 1000;

const SEEN = 'seen';
const ofBuild = (projectId: string) => `${KERNEL_BUILD} ${projectId}`;
/** The measures and checks of a project have its own name, and its solids names that begin with it. */
const solidName = (own: string, key: string) => `${own} ${key}`;
const solidNames = (own: string) => IDBKeyRange.bound(solidName(own, ''), solidName(own, '\uffff'));
type Rest = Omit<PrebuiltSolids, 'facts'>;

/** What need not be built of a project; undefined where nothing is known of it. Never rejects: without it all is built. */
export async function prebuiltFor(projectId: string): Promise<PrebuiltSolids | undefined> {
  if (!KERNEL_BUILD) return undefined;
  const own = ofBuild(projectId);
  try {
    const [rest, facts] = await Promise.all([
      get<Rest>(own, solidStore()),
      solidStore()('readonly', (store) =>
        promisifyRequest<ShapeFacts[]>(store.getAll(solidNames(own)) as IDBRequest<ShapeFacts[]>),
      ),
    ]);
    return rest ? { ...rest, facts } : await shipped();
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

/**
 * Keeps what was built of a project, as far as it is not kept, and gives up what is not in it any more, what other builds of the
 * kernel have left, and what was not seen for long.
 */
export async function keepPrebuilt(projectId: string, { facts, ...rest }: PrebuiltSolids): Promise<void> {
  if (!KERNEL_BUILD || bytesIn(facts) > MAX_BYTES) return;
  const begun = timesForgotten();
  const own = ofBuild(projectId);
  const solids = new Map(facts.map((one) => [solidName(own, one.key), one]));
  const others = (await seenWith(own)).filter((one) => one !== own && one.startsWith(`${KERNEL_BUILD} `));
  const there = (await keys<string>(solidStore())).filter((name) => name !== SEEN);
  const isWanted = (name: string) =>
    name === own || solids.has(name) || others.some((one) => name === one || name.startsWith(`${one} `));
  await delMany(
    there.filter((name) => !isWanted(name)),
    solidStore(),
  );
  for (const name of there) solids.delete(name);
  for (const batch of batches([...solids])) {
    await atRest();
    if (timesForgotten() !== begun) return;
    await setMany(batch, solidStore());
  }
  if (timesForgotten() !== begun) return;
  await set(own, rest, solidStore());
}

/** The projects that were seen last, with one that is seen now. */
async function seenWith(own: string): Promise<readonly string[]> {
  let last: readonly string[] = [];
  await update<readonly string[]>(
    SEEN,
    (seen = []) => (last = [own, ...seen.filter((one) => one !== own)].slice(0, MAX_PROJECTS)),
    solidStore(),
  );
  return last;
}

/** Each no larger than one solid and what fits beside it. */
function batches(solids: readonly [string, ShapeFacts][]): [string, ShapeFacts][][] {
  const all: [string, ShapeFacts][][] = [[]];
  let bytes = 0;
  for (const solid of solids) {
    const own = bytesIn(solid[1]);
    if (bytes > 0 && bytes + own > BATCH_BYTES) {
      all.push([]);
      bytes = 0;
    }
    all.at(-1)!.push(solid);
    bytes += own;
  }
  return all;
}

const atRest = (): Promise<void> => new Promise((resolve) => whenIdle(() => resolve(), AT_LAST_MS));

/** Of its arrays, which are nearly all of it. */
function bytesIn(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null) return 0;
  return Object.values(value).reduce<number>((sum, one) => sum + bytesIn(one), 0);
}
