/** Every verb, by the groups of the bench and within them in the order in which people see them. */
import type { Verb } from '../statement/declare.ts';
import { MAKE } from './make/index.ts';
import { DRAW_SECTIONS } from './draw/index.ts';
import { PLACE } from './place/index.ts';
import { JOIN } from './join/index.ts';
import { REPEAT } from './repeat/index.ts';
import { COMBINE } from './combine/index.ts';
import { SHAPE } from './shape/index.ts';
import { CUT } from './cut/index.ts';
import { CHECK } from './check/index.ts';
import { OUTPUT } from './output/index.ts';
import type { Section } from './shared/section.ts';
import { EDIT_SECTIONS } from './edit/index.ts';

/** The verbs of each group, under heads where there are many. */
export const SECTIONS = [
  MAKE,
  ...DRAW_SECTIONS,
  PLACE,
  JOIN,
  REPEAT,
  COMBINE,
  SHAPE,
  CUT,
  CHECK,
  OUTPUT,
  ...EDIT_SECTIONS,
].map((one) => ('verbs' in one ? one : { verbs: one })) as unknown as readonly Section[];

export const VERBS: readonly Verb[] = SECTIONS.flatMap(({ verbs }) => verbs);

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
