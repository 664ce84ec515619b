import type { ItemId } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';

/** The parts that something consists of; a click selects one. */
export function PartList({
  parts,
  words = () => '',
}: {
  parts: readonly ItemId[];
  words?: (index: number) => string;
}) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  return (
    <ul>
      {parts.map((id, i) => (
        <li key={id}>
          <button type="button" className="quiet ml-1.5 text-left" onClick={() => session.select([id])}>
            {words(i)}
            <span className="underline decoration-rule underline-offset-2">{document.items[id]?.name}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
