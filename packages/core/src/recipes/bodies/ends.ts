import { choice } from '../fields.ts';

/**
 * Closed bodies are capped where they end; open ones are surfaces and no solids. What version 4 did not say may be missing: edits of
 * that time, and what takes them back, stay as they were written.
 */
export const endsOf = () =>
  choice(
    'Ends',
    { capped: 'closed body', open: 'open surface' },
    { about: 'A body, or an open surface.', rare: true, absent: 'capped' },
  ).optional();
