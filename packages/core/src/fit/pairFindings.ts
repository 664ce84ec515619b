/** How two solids stand to one another, and what can be done about it. */
import type { Target } from '../document/fit.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { formatMeasure } from '../quantity/format.ts';
import type { Contact, Overlap, PairFacts, SolidPair, StandingSolid } from '../questions/fitFacts.ts';
import { cutOut, middleClearance } from './fitRemedies.ts';
import { boxAround, nameOf, type Context, type Finding, type Remedy } from './finding.ts';
import { lengthWords } from './words.ts';

/** What is common to all findings of a pair. */
type Common = Pick<Finding, 'id' | 'items' | 'what' | 'pair' | 'remedies'>;

/** Nothing where one of them is not looked at. */
export function pairFindings(context: Context, pair: SolidPair, facts: PairFacts): Finding[] {
  const [a, b] = pair.map((tag) => context.solids.get(tag));
  if (!a || !b) return [];
  const common: Common = {
    id: pair.join('|'),
    items: [...new Set([a.item, b.item])],
    what: `${nameOf(context, a)} and ${nameOf(context, b)}`,
    pair,
    remedies: [],
  };
  if (facts.overlap)
    return [overlapFinding(context, common, { a, b, overlap: facts.overlap, within: facts.within })];
  const { gap, from, to, contact, doubt } = facts;
  const place = { ...common, box: boxAround([from, to]), ends: [from, to] as const, size: gap };
  const words = `${lengthWords(gap, context.document.scene)} apart.`;
  const contactFinding: Finding = contact
    ? {
        ...place,
        kind: 'contact',
        state: 'fine',
        words: contactWords(context, contact),
        box: boxAround([contact.at]),
      }
    : { ...place, kind: 'clearance', state: 'fine', words };
  if (doubt === undefined) return [contactFinding];
  const doubtWords = `Whether they overlap cannot be told: ${doubt}`;
  return [
    { ...place, id: `${common.id}|doubt`, kind: 'doubt', state: 'fault', words: doubtWords },
    contactFinding,
  ];
}

function contactWords({ document }: Context, { kind, area }: Contact): string {
  if (kind === 'area') return `They touch over ${formatMeasure(area, 2, document.scene)}.`;
  return kind === 'edge' ? 'They touch along an edge.' : 'They touch in a point.';
}

interface Overlapping {
  readonly a: StandingSolid;
  readonly b: StandingSolid;
  readonly overlap: Overlap;
  readonly within: PairFacts['within'];
}

function overlapFinding(context: Context, common: Common, { a, b, overlap, within }: Overlapping): Finding {
  const fault = { ...common, state: 'fault' as const, size: overlap.volume, box: overlap.box };
  if (within === 'both')
    return {
      ...fault,
      kind: 'double',
      words: 'The same solid in the same place.',
      remedies: doubleRemedies(context, b),
    };
  const volume = formatMeasure(overlap.volume, 3, context.document.scene);
  const inner = within && nameOf(context, within === 'first' ? a : b);
  const words = inner ? `${inner} lies wholly within the other: ${volume}.` : `They share ${volume}.`;
  return { ...fault, kind: inner ? 'inside' : 'overlap', words, remedies: overlapRemedies(context, a, b) };
}

/** The second one goes: a part, or a member of a pattern. */
const doubleRemedies = ({ document }: Context, { item, member }: StandingSolid): Remedy[] =>
  member === '' || document.items[item]?.recipe.base.kind !== 'pattern'
    ? [{ label: 'Delete the double', verb: 'delete', typed: { parts: [item] } }]
    : [
        {
          label: 'Leave the double out',
          verb: 'omit',
          typed: { part: item, members: member.replace('×', 'x'), state: 'out' },
        },
      ];

/** One is cut out of the other, with the clearance that is wanted between them. */
function overlapRemedies({ document }: Context, a: StandingSolid, b: StandingSolid): Remedy[] {
  if (a.item === b.item) return [];
  const clearance = wantedBetween(document, a.item, b.item);
  return [
    cutOut('Cut the second out of the first', { of: a.item, what: b.item }, clearance),
    cutOut('Cut the first out of the second', { of: b.item, what: a.item }, clearance),
  ];
}

/** mm; 0 where no clearance is wanted. */
function wantedBetween(document: KadrelDocument, a: ItemId, b: ItemId): number {
  const isSide = (side: Target, id: ItemId) => 'part' in side && side.part === id;
  const wanted = Object.values(document.fits).find(
    ({ kind, from, to }) =>
      kind === 'clearance' && ((isSide(from, a) && isSide(to, b)) || (isSide(from, b) && isSide(to, a))),
  );
  return wanted ? middleClearance(wanted) : 0;
}
