/** The words and the sizes of a part on a rack of one’s own: what is set becomes its next version. */
import { Modal } from '../../common/Modal.tsx';
import { rackPartFault, type Parameter, type RackPart } from '@kadrel/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Plus, X } from 'lucide-react';
import { IconButton } from '../IconButton.tsx';
import { useState, type FormEvent } from 'react';
import { workshopApi } from '../../api/workshop.ts';
import { RACKS } from './racks.ts';

interface RackPartDialogProps {
  /** Id of the rack. */
  readonly rack: string;
  readonly part: RackPart;
  readonly close: () => void;
}

/** Name, words, labels of parameters and a table of sizes. */
export function RackPartDialog({ rack, part, close }: RackPartDialogProps) {
  const [draft, setDraft] = useState(part);
  const change = (more: Partial<RackPart>) => setDraft((now) => ({ ...now, ...more }));
  const put = usePut(rack, close);
  return (
    <Modal isOpen close={close} title={`Words and sizes of ${part.name}`} width="w-[560px]">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          put.mutate(draft);
        }}
      >
        <Words draft={draft} change={change} />
        {draft.parameters.length > 0 && (
          <>
            <Labels draft={draft} change={change} />
            <Sizes draft={draft} change={change} />
          </>
        )}
        {put.error && (
          <p role="alert" className="text-bad">
            {put.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button type="button" className="button" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="button main" disabled={put.isPending}>
            Put version {part.version + 1} on the rack
          </button>
        </div>
      </form>
    </Modal>
  );
}

function usePut(rack: string, close: () => void) {
  const client = useQueryClient();
  return useMutation({
    async mutationFn(edited: RackPart) {
      const fault = rackPartFault(edited);
      if (fault) throw new Error(fault.message);
      return workshopApi.putOnRack(rack, edited);
    },
    async onSuccess() {
      await client.invalidateQueries({ queryKey: RACKS });
      close();
    },
  });
}

interface Telling {
  readonly draft: RackPart;
  readonly change: (more: Partial<RackPart>) => void;
}

function Words({ draft, change }: Telling) {
  return (
    <>
      <label className="flex flex-col gap-1">
        Name
        <input
          className="field"
          required
          maxLength={120}
          value={draft.name}
          onChange={(event) => change({ name: event.target.value })}
        />
      </label>
      <label className="flex flex-col gap-1">
        What it is
        <input
          className="field"
          maxLength={500}
          value={draft.about}
          onChange={(event) => change({ about: event.target.value })}
        />
      </label>
      <label className="flex flex-col gap-1">
        Words that find it, with commas between them
        <input
          className="field"
          defaultValue={draft.words.join(', ')}
          onChange={(event) => change({ words: wordsIn(event.target.value) })}
        />
      </label>
    </>
  );
}

const wordsIn = (text: string): string[] =>
  text
    .split(',')
    .map((word) => word.trim().slice(0, 40))
    .filter((word) => word !== '')
    .slice(0, 40);

/** What each parameter is called where it is asked for. */
function Labels({ draft: { parameters }, change }: Telling) {
  return (
    <fieldset className="flex flex-wrap gap-2">
      <legend className="mb-1 font-semibold">Parameters</legend>
      {parameters.map(({ name, label }) => (
        <label key={name} className="flex min-w-0 flex-col gap-1">
          <span className="num text-[12px] text-ink2">{name}</span>
          <input
            className="field w-36"
            aria-label={`Label of ${name}`}
            required
            maxLength={80}
            value={label}
            onChange={(event) =>
              change({
                parameters: parameters.map((one) =>
                  one.name === name ? { ...one, label: event.target.value } : one,
                ),
              })
            }
          />
        </label>
      ))}
    </fieldset>
  );
}

/** Standard sizes: a row for each, a column for each parameter. */
function Sizes({ draft: { sizes, parameters, variables }, change }: Telling) {
  const set = (index: number, size: RackPart['sizes'][number]) =>
    change({ sizes: sizes.map((one, i) => (i === index ? size : one)) });
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Standard sizes</legend>
      {sizes.length > 0 && (
        <table className="mb-2 w-full">
          <thead>
            <tr className="text-left text-[12px] text-ink2">
              <th className="font-normal">Size</th>
              {parameters.map(({ name, label }) => (
                <th key={name} className="font-normal">
                  {label}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {sizes.map((size, i) => (
              <SizeRow
                key={i}
                size={size}
                parameters={parameters}
                variables={variables}
                set={(next) => set(i, next)}
                remove={() => change({ sizes: sizes.filter((_, j) => j !== i) })}
              />
            ))}
          </tbody>
        </table>
      )}
      <button
        type="button"
        className="quiet"
        onClick={() => change({ sizes: [...sizes, { name: '', values: {} }] })}
      >
        <Plus size={13} className="mr-1 inline" />
        New size
      </button>
    </fieldset>
  );
}

interface SizeRowProps {
  readonly size: RackPart['sizes'][number];
  readonly parameters: readonly Parameter[];
  /** What stands where a size says nothing. */
  readonly variables: RackPart['variables'];
  readonly set: (size: RackPart['sizes'][number]) => void;
  readonly remove: () => void;
}

function SizeRow({ size, parameters, variables, set, remove }: SizeRowProps) {
  const withValue = (name: string, text: string) => {
    const { [name]: _, ...others } = size.values;
    return text.trim() === '' ? others : { ...others, [name]: text };
  };
  return (
    <tr>
      <td className="pr-1">
        <input
          className="field w-full"
          aria-label="Name of size"
          required
          maxLength={80}
          value={size.name}
          onChange={(event) => set({ ...size, name: event.target.value })}
        />
      </td>
      {parameters.map(({ name, label }) => (
        <td key={name} className="pr-1">
          <input
            className="field num w-full"
            aria-label={`${label} of size ${size.name}`}
            placeholder={variables[name]}
            value={size.values[name] ?? ''}
            onChange={(event) => set({ ...size, values: withValue(name, event.target.value) })}
          />
        </td>
      ))}
      <td>
        <IconButton label={`Remove size ${size.name}`} title="Remove" onClick={remove}>
          <X size={13} />
        </IconButton>
      </td>
    </tr>
  );
}
