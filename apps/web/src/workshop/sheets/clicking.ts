/** What clicks and keys on the paper do. */
import { distance2, subtract2, dot2, type Vec2 } from '@kadrel/core';
import { placedBeside, tiesBlank, withTie, type Caught } from '../../session/onSheet.ts';
import type { Statement } from '../../session/statement.ts';
import type { Session } from '../../session/store.ts';

/** Whether clicks go into the statement in hand. */
export const isGathering = (statement: Statement | null): statement is Statement =>
  statement?.phase === 'open' && (tiesBlank(statement) !== undefined || isPlaced(statement));

/** Statements that a click beside what is drawn says something to. */
const isPlaced = (statement: Statement) => placedBeside(statement, [0, 0], null) !== undefined;

/** Whether the statement in hand is tied to something already. */
const isTied = (statement: Statement): boolean => {
  const blank = tiesBlank(statement);
  const typed = blank === undefined ? undefined : statement.typed[blank];
  return Array.isArray(typed) && typed.length > 0;
};

export interface ClickOn {
  readonly place: Vec2;
  readonly caught: Caught | null;
}

/** False where the click says nothing to the statement in hand. */
export function clickOnSheet(session: Session, { place, caught }: ClickOn): boolean {
  const { statement } = session.store.getState();
  if (!isGathering(statement)) return false;
  if (caught && tiesBlank(statement) !== undefined) {
    session.update((one) => withTie(one, caught));
    return true;
  }
  const typed = placedBeside(statement, place, session.dimensionInHand(statement));
  if (!typed) {
    session.sayWaiting();
    return true;
  }
  // What was typed stays.
  const free = Object.entries(typed).filter(([blank]) => !statement.held.has(blank));
  session.update((one) => ({
    ...one,
    typed: { ...one.typed, ...Object.fromEntries(free) },
    refusal: null,
  }));
  // What is put beside its points is complete; words are still wanted.
  if (isTied(statement)) void session.commit();
  return true;
}

/** From one catch to the next in a direction: near ones first, and straight ahead. */
export function nextCatch(catches: readonly Caught[], from: Caught | null, step: Vec2): Caught | null {
  if (!from) return catches[0] ?? null;
  let best: Caught | null = null;
  let min = Infinity;
  for (const one of catches) {
    const away = subtract2(one.at, from.at);
    const ahead = dot2(away, step);
    if (ahead < NEXT_MM) continue;
    const cost = distance2(one.at, from.at) + 2 * (distance2(one.at, from.at) - ahead);
    if (cost < min) [best, min] = [one, cost];
  }
  return best ?? from;
}
/** Catches nearer than this lie in one place, mm. */
const NEXT_MM = 0.05;
