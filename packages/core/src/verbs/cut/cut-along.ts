import type { ItemId } from '../../document/schema.ts';
import { declareVerb, isRefusal, needed, optional } from '../../statement/declare.ts';
import { frameInPart } from '../../statement/planes.ts';
import { profilesBlank, slantOf } from '../shared/bodies.ts';
import { splitInTwo, trimAll, type CutStep } from '../shared/cutting.ts';
import { frameOfProfiles, requireProfiles } from '../shared/drawing.ts';

const KEPT = {
  both: 'both sides stay',
  front: 'what lies within, or to its left, stays',
  behind: 'what lies without, or to its right, stays',
} as const;

/** Solids are cut by what is drawn, straight through. */
export const cutAlongProfile = declareVerb({
  id: 'cut-along',
  name: 'Cut along outline',
  group: 'cut',
  about:
    'Cuts solids straight through along a drawn line or outline; where that is changed later, the cut follows.',
  words: ['split', 'trim', 'line', 'profile', 'saw', 'jigsaw', 'cookie', 'divide', 'outline'],
  blanks: {
    parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
    profiles: { ...profilesBlank, about: 'One open line, or closed outlines, all in one plane.' },
    keep: needed('choice', 'kept', 'An open line has a left and a right, seen along it from its front.', {
      default: 'both',
      choices: KEPT,
    }),
    along: optional('direction', 'along', 'The way on which it is cut; else square to its own plane.', {
      rare: true,
    }),
  },
  sentence: 'Cut along outline {profiles} through {parts}, {keep}[, in the direction {along}]',
  apply(draft, { parts, profiles, keep, along }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    const plane = frameOfProfiles(draft, profiles);
    const slant = slantOf(along, plane);
    if (isRefusal(slant)) return slant;
    const stepOf = (id: ItemId): CutStep => ({
      kind: 'cutAlong',
      profiles: [...profiles],
      frame: frameInPart(draft, id, plane).kept,
      slant,
      keep: keep === 'behind' ? 'behind' : 'front',
    });
    if (keep !== 'both') return trimAll(draft, parts, stepOf) ?? { select: parts };
    const halves = splitInTwo(draft, { parts, stepOf }, context);
    return isRefusal(halves) ? halves : { select: halves };
  },
});
