/** Writes the open sheet to a file. */
import {
  composeSheet,
  inOrder,
  sheetsOf,
  type DrawnView,
  type KadrelDocument,
  type Sheet,
  type SheetPicture,
  type TiesFound,
} from '@kadrel/core';
import { SHEET_EXPORTERS, type SheetExporter } from '@kadrel/kernel';
import { useState } from 'react';
import { download } from '../../common/download.ts';
import type { Session } from '../../session/store.ts';
import { useSession, useSessionState } from '../context.ts';
import { PNG } from './png.ts';

const FORMATS: readonly SheetExporter[] = [...SHEET_EXPORTERS, PNG];

export function SheetOutput({ sheet, close }: { sheet: Sheet; close: () => void }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const [exporter, setExporter] = useState(FORMATS[0]!);
  const [which, setWhich] = useState<'this' | 'all'>('this');
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const sheets = which === 'all' && exporter.holdsMany ? sheetsOf(document) : [sheet];
  const write = async () => {
    setProblem(null);
    setIsBusy(true);
    try {
      const pictures: SheetPicture[] = [];
      for (const one of sheets) pictures.push(await pictureOf(session, document, one));
      download(`${sheet.name}${exporter.extension}`, exporter.mime, await exporter.write(pictures));
      close();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setIsBusy(false);
    }
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void write();
      }}
    >
      <Choices
        legend="Format"
        name="sheet-format"
        options={FORMATS.map((one) => ({ value: one.format, name: one.name, about: one.about }))}
        value={exporter.format}
        choose={(format) => setExporter(FORMATS.find((one) => one.format === format)!)}
      />
      {exporter.holdsMany && (
        <Choices
          legend="Sheets"
          name="sheet-which"
          options={[
            { value: 'this', name: 'This one', about: sheet.name },
            { value: 'all', name: 'All', about: pageWords(sheetsOf(document).length) },
          ]}
          value={which}
          choose={(value) => setWhich(value as 'this' | 'all')}
        />
      )}
      {problem && (
        <p role="alert" className="text-bad">
          {problem}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <button type="button" className="button" onClick={close}>
          Cancel
        </button>
        <button type="submit" className="button main" disabled={isBusy}>
          {isBusy ? 'Writing…' : 'Download'}
        </button>
      </div>
    </form>
  );
}

const pageWords = (count: number) => (count === 1 ? 'one page' : `${count} pages`);

interface ChoicesProps {
  readonly legend: string;
  readonly name: string;
  readonly options: readonly { readonly value: string; readonly name: string; readonly about: string }[];
  readonly value: string;
  readonly choose: (value: string) => void;
}

const Choices = ({ legend, name, options, value, choose }: ChoicesProps) => (
  <fieldset className="flex flex-col gap-1.5">
    <legend className="mb-1 font-semibold">{legend}</legend>
    {options.map((one) => (
      <label key={one.value} className="flex items-baseline gap-2">
        <input
          type="radio"
          name={name}
          className="accent-(--plum)"
          checked={value === one.value}
          onChange={() => choose(one.value)}
        />
        <span className="w-24 shrink-0 font-semibold">{one.name}</span>
        <span className="text-ink2">{one.about}</span>
      </label>
    ))}
  </fieldset>
);

/** Views that are drawn already come at once from where they are kept. */
async function pictureOf(session: Session, document: KadrelDocument, sheet: Sheet): Promise<SheetPicture> {
  const views: Record<string, DrawnView> = {};
  for (const [view] of inOrder(sheet.views))
    views[view] = (await session.ask(document, { ask: 'drawn', sheet: sheet.id, view })) as DrawnView;
  const ties = (await session.ask(document, { ask: 'ties', sheet: sheet.id })) as TiesFound;
  return composeSheet(document, sheet, { views, ties });
}
