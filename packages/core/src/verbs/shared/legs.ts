/** Legs of a traverse as rows of a table, and back. */
import type { Num } from '../../document/schema.ts';
import { CLOSINGS, type FigureOf, type Leg } from '../../recipes/figures/index.ts';
import { refuse, type Refusal, type Row } from '../../statement/declare.ts';
import { typedLength, typedNumber } from '../../statement/typing.ts';

/** A leg is given by one of: dx and dy, length and bearing, length and turn, x and y. */
export const LEG_COLUMNS = {
  dx: { label: 'ΔX', kind: 'length' },
  dy: { label: 'ΔY', kind: 'length' },
  length: { label: 'Length', kind: 'length' },
  bearing: { label: 'Bearing', kind: 'angle' },
  turn: { label: 'Turn right', kind: 'angle' },
  x: { label: 'X', kind: 'length' },
  y: { label: 'Y', kind: 'length' },
  sweep: { label: 'Arc to the left', kind: 'text' },
  round: { label: 'Corner radius', kind: 'length' },
  bevel: { label: 'Corner bevel', kind: 'length' },
  name: { label: 'Name', kind: 'text' },
} as const;

export const CLOSING_WORDS: Readonly<Record<(typeof CLOSINGS)[number], string>> = {
  open: 'left open',
  straight: 'closed by a straight leg',
  square: 'closed square',
  spread: 'closed by spreading the error',
};

const WAYS = 'a leg is told by dx and dy, by length and bearing, by length and turn, or by x and y';

export function legOf(row: Row, index: number, read: (text: string) => Num | Refusal): Leg | Refusal {
  const fault = (message: string) => refuse('leg.legs', { index: index + 1, message }, 'legs');
  const has = (...columns: string[]) => columns.some((column) => row[column] !== undefined);
  const ways = [has('dx', 'dy'), has('bearing'), has('turn'), has('x', 'y')].filter(Boolean).length;
  const extras = rowExtras(row, read);
  if ('refused' in extras) return fault(extras.message.replace(/\.$/, ''));
  if (ways > 1 || (has('dx', 'dy', 'x', 'y') && has('length')))
    return fault(`only one way at a time: ${WAYS}`);
  const { dx, dy, length, bearing, turn, x, y } = row as Record<string, Num>;
  if (has('dx', 'dy')) return { by: [dx ?? 0, dy ?? 0], ...extras };
  if (has('x', 'y')) {
    if (x === undefined || y === undefined) return fault('both x and y are needed');
    return { to: [x, y], ...extras };
  }
  if (length === undefined) return fault(WAYS);
  if (bearing !== undefined) return { length, bearing, ...extras };
  return { length, turn: turn ?? 0, ...extras };
}

function rowExtras(
  row: Row,
  read: (text: string) => Num | Refusal,
): Pick<Leg, 'name' | 'bend' | 'corner'> | Refusal {
  if (row.round !== undefined && row.bevel !== undefined) return refuse('corner', {});
  const corner =
    row.round !== undefined
      ? { corner: { round: row.round as Num } }
      : row.bevel !== undefined
        ? { corner: { bevel: row.bevel as Num } }
        : {};
  const named = row.name === undefined ? {} : { name: row.name as string };
  if (row.sweep === undefined) return { ...named, ...corner };
  if (row.sweep === 'tangent') return { ...named, ...corner, bend: 'tangent' };
  const sweep = read(row.sweep as string);
  if (typeof sweep === 'object' && 'refused' in sweep) return sweep;
  return { ...named, ...corner, bend: { sweep } };
}

/** The row that says a leg. */
export function rowOfLeg(leg: Leg): Record<string, string> {
  const fields: Record<string, string> =
    'by' in leg
      ? { dx: typedLength(leg.by[0]), dy: typedLength(leg.by[1]) }
      : 'to' in leg
        ? { x: typedLength(leg.to[0]), y: typedLength(leg.to[1]) }
        : 'bearing' in leg
          ? { length: typedLength(leg.length), bearing: typedNumber(leg.bearing) }
          : { length: typedLength(leg.length), turn: typedNumber(leg.turn) };
  if (leg.bend) fields.sweep = leg.bend === 'tangent' ? 'tangent' : typedNumber(leg.bend.sweep);
  if (leg.corner && 'round' in leg.corner) fields.round = typedLength(leg.corner.round);
  if (leg.corner && 'bevel' in leg.corner) fields.bevel = typedLength(leg.corner.bevel);
  if (leg.name !== undefined) fields.name = leg.name;
  return fields;
}

/** The rows of a traverse, as they would be typed. */
export const rowsOfTraverse = (figure: FigureOf<'traverse'>): Record<string, string>[] =>
  figure.legs.map(rowOfLeg);
