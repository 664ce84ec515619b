/** Every verb, in the order in which people see them. */
import { PRIMITIVES } from '../recipes/primitives/index.ts';
import type { Kind } from '../recipes/declare.ts';
import type { Verb } from './declare.ts';
import { MADE_STEPS } from '../recipes/steps/index.ts';
import { makingVerb } from './primitive.ts';
import { shapingVerb } from './solidSteps.ts';
import { tiers } from './tiers.ts';
import { traverse, line, relay } from './traverse.ts';
import { arc, circle, curve, ellipse, polygon, rectangle, text } from './figures.ts';
import { bring } from './bring.ts';
import { blend } from './blend.ts';
import { corner, extend, resample, reverse, split, trim } from './edits.ts';
import { emboss } from './emboss.ts';
import { step } from './steps.ts';
import { join, offset, outline, wallOutline } from './outlines.ts';
import { plane } from './plane.ts';
import { raise } from './raise.ts';
import { revolve } from './revolve.ts';
import { movePoint } from './handles.ts';
import { loft, start } from './loft.ts';
import { close, fill, thicken } from './surfaces.ts';
import { sweep } from './sweep.ts';
import { wall } from './wall.ts';
import { levels, openings, repoint } from './tables.ts';
import { setAxis } from './set-axis.ts';
import { pin } from './pin.ts';
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
import { duplicate } from './duplicate.ts';
import { along } from './along.ts';
import { around } from './around.ts';
import { grid } from './grid.ts';
import { path } from './path.ts';
import { reflect } from './reflect.ts';
import { pattern } from './pattern.ts';
import { omit } from './omit.ts';
import { free } from './free.ts';
import { dissolve } from './dissolve.ts';
import { unlink } from './unlink.ts';
import { union } from './union.ts';
import { subtract } from './subtract.ts';
import { intersect } from './intersect.ts';
import { change } from './change.ts';
import { rename } from './rename.ts';
import { number } from './number.ts';
import { group } from './group.ts';
import { ungroup } from './ungroup.ts';
import { arrange } from './arrange.ts';
import { deleteParts } from './delete.ts';
import { hide } from './hide.ts';
import { show } from './show.ts';
import { lock } from './lock.ts';
import { forgetVariable } from './forget-variable.ts';
import { variable } from './variable.ts';
import { scene } from './scene.ts';
import { unpin } from './unpin.ts';
import { keepView } from './keep-view.ts';
import { forgetView } from './forget-view.ts';

// The one place where a verb's own types are set aside: `resolveStatement` has made values that fit its blanks.
export const VERBS = [
  ...PRIMITIVES.map((kind) => makingVerb(kind as unknown as Kind)),
  tiers,
  traverse,
  line,
  rectangle,
  circle,
  polygon,
  arc,
  ellipse,
  curve,
  text,
  bring,
  offset,
  join,
  blend,
  corner,
  trim,
  extend,
  split,
  reverse,
  resample,
  outline,
  raise,
  revolve,
  loft,
  sweep,
  fill,
  thicken,
  close,
  wall,
  // After Wall: while one types, the first that fits stays chosen.
  wallOutline,
  plane,
  emboss,
  ...MADE_STEPS.map(shapingVerb),
  pin,
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
  duplicate,
  along,
  around,
  grid,
  path,
  reflect,
  pattern,
  omit,
  free,
  dissolve,
  unlink,
  union,
  subtract,
  intersect,
  change,
  relay,
  repoint,
  openings,
  levels,
  setAxis,
  movePoint,
  start,
  step,
  rename,
  number,
  group,
  ungroup,
  arrange,
  deleteParts,
  hide,
  show,
  lock,
  variable,
  forgetVariable,
  scene,
  unpin,
  keepView,
  forgetView,
] as unknown as readonly Verb[];

const BY_ID = new Map(VERBS.map((verb) => [verb.id, verb]));
if (BY_ID.size !== VERBS.length) throw new Error('Two verbs have the same id.');

export const verbNamed = (id: string): Verb | undefined => BY_ID.get(id);

/** Verbs whose name or everyday words begin with, or hold, what was typed; the best first. */
export function findVerbs(typed: string): Verb[] {
  const text = typed.trim().toLowerCase();
  if (!text) return [...VERBS];
  const rank = (verb: Verb) => {
    const name = verb.name.toLowerCase();
    // “wall” is Wall, and not Wall outline.
    if (name === text) return -1;
    if (name.startsWith(text)) return 0;
    if (name.split(' ').some((word) => word.startsWith(text))) return 0.5;
    if (verb.words.some((word) => word.startsWith(text))) return 1;
    if (name.includes(text) || verb.words.some((word) => word.includes(text))) return 2;
    return verb.about.toLowerCase().includes(text) ? 3 : 4;
  };
  return VERBS.map((verb) => ({ verb, at: rank(verb) }))
    .filter(({ at }) => at < 4)
    .sort((a, b) => a.at - b.at)
    .map(({ verb }) => verb);
}
