/**
 * Limits and fits after ISO 286-1 and -2: tolerance grades IT5 to IT11, and the usual positions of holes and shafts, for nominal sizes
 * up to 500 mm. The standard's tables, from memory; checks/src/iso286.test.ts holds the grades against the formula of the standard.
 */

/** Upper ends of the ranges of nominal sizes, mm. */
const RANGES = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500] as const;
/** The tables end here, mm. */
export const MAX_NOMINAL_MM = 500;

/** µm, for each range. */
const GRADES: Readonly<Record<number, readonly number[]>> = {
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
};

/** Upper deviations of shafts with clearance, µm; those of holes are the same below the line. */
const CLEAR: Readonly<Record<string, readonly number[]>> = {
  d: [-20, -30, -40, -50, -65, -80, -100, -120, -145, -170, -190, -210, -230],
  e: [-14, -20, -25, -32, -40, -50, -60, -72, -85, -100, -110, -125, -135],
  f: [-6, -10, -13, -16, -20, -25, -30, -36, -43, -50, -56, -62, -68],
  g: [-2, -4, -5, -6, -7, -9, -10, -12, -14, -15, -17, -18, -20],
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
};

/** Lower deviations of shafts without clearance, µm. */
const TIGHT: Readonly<Record<string, readonly number[]>> = {
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
};

/** Those whose ranges are finer: upper end, mm, and lower deviation of a shaft, µm. */
const FINE: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  r: [
    [3, 10],
    [6, 15],
    [10, 19],
    [18, 23],
    [30, 28],
    [50, 34],
    [65, 41],
    [80, 43],
    [100, 51],
    [120, 54],
    [140, 63],
    [160, 65],
    [180, 68],
    [200, 77],
    [225, 80],
    [250, 84],
    [280, 94],
    [315, 98],
    [355, 108],
    [400, 114],
    [450, 126],
    [500, 132],
  ],
  s: [
    [3, 14],
    [6, 19],
    [10, 23],
    [18, 28],
    [30, 35],
    [50, 43],
    [65, 53],
    [80, 59],
    [100, 71],
    [120, 79],
    [140, 92],
    [160, 100],
    [180, 108],
    [200, 122],
    [225, 130],
    [250, 140],
    [280, 158],
    [315, 170],
    [355, 190],
    [400, 208],
    [450, 232],
    [500, 252],
  ],
};

/** Limits of a diameter beside its nominal size, mm. */
export interface Deviations {
  readonly lower: number;
  readonly upper: number;
}

/** Limits of a hole and a shaft, and what they leave between them, mm. */
export interface IsoFit {
  readonly hole: Deviations;
  readonly shaft: Deviations;
  /** mm; less than 0 is interference. */
  readonly leastClearance: number;
  readonly greatestClearance: number;
  readonly kind: 'clearance' | 'transition' | 'interference';
}

const CLASS = /^(js|[d-hkmnprs])(5|6|7|8|9|10|11)$/;

/** `g6`, or `H7` for a hole. @param nominal mm @returns undefined where the standard, as it is here, has none */
export function deviationsOf(nominal: number, name: string): Deviations | undefined {
  const range = RANGES.findIndex((end) => nominal <= end);
  const read = CLASS.exec(name.toLowerCase());
  const isHole = name[0] !== name[0]?.toLowerCase();
  if (!(nominal > 0) || range < 0 || !read || (isHole && /^[A-Z][a-z]/.test(name))) return undefined;
  const [letter, grade] = [read[1]!, Number(read[2])];
  const width = GRADES[grade]![range]!;
  const [lower, upper] = isHole
    ? holeDeviations(letter, { nominal, range, grade, width })
    : shaftDeviations(letter, { nominal, range, grade, width });
  return { lower: lower / 1000, upper: upper / 1000 };
}

interface Where {
  readonly nominal: number;
  readonly range: number;
  readonly grade: number;
  /** The tolerance, µm. */
  readonly width: number;
}

function shaftDeviations(letter: string, { nominal, range, grade, width }: Where): [number, number] {
  if (letter === 'js') return [-width / 2, width / 2];
  const above = CLEAR[letter]?.[range];
  if (above !== undefined) return [above - width, above + 0];
  // k has a deviation up to IT7 alone.
  const below = letter === 'k' && grade > 7 ? 0 : lowerOf(letter, nominal, range);
  return [below, below + width];
}

const lowerOf = (letter: string, nominal: number, range: number): number =>
  TIGHT[letter]?.[range] ?? FINE[letter]!.find(([end]) => nominal <= end)![1];

/** A hole is a shaft turned over; tight ones have the step between two grades added, so that H6/n5 and N6/h5 are one fit. */
function holeDeviations(letter: string, { nominal, range, grade, width }: Where): [number, number] {
  if (letter === 'js') return [-width / 2, width / 2];
  const above = CLEAR[letter]?.[range];
  if (above !== undefined) return [-above + 0, -above + width];
  const isStepped = nominal > 3 && grade <= (/[kmn]/.test(letter) ? 8 : 7);
  const step = isStepped ? width - (GRADES[grade - 1] ?? IT4)[range]! : 0;
  if (letter === 'n' && grade > 8 && nominal > 3) return [-width, 0];
  if (letter === 'k' && grade > 8) return [-width, 0];
  const special = letter === 'm' && grade === 6 && nominal > 250 && nominal <= 315 ? 2 : 0;
  const upper = -lowerOf(letter, nominal, range) + step + special;
  return [upper - width, upper + 0];
}

/** Only for the step from IT4 to IT5. */
const IT4 = [3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20];

/** `H7/g6`. @param nominal mm */
export function isoFit(nominal: number, grades: string): IsoFit | undefined {
  const [first = '', second = ''] = grades.replaceAll(/\s/g, '').split('/');
  const isHole = (name: string) => /^[A-Z]/.test(name);
  if (!isHole(first) || isHole(second)) return undefined;
  const [hole, shaft] = [deviationsOf(nominal, first), deviationsOf(nominal, second)];
  if (!hole || !shaft) return undefined;
  const leastClearance = rounded(hole.lower - shaft.upper);
  const greatestClearance = rounded(hole.upper - shaft.lower);
  const kind = leastClearance >= 0 ? 'clearance' : greatestClearance <= 0 ? 'interference' : 'transition';
  return { hole, shaft, leastClearance, greatestClearance, kind };
}

/** Deviations are whole and half µm. */
const rounded = (mm: number) => Math.round(mm * 1e4) / 1e4;
