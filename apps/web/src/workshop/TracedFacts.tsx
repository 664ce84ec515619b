/** What a kept cut or a group of slices follows. */
import type { KadrelDocument, Part } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';

export function TracedFacts({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  if (!part.traced) return null;
  return (
    <div className="flex items-center gap-1 px-3.5 py-[3px]">
      <span className="min-w-0 flex-1">
        Follows <b className="font-semibold">{sourceNames(document, part.traced)}</b>
        {part.traced.lost && <span className="text-bad">: nothing is cut there now</span>}
      </span>
      <button
        type="button"
        className="quiet"
        onClick={() => void session.say('unlink', { parts: [part.id] })}
      >
        Unlink
      </button>
    </div>
  );
}

/** More names than this are a number. */
const MAX_NAMED = 3;

function sourceNames({ items }: KadrelDocument, traced: NonNullable<Part['traced']>): string {
  const name = (id: string) => items[id]?.name ?? 'what is gone';
  if (traced.by === 'section') return `${name(traced.through)}, cut by ${name(traced.section)}`;
  if (traced.parts.length > MAX_NAMED) return `${traced.parts.length} parts`;
  return traced.parts.map(name).join(', ');
}
