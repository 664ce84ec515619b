import type { RackPart } from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import { useSession } from '../context.ts';

/** Lines of a rack part seen from the side, drawn when the kernel has nothing else to do. */
export function RackPicture({ part }: { readonly part: RackPart }) {
  const session = useSession();
  const { data } = useQuery({
    queryKey: ['rack picture', part.id, part.version],
    queryFn: () => session.rackDrawing(part),
    staleTime: Infinity,
    retry: false,
  });
  return (
    <svg
      aria-hidden
      className="size-10 shrink-0 rounded border border-rule bg-ground text-ink"
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
