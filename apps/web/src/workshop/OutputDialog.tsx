import { Modal } from '../common/Modal.tsx';
import { visibleParts } from '@kadrel/core';
import { EXPORTERS, exporterNamed, type Exporter } from '@kadrel/kernel';
import { useState } from 'react';
import { download } from '../common/download.ts';
import { useSession, useSessionState } from './context.ts';
import { Choices, OutputButtons, Problem, useWork } from './OutputParts.tsx';
import { SheetOutput } from './sheets/SheetOutput.tsx';

/** Finer facets than this are more than files can hold, coarser ones are none. */
const MIN_CHORD_MM = 0.0001;
const MAX_CHORD_MM = 1000;

/** Writes chosen or all parts to a file. */
export function OutputDialog({ isOpen, close }: { isOpen: boolean; close: () => void }) {
  return (
    <Modal isOpen={isOpen} close={close} title="Output" width="w-[440px]">
      <Form close={close} />
    </Modal>
  );
}

function Form({ close }: { close: () => void }) {
  const sheet = useSessionState(({ openSheet, document }) =>
    openSheet === null ? undefined : document.sheets[openSheet],
  );
  return sheet ? <SheetOutput sheet={sheet} close={close} /> : <OutputForm close={close} />;
}

function OutputForm({ close }: { close: () => void }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const name = useSessionState((state) => state.name);
  const failures = useSessionState((state) => state.built.failures);
  const [exporter, setExporter] = useState<Exporter>(EXPORTERS[0]!);
  const [which, setWhich] = useState<'all' | 'selected'>(selection.length > 0 ? 'selected' : 'all');
  const [chord, setChord] = useState('0.01 mm');
  const { problem, isBusy, setProblem, run } = useWork(close);
  const all = visibleParts(document).map((part) => part.id);
  const parts = (which === 'all' ? all : selection).filter(
    (id) => !failures.some((failure) => failure.part === id),
  );

  const hasChord = exporter.holds === 'solids' && exporter.hasChord === true;
  const write = async () => {
    const chordMm = session.readLength(chord);
    if (hasChord && !(chordMm !== undefined && chordMm >= MIN_CHORD_MM && chordMm <= MAX_CHORD_MM))
      return setProblem('The chord tolerance is a length between 0.0001 mm and 1 m.');
    if (exporter.holds !== 'document' && parts.length === 0) return setProblem('There is no part to write.');
    await run(async () => {
      const file = await session.written({ exporter, parts, chordMm: chordMm ?? MAX_CHORD_MM });
      download(`${name}${exporter.extensions[0]}`, exporter.mime, file);
    });
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
        options={EXPORTERS.map((one) => ({ value: one.format, name: one.name, about: one.about }))}
        value={exporter.format}
        choose={(format) => setExporter(exporterNamed(format)!)}
      />
      {exporter.holds !== 'document' && (
        <WhichParts
          which={which}
          choose={setWhich}
          counts={{ all: all.length, selected: selection.length }}
        />
      )}
      {hasChord && (
        <label className="flex flex-col gap-1 font-semibold">
          Chord tolerance
          <input
            className="field num font-normal"
            value={chord}
            onChange={(event) => setChord(event.target.value)}
          />
          <span className="text-[12px] font-normal text-ink2">
            Greatest distance between a facet and the true surface.
          </span>
        </label>
      )}
      <Problem words={problem} />
      <OutputButtons isBusy={isBusy} close={close} />
    </form>
  );
}

interface WhichPartsProps {
  readonly which: 'all' | 'selected';
  readonly choose: (which: 'all' | 'selected') => void;
  readonly counts: Readonly<Record<'all' | 'selected', number>>;
}

const WhichParts = ({ which, choose, counts }: WhichPartsProps) => (
  <fieldset className="flex gap-4">
    <legend className="mb-1 font-semibold">Parts</legend>
    {(['all', 'selected'] as const).map((one) => (
      <label key={one} className="flex items-center gap-2">
        <input
          type="radio"
          name="which"
          className="accent-(--plum)"
          checked={which === one}
          disabled={one === 'selected' && counts.selected === 0}
          onChange={() => choose(one)}
        />
        {one === 'all' ? 'all visible' : 'selected'} ({counts[one]})
      </label>
    ))}
  </fieldset>
);
