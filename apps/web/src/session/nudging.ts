/** Nudges by the arrow keys: presses that follow one another are one statement, and none is lost while one is at work. */
import { cleanLength, type Vec3 } from '@kadrel/core';
import { isHandled, exactMm, exactNumber, type Statement, type Typed } from './statement.ts';

interface NudgingSession {
  readonly state: () => { readonly statement: Statement | null; readonly selection: readonly string[] };
  /** Resolves when no statement is at work. */
  readonly settled: () => Promise<void>;
  readonly say: (verb: string, typed: Typed) => Promise<boolean>;
  /** Gives the statement that was committed last other values, and commits it again. */
  readonly adjust: (typed: Typed) => Promise<boolean>;
}

/** Returns what moves the selection by a step, mm. */
export function nudging({ state, settled, say, adjust }: NudgingSession): (by: Vec3) => Promise<void> {
  let waiting: Vec3 = [0, 0, 0];
  let isAtWork = false;

  async function carryOut(step: Vec3): Promise<void> {
    const { statement, selection } = state();
    if (selection.length === 0) return;
    const last = statement?.phase === 'done' && isHandled(statement, 'nudges') ? statement.typed : undefined;
    const isSame = last !== undefined && JSON.stringify(last.parts) === JSON.stringify(selection);
    const before = isSame ? (last.by as string[]).map((text) => exactNumber(text) ?? 0) : [0, 0, 0];
    const by = before.map((n, i) => exactMm(cleanLength(n + step[i]!)));
    await (isSame ? adjust({ ...last, by }) : say('nudge', { parts: [...selection], by }));
  }

  return async (by) => {
    waiting = [waiting[0] + by[0], waiting[1] + by[1], waiting[2] + by[2]];
    if (isAtWork) return;
    isAtWork = true;
    try {
      while (waiting.some((n) => n !== 0)) {
        await settled();
        const step = waiting;
        waiting = [0, 0, 0];
        await carryOut(step);
      }
    } finally {
      isAtWork = false;
    }
  };
}
