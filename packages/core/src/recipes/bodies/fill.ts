import { declareKind } from '../declare.ts';
import { profilesSchema } from './regions.ts';

/** A surface within a loop of curves, which may lie in several planes: flat where they are, else smooth. */
export const fill = declareKind(
  'fill',
  { profiles: profilesSchema },
  { words: 'a filled surface', inAWord: 'surface' },
);
