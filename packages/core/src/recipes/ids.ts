import { z } from 'zod';

/** What items are called within a document. */
export const idSchema = z.string().regex(/^[a-z0-9]{1,40}$/);
/** The id of an item within its document. */
export type ItemId = string;
