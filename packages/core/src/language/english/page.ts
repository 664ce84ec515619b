/** British English sentences: what only the page can tell. */
import type { Facts } from './facts.ts';

export const PAGE_SENTENCES = {
  'no-effect': ({ words }: Facts<'words'>) => `${words} Enter again does it all the same.`,
  'not-built.part': () => 'This part is not built yet. Try again in a moment.',
  'too-late': () => 'This statement is no longer the last one. Start it anew.',
};
