import { formatLength, pinsOf, vectorOf } from '@kadrel/core';
import { CornerDownLeft, MapPin, X } from 'lucide-react';
import { exactMm } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';

/** The pins, with their places. */
export function Pins() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const pins = pinsOf(document);
  if (pins.length === 0) return null;
  return (
    <ul aria-label="Pins" className="max-h-32 overflow-y-auto border-t border-rule py-1">
      {pins.map(({ id, name, at }) => (
        <li key={id} className="group flex h-[26px] items-center gap-1.5 px-3">
          <MapPin size={13} aria-hidden className="text-ink2" />
          <button
            type="button"
            className="min-w-0 flex-1 truncate text-left"
            title="Place it anew"
            onClick={() => session.start('pin', { as: name, at: vectorOf(at).map(exactMm) })}
          >
            {name}
          </button>
          <span className="num truncate text-[11px] text-ink3 group-focus-within:hidden group-hover:hidden">
            {vectorOf(at)
              .map((n) => formatLength(n, document.scene))
              .join('  ')}
          </span>
          <button
            type="button"
            className="hidden text-ink2 group-focus-within:block group-hover:block hover:text-plum"
            aria-label={`Move the selection onto ${name}`}
            title="Move the selection onto it"
            onClick={() => session.start('move', { to: { pin: name } })}
          >
            <CornerDownLeft size={13} />
          </button>
          <button
            type="button"
            className="hidden text-ink2 group-focus-within:block group-hover:block hover:text-plum"
            aria-label={`Remove pin ${name}`}
            title="Remove"
            onClick={() => void session.say('unpin', { pin: name })}
          >
            <X size={13} />
          </button>
        </li>
      ))}
    </ul>
  );
}
