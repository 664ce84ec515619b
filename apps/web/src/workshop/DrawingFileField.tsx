/** The field for outlines from a file: it says how large they come in before they do. */
import {
  IMPORTERS,
  formatLengthWithUnit,
  importerFor,
  isRefusal,
  resolveOne,
  verbNamed,
  type Drawing,
} from '@kadrel/core';
import { useEffect, useRef } from 'react';
import { useSession, useSessionState } from './context.ts';
import { isAt, type FieldProps } from './PickList.tsx';

const ACCEPTED = IMPORTERS.flatMap(({ extensions, mime }) => [...extensions, ...(mime ? [mime] : [])]).join();

/** A file with outlines. */
export function DrawingFileField({ id, blank, statement, isBad }: FieldProps) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const entry = { blank: id, axis: null };
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';
  const button = useRef<HTMLButtonElement>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (isActive) button.current?.focus();
  }, [isActive]);
  const value = statement.typed[id] as { name?: string } | undefined;
  const read = value
    ? (resolveOne(verbNamed(statement.verb)!, id, statement.typed, {
        document,
        world: session.world(),
      }) as Drawing)
    : undefined;
  const fault = isRefusal(read) ? read.message : undefined;
  const size = read && !fault ? sizeWords(read, document.scene) : '';
  const take = async (file: File | undefined) => {
    if (!file) return;
    const { format } = importerFor(file.name) ?? IMPORTERS[0]!;
    session.setBlank(id, {
      [format]: await file.text(),
      name: file.name.replace(/\.\w+$/, ''),
    });
  };
  return (
    <span data-blank={id} className="inline-flex items-center gap-1.5">
      <button
        ref={button}
        type="button"
        className="blank"
        data-active={isActive}
        data-bad={isBad || fault !== undefined}
        aria-label={`${blank.label}: ${value?.name ?? 'not chosen'}`}
        title={fault ?? blank.about}
        disabled={statement.phase === 'working'}
        onFocus={() => !isActive && session.focus(entry)}
        onClick={() => input.current?.click()}
      >
        {value?.name ?? <span className="text-ink3">choose a file…</span>}
      </button>
      <input
        ref={input}
        type="file"
        accept={ACCEPTED}
        className="sr-only"
        tabIndex={-1}
        aria-label={`${IMPORTERS.map(({ name }) => name).join(' or ')} file`}
        onChange={(event) => void take(event.target.files?.[0])}
      />
      {size !== '' && <span className="num text-[13px] whitespace-nowrap text-ink2">{size}</span>}
      {fault && (
        <span role="alert" className="text-[13px] text-bad">
          {fault}
        </span>
      )}
    </span>
  );
}

function sizeWords(
  { box, paths, notes }: Drawing,
  scene: Parameters<typeof formatLengthWithUnit>[1],
): string {
  const [w, h] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  const outlines = `${paths.length} outline${paths.length === 1 ? '' : 's'}`;
  return [`${formatLengthWithUnit(w, scene)} × ${formatLengthWithUnit(h, scene)}`, outlines, ...notes].join(
    ' · ',
  );
}
