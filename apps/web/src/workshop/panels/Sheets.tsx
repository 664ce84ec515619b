import { paperWords, sheetsOf, type Sheet } from '@kadrel/core';
import clsx from 'clsx';
import { FileText, X } from 'lucide-react';
import { useSession, useSessionState } from '../context.ts';

/** The drawing sheets; a click opens one, and another on it shows the views again. */
export function Sheets() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const sheets = sheetsOf(document);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      {sheets.length > 0 && (
        <ul aria-label="Sheets">
          {sheets.map((sheet) => (
            <SheetRow key={sheet.id} sheet={sheet} />
          ))}
        </ul>
      )}
      <button type="button" className="quiet mx-1.5" onClick={() => session.start('sheet')}>
        New sheet
      </button>
    </div>
  );
}

function SheetRow({ sheet: { id, name, paper } }: { sheet: Sheet }) {
  const session = useSession();
  const isOpen = useSessionState((state) => state.openSheet === id);
  return (
    <li className={clsx('group flex h-[26px] items-center gap-1.5 px-3', isOpen && 'bg-tint')}>
      <FileText size={13} aria-hidden className="text-ink2" />
      <button
        type="button"
        className="min-w-0 flex-1 truncate text-left"
        aria-pressed={isOpen}
        onClick={() => session.openSheet(isOpen ? null : id)}
      >
        {name}
      </button>
      <span className="text-[11px] text-ink2">{paperWords(paper)}</span>
      <button
        type="button"
        className="text-ink2 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-plum"
        aria-label={`Delete sheet ${name}`}
        title="Delete"
        onClick={() => void session.say('delete-sheet', { sheet: id })}
      >
        <X size={13} />
      </button>
    </li>
  );
}
