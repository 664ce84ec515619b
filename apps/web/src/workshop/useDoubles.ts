/** What lies exactly on each other, looked for while nothing else is to be done: of thousands of members it takes longer than a key may. */
import type { KadrelDocument, Likely } from '@kadrel/core';
import { useEffect, useState } from 'react';
import type { Built } from '../session/built.ts';
import { whenIdle } from '../common/idle.ts';
import { findDoubles } from '../session/selecting.ts';

/** What is left of an idle time is left to others from here on, ms. */
const LEFT_MS = 4;

/** Those of before stay until the look is over. */
export function useDoubles(document: KadrelDocument, built: Built): readonly Likely[][] {
  const [groups, setGroups] = useState<readonly Likely[][]>([]);
  useEffect(() => {
    const search = findDoubles(document, built);
    let stop = whenIdle(goOn);
    function goOn(left: () => number): void {
      let step = search.next();
      while (!step.done && left() > LEFT_MS) step = search.next();
      if (!step.done) {
        stop = whenIdle(goOn);
        return;
      }
      const found = step.value;
      setGroups((before) => (before.length + found.length === 0 ? before : found));
    }
    return () => stop();
  }, [document, built]);
  return groups;
}
