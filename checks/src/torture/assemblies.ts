/** Solids placed and turned at random, pair by pair against facets; and planted faults, against the report. */
import {
  USUAL_SCOPE,
  poseOf,
  visibleParts,
  type Finding,
  type KadrelDocument,
  type PairFacts,
  type Replies,
  type SolidPair,
  type Vec3,
} from '@kadrel/core';
import { Evaluator, fitReportOf } from '@kadrel/kernel';
import type { loadLibraries } from '@kadrel/kernel/node';
import type { ManifoldToplevel } from 'manifold-3d';
import { built, numbers, type Statement } from '@kadrel/testing';
import { laidOut, volumeByFormula, type Solid } from './facets.ts';

export type Libraries = Awaited<ReturnType<typeof loadLibraries>>;

export interface PairVerdict {
  readonly class: string;
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly seed: number;
  readonly words: string;
}

interface Standing {
  readonly solid: Solid;
  readonly origin: Vec3;
  readonly turn: Vec3;
}

type Random = () => number;

const between = (random: Random, low: number, high: number) => low + random() * (high - low);
const whole = (random: Random, low: number, high: number) => Math.round(between(random, low, high));

function someSolid(random: Random): Solid {
  const size = () => whole(random, 4, 24);
  switch (Math.floor(random() * 6)) {
    case 0:
      return { verb: 'box', size: [size(), size(), size()] };
    case 1:
      return { verb: 'cylinder', diameter: size(), height: size() };
    case 2:
      return { verb: 'sphere', diameter: size() };
    case 3:
      return {
        verb: 'cone',
        diameter: size(),
        top: random() < 0.5 ? 0 : whole(random, 1, 3),
        height: size(),
      };
    case 4: {
      const bore = size();
      return { verb: 'tube', diameter: bore + whole(random, 2, 8), bore, height: size() };
    }
    default: {
      const thickness = whole(random, 2, 6);
      return { verb: 'torus', diameter: thickness + whole(random, 8, 24), thickness };
    }
  }
}

/** Most stand near one another; half of them are turned by whole quarters, or not at all. */
function somewhere(random: Random): Pick<Standing, 'origin' | 'turn'> {
  const isSquare = random() < 0.4;
  const reach = 22;
  const number = () => (isSquare ? whole(random, -reach, reach) : between(random, -reach, reach));
  const angle = () => (isSquare ? 90 * whole(random, 0, 3) : between(random, -180, 180));
  return { origin: [number(), number(), number()], turn: [angle(), angle(), angle()] };
}

/** The statements make them where they stand by their own origins; the turn is set as it is. */
export function documentOf(standing: readonly Standing[]): KadrelDocument {
  const document = built(
    standing.map(({ solid: { verb, ...sizes } }, i): Statement => [
      verb,
      { ...sizes, as: `solid ${i}`, at: [0, 0, 0] },
    ]),
  );
  const items = Object.fromEntries(
    Object.values(document.items).map((item) => {
      const { origin, turn } = standing[Number(item.name.split(' ')[1])]!;
      return [
        item.id,
        {
          ...item,
          placement: {
            origin: [...origin] as [number, number, number],
            turn: [...turn] as [number, number, number],
          },
        },
      ];
    }),
  );
  return { ...document, items };
}

/** How far facets may be from the true surface, mm: 96 of them go round. */
function sagitta(solid: Solid): number {
  const step = 1 - Math.cos(Math.PI / 96);
  switch (solid.verb) {
    case 'box':
      return 0;
    case 'torus':
      return ((solid.diameter + solid.thickness) / 2 + solid.thickness / 2) * step;
    case 'sphere':
      // Its facets are laid over an octahedron: their middles are farther off.
      return 2 * solid.diameter * step;
    default:
      return (solid.diameter / 2) * step;
  }
}

/** What doubles may be off by where facets are compared, mm. */
const NOISE_MM = 1e-5;
/** An overlap larger than this part of the smaller solid must not be missed. */
const MISSED = 1e-6;

export function tryAssembly(libraries: Libraries, facets: ManifoldToplevel, seed: number): PairVerdict[] {
  const random = numbers(seed);
  const standing = Array.from({ length: 3 }, () => ({ solid: someSolid(random), ...somewhere(random) }));
  const document = documentOf(standing);
  const kernel = new Evaluator(libraries);
  const parts = visibleParts(document).map(({ id }) => id);
  const pairs: [number, number][] = [
    [0, 1],
    [0, 2],
    [1, 2],
  ];
  const asked = pairs.map(([i, j]): SolidPair => [parts[i]!, parts[j]!]);
  const facts = kernel.answer(document, { ask: 'pairs', pairs: asked, reach: 1e6 }) as Replies['pairs'];
  return pairs.map(([i, j], k) =>
    judged(facets, [standing[i]!, standing[j]!], { facts: facts[k] ?? null, seed }),
  );
}

