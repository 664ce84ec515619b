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
import { Choices, OutputButtons, Problem, useWork } from '../OutputParts.tsx';
import { PNG } from './png.ts';

const FORMATS: readonly SheetExporter[] = [...SHEET_EXPORTERS, PNG];

export function SheetOutput({ sheet, close }: { sheet: Sheet; close: () => void }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const [exporter, setExporter] = useState(FORMATS[0]!);
  const [which, setWhich] = useState<'this' | 'all'>('this');
  const sheets = which === 'all' && exporter.holdsMany ? sheetsOf(document) : [sheet];
  const { run, problem, isBusy } = useWork(close);
  const write = async () => {
    const pictures: SheetPicture[] = [];
    for (const one of sheets) pictures.push(await pictureOf(session, document, one));
    download(`${sheets[0]!.name}${exporter.extension}`, exporter.mime, await exporter.write(pictures));
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void run(write);
      }}
    >
      <Choices
        legend="Format"
        options={FORMATS.map((one) => ({ value: one.format, name: one.name, about: one.about }))}
        value={exporter.format}
        choose={(format) => setExporter(FORMATS.find((one) => one.format === format)!)}
      />
      {exporter.holdsMany && (
        <WhichSheets sheet={sheet} count={sheetsOf(document).length} which={which} choose={setWhich} />
      )}
      <Problem words={problem} />
      <OutputButtons isBusy={isBusy} close={close} />
    </form>
  );
}

interface WhichSheetsProps {
  readonly sheet: Sheet;
  /** Of all. */
  readonly count: number;
  readonly which: 'this' | 'all';
  readonly choose: (which: 'this' | 'all') => void;
}

const WhichSheets = ({ sheet, count, which, choose }: WhichSheetsProps) => (
  <Choices
    legend="Sheets"
    options={[
      { value: 'this', name: 'This one', about: sheet.name },
      { value: 'all', name: 'All', about: pageWords(count) },
    ]}
    value={which}
    choose={(value) => choose(value === 'all' ? 'all' : 'this')}
  />
);

const pageWords = (count: number) => (count === 1 ? 'one page' : `${count} pages`);

/** Views that are drawn already come at once from where they are kept. */
async function pictureOf(session: Session, document: KadrelDocument, sheet: Sheet): Promise<SheetPicture> {
  const views: Record<string, DrawnView> = {};
  for (const [view] of inOrder(sheet.views))
    views[view] = (await session.ask(document, { ask: 'drawn', sheet: sheet.id, view })) as DrawnView;
  const ties = (await session.ask(document, { ask: 'ties', sheet: sheet.id })) as TiesFound;
  return composeSheet(document, sheet, { views, ties });
}
