/** What a section plane cuts: areas, borders and middles, part by part, and where two fill the same place. */
import { formatLength, formatLengthWithUnit, formatMeasure, type CutFacts, type Part } from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import { useSession, useSessionState } from './context.ts';
import { Section } from './Section.tsx';

export function SectionFacts({ part }: { part: Part }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const document = useSessionState((state) => state.document);
  const failure = built.failures.find((one) => one.part === part.id);
  const key = built.parts[part.id]?.key;
  const { data } = useQuery({
    queryKey: ['section', part.id, key],
    queryFn: () => session.sectionFacts(part.id),
    enabled: key !== undefined,
    // The key names all that is cut by what it is made of.
    staleTime: Infinity,
  });
  const names = (ids: readonly string[]) => ids.map((id) => document.items[id]?.name ?? '…').join(' and ');
  return (
    <Section title="Cut">
      {failure && <p className="px-3.5 text-bad">{`${failure.reason} ${failure.remedy}`}</p>}
      {data?.items.length === 0 && <p className="px-3.5 text-ink3">It meets no part.</p>}
      {data?.items.map((one) => (
        <ItemFacts key={one.item} name={names([one.item])} facts={one} />
      ))}
      {data?.overlaps.map(({ items, area }) => (
        <p key={items.join()} role="note" className="px-3.5 pt-1 text-bad">
          {`${names(items)} fill the same place: ${formatMeasure(area, 2, document.scene)}.`}
        </p>
      ))}
    </Section>
  );
}

function ItemFacts({ name, facts: { area, border, centroid } }: { name: string; facts: CutFacts }) {
  const scene = useSessionState((state) => state.document.scene);
  const rows = [
    ['Area', formatMeasure(area, 2, scene)],
    ['Border', formatLengthWithUnit(border, scene)],
    ['Centroid', centroid.map((n) => formatLength(n, scene)).join('  ')],
  ] as const;
  return (
    <div className="px-3.5 pb-1">
      <h4 className="truncate font-semibold">{name}</h4>
      <dl>
        {rows.map(([label, value]) => (
          <div key={label} className="flex justify-between gap-2 py-px">
            <dt className="text-ink2">{label}</dt>
            <dd className="num text-right" data-testid={`cut-${label.toLowerCase()}`}>
              {value}
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
