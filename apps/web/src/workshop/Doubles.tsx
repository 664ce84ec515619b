import type { ItemId } from '@kadrel/core';
import { useMemo } from 'react';
import { doublesIn } from '../session/selecting.ts';
import { useSession, useSessionState } from './context.ts';

/** Says when parts lie exactly on each other, and offers to keep one of each. */
export function Doubles() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  const groups = useMemo(() => doublesIn(document, built), [document, built]);
  if (groups.length === 0) return null;
  const [group] = groups as [ItemId[]];
  const words =
    groups.length === 1
      ? `${group.length} alike in the same place`
      : `${groups.flat().length} alike in ${groups.length} places`;
  return (
    <p className="mx-3 mb-1.5 flex items-center gap-1.5 rounded bg-tint px-2 py-1 text-[12px]" role="status">
      <button
        type="button"
        className="flex-1 truncate text-left hover:underline"
        title={`Select them: ${groups.map((ids) => ids.map((id) => document.items[id]?.name).join(', ')).join('; ')}`}
        onClick={() => session.select(groups.flat())}
      >
        {words}
      </button>
      <button
        type="button"
        className="font-semibold text-plum hover:underline"
        onClick={() => void session.say('delete', { parts: groups.flatMap((ids) => ids.slice(1)) })}
      >
        Keep one
      </button>
    </p>
  );
}
