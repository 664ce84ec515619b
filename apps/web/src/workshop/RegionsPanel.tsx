/** Below the bar: the regions that can be chosen, one by one by keyboard too, and the gaps that keep others open. */
import {
  formatLengthWithUnit,
  formatMeasure,
  nearMisses,
  type ItemId,
  type Question,
  type RegionFound,
} from '@kadrel/core';
import { useEffect, useState } from 'react';
import { chosenRegions, isSameRegion, profilesInHand } from '../session/regions.ts';
import type { Statement } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';

export function RegionsPanel({ statement }: { statement: Statement }) {
  const document = useSessionState((state) => state.document);
  const found = profilesInHand(statement, document);
  if (!found || statement.phase !== 'open') return null;
  const isFocused = statement.focus?.blank === found.blank;
  const gaps = found.paths ? nearMisses(found.paths) : [];
  if (!isFocused && gaps.length === 0) return null;
  return (
    <section
      className="absolute top-full left-[244px] z-20 mt-8 max-h-[50vh] overflow-auto rounded-md border border-rule bg-sheet p-2.5 text-[13px] shadow-lg"
      aria-label="Regions"
    >
      {isFocused && <RegionList statement={statement} blank={found.blank} profiles={found.profiles} />}
      {gaps.length > 0 && (
        <Gaps statement={statement} blank={found.blank} profiles={found.profiles} gaps={gaps} />
      )}
    </section>
  );
}

/** The regions that the profiles enclose, once the worker has found them. */
function useRegions(profiles: readonly ItemId[]): readonly RegionFound[] {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const [regions, setRegions] = useState<readonly RegionFound[]>([]);
  const key = profiles.join();
  useEffect(() => {
    let isWanted = true;
    const question: Question = { ask: 'regions', profiles: key.split(',') };
    void session.find(question, { editId: null }).then((isFound) => {
      const reply = isFound ? session.world().ask(question) : undefined;
      if (isWanted && reply) setRegions(reply as readonly RegionFound[]);
    });
    return () => {
      isWanted = false;
    };
  }, [session, key, document]);
  return regions;
}

function RegionList({
  statement,
  blank,
  profiles,
}: {
  statement: Statement;
  blank: string;
  profiles: readonly ItemId[];
}) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const regions = useRegions(profiles);
  const chosen = chosenRegions(statement.typed[blank]);
  if (regions.length === 0) return <p className="text-ink2">These curves enclose no area.</p>;
  return (
    <fieldset>
      <legend className="mb-1 text-ink2">Click in them, or choose here</legend>
      {regions.map((region, i) => (
        <label key={i} className="flex items-center gap-2 py-px">
          <input
            type="checkbox"
            checked={chosen.some((one) => isSameRegion(one, region))}
            onChange={() => session.toggleRegion(blank, region)}
          />
          <span>Region {i + 1}</span>
          <span className="num ml-auto pl-4 text-ink2">{formatMeasure(region.area, 2, scene)}</span>
        </label>
      ))}
    </fieldset>
  );
}

function Gaps({
  statement,
  blank,
  profiles,
  gaps,
}: {
  statement: Statement;
  blank: string;
  profiles: readonly ItemId[];
  gaps: ReturnType<typeof nearMisses>;
}) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const ends = gaps.filter(({ isEnd }) => isEnd);
  const sizes = gaps.slice(0, 4).map(({ size }) => formatLengthWithUnit(size, scene));
  const more = gaps.length > 4 ? ` and ${gaps.length - 4} more` : '';
  const close = async () => {
    const widest = Math.max(...ends.map(({ size }) => size));
    // A hair more, so that the widest is within it.
    if (!(await session.say('join', { profiles, gap: `${widest * 1.001} mm` }))) return;
    const { selection } = session.store.getState();
    // The areas are others now.
    session.start(statement.verb, { ...statement.typed, profiles: [...selection], [blank]: 'all' });
  };
  return (
    <p className="mt-1 flex items-center gap-2" role="status">
      <span>
        {gaps.length === 1 ? 'A gap' : `${gaps.length} gaps`} of{' '}
        <span className="num">{sizes.join(', ')}</span>
        {more} {gaps.length === 1 ? 'keeps' : 'keep'} an area open.
      </span>
      {ends.length > 0 && (
        <button type="button" className="button" onClick={() => void close()}>
          Close {ends.length === 1 ? 'it' : 'them'}
        </button>
      )}
    </p>
  );
}
