/** A surface that faces the other way. */
import { AT_ORIGIN } from '@kadrel/core';
import type { NamedShape } from '../../naming/named.ts';
import { copied, scope, type Occt } from '../../occt/occt.ts';

/** Its faces keep their names and their order. */
export const buildTurnedOver = (occt: Occt, { shape, faceNames }: NamedShape): NamedShape =>
  scope((keep) => ({ shape: copied(occt, keep(shape.Reversed()), AT_ORIGIN), faceNames }));
