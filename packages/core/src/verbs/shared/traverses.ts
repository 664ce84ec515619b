import { labelled } from '../../language/reason.ts';
import type { Num } from '../../document/schema.ts';
import { QuantityError } from '../../quantity/lexer.ts';
import { CLOSINGS, type Leg } from '../../recipes/figures/index.ts';
import {
  isRefusal,
  refuse,
  refuseFor,
  type Refusal,
  type Row,
  type VerbContext,
} from '../../statement/declare.ts';
import { LEG_COLUMNS, legOf } from './legs.ts';

export type Closing = (typeof CLOSINGS)[number];

export function readLegs(rows: readonly Row[], context: VerbContext): Leg[] | Refusal {
  if (rows.length === 0) return refuse('missing.legs', {}, 'legs');
  const angle = (text: string): Num | Refusal => {
    try {
      return context.read(text, 'angle');
    } catch (error) {
      if (error instanceof QuantityError) return labelled(refuseFor(error, 'legs'), 'the arc');
      throw error;
    }
  };
  const legs = rows.map((row, i) => legOf(row, i, angle));
  return legs.find(isRefusal) ?? (legs as Leg[]);
}

export const legsBlank = {
  columns: LEG_COLUMNS,
};
