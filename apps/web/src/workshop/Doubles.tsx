import type { Likely } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { withoutDoubles } from '../session/selecting.ts';
import { useDoubles } from './useDoubles.ts';

/** Groups that are named when the pointer rests on the badge. */
const MAX_NAMED = 8;

/** Says when parts lie exactly on each other, and offers to keep one of each. */
export function Doubles() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  const groups = useDoubles(document, built);
  if (groups.length === 0) return null;
  const [group] = groups as [Likely[]];
  const nameOf = ({ part, member }: Likely) =>
    [document.items[part]?.name, member].filter((word) => word !== undefined).join(' ');
  const keepOne = async () => {
    for (const { verb, typed } of withoutDoubles(groups)) if (!(await session.say(verb, typed))) return;
  };
  const words =
    groups.length === 1
      ? `${group.length} alike in the same place`
      : `${groups.flat().length} alike in ${groups.length} places`;
  return (
    <p className="mx-3 mb-1.5 flex items-center gap-1.5 rounded bg-tint px-2 py-1 text-[12px]" role="status">
      <button
        type="button"
        className="flex-1 truncate text-left hover:underline"
        title={`Select them: ${groups
          .slice(0, MAX_NAMED)
          .map((one) => one.map(nameOf).join(', '))
          .join('; ')}`}
        onClick={() => session.select([...new Set(groups.flat().map(({ part }) => part))])}
      >
        {words}
      </button>
      <button
        type="button"
        className="font-semibold text-plum hover:underline"
        onClick={() => void keepOne()}
      >
        Keep one
      </button>
    </p>
  );
}
