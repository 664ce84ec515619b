import type { RackPart } from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { workshopApi } from '../../api/workshop.ts';
import type { RackDrawing } from '../../session/rackDrawing.ts';
import type { Session } from '../../session/store.ts';
import { useSession } from '../context.ts';
import type { ShownRack } from './racks.ts';

interface RackPictureProps {
  readonly rack: ShownRack;
  readonly part: RackPart;
  /** Classes of its size. */
  readonly size: string;
}

/** Lines of a rack part seen from the side: as they are kept with it, else drawn when the kernel has nothing else to do, and kept. */
export function RackPicture({ rack, part, size }: RackPictureProps) {
  const session = useSession();
  const { data } = useQuery({
    queryKey: ['rack picture', rack.id, part.id, part.version],
    queryFn: () => drawn(session, rack, part),
    staleTime: Infinity,
    retry: false,
  });
  return (
    <svg
      aria-hidden
      className={clsx('shrink-0 rounded border border-rule bg-ground text-ink', size)}
      viewBox={data?.viewBox ?? '0 0 1 1'}
      data-drawn={data ? '' : undefined}
    >
      {data && (
        <path
          d={data.path}
          fill="none"
          stroke="currentColor"
          vectorEffect="non-scaling-stroke"
          strokeWidth={1}
        />
      )}
    </svg>
  );
}

async function drawn(
  session: Session,
  { id, drawn }: ShownRack,
  part: RackPart,
): Promise<RackDrawing | null> {
  const { version } = part;
  if (id !== null && drawn.includes(part.id)) return workshopApi.rackPicture(id, part.id, version);
  const drawing = await session.rackDrawing(part);
  if (drawing && id !== null) await workshopApi.keepRackPicture(id, part.id, { version, ...drawing });
  return drawing;
}
