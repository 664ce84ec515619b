/** One rack with its parts. */
import type { RackPart } from '@kadrel/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Download, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import { api } from '../../api/client.ts';
import { download } from '../../common/download.ts';
import { useSession } from '../context.ts';
import { RackPicture } from './RackPicture.tsx';
import { RACKS, isWished, type ShownRack, type Wish } from './racks.ts';

/** A rack, and what of it is looked for. */
export function RackList({ rack, wish }: { readonly rack: ShownRack; readonly wish: Wish }) {
  const parts = rack.parts.filter((part) => isWished(part, wish));
  return (
    <section aria-label={rack.name}>
      <RackHead rack={rack} />
      {parts.length === 0 ? (
        <p className="px-3.5 pb-2 text-ink2">
          {rack.parts.length === 0 ? 'Nothing on it yet.' : 'Nothing of it fits.'}
        </p>
      ) : (
        <ul aria-label={`Parts of ${rack.name}`}>
          {parts.map((part) => (
            <RackRow key={part.id} rack={rack} part={part} />
          ))}
        </ul>
      )}
    </section>
  );
}

/** Its name; a rack of one’s own can be written to a file and thrown away. */
function RackHead({ rack }: { readonly rack: ShownRack }) {
  const file = { kadrelRack: 1, name: rack.name, parts: rack.parts };
  const write = () => download(`${rack.name}.rack.json`, 'application/json', JSON.stringify(file));
  return (
    <div className="flex items-center gap-1.5 px-3.5 pt-2">
      <h3 className="min-w-0 flex-1 truncate text-[11px] font-semibold text-ink2" title={rack.name}>
        {rack.name}
        {rack.project !== null && ' · of a project'}
      </h3>
      <button
        type="button"
        className="text-ink2 hover:text-plum"
        aria-label={`Write ${rack.name} to a file`}
        title="Write to a file"
        onClick={write}
      >
        <Download size={13} />
      </button>
      {rack.id !== null && <DeleteRack id={rack.id} name={rack.name} />}
    </div>
  );
}

/** Asks once before a rack is thrown away. */
function DeleteRack({ id, name }: { readonly id: string; readonly name: string }) {
  const client = useQueryClient();
  const [isAsking, setIsAsking] = useState(false);
  const remove = useMutation({
    mutationFn: () => api.deleteRack(id),
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

function RackRow({ rack, part }: { readonly rack: ShownRack; readonly part: RackPart }) {
  const session = useSession();
  const client = useQueryClient();
  const takeOff = useMutation({
    mutationFn: () => api.takeOffRack(rack.id!, part.id),
    onSuccess: () => client.invalidateQueries({ queryKey: RACKS }),
  });
  // What ships is told by its name, so that statements stay short.
  const take = () =>
    session.start('take', {
      part: rack.id === null ? part.name : part,
      ...(part.sizes[0] ? { size: part.sizes[0].name } : {}),
      ...(rack.id === null ? {} : { follow: 'follows' }),
    });
  return (
    <li className="group flex items-center gap-1 px-2">
      <button type="button" className="menu-item min-w-0 flex-1 text-left" title={part.about} onClick={take}>
        <RackPicture part={part} />
        <span className="min-w-0">
          <b className="block truncate font-semibold">{part.name}</b>
          <span className="block truncate text-[12px] text-ink2">{wordsOf(part)}</span>
        </span>
      </button>
      {rack.id !== null && (
        <button
          type="button"
          className="text-ink2 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-plum"
          aria-label={`Take ${part.name} off ${rack.name}`}
          title="Take off the rack"
          disabled={takeOff.isPending}
          onClick={() => takeOff.mutate()}
        >
          <X size={13} />
        </button>
      )}
    </li>
  );
}

/** Its sizes, or what it is. */
function wordsOf({ sizes, about }: RackPart): string {
  const [first, last] = [sizes[0], sizes.at(-1)];
  if (!first || !last) return about;
  return first === last ? first.name : `${first.name} to ${last.name}`;
}
