/** What a new joint is called, and where it comes among the others. */
import { inOrderMade } from '../document/fit.ts';
import type { Joint } from '../document/dock.ts';
import type { KadrelDocument } from '../document/schema.ts';

/** The first name that no joint has, and a rank after all others. */
export function freeJoint({ joints }: Pick<KadrelDocument, 'joints'>): Pick<Joint, 'name' | 'order'> {
  const taken = new Set(Object.values(joints).map(({ name }) => name));
  const order = (inOrderMade(joints).at(-1)?.order ?? 0) + 1;
  for (let n = 1; ; n++) if (!taken.has(`J${n}`)) return { name: `J${n}`, order };
}
