import type { Account } from '../data/entities.ts';

/** What the other threads need to know of who asks. */
export const askingOf = ({ id, name }: Account) => ({ id, name });
