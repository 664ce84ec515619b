/** What is wrong with where a single solid stands. */
import type { Play, StandingSolid } from '../questions/fitFacts.ts';
import type { Vec3 } from '../space/vector.ts';
import { worldFromPart } from '../document/items.ts';
import type { ItemId } from '../document/schema.ts';
import { boxAround, nameOf, type Context, type Finding } from './finding.ts';
import type { Surveyed } from './survey.ts';
import { lengthWords } from './words.ts';

/** Below the bed, or carried by nothing. */
export function solidFindings(context: Context, solid: StandingSolid, { falls, plays }: Surveyed): Finding[] {
  const below = belowFinding(context, solid);
  const floating = below ? undefined : floatingFinding(context, solid, falls[solid.tag]);
  const found = [
    below,
    floating,
    outsideFinding(context, solid),
    playFinding(context, solid, plays[solid.tag]),
  ];
  return found.flatMap((finding) => finding ?? []);
}

const AXES = ['X', 'Y', 'Z'];

/** Over the rim of the site, or higher than it may be. */
function outsideFinding(context: Context, solid: StandingSolid): Finding | undefined {
  const { site, hair } = context.scope;
  if (!site) return undefined;
  const { min, max } = solid.box;
  const over = [0, 1, 2].flatMap((i) => {
    // What is below the bed is reported by itself.
    const back = i === 2 ? 0 : -min[i]!;
    return [
      { by: back, words: `beyond the origin along ${AXES[i]}` },
      { by: max[i]! - site[i]!, words: `beyond the far end along ${AXES[i]}` },
    ];
  });
  const faults = over.filter(({ by }) => by > hair);
  if (faults.length === 0) return undefined;
  const phrases = faults.map(({ by, words }) => `${lengthWords(by, context.document.scene)} ${words}`);
  return {
    ...commonOf(context, solid),
    id: `outside ${solid.tag}`,
    kind: 'outside',
    words: `Reaches ${phrases.join(', and ')}.`,
    size: Math.max(...faults.map(({ by }) => by)),
    remedies: insideRemedy(solid, site),
  };
}

/** The way back in, where it fits at all. */
function insideRemedy({ item, member, box: { min, max } }: StandingSolid, site: Vec3) {
  const fits = [0, 1].every((i) => max[i]! - min[i]! <= site[i]!) && max[2] <= site[2];
  if (member !== '' || !fits) return [];
  const by = [0, 1].map((i) => (min[i]! < 0 ? -min[i]! : Math.min(0, site[i]! - max[i]!)));
  const typed = { parts: [item], by: [...by, 0].map((mm) => `${mm} mm`) };
  return [{ label: 'Move it inside', verb: 'move', typed }];
}

/** How far it can be moved in its pocket. */
function playFinding(context: Context, solid: StandingSolid, play: Play | undefined): Finding | undefined {
  // What is open every way lies in no pocket.
  if (!play || play.every((along) => along.includes(null))) return undefined;
  const { scene } = context.document;
  const phrases = play.map(([back, forth], i) => {
    if (back === null || forth === null) return `${AXES[i]} open`;
    return `${AXES[i]} ${lengthWords(back + forth, scene)}`;
  });
  const totals = play.flatMap(([back, forth]) => (back === null || forth === null ? [] : [back + forth]));
  return {
    ...commonOf(context, solid),
    state: 'fine',
    id: `play ${solid.tag}`,
    kind: 'play',
    words: `Until it touches: ${phrases.join(', ')}.`,
    size: Math.max(0, ...totals),
    remedies: [],
  };
}

/** What cannot be built is not passed over. */
export const unbuiltFinding = ({ document }: Pick<Context, 'document'>, id: ItemId): Finding => ({
  id: `unbuilt ${id}`,
  kind: 'doubt',
  state: 'fault',
  items: [id],
  what: document.items[id]?.name ?? id,
  words: 'It cannot be built, so how it stands is not known.',
  size: 0,
  box: boxAround([worldFromPart(document, id).shift]),
  remedies: [],
});

const commonOf = (context: Context, solid: StandingSolid) => ({
  items: [solid.item],
  what: nameOf(context, solid),
  box: solid.box,
  state: 'fault' as const,
});

/** Members of patterns are not seated by themselves. */
const seated = ({ item, member }: StandingSolid, label: string, onto: 'bed' | 'first') =>
  member === '' ? [{ label, verb: 'seat', typed: { parts: [item], onto } }] : [];

function belowFinding(context: Context, solid: StandingSolid): Finding | undefined {
  const deep = -solid.box.min[2];
  if (deep <= context.scope.hair) return undefined;
  const words = `Reaches ${lengthWords(deep, context.document.scene)} below the bed.`;
  const remedies = seated(solid, 'Lift it onto the bed', 'bed');
  return {
    ...commonOf(context, solid),
    id: `below ${solid.tag}`,
    kind: 'below',
    words,
    size: deep,
    remedies,
  };
}

function floatingFinding(
  context: Context,
  solid: StandingSolid,
  fall: Surveyed['falls'][string] | undefined,
): Finding | undefined {
  if (!fall) return undefined;
  const lowest = solid.box.min[2];
  const onBed = fall.by === null || lowest < fall.by;
  const by = onBed ? lowest : fall.by;
  if (by <= context.scope.hair) return undefined;
  const other = onBed ? undefined : context.solids.get(fall.onto!);
  const onto = other ? nameOf(context, other) : 'the bed';
  const words = `Nothing carries it: it would fall ${lengthWords(by, context.document.scene)} onto ${onto}.`;
  const remedies = seated(solid, 'Seat it', 'first');
  return {
    ...commonOf(context, solid),
    id: `floating ${solid.tag}`,
    kind: 'floating',
    words,
    size: by,
    remedies,
  };
}
