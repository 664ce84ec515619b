/** Whether solids can be made: what is said of each, what is wrong with it, and what mends it. */
import type { KadrelDocument } from '../document/schema.ts';
import { boxAround, nameOf, type Finding, type FindingKind } from '../fit/finding.ts';
import { reportOf, type FitReport } from '../fit/report.ts';
import { unbuiltFinding } from '../fit/solidFindings.ts';
import { lengthWords, massWords } from '../fit/words.ts';
import type { StandingSolid } from '../questions/fitFacts.ts';
import type { MakeFacts, Round, Sounding } from '../questions/makeFacts.ts';
import { formatAngle, formatMeasure } from '../quantity/format.ts';
import { MERGED } from '../document/naming.ts';
import { boxSize } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import { bedTurn, fitsBed } from './bed.ts';
import { HAIR_MM, type MakeLimits } from './limits.ts';
import { MATERIALS, massOf } from '../document/materials.ts';
import type { MakeSurveyed } from './survey.ts';

/** What the sentences are made with. */
interface Survey {
  readonly document: KadrelDocument;
  readonly limits: MakeLimits;
  readonly solid: StandingSolid;
  readonly facts: MakeFacts;
}

type Part = Pick<Finding, 'words'> & Partial<Omit<Finding, 'id' | 'kind' | 'items' | 'what' | 'words'>>;
type Check = (survey: Survey) => Part | undefined;

/** In the order of the list. */
const CHECKS: readonly (readonly [FindingKind, Check])[] = [
  ['open', openness],
  ['wall', wall],
  ['gap', gap],
  ['pin', (survey) => round(survey, survey.facts.pin, 'pin')],
  ['bore', (survey) => round(survey, survey.facts.bore, 'bore')],
  ['inner', innerCorner],
  ['overhang', overhang],
  ['island', islands],
  ['bed', bed],
  ['stands', stands],
  ['mass', mass],
  ['sheet', sheet],
];

/** Holds what was found of each solid against the limits. */
export function makeReport(
  document: KadrelDocument,
  { solids, unbuilt }: MakeSurveyed,
  limits: MakeLimits,
): FitReport {
  return reportOf([
    ...solids.flatMap(({ solid, facts }) => findingsOf({ document, limits, solid, facts })),
    ...unbuilt.map((id) => unbuiltFinding({ document }, id)),
  ]);
}

function findingsOf(survey: Survey): Finding[] {
  const { solid, facts } = survey;
  const { item, tag } = solid;
  const common = { state: 'fault' as const, size: 0, box: facts.box, remedies: [], items: [item] };
  return CHECKS.flatMap(([kind, check]) => {
    const part = check(survey);
    if (!part) return [];
    return { ...common, ...part, id: `${kind} ${tag}`, kind, what: nameOf(survey, solid), solid: tag };
  });
}

function openness({ facts: { closed, touching, solids } }: Survey): Part | undefined {
  if (!closed) return { words: 'It is open: a surface that encloses nothing cannot be made.' };
  if (touching) return { words: 'It touches itself along a mere edge or in a point, and comes apart there.' };
  return solids > 1 ? { words: `It consists of ${solids} separate solids.`, state: 'fine' } : undefined;
}

/** A distance between two faces, with its ends. */
const sounded = ({ size, from, to }: Sounding): Partial<Part> => ({
  size,
  ends: [from, to],
  box: boxAround([from, to]),
});

function wall(survey: Survey): Part | undefined {
  const { document, limits, solid, facts } = survey;
  if (!facts.wall) return undefined;
  const { size, faces } = facts.wall;
  const words = `Its thinnest wall is ${lengthWords(size, document.scene)}, at ${shortName(faces[0])}.`;
  const isThin = isLess(size, limits.wall);
  // Another member's face, or that of a pattern's source, is not moved from here.
  const isOwn = document.items[solid.item]?.recipe !== undefined && solid.member === '';
  const by = `${limits.wall - size} mm`;
  const remedies = [
    { label: 'Thicken it', verb: 'offset-face', typed: { part: solid.item, faces: [faces[0]], by } },
  ];
  return {
    ...sounded(facts.wall),
    words: isThin ? `${words} ${lengthWords(limits.wall, document.scene)} is wanted.` : words,
    state: isThin ? 'fault' : 'fine',
    remedies: isThin && isOwn ? remedies : [],
  };
}

function gap({ document, limits, facts }: Survey): Part | undefined {
  if (!facts.gap) return undefined;
  const { size, faces } = facts.gap;
  const isNarrow = isLess(size, limits.gap);
  const words = `Its narrowest gap is ${lengthWords(size, document.scene)}, between ${shortName(faces[0])} and ${shortName(faces[1])}.`;
  return {
    ...sounded(facts.gap),
    words: isNarrow ? `${words} Below ${lengthWords(limits.gap, document.scene)} it grows together.` : words,
    state: isNarrow ? 'fault' : 'fine',
  };
}

function round(
  { document, limits }: Survey,
  found: Round | undefined,
  kind: 'pin' | 'bore',
): Part | undefined {
  if (!found) return undefined;
  const isSmall = isLess(found.diameter, limits.feature);
  const which = kind === 'pin' ? 'thinnest pin' : 'narrowest bore';
  const words = `Its ${which} is ${lengthWords(found.diameter, document.scene)} across, at ${shortName(found.face)}.`;
  return {
    words: isSmall ? `${words} ${lengthWords(limits.feature, document.scene)} is wanted.` : words,
    state: isSmall ? 'fault' : 'fine',
    size: found.diameter,
    box: boxAround([found.at]),
  };
}

