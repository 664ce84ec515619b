import { move } from './move.ts';
import { turn } from './turn.ts';
import { resize } from './resize.ts';
import { align } from './align.ts';
import { distribute } from './distribute.ts';
import { stack } from './stack.ts';
import { seat } from './seat.ts';
import { land } from './land.ts';
import { faceToFace } from './face-to-face.ts';
import { distance } from './distance.ts';
import { mirror } from './mirror.ts';
import { nudge } from './nudge.ts';
import { datum } from './datum.ts';
import { reset } from './reset.ts';

/** In the order in which people see them. */
export const PLACE = [
  move,
  turn,
  resize,
  align,
  distribute,
  stack,
  seat,
  land,
  faceToFace,
  distance,
  mirror,
  nudge,
  datum,
  reset,
] as const;
