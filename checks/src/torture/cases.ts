/** Seeded scenes of solids to be combined, by class. Every class is made of random sizes and places, or plants what goes wrong easily. */
import type { Embossed, How, Solid, Solids } from './facets.ts';
import type { Body, Figure } from './sketches.ts';

export interface Placed {
  readonly solid: Solids;
  readonly at: readonly [number, number, number];
  /** Degrees about X, Y, Z. */
  readonly turn: readonly [number, number, number];
}

/** What is combined: solids, what was combined before, what is repeated, and mirror images. */
export type Tree =
  | Placed
  | { readonly how: How; readonly of: readonly Tree[] }
  | {
      readonly repeated: Placed;
      readonly columns: number;
      readonly rows: number;
      readonly pitch: readonly [number, number];
    }
  /** At the plane square to X there. */
  | { readonly mirrored: Placed; readonly at: number };

export interface Scene {
  readonly of: readonly Tree[];
}

type Random = () => number;
type Kind = Solid['verb'];
const KINDS: readonly Kind[] = ['box', 'cylinder', 'sphere', 'cone', 'tube', 'torus'];

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const whole = (random: Random, from: number, to: number) => from + Math.floor(random() * (to - from + 1));
const between = (random: Random, from: number, to: number) => from + random() * (to - from);
/** Half of all numbers are whole, as people say them. */
const number = (random: Random, from: number, to: number) =>
  random() < 0.5 ? whole(random, from, to) : between(random, from, to);

export function solidOf(random: Random, kind: Kind, min = 2, max = 12): Solid {
  const size = () => number(random, min, max);
  switch (kind) {
    case 'box':
      return { verb: 'box', size: [size(), size(), size()] };
    case 'cylinder':
      return { verb: 'cylinder', diameter: size(), height: size() };
    case 'sphere':
      return { verb: 'sphere', diameter: size() };
    case 'cone': {
      const diameter = size();
      return {
        verb: 'cone',
        diameter,
        top: random() < 0.3 ? 0 : diameter * pick(random, [0.25, 0.5, 1.5]),
        height: size(),
      };
    }
    case 'tube': {
      const diameter = size();
      return { verb: 'tube', diameter, bore: diameter * pick(random, [0.25, 0.5, 0.8]), height: size() };
    }
    case 'torus': {
      const diameter = size() + 2;
      return { verb: 'torus', diameter, thickness: diameter * pick(random, [0.2, 0.4, 0.6]) };
    }
  }
}

const TURNS = [0, 0, 0, 90, 180, 30, 45, 60];
const turnOf = (random: Random): Placed['turn'] => {
  const one = () => (random() < 0.7 ? pick(random, TURNS) : between(random, -180, 180));
  return random() < 0.5 ? [0, 0, 0] : [one(), one(), one()];
};
const placeOf = (random: Random, reach: number): Placed['at'] => [
  number(random, -reach, reach),
  number(random, -reach, reach),
  number(random, -reach, reach),
];
const anySolid = (random: Random, reach = 5): Placed => ({
  solid: solidOf(random, pick(random, KINDS)),
  at: placeOf(random, reach),
  turn: turnOf(random),
});
const still = (solid: Solid, at: Placed['at']): Placed => ({ solid, at, turn: [0, 0, 0] });
const moved = (one: Placed, by: readonly number[]): Placed => ({
  ...one,
  at: one.at.map((n, i) => n + by[i]!) as unknown as Placed['at'],
});

function direction(random: Random): readonly [number, number, number] {
  const along = pick(random, ['axis', 'plane', 'any']);
  if (along === 'axis') return pick(random, [[1, 0, 0] as const, [0, 1, 0] as const, [0, 0, 1] as const]);
  const d = [between(random, -1, 1), between(random, -1, 1), along === 'plane' ? 0 : between(random, -1, 1)];
  const size = Math.hypot(...d) || 1;
  return d.map((n) => n / size) as unknown as [number, number, number];
}

/** A rectangle with holes, or a round one, none of which touch each other. */
function figures(random: Random): Figure[] {
  const [w, h] = [number(random, 6, 14), number(random, 6, 14)];
  const min = Math.min(w, h);
  const outer: Figure = {
    verb: 'rectangle',
    at: [0, 0],
    width: w,
    height: h,
    round: pick(random, [0, 0, 1, 2.5]),
  };
  const hole = min * pick(random, [0.2, 0.35, 0.5]);
  const middle = [w / 2, h / 2] as const;
  return pick(random, [
    [outer],
    [outer, { verb: 'circle', at: middle, diameter: hole }],
    [outer, { verb: 'ellipse', at: middle, width: hole, height: hole / 2 }],
    [
      outer,
      { verb: 'circle', at: middle, diameter: 0.7 * min },
      { verb: 'circle', at: middle, diameter: 0.3 * min },
    ],
  ] satisfies Figure[][]);
}