function innerCorner({ document, limits: { cutter }, solid, facts: { inner } }: Survey): Part | undefined {
  if (!inner || cutter === undefined) return undefined;
  const isTight = isLess(2 * inner.radius, cutter);
  const [radius, left] = [inner.radius, cutter / 2].map((mm) => lengthWords(mm, document.scene));
  const words =
    inner.radius === 0
      ? 'An inner corner of it is sharp.'
      : `Its tightest inner corner has a radius of ${radius}.`;
  // A bore or a rounded corner is made wider by what made it.
  const canRound = isTight && inner.radius === 0 && solid.member === '';
  return {
    words: isTight ? `${words} The cutter leaves a radius of ${left}.` : words,
    state: isTight ? 'fault' : 'fine',
    size: inner.radius,
    box: boxAround([inner.at]),
    remedies: canRound
      ? [
          {
            label: 'Round its inner corners',
            verb: 'fillet',
            typed: { part: solid.item, edges: 'inward', radius: `${cutter / 2} mm` },
          },
        ]
      : [],
  };
}

function overhang({ document, limits, solid, facts }: Survey): Part | undefined {
  if (!facts.overhang) return undefined;
  const { area, steepest, box, better } = facts.overhang;
  const leans = `up to ${degreesWords(steepest)} from upright`;
  const words = `${areaWords(area, document)} hang over by more than ${degreesWords(limits.overhang)}, ${leans}.`;
  const turn = better && {
    label: `Turn it ${better.angle}° about ${better.about.toUpperCase()}: ${areaWords(better.area, document)} are left`,
    verb: 'turn',
    typed: { parts: [solid.item], angle: String(better.angle), about: better.about },
  };
  return { words, size: area, box, remedies: turn && solid.member === '' ? [turn] : [] };
}

function islands({ document, facts: { islands: places } }: Survey): Part | undefined {
  if (places.length === 0) return undefined;
  const [[x, y, z]] = places as [Vec3];
  const at = `at ${[x, y, z].map((n) => lengthWords(n, document.scene)).join(', ')}`;
  const words =
    places.length === 1
      ? `A piece of it begins in the air, ${at}: it needs a support.`
      : `${places.length} pieces of it begin in the air, the first ${at}: they need supports.`;
  return { words, size: places.length, box: boxAround(places) };
}

function bed({ document, limits, solid, facts }: Survey): Part | undefined {
  if (!limits.bed) return undefined;
  const size = boxSize(facts.box);
  const words = (mm: Vec3) => mm.map((n) => lengthWords(n, document.scene)).join(' by ');
  if (fitsBed(size, limits.bed))
    return { words: `It fits: ${words(size)} on ${words(limits.bed)}.`, state: 'fine' };
  const turn = bedTurn(size, limits.bed);
  const remedies = turn && [
    {
      label: `Turn it ${turn.angle}° about ${turn.about.toUpperCase()}`,
      verb: 'turn',
      typed: { parts: [solid.item], angle: String(turn.angle), about: turn.about },
    },
  ];
  return {
    words: `It does not fit: ${words(size)} on ${words(limits.bed)}.${turn ? ' Turned it would.' : ''}`,
    size: Math.max(...size),
    remedies: remedies && solid.member === '' ? remedies : [],
  };
}

function stands({ document, facts: { footing, centroid } }: Survey): Part | undefined {
  const { margin, hull } = footing;
  const box = boxAround([centroid]);
  if (margin > STANDS_MM) {
    const words = `It stands: its centre of mass is ${lengthWords(margin, document.scene)} within what it stands on.`;
    return { words, state: 'fine', size: margin, box };
  }
  const on = ['nothing', 'a point', 'a line'][hull.length];
  const why =
    on === undefined
      ? `its centre of mass is ${lengthWords(-margin, document.scene)} outside what it stands on`
      : `it stands on ${on}`;
  return { words: `It falls over: ${why}.`, size: margin, box };
}
/** What stands by less than this, mm, stands by chance. */
const STANDS_MM = 1e-3;

function mass({ limits, facts }: Survey): Part {
  const { name, density } = MATERIALS[limits.material];
  const grams = massOf(facts.volume, limits.material);
  return {
    words: `About ${massWords(grams)} of ${name}, at ${density} g/cm³, filled.`,
    state: 'fine',
    size: grams,
  };
}

function sheet({ document, facts: { sheet: found } }: Survey): Part | undefined {
  if (!found) return undefined;
  const [thickness, cut] = [found.thickness, found.cut].map((mm) => lengthWords(mm, document.scene));
  return { words: `A sheet of ${thickness}: cutting it out is ${cut} long.`, state: 'fine', size: found.cut };
}

const isLess = (mm: number, wanted: number) => mm < wanted - HAIR_MM;

/** Of a face that several have become, the first. */
const shortName = (name: string) => name.split(MERGED)[0]!;
const degreesWords = (degrees: number) => formatAngle(degrees, 2);
const areaWords = (mm2: number, { scene }: KadrelDocument) => formatMeasure(mm2, 2, scene);

/** The kinds of a report about making, in its order. */
export const MAKE_KINDS: readonly FindingKind[] = CHECKS.map(([kind]) => kind);
