/** A newer version of what follows a rack: what it would change, and whether it is taken. */
import { formatMeasure } from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSession, useSessionState } from '../context.ts';
import type { Outdated } from './racks.ts';

/** Tells of a newer version. */
export function Newer({ outdated }: { readonly outdated: Outdated }) {
  const session = useSession();
  const { item, name, from, to } = outdated;
  const [isOpen, setIsOpen] = useState(false);
  return (
    <section
      className="mx-3.5 mb-2 rounded border border-rule bg-sheet p-2"
      aria-label={`Newer version of ${name}`}
    >
      <p>
        <b className="font-semibold">{name}</b> follows version {from} of {to.name}; the rack has version{' '}
        {to.version}.
      </p>
      {isOpen && <Changes outdated={outdated} />}
      <div className="flex gap-1">
        <button type="button" className="quiet" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
          What would change
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => void session.say('update-taken', { parts: [item], to })}
        >
          Take it
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => void session.say('change-taken', { part: item, follow: 'own' })}
        >
          Keep mine
        </button>
      </div>
    </section>
  );
}

function Changes({ outdated: { item, to } }: { readonly outdated: Outdated }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const { data } = useQuery({
    queryKey: ['rack difference', item, to.id, to.version],
    queryFn: () => session.rackDifference(item, to),
    retry: false,
  });
  if (data === undefined) return <p className="text-ink2">Looking…</p>;
  if (typeof data === 'string') return <p className="text-bad">{data}</p>;
  const { volumes, lostDocks, sizes } = data;
  return (
    <dl aria-label="What would change">
      <Row
        what="Volume"
        is={`${formatMeasure(volumes[0], 3, scene)} → ${formatMeasure(volumes[1], 3, scene)}`}
      />
      {lostDocks.length > 0 && <Row what="Docks that go" is={lostDocks.join(', ')} />}
      {sizes.length > 0 && <Row what="Other sizes" is={sizes.join(', ')} />}
    </dl>
  );
}

const Row = ({ what, is }: { readonly what: string; readonly is: string }) => (
  <div className="flex justify-between gap-2">
    <dt>{what}</dt>
    <dd className="num text-right">{is}</dd>
  </div>
);