const ANGLES = [360, 360, 90, -90, 180, 270, -300, 37.5];
function body(random: Random): Body {
  if (random() < 0.5)
    return {
      verb: 'raise',
      figures: figures(random),
      height: number(random, 2, 10),
      down: pick(random, [0, 0, 2, 3.5]),
    };
  const [at, ...rest] = figures(random);
  return { verb: 'revolve', figures: [at!, ...rest], angle: pick(random, ANGLES) };
}
const anyBody = (random: Random): Placed => ({
  solid: body(random),
  at: placeOf(random, 6),
  turn: turnOf(random),
});

function embossed(random: Random): Embossed {
  const size = [number(random, 6, 12), number(random, 6, 12), number(random, 3, 8)] as const;
  const diameter = Math.min(size[0], size[1]) * pick(random, [0.3, 0.5, 0.75]);
  const disc = { at: [size[0] / 2, size[1] / 2] as const, diameter };
  return { verb: 'emboss', size, disc, depth: pick(random, [1, -1, 0.5, -2]) };
}

const PLAIN: readonly Kind[] = ['box', 'cylinder', 'sphere', 'cone', 'tube'];
function repeated(random: Random): Tree {
  const [columns, rows] = [whole(random, 1, 3), whole(random, 2, 3)];
  return {
    // Rings that cross rings many times over take the kernel a second for every two of them.
    repeated: { ...anySolid(random, 4), solid: solidOf(random, pick(random, PLAIN)) },
    columns,
    rows,
    pitch: [number(random, 3, 12), number(random, 3, 12)],
  };
}

const HOWS: readonly How[] = ['union', 'subtract', 'intersect'];
function nested(random: Random, depth: number): Tree {
  if (depth === 0) return anySolid(random, 4);
  // A union keeps something to go on with.
  const how = random() < 0.6 ? 'union' : 'subtract';
  return { how, of: [nested(random, depth - 1), anySolid(random, 4)] };
}

/** Along which way two solids of a kind touch from outside, and the distance of their places. */
function tangent(random: Random): Scene {
  const [a, b] = [whole(random, 2, 10), whole(random, 2, 10)];
  const isInner = random() < 0.4 && a !== b;
  const apart = isInner ? Math.abs(a - b) / 2 : (a + b) / 2;
  const angle = random() < 0.5 ? 0 : between(random, 0, 2 * Math.PI);
  const [x, y] = [apart * Math.cos(angle), apart * Math.sin(angle)];
  const offset = random() < 0.5 ? 0 : number(random, -3, 3);
  if (random() < 0.25)
    return {
      of: [
        still({ verb: 'sphere', diameter: a }, [0, 0, 0]),
        still({ verb: 'sphere', diameter: b }, [x, y, 0]),
      ],
    };
  const height = number(random, 3, 10);
  return {
    of: [
      still({ verb: 'cylinder', diameter: a, height }, [0, 0, 0]),
      still({ verb: 'cylinder', diameter: b, height: random() < 0.5 ? height : number(random, 3, 10) }, [
        x,
        y,
        offset,
      ]),
    ],
  };
}

function flush(random: Random): Scene {
  const [x, y, z] = [whole(random, 2, 10), whole(random, 2, 10), whole(random, 2, 10)];
  const base = still({ verb: 'box', size: [x, y, z] }, [0, 0, 0]);
  const kind = pick(random, ['box', 'cylinder', 'cone', 'edge', 'corner', 'inside']);
  const size = (n: number): number => Math.max(1, whole(random, 1, n));
  if (kind === 'edge')
    return {
      of: [base, still({ verb: 'box', size: [size(9), size(9), size(9)] }, [x, y, whole(random, -2, z)])],
    };
  if (kind === 'corner')
    return { of: [base, still({ verb: 'box', size: [size(9), size(9), size(9)] }, [x, y, z])] };
  if (kind === 'inside')
    return {
      of: [base, still({ verb: 'box', size: [size(x), size(y), size(z)] }, [0, 0, whole(random, 0, z - 1)])],
    };
  if (kind === 'box')
    return {
      of: [
        base,
        still({ verb: 'box', size: [size(9), size(9), size(9)] }, [
          whole(random, -3, x),
          whole(random, -3, y),
          z,
        ]),
      ],
    };
  const at: Placed['at'] = [whole(random, 0, x), whole(random, 0, y), random() < 0.5 ? z : 0];
  const round: Solid =
    kind === 'cylinder'
      ? { verb: 'cylinder', diameter: size(8), height: size(8) }
      : { verb: 'cone', diameter: size(8), top: random() < 0.5 ? 0 : 1.5, height: size(8) };
  return { of: [base, still(round, at)] };
}

