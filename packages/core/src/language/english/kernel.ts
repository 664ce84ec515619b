/** British English sentences: what the kernel could not build or compute. Reason and remedy are its own. */
import type { Facts } from './facts.ts';

export const KERNEL_SENTENCES = {
  'not-built.kernel': ({ reason, remedy }: Facts<'reason' | 'remedy'>) => `${reason} ${remedy}`,
  'not-built.whose': ({ name, reason, remedy }: Facts<'name' | 'reason' | 'remedy'>) =>
    `${name}: ${reason} ${remedy}`,
  'kernel.cancelled': () => 'Cancelled. Nothing was changed.',
  'kernel.failed': ({ what }: Facts<'what'>) => `${what} Nothing was changed.`,
  'kernel.failed-at': ({ what, name }: Facts<'what' | 'name'>) =>
    `${what} It was at work on ${name}. Nothing was changed.`,
};
