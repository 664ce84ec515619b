/** What is wrong with where a single solid stands. */
import type { StandingSolid } from '../questions/fitFacts.ts';
import { worldFromPart } from '../document/items.ts';
import type { ItemId } from '../document/schema.ts';
import { boxAround, nameOf, type Context, type Finding } from './finding.ts';
import type { Surveyed } from './survey.ts';
import { lengthWords } from './words.ts';

/** Below the bed, or carried by nothing. */
export function solidFindings(context: Context, solid: StandingSolid, { falls }: Surveyed): Finding[] {
  const below = belowFinding(context, solid);
  const floating = below ? undefined : floatingFinding(context, solid, falls[solid.tag]);
  return [below, floating].flatMap((finding) => finding ?? []);
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
