import { verbNamed } from '@kadrel/core';
import { useEffect, useState } from 'react';
import { useSession, useSessionState } from '../context.ts';

const NOTHING: readonly string[] = [];
const NOTHING_SAID = { from: undefined, to: undefined, path: undefined };

/** All that can be measured of what is picked for Measure or Wanted fit so far. */
export function MeasureReading() {
  const session = useSession();
  const statement = useSessionState((state) => state.statement);
  const document = useSessionState((state) => state.document);
  const isMeasuring =
    statement?.phase === 'open' && verbNamed(statement.verb)!.blanks.from?.type === 'target';
  const verb = isMeasuring ? statement.verb : null;
  const { from, to, path } = isMeasuring ? statement.typed : NOTHING_SAID;
  const [words, setWords] = useState(NOTHING);
  const key = JSON.stringify({ from, to, path });
  useEffect(() => {
    let isOver = false;
    const asked = verb === null ? null : { verb, typed: JSON.parse(key) as Record<string, unknown> };
    void session.measureInHand(asked).then((found) => {
      if (!isOver) setWords(found);
    });
    return () => {
      isOver = true;
      // What is no longer asked for, or left, is not shown on.
      void session.measureInHand(null);
    };
  }, [session, document, verb, key]);
  if (verb === null || words.length === 0) return null;
  return (
    <output
      className="num absolute top-full right-3.5 z-20 mt-0.5 max-w-xl rounded border border-rule bg-sheet px-3 py-1 text-[13px] shadow"
      aria-label="Measured"
      title={words.join(' · ')}
    >
      {words.join(' · ')}
    </output>
  );
}
