/** The leader of a note, as statements say it. */
import type { Sheet, SheetNote, TieRead } from '../../document/sheet.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';
import { tieKept } from './sheets.ts';

interface LeaderSaid {
  readonly to: readonly TieRead[];
  /** Where nothing is said it is the only view. */
  readonly view: string | undefined;
}

/** As a sheet keeps it. */
export function leaderSaid(
  { views }: Sheet,
  { to, view }: LeaderSaid,
): NonNullable<SheetNote['leader']> | Refusal {
  const [only, other] = Object.keys(views);
  const into = view ?? (other === undefined ? only : undefined);
  if (to.length !== 1) return refuse('too-many.leader', {}, 'to');
  if (into === undefined) return refuse('missing.several-views-sheet', {}, 'view');
  return { view: into, tie: tieKept(to[0]!) };
}
