/** One rack with its parts. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Download, Pencil, Trash2 } from 'lucide-react';
import { IconButton } from '../IconButton.tsx';
import { useState } from 'react';
import { workshopApi } from '../../api/workshop.ts';
import { download } from '../../common/download.ts';
import { RackRow } from './RackRow.tsx';
import { RACKS, isWished, type ShownRack, type Wish } from './racks.ts';

interface RackListProps {
  readonly rack: ShownRack;
  readonly wish: Wish;
  readonly look: 'words' | 'pictures';
}

/** A rack, and what of it is looked for. */
export function RackList({ rack, wish, look }: RackListProps) {
  const parts = rack.parts.filter((part) => isWished(part, wish));
  return (
    <section aria-label={rack.name}>
      <RackHead rack={rack} />
      {parts.length === 0 ? (
        <p className="px-3.5 pb-2 text-ink2">
          {rack.parts.length === 0 ? 'Nothing on it yet.' : 'Nothing of it fits.'}
        </p>
      ) : (
        <ul
          aria-label={`Parts of ${rack.name}`}
          className={look === 'pictures' ? 'grid grid-cols-3 gap-1 px-2' : undefined}
        >
          {parts.map((part) => (
            <RackRow key={part.id} rack={rack} part={part} look={look} />
          ))}
        </ul>
      )}
    </section>
  );
}

/** Its name; a rack of one’s own can be written to a file and thrown away. */
function RackHead({ rack }: { readonly rack: ShownRack }) {
  const [isNaming, setIsNaming] = useState(false);
  const file = { kadrelRack: 1, name: rack.name, parts: rack.parts };
  const write = () => download(`${rack.name}.rack.json`, 'application/json', JSON.stringify(file));
  return (
    <div className="flex items-center gap-1.5 px-3.5 pt-2">
      {isNaming && rack.id !== null ? (
        <NameRack id={rack.id} name={rack.name} done={() => setIsNaming(false)} />
      ) : (
        <h3 className="min-w-0 flex-1 truncate text-[11px] font-semibold text-ink2" title={rack.name}>
          {rack.name}
          {rack.project !== null && ' · of a project'}
        </h3>
      )}
      {rack.id !== null && !isNaming && (
        <IconButton label={`Rename ${rack.name}`} title="Rename" onClick={() => setIsNaming(true)}>
          <Pencil size={13} />
        </IconButton>
      )}
      <IconButton label={`Write ${rack.name} to a file`} title="Write to a file" onClick={write}>
        <Download size={13} />
      </IconButton>
      {rack.id !== null && <DeleteRack id={rack.id} name={rack.name} />}
    </div>
  );
}

interface NameRackProps {
  readonly id: string;
  readonly name: string;
  readonly done: () => void;
}

/** A field in place of the name: Enter keeps it, Esc does not. */
function NameRack({ id, name, done }: NameRackProps) {
  const client = useQueryClient();
  const rename = useMutation({
    mutationFn: (text: string) => workshopApi.renameRack(id, text),
    async onSuccess() {
      await client.invalidateQueries({ queryKey: RACKS });
      done();
    },
  });
  return (
    <form
      className="flex min-w-0 flex-1 flex-col"
      onSubmit={(event) => {
        event.preventDefault();
        rename.mutate(String(new FormData(event.currentTarget).get('name')));
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        event.stopPropagation();
        done();
      }}
    >
      <input
        className="field"
        name="name"
        aria-label={`New name of ${name}`}
        data-words
        autoFocus
        required
        maxLength={120}
        defaultValue={name}
      />
      {rename.error && (
        <p role="alert" className="text-bad">
          {rename.error.message}
        </p>
      )}
    </form>
  );
}

/** Asks once before a rack is thrown away. */
function DeleteRack({ id, name }: { readonly id: string; readonly name: string }) {
  const client = useQueryClient();
  const [isAsking, setIsAsking] = useState(false);
  const remove = useMutation({
    mutationFn: () => workshopApi.deleteRack(id),
    onSuccess: () => client.invalidateQueries({ queryKey: RACKS }),
  });
  return isAsking ? (
    <button
      type="button"
      className="quiet text-bad"
      disabled={remove.isPending}
      onClick={() => remove.mutate()}
    >
      Delete for good
    </button>
  ) : (
    <button
      type="button"
      className="text-ink2 hover:text-bad"
      aria-label={`Delete ${name}`}
      title="Delete"
      onClick={() => setIsAsking(true)}
    >
      <Trash2 size={13} />
    </button>
  );
}
