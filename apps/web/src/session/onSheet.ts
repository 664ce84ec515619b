/** What a click on a drawing sheet writes into the statement in hand. Pure functions on plain data; places in mm of the paper. */
import {
  dot2,
  left2,
  subtract2,
  unit2,
  distance2,
  verbNamed,
  type Blank,
  type DrawnCatch,
  type SheetView,
  type Tie,
  type Vec2,
} from '@kadrel/core';
import { exactMm, withPick, type Statement, type Typed } from './statement.ts';

/** A catch on the paper. */
export interface Caught {
  readonly view: string;
  readonly at: Vec2;
  /** The radius of a circle, on paper. */
  readonly rim?: number | undefined;
  readonly caught: DrawnCatch;
}

/** A point of a view on paper, mm. */
export const paperPlace = ({ at, scale }: SheetView, [x, y]: readonly number[]): Vec2 => [
  at[0] + scale * x!,
  at[1] + scale * y!,
];

/** A round edge is caught by its centre and by its rim. */
const reachTo = (place: Vec2, { at, caught }: Caught, scale: number): number => {
  const centre = distance2(place, at);
  return caught.radius === undefined ? centre : Math.min(centre, Math.abs(centre - caught.radius * scale));
};

export interface Reaching {
  readonly place: Vec2;
  /** mm */
  readonly reach: number;
  readonly scaleOf: (view: string) => number;
}

/** The nearest catch within reach; of several in one place the one nearest to who looks, points before edges. */
export function nearestCatch(
  catches: readonly Caught[],
  { place, reach, scaleOf }: Reaching,
): Caught | undefined {
  let best: Caught | undefined;
  let min = reach;
  for (const one of catches) {
    const off = reachTo(place, one, scaleOf(one.view));
    const isSame = best && Math.abs(off - min) < SAME_PLACE;
    if (isSame ? isBefore(one, best!) : off < min) {
      best = one;
      min = off;
    }
  }
  return best;
}
const SAME_PLACE = 1e-6;

const isEdge = ({ caught }: Caught) => (caught.snap === 'edge' ? 1 : 0);
const isBefore = (a: Caught, b: Caught) =>
  isEdge(a) !== isEdge(b) ? isEdge(a) < isEdge(b) : a.caught.at[2] > b.caught.at[2] + SAME_PLACE;

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
function kindFor({ verb, typed }: Statement, { radius, snap }: DrawnCatch): Typed {
  const { kind } = verbNamed(verb)!.blanks as Record<string, Blank | undefined>;
  const isRound = radius !== undefined && snap === 'edge';
  if (kind?.choices?.diameter === undefined || typed.kind !== kind.default || !isRound) return {};
  return { kind: 'diameter' };
}

/** Where a click beside what is drawn puts the line, the leader, or the thing itself; undefined where it says nothing. */
export function placedBeside(statement: Statement, place: Vec2, ties: readonly Caught[]): Typed | undefined {
  const { blanks } = verbNamed(statement.verb)!;
  if (blanks.offset && ties.length > 0) return offsetTo(statement, place, ties);
  if (blanks.x && blanks.y && !blanks.offset)
    return { x: exactMm(round(place[0])), y: exactMm(round(place[1])) };
  return undefined;
}

/** Places on paper are given to a tenth of a millimetre: finer is not seen. */
const round = (mm: number) => Math.round(mm * 10) / 10;

function offsetTo({ typed }: Statement, place: Vec2, ties: readonly Caught[]): Typed | undefined {
  const points = ties.map(({ at }) => at);
  const [first, last] = [points[0]!, points.at(-1)!];
  if (typed.kind === 'radius' || typed.kind === 'diameter') {
    const bearing = (Math.atan2(place[1] - first[1], place[0] - first[0]) * 180) / Math.PI;
    return {
      bearing: String(Math.round(bearing)),
      offset: exactMm(round(Math.max(1, distance2(place, first) / 2))),
    };
  }
  if (typed.kind === 'level') {
    const aside = round(place[0] - first[0]);
    return { offset: exactMm(aside < 0 ? Math.min(-1, aside) : Math.max(1, aside)) };
  }
  if (typed.kind === 'arc') {
    return { offset: exactMm(round(distance2(place, first) - (ties[0]!.rim ?? 0))) };
  }
  if (typed.kind === 'angle') return { offset: exactMm(round(distance2(place, first))) };
  const way: Vec2 =
    typed.kind === 'horizontal' ? [1, 0] : typed.kind === 'vertical' ? [0, 1] : subtract2(last, first);
  if (distance2(way, [0, 0]) === 0) return undefined;
  const out = left2(unit2(way));
  const heights = points.map((point) => dot2(point, out));
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const at = dot2(place, out);
  return { offset: exactMm(round(at > (low + high) / 2 ? Math.max(1, at - high) : Math.min(-1, at - low))) };
}