function judged(
  facets: ManifoldToplevel,
  [a, b]: readonly [Standing, Standing],
  { facts, seed }: { readonly facts: PairFacts | null; readonly seed: number },
): PairVerdict {
  const common = { class: [a.solid.verb, b.solid.verb].sort().join(' and '), seed };
  if (!facts) return { ...common, outcome: 'wrong', words: 'nothing is told' };
  if (facts.doubt !== undefined) return { ...common, outcome: 'refused', words: facts.doubt };
  const [p, q] = [a, b].map(({ solid, origin, turn }) => laidOut(facets, solid, poseOf(origin, turn))) as [
    ReturnType<typeof laidOut>,
    ReturnType<typeof laidOut>,
  ];
  const shared = p.solid.intersect(q.solid);
  const volume = shared.volume();
  const slack = sagitta(a.solid) + sagitta(b.solid) + NOISE_MM;
  // No farther than it must be: the library takes a minute over rings otherwise. What is farther comes out as that far.
  const gap = facts.overlap ? 0 : p.solid.minGap(q.solid, facts.gap + 2 * slack);
  for (const one of [shared, p.solid, q.solid]) one.delete();
  const error = p.error + q.error;
  const smaller = Math.min(volumeByFormula(a.solid), volumeByFormula(b.solid));
  const ours = facts.overlap?.volume ?? 0;
  if (Math.abs(ours - volume) > error + MISSED * smaller)
    return { ...common, outcome: 'wrong', words: `they share ${ours} mm³; by facets ${volume}` };
  if (!facts.overlap && Math.abs(facts.gap - gap) > slack)
    return {
      ...common,
      outcome: 'wrong',
      words: `${facts.gap} mm apart; by facets ${gap}, give or take ${slack}`,
    };
  return { ...common, outcome: 'right', words: '' };
}

/** Small faults, each as it is planted and as the report must call it. */
const PLANTED = {
  floating: 'float by 0.00001 mm',
  overlap: 'overlap of 0.0001 mm³',
  double: 'a double',
  below: 'a sunk foot',
} as const;
export type Planted = keyof typeof PLANTED;
export const PLANTED_KINDS = Object.keys(PLANTED) as Planted[];

/** A plate with posts on it, and caps on those; on the bed. */
function cleanAssembly(random: Random): Statement[] {
  const posts = whole(random, 2, 5);
  const thickness = whole(random, 2, 8);
  const statements: Statement[] = [
    ['box', { as: 'plate', size: [40 * posts, 40, thickness], at: [0, 0, 0] }],
  ];
  for (let i = 0; i < posts; i++) {
    const [height, at] = [whole(random, 5, 30), [40 * i + 20, 20]];
    const isRound = random() < 0.5;
    statements.push(
      isRound
        ? ['cylinder', { as: `post ${i}`, diameter: whole(random, 6, 16), height, at: [...at, thickness] }]
        : ['box', { as: `post ${i}`, size: [10, 12, height], at: [at[0]! - 5, at[1]! - 6, thickness] }],
      ['cylinder', { as: `cap ${i}`, diameter: 20, height: 3, at: [...at, thickness + height] }],
    );
  }
  return statements;
}

/** Its own change of one part. */
function withFault(statements: readonly Statement[], fault: Planted, random: Random): Statement[] {
  const caps = statements.filter(([, { as }]) => String(as).startsWith('cap'));
  const chosen = caps[Math.floor(random() * caps.length)]!;
  const [x, y, z] = chosen[1].at as [number, number, number];
  const moved = (at: Vec3): Statement[] =>
    statements.map((one) => (one === chosen ? [one[0], { ...one[1], at }] : one));
  switch (fault) {
    case 'floating':
      return moved([x, y, z + 1e-5]);
    case 'overlap': {
      // A cube that goes into the upper corner of the plate by the cube root of it, all three ways.
      const side = Math.cbrt(1e-4);
      const [, , thickness] = statements[0]![1].size as [number, number, number];
      const at = [side - 5, side - 5, thickness - side];
      return [...statements, ['box', { as: 'chip', size: [5, 5, 5], at }]];
    }
    case 'double':
      return [...statements, [chosen[0], { ...chosen[1], as: 'twin' }]];
    case 'below':
      return [...statements, ['box', { as: 'foot', size: [5, 5, 5], at: [-20, 0, -1e-4] }]];
  }
}

/** The faults of a clean assembly, and of one with a planted fault; the chip of an overlap is held by that alone. */
export async function tryPlanted(
  libraries: Libraries,
  seed: number,
  fault: Planted,
): Promise<{ readonly clean: readonly Finding[]; readonly found: readonly Finding[] }> {
  const kernel = new Evaluator(libraries);
  const statements = cleanAssembly(numbers(seed));
  const faultsOf = async (document: KadrelDocument) =>
    (await fitReportOf(kernel, document, USUAL_SCOPE)).findings.filter(({ state }) => state === 'fault');
  return {
    clean: await faultsOf(built(statements)),
    found: await faultsOf(built(withFault(statements, fault, numbers(seed + 1)))),
  };
}
