/** What a click on a drawing sheet writes into the statement in hand. Pure functions on plain data; places in mm of the paper. */
import {
  distance2,
  dot2,
  mix2,
  placedThrough,
  subtract2,
  verbNamed,
  type Blank,
  type DrawnCatch,
  type TiedDimension,
  type Tie,
  type Vec2,
} from '@kadrel/core';
import { exactMm, withPick, type Statement, type Typed } from './statement.ts';

/** Where a view is drawn, and how large. */
export interface OnPaper {
  readonly at: Vec2;
  readonly scale: number;
}

/** A catch on the paper. */
export interface Caught {
  readonly view: string;
  readonly at: Vec2;
  readonly caught: DrawnCatch;
}

/** A point of a view on paper, mm. */
export const paperPlace = ({ at, scale }: OnPaper, [x, y]: readonly number[]): Vec2 => [
  at[0] + scale * x!,
  at[1] + scale * y!,
];

/** Edges are caught less far away than points, as a part of the reach: their ends and middles can be told from them. */
const EDGE_REACH = 0.65;

/** A round edge is caught by its rim, a straight one all along, and what is a point in the picture there. */
function distanceTo(place: Vec2, { at, caught }: Caught, { scale, at: origin }: OnPaper): number {
  if (caught.ends) {
    const [from, to] = caught.ends.map((end) => paperPlace({ at: origin, scale }, end)) as [Vec2, Vec2];
    return distance2(place, nearestBetween(from, to, place));
  }
  const centre = distance2(place, at);
  return caught.radius === undefined ? centre : Math.min(centre, Math.abs(centre - caught.radius * scale));
}

function nearestBetween(from: Vec2, to: Vec2, place: Vec2): Vec2 {
  const whole = subtract2(to, from);
  const size = dot2(whole, whole);
  if (size === 0) return from;
  const part = Math.min(1, Math.max(0, dot2(subtract2(place, from), whole) / size));
  return mix2(from, to, part);
}

export interface Reaching {
  readonly place: Vec2;
  /** mm */
  readonly reach: number;
  readonly viewOf: (view: string) => OnPaper;
}

/** What is caught within reach: a point before edges, then the nearest; of several in one place the one nearest to who looks. */
export function nearestCatch(
  catches: readonly Caught[],
  { place, reach, viewOf }: Reaching,
): Caught | undefined {
  let best: Near | undefined;
  for (const one of catches) {
    const off = distanceTo(place, one, viewOf(one.view));
    if (off > (isEdge(one) ? EDGE_REACH * reach : reach)) continue;
    if (!best || isBefore({ one, off }, best)) best = { one, off };
  }
  return best?.one;
}

interface Near {
  readonly one: Caught;
  /** How far away, mm. */
  readonly off: number;
}

const SAME_PLACE = 1e-6;
const isEdge = ({ caught }: Caught) => caught.snap === 'edge';

function isBefore(a: Near, b: Near): boolean {
  if (isEdge(a.one) !== isEdge(b.one)) return isEdge(b.one);
  if (Math.abs(a.off - b.off) >= SAME_PLACE) return a.off < b.off;
  return a.one.caught.at[2] > b.one.caught.at[2] + SAME_PLACE;
}

/** The blank that is filled by clicks on what is drawn. */
export const tiesBlank = ({ verb }: Pick<Statement, 'verb'>): string | undefined =>
  Object.entries(verbNamed(verb)!.blanks).find(([, { type }]) => type === 'ties')?.[0];

/** As a ledger tells it. */
export function pickOf({ named, point }: Tie): unknown {
  if (!named) return point.map(exactMm);
  const { part, ...rest } = named;
  return { on: part, ...rest };
}

/** The statement with one more tie; its view is the one that was clicked in. */
export function withTie(statement: Statement, { view, caught }: Caught): Statement {
  const blank = tiesBlank(statement);
  if (blank === undefined) return statement;
  const { single } = verbNamed(statement.verb)!.blanks[blank]!;
  const before = statement.typed[blank];
  // What stands in another view cannot be measured together with this.
  const others =
    single || statement.typed.view !== view || !Array.isArray(before) ? [] : (before as unknown[]);
  const next = [...others, pickOf(caught.tie)];
  const picked = withPick(statement, blank, next);
  return { ...picked, typed: { ...picked.typed, ...kindFor(statement, caught), view } };
}

/** A round edge by itself asks for its diameter; a second place for a length again. */
function kindFor({ verb, typed }: Statement, { radius, isAside, snap }: DrawnCatch): Typed {
  const { kind } = verbNamed(verb)!.blanks as Record<string, Blank | undefined>;
  const isRound = (radius !== undefined || isAside) && snap === 'edge';
  if (kind?.choices?.diameter === undefined || typed.kind !== kind.default || !isRound) return {};
  return { kind: 'diameter' };
}

/** Where a click beside what is drawn puts the line, the leader, or the thing itself; undefined where it says nothing. */
export function placedBeside(
  statement: Statement,
  place: Vec2,
  tied: TiedDimension | null,
): Typed | undefined {
  const { blanks } = verbNamed(statement.verb)!;
  if (blanks.offset && tied) {
    const { offset, bearing } = placedOnPaper(tied, place);
    const isTurned = blanks.bearing && bearing !== tied.dimension.bearing;
    return { offset: exactMm(offset), ...(isTurned ? { bearing: String(bearing) } : {}) };
  }
  if (blanks.x && blanks.y && !blanks.offset)
    return { x: exactMm(tenth(place[0])), y: exactMm(tenth(place[1])) };
  return undefined;
}

/** Where a dimension goes through a place: to a tenth of a millimetre and whole degrees. */
export function placedOnPaper(
  tied: TiedDimension,
  place: Vec2,
): Pick<TiedDimension['dimension'], 'offset' | 'bearing'> {
  const { offset, bearing } = placedThrough(tied, place);
  return { offset: tenth(offset), bearing: Math.round(bearing) };
}

/** Places on paper are given to a tenth of a millimetre: finer is not seen. */
const tenth = (mm: number) => Math.round(mm * 10) / 10;
