/** What is wrong with how parts stand to one another, and what can be done about it. */
import { inOrderMade, type Meant } from '../document/fit.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { formatMeasure } from '../quantity/format.ts';
import type { PairFacts, SolidPair, StandingSolid } from '../questions/question.ts';
import { unionBoxes, type Box } from '../space/box.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { lengthWords } from './words.ts';
import { judgeFit, judgeMeasure } from './judge.ts';
import type { Scope, Surveyed } from './survey.ts';

export const FINDING_WORDS = {
  overlap: 'Overlap',
  inside: 'Inside',
  double: 'Double',
  floating: 'Floating',
  below: 'Below the bed',
  doubt: 'Not certain',
  fit: 'Wanted fit',
  measure: 'Measure',
  contact: 'Contact',
  clearance: 'Clearance',
} as const;
export type FindingKind = keyof typeof FINDING_WORDS;

/** A statement that mends a finding. */
export interface Remedy {
  readonly label: string;
  readonly verb: string;
  readonly typed: Readonly<Record<string, unknown>>;
}

export interface Finding {
  readonly id: string;
  readonly kind: FindingKind;
  /** `fine` is only told. */
  readonly state: 'fault' | 'fine' | 'meant';
  /** The standing items that it is about. */
  readonly items: readonly ItemId[];
  /** Names of the solids, members of patterns among them. */
  readonly what: string;
  readonly words: string;
  /** mm of a distance, mm³ of an overlap: what the list is sorted by. */
  readonly size: number;
  /** Where to look, in the world. */
  readonly box: Box;
  readonly ends?: readonly [Vec3, Vec3];
  /** Of an overlap: what has that in common. */
  readonly pair?: SolidPair;
  readonly remedies: readonly Remedy[];
  /** Of what is meant: why. */
  readonly why?: string;
}

export interface FitReport {
  readonly findings: readonly Finding[];
  readonly faults: number;
}

interface Context {
  readonly document: KadrelDocument;
  readonly solids: ReadonlyMap<string, StandingSolid>;
  readonly scope: Scope;
  readonly meant: readonly Meant[];
}

/** Faults first. */
export function fitReport(document: KadrelDocument, surveyed: Surveyed, scope: Scope): FitReport {
  const context: Context = {
    document,
    scope,
    solids: new Map(surveyed.solids.map((one) => [one.tag, one])),
    meant: inOrderMade(document.meant),
  };
  const findings = [
    ...surveyed.pairs.flatMap(({ pair, facts }) => pairFindings(context, pair, facts)),
    ...surveyed.solids.flatMap((one) => solidFindings(context, one, surveyed)),
    ...surveyed.fits.map((one) => fitFinding(context, one)),
    ...surveyed.measures.map((one) => measureFinding(context, one)),
  ].map((finding) => withMeant(context, finding));
  const rank = { fault: 0, meant: 1, fine: 2 };
  findings.sort((a, b) => rank[a.state] - rank[b.state]);
  return { findings, faults: findings.filter(({ state }) => state === 'fault').length };
}

/** What is marked as meant is no fault. */
function withMeant({ meant }: Context, finding: Finding): Finding {
  if (finding.state !== 'fault' || finding.kind === 'fit' || finding.kind === 'measure') return finding;
  const own = new Set(finding.items);
  const mark = meant.find(
    ({ parts }) => parts.every((id) => own.has(id)) && own.size === new Set(parts).size,
  );
  return mark ? { ...finding, state: 'meant', why: mark.why } : finding;
}

const nameOf = ({ document }: Context, { item, member }: StandingSolid): string =>
  [document.items[item]?.name ?? item, member].filter((word) => word !== '').join(' ');

function pairFindings(context: Context, pair: SolidPair, facts: PairFacts): Finding[] {
  const two = pair.map((tag) => context.solids.get(tag)) as [
    StandingSolid | undefined,
    StandingSolid | undefined,
  ];
  const [a, b] = two;
  if (!a || !b) return [];
  const { scene } = context.document;
  const common = {
    id: pair.join('|'),
    items: [...new Set([a.item, b.item])],
    what: `${nameOf(context, a)} and ${nameOf(context, b)}`,
    pair,
    remedies: [],
  };
  const { gap, from, to, contact, overlap, within, doubt } = facts;
  if (overlap && within === 'both')
    return [
      {
        ...common,
        kind: 'double',
        state: 'fault',
        words: 'The same solid in the same place.',
        size: overlap.volume,
        box: overlap.box,
        remedies: doubleRemedies(context, b),
      },
    ];
  if (overlap) {
    const volume = formatMeasure(overlap.volume, 3, scene);
    const inner = within && nameOf(context, within === 'first' ? a : b);
    const words = inner ? `${inner} lies wholly within the other: ${volume}.` : `They share ${volume}.`;
    return [
      {
        ...common,
        kind: inner ? 'inside' : 'overlap',
        state: 'fault',
        words,
        size: overlap.volume,
        box: overlap.box,
        remedies: overlapRemedies(a, b),
      },
    ];
  }
  const place = { box: boxAround([from, to]), ends: [from, to] as const, size: gap };
  const doubtful: Finding[] =
    doubt === undefined
      ? []
      : [
          {
            ...common,
            ...place,
            id: `${common.id}|doubt`,
            kind: 'doubt',
            state: 'fault',
            words: `Whether they overlap cannot be told: ${doubt}`,
          },
        ];
  if (contact) {
    const area = formatMeasure(contact.area, 2, scene);
    const words = {
      area: `They touch over ${area}.`,
      edge: 'They touch along an edge.',
      point: 'They touch in a point.',
    };
    return [
      ...doubtful,
      {
        ...common,
        ...place,
        kind: 'contact',
        state: 'fine',
        words: words[contact.kind],
        box: boxAround([contact.at]),
      },
    ];
  }
  return [
    ...doubtful,
    {
      ...common,
      ...place,
      kind: 'clearance',
      state: 'fine',
      words: `${lengthWords(gap, scene)} apart.`,
    },
  ];
}

