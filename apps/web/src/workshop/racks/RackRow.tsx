/** A part of a rack: taken by a click, or dragged into a view. */
import type { RackPart } from '@kadrel/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { Pencil, X } from 'lucide-react';
import { useState } from 'react';
import { workshopApi } from '../../api/workshop.ts';
import { useSession } from '../context.ts';
import { useDragOut } from './dragOut.ts';
import { RackPartDialog } from './RackPartDialog.tsx';
import { RackPicture } from './RackPicture.tsx';
import { RACKS, type ShownRack } from './racks.ts';

interface RackRowProps {
  readonly rack: ShownRack;
  readonly part: RackPart;
  readonly look: 'words' | 'pictures';
}

/** A row with its words, or a tile that is mostly picture. */
export function RackRow({ rack, part, look }: RackRowProps) {
  const session = useSession();
  // What ships is called by its name, so that statements stay short.
  const take = () =>
    session.start('take', {
      part: rack.id === null ? part.name : part,
      ...(part.sizes[0] ? { size: part.sizes[0].name } : {}),
      ...(rack.id === null ? {} : { follow: 'follows' }),
    });
  const dragOut = useDragOut(take);
  const isTile = look === 'pictures';
  return (
    <li className={clsx('group relative', isTile ? 'min-w-0' : 'flex items-center gap-1 px-2')}>
      <button
        type="button"
        className={clsx(
          'menu-item min-w-0 touch-none select-none',
          isTile ? 'flex w-full flex-col items-center gap-1 px-1 py-1.5 text-center' : 'flex-1 text-left',
        )}
        title={part.about === '' ? part.name : part.about}
        onClick={take}
        {...dragOut}
      >
        <RackPicture rack={rack} part={part} size={isTile ? 'size-16' : 'size-10'} />
        <span className={isTile ? 'w-full' : 'min-w-0'}>
          <b className={clsx('font-semibold', isTile ? 'line-clamp-2 text-[11px]' : 'block truncate')}>
            {part.name}
          </b>
          {!isTile && <span className="block truncate text-[12px] text-ink2">{wordsOf(part)}</span>}
        </span>
      </button>
      {rack.id !== null && <OwnButtons id={rack.id} rackName={rack.name} part={part} isOver={isTile} />}
    </li>
  );
}

interface OwnProps {
  readonly id: string;
  readonly rackName: string;
  readonly part: RackPart;
  /** They stand over its picture. */
  readonly isOver: boolean;
}

/** Changes the words and sizes of a part of one’s own, or takes it off. */
function OwnButtons({ id, rackName, part, isOver }: OwnProps) {
  const client = useQueryClient();
  const [isEditing, setIsEditing] = useState(false);
  const takeOff = useMutation({
    mutationFn: () => workshopApi.takeOffRack(id, part.id),
    onSuccess: () => client.invalidateQueries({ queryKey: RACKS }),
  });
  const look = 'text-ink2 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-plum';
  return (
    <span className={clsx('flex gap-1', isOver && 'absolute top-1 right-1')}>
      <button
        type="button"
        className={look}
        aria-label={`Words and sizes of ${part.name}`}
        title="Words and sizes"
        onClick={() => setIsEditing(true)}
      >
        <Pencil size={13} />
      </button>
      <button
        type="button"
        className={look}
        aria-label={`Take ${part.name} off ${rackName}`}
        title="Take off the rack"
        disabled={takeOff.isPending}
        onClick={() => takeOff.mutate()}
      >
        <X size={13} />
      </button>
      {isEditing && <RackPartDialog rack={id} part={part} close={() => setIsEditing(false)} />}
    </span>
  );
}

/** Its sizes, or what it is. */
function wordsOf({ sizes, about }: RackPart): string {
  const [first, last] = [sizes[0], sizes.at(-1)];
  if (!first || !last) return about;
  return first === last ? first.name : `${first.name} to ${last.name}`;
}
