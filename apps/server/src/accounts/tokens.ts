import { createHash } from 'node:crypto';

/** What is kept of a token, SHA-256 in hex: who reads the table cannot use it. */
export const digest = (token: string): string => createHash('sha256').update(token).digest('hex');