const boxAround = (points: readonly Vec3[]): Box => unionBoxes(points.map((at) => ({ min: at, max: at })))!;

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

const overlapRemedies = (a: StandingSolid, b: StandingSolid): Remedy[] =>
  a.item === b.item
    ? []
    : [
        {
          label: 'Cut the second out of the first',
          verb: 'cut-by',
          typed: { parts: [a.item], by: b.item, keep: 'behind' },
        },
        {
          label: 'Cut the first out of the second',
          verb: 'cut-by',
          typed: { parts: [b.item], by: a.item, keep: 'behind' },
        },
      ];

function solidFindings(context: Context, solid: StandingSolid, { falls }: Surveyed): Finding[] {
  const {
    document: { scene },
    scope: { hair },
  } = context;
  const common = {
    items: [solid.item],
    what: nameOf(context, solid),
    box: solid.box,
    state: 'fault' as const,
  };
  const lowest = solid.box.min[2];
  const isWhole = solid.member === '';
  if (lowest < -hair) {
    const words = `Reaches ${lengthWords(-lowest, scene)} below the bed.`;
    const typed = { parts: [solid.item], onto: 'bed' };
    const remedies = isWhole ? [{ label: 'Lift it onto the bed', verb: 'seat', typed }] : [];
    return [{ ...common, id: `below ${solid.tag}`, kind: 'below', words, size: -lowest, remedies }];
  }
  const fall = falls[solid.tag];
  if (!fall) return [];
  const onBed = fall.by === null || lowest < fall.by;
  const by = onBed ? lowest : fall.by;
  if (by <= hair) return [];
  const onto = onBed ? undefined : context.solids.get(fall.onto!);
  const words = `Nothing carries it: it would fall ${lengthWords(by, scene)} onto ${onto ? nameOf(context, onto) : 'the bed'}.`;
  const typed = { parts: [solid.item], onto: 'first' };
  const remedies = isWhole ? [{ label: 'Seat it', verb: 'seat', typed }] : [];
  return [{ ...common, id: `floating ${solid.tag}`, kind: 'floating', words, size: by, remedies }];
}

function fitFinding({ document }: Context, { fit, facts }: Surveyed['fits'][number]): Finding {
  const { state, words, value } = judgeFit(fit, facts, document.scene);
  const items = [fit.from, fit.to].flatMap((side) => ('part' in side ? [side.part] : []));
  const ends = facts?.from && facts.to ? ([facts.from, facts.to] as const) : undefined;
  return {
    id: fit.id,
    kind: 'fit',
    state: state === 'met' ? 'fine' : 'fault',
    items: [...new Set(items)],
    what: fit.name,
    words,
    size: value ?? 0,
    box: boxAround(ends ?? [[0, 0, 0]]),
    ...(ends ? { ends } : {}),
    remedies:
      state === 'missed' && ends
        ? clearanceRemedies(document, { fit, ends, distance: distance(...ends) })
        : [],
  };
}

interface Missed {
  readonly fit: Surveyed['fits'][number]['fit'];
  readonly ends: readonly [Vec3, Vec3];
  readonly distance: number;
}

/** The second goes straight to where the distance is right; a face of it that is named is offset instead. */
function clearanceRemedies(
  document: KadrelDocument,
  { fit, ends: [from, to], distance: now }: Missed,
): Remedy[] {
  const { kind, to: side, least = 0, greatest } = fit;
  if ((kind !== 'clearance' && kind !== 'contact') || !('part' in side)) return [];
  const aim = kind === 'contact' ? 0 : now < least ? least : (greatest ?? least);
  const wanted = greatest === undefined || kind === 'contact' ? aim : (least + greatest) / 2;
  const part = document.items[side.part];
  if (!part) return [];
  if (side.at !== undefined && !side.at.includes('&'))
    return [
      {
        label: 'Offset the face',
        verb: 'offset-face',
        typed: { part: part.id, faces: [side.at], by: `${now - wanted} mm` },
      },
    ];
  if (now === 0) return [];
  const by = [0, 1, 2].map((i) => `${((to[i]! - from[i]!) / now) * (wanted - now)} mm`);
  return [{ label: 'Move the second', verb: 'move', typed: { parts: [part.id], by } }];
}

function measureFinding({ document }: Context, { measure, facts }: Surveyed['measures'][number]): Finding {
  const { state, words, value } = judgeMeasure(measure, facts, document.scene);
  const items = [measure.from, measure.to].flatMap((side) => (side && 'part' in side ? [side.part] : []));
  const ends = facts?.from && facts.to ? ([facts.from, facts.to] as const) : undefined;
  return {
    id: measure.id,
    kind: 'measure',
    state: state === 'met' ? 'fine' : 'fault',
    items: [...new Set(items)],
    what: measure.name,
    words,
    size: value ?? 0,
    box: boxAround(ends ?? (facts?.at ? [facts.at] : [[0, 0, 0]])),
    ...(ends ? { ends } : {}),
    remedies: [],
  };
}