const GAPS = [1e-2, 1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-8];

export const PATTERNS = 'patterns';
export const CLASSES: Readonly<Record<string, (random: Random) => Scene>> = {
  'two solids': (random) => ({ of: [anySolid(random), anySolid(random)] }),
  'three to five solids': (random) => ({
    of: Array.from({ length: whole(random, 3, 5) }, () => anySolid(random)),
  }),
  'results used again': (random) => ({ of: [nested(random, whole(random, 1, 5)), anySolid(random, 4)] }),
  'flush, coplanar, at edges and corners': flush,
  tangent,
  'equal radii crossing': (random) => {
    const diameter = number(random, 3, 9);
    const turn: Placed['turn'] = random() < 0.5 ? [90, 0, 0] : [pick(random, [30, 45, 60]), 0, 0];
    const long = { verb: 'cylinder', diameter, height: 24 } as const;
    const other: Placed = { solid: long, at: turn[0] === 90 ? [0, 12, 12] : [0, 6, 3], turn };
    return { of: [still(long, [0, 0, 0]), other] };
  },
  concentric: (random) => {
    const [a, b] = [solidOf(random, pick(random, KINDS)), solidOf(random, pick(random, KINDS))];
    const middle = (solid: Solid): Placed => {
      const height = 'height' in solid ? solid.height : 0;
      return still(
        solid,
        solid.verb === 'box'
          ? (solid.size.map((n) => -n / 2) as unknown as Placed['at'])
          : [0, 0, -height / 2],
      );
    };
    return { of: [middle(a), middle(b)] };
  },
  'identical copies': (random) => {
    const one = anySolid(random);
    return { of: [one, one] };
  },
  'pegs without clearance': (random) => {
    const diameter = number(random, 2, 6);
    const plate: Tree = {
      how: 'subtract',
      of: [
        still({ verb: 'box', size: [20, 20, 5] }, [-10, -10, 0]),
        still({ verb: 'cylinder', diameter, height: 9 }, [0, 0, -2]),
      ],
    };
    const peg = still({ verb: 'cylinder', diameter, height: number(random, 3, 12) }, [
      0,
      0,
      whole(random, -4, 4),
    ]);
    return { of: [plate, peg] };
  },
  'ten metres and a tenth of a millimetre': (random) => {
    const large: Placed = {
      solid: solidOf(random, pick(random, ['box', 'cylinder', 'sphere'] as const), 5000, 10000),
      at: [0, 0, 0],
      turn: [0, 0, 0],
    };
    const small = solidOf(random, pick(random, KINDS), 0.1, 0.4);
    const { solid } = large;
    const top = solid.verb === 'box' ? solid.size[2] : 'height' in solid ? solid.height : 0;
    const surface: Placed['at'] = solid.verb === 'sphere' ? [0, 0, solid.diameter / 2] : [10, 10, top];
    return {
      of: [large, moved(still(small, surface), [between(random, -0.1, 0.1), 0, between(random, -0.1, 0.1)])],
    };
  },
  'bodies from profiles': (random) => ({
    of: [anyBody(random), random() < 0.5 ? anyBody(random) : anySolid(random)],
  }),
  [PATTERNS]: (random) => ({ of: [repeated(random), random() < 0.3 ? repeated(random) : anySolid(random)] }),
  steps: (random) => {
    const stepped: Tree =
      random() < 0.5
        ? { mirrored: random() < 0.5 ? anySolid(random) : anyBody(random), at: number(random, -3, 3) }
        : { solid: embossed(random), at: placeOf(random, 4), turn: turnOf(random) };
    return { of: [stepped, anySolid(random)] };
  },
  'nearly coincident': (random) => {
    const one = anySolid(random, 3);
    const gap = pick(random, GAPS);
    return {
      of: [
        one,
        moved(
          one,
          direction(random).map((n) => n * gap),
        ),
      ],
    };
  },
};

export const NEAR_CLASS = 'nearly coincident';
export { HOWS };
