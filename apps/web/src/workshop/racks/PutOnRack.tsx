/** Puts the selected part on a rack, begins a rack, or brings one from a file. */
import { rackFileSchema, type RackPart } from '@kadrel/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { workshopApi } from '../../api/workshop.ts';
import { useSession, useSessionState } from '../context.ts';
import { RACKS, type ShownRack } from './racks.ts';

const NEW = '';

/** Puts the selected part on a rack. */
export function PutOnRack({ racks }: { readonly racks: readonly ShownRack[] }) {
  const selection = useSessionState((state) => state.selection);
  const items = useSessionState((state) => state.document.items);
  const part = selection.length === 1 ? items[selection[0]!] : undefined;
  return (
    <div className="border-t border-rule p-2">
      {part ? (
        <PutForm key={part.id} part={part.id} name={part.name} racks={racks} />
      ) : (
        <p className="px-1.5 text-ink2">Select one part to put it on a rack.</p>
      )}
      <FromFile />
    </div>
  );
}

interface PutFormProps {
  readonly part: string;
  readonly name: string;
  readonly racks: readonly ShownRack[];
}

function PutForm({ part, name, racks }: PutFormProps) {
  const own = racks.filter(({ id }) => id !== null);
  const [rack, setRack] = useState(own[0]?.id ?? NEW);
  const [called, setCalled] = useState(name);
  const [isShared, setIsShared] = useState(false);
  const put = usePut();
  const there = own.find(({ id }) => id === rack)?.parts.find((one) => one.name === called);
  return (
    <form
      aria-label="Put on a rack"
      className="flex flex-col gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        put.mutate({ part, rack, called, isShared, known: there }, { onSuccess: (id) => setRack(id) });
      }}
    >
      <div className="flex gap-1.5">
        <input
          className="field min-w-0 flex-1"
          aria-label="Called on the rack"
          data-words
          required
          maxLength={120}
          value={called}
          onChange={(event) => setCalled(event.target.value)}
        />
        <RackChoice own={own} rack={rack} choose={setRack} />
      </div>
      {rack === NEW && <Shared isShared={isShared} share={setIsShared} />}
      <button type="submit" className="button" disabled={put.isPending}>
        {there ? `Put version ${there.version + 1} on the rack` : 'Put on the rack'}
      </button>
      {put.error && (
        <p role="alert" className="text-bad">
          {put.error.message}
        </p>
      )}
    </form>
  );
}

function Shared({
  isShared,
  share,
}: {
  readonly isShared: boolean;
  readonly share: (isShared: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-1.5">
      <input type="checkbox" checked={isShared} onChange={(event) => share(event.target.checked)} />
      For all who work on this project
    </label>
  );
}

interface RackChoiceProps {
  readonly own: readonly ShownRack[];
  readonly rack: string;
  readonly choose: (rack: string) => void;
}

function RackChoice({ own, rack, choose }: RackChoiceProps) {
  return (
    <select
      className="field min-w-0 flex-1"
      aria-label="Rack"
      value={rack}
      onChange={(event) => choose(event.target.value)}
    >
      {own.map(({ id, name: words }) => (
        <option key={id} value={id!}>
          {words}
        </option>
      ))}
      <option value={NEW}>a new rack</option>
    </select>
  );
}

interface Putting {
  readonly part: string;
  readonly rack: string;
  readonly called: string;
  readonly isShared: boolean;
  /** What has that name there already. */
  readonly known: RackPart | undefined;
}

function usePut() {
  const session = useSession();
  const project = useSessionState((state) => state.projectId);
  const client = useQueryClient();
  return useMutation({
    /** Returns the id of the rack. */
    async mutationFn({ part, rack, called, isShared, known }: Putting): Promise<string> {
      const gathered = session.gatheredForRack(part, {
        id: known?.id ?? session.newRackId(),
        version: (known?.version ?? 0) + 1,
        name: called.trim(),
        about: known?.about ?? '',
        words: known?.words ?? [],
        before: known,
      });
      if (rack !== NEW) {
        await workshopApi.putOnRack(rack, gathered);
        return rack;
      }
      const { id } = await workshopApi.createRack({
        name: isShared ? 'Rack of the project' : 'My rack',
        parts: [gathered],
        ...(isShared ? { project } : {}),
      });
      return id;
    },
    onSuccess: () => client.invalidateQueries({ queryKey: RACKS }),
  });
}

/** A rack that was written to a file becomes a rack of one’s own. */
function FromFile() {
  const file = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const bring = useMutation({
    async mutationFn(text: string) {
      const { name, parts } = rackFileSchema.parse(JSON.parse(text));
      return workshopApi.createRack({ name, parts });
    },
    onSuccess: () => client.invalidateQueries({ queryKey: RACKS }),
  });
  return (
    <div>
      <button
        type="button"
        className="quiet"
        disabled={bring.isPending}
        onClick={() => file.current?.click()}
      >
        Bring a rack from a file
      </button>
      <input
        ref={file}
        type="file"
        accept=".json"
        className="hidden"
        aria-label="File of a rack"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) void chosen.text().then((text) => bring.mutate(text));
          event.target.value = '';
        }}
      />
      {bring.error && (
        <p role="alert" className="text-bad">
          This is no file of a rack. Choose one that was written here.
        </p>
      )}
    </div>
  );
}
