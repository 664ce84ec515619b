/** Faces, edges and corners of the selected part: chosen from a list or by a further click on the part, with their sizes. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import {
  EDGE_RULES,
  carry,
  formatAngle,
  formatLength,
  formatLengthWithUnit,
  formatMeasure,
  worldFromPart,
  type EdgeFacts,
  type FaceFacts,
  type KadrelDocument,
  type Part,
  type Vec3,
} from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { factsOfPart } from '../session/built.ts';
import {
  areThere,
  cornerAt,
  nameOfPlace,
  namesOfPlaces,
  runsFrom,
  wordsOfPlace,
  wordsOfPlaces,
  type SelectedPlace,
  type SelectedPlaces,
} from '../session/places.ts';
import { useSession, useSessionState } from './context.ts';
import { Labelled } from './Labelled.tsx';
import { Section } from './Section.tsx';

export function PlaceFacts({ part }: { part: Part }) {
  const built = useSessionState((state) => state.built);
  const snaps = factsOfPart({ built }, part.id)?.snaps;
  if (!snaps) return null;
  return (
    <Section title="Faces, edges, corners">
      <Labelled label="Selected">
        <PlaceList part={part} names={Object.values(namesOfPlaces(snaps)).flat()} />
      </Labelled>
      <Sizes part={part} />
    </Section>
  );
}

const keyOf = (one: SelectedPlace): string => (typeof one === 'string' ? one : JSON.stringify(one));

/** What is selected of the part, if it is still there. */
function useSelectedPlaces(part: Part): SelectedPlaces | null {
  const places = useSessionState((state) => state.places);
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  return useMemo(
    () => (places?.part === part.id && areThere(places, { document, built }) ? places : null),
    [places, document, built, part.id],
  );
}

function PlaceList({ part, names }: { part: Part; names: readonly string[] }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const places = useSelectedPlaces(part);
  const list = places?.list ?? [];
  // What was clicked carries a point; in the list it stands for the name.
  const chosen = list.map(nameOfPlace);
  const runs = [...new Set(runsFrom(list).map(({ run }) => nameOfPlace(run)))];
  const choose = (next: readonly string[]) => {
    const kept = list.filter((_, i) => next.includes(chosen[i]!));
    const fresh = next.filter((key) => !chosen.includes(key));
    const run = runsFrom(list).find((one) => nameOfPlace(one.run) === fresh[0]);
    const all = run ? list.map((one) => (one === run.from ? run.run : one)) : [...kept, ...fresh];
    session.selectPlaces(all.length === 0 ? null : { part: part.id, list: all });
  };
  const words = places && list.length > 0 ? wordsOfPlaces(places, document) : 'none; click the part again';
  return (
    <Listbox value={[...new Set(chosen)]} multiple onChange={choose}>
      <ListboxButton className="field truncate text-left" aria-label={`Selected of the part: ${words}`}>
        {words}
      </ListboxButton>
      <ListboxOptions
        modal={false}
        anchor={{ to: 'bottom start', gap: 4 }}
        className="menu max-h-80 min-w-56 overflow-auto"
      >
        {[...Object.keys(EDGE_RULES), ...runs, ...names].map((key) => (
          <ListboxOption
            key={key}
            value={key}
            className="menu-item data-selected:font-semibold data-selected:text-plum"
          >
            {wordsOfPlace(key, document)}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

function Sizes({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  const places = useSelectedPlaces(part);
  const { data } = useQuery({
    queryKey: ['places', built.parts[part.id]?.key, places?.list.map(keyOf)],
    queryFn: () => session.placeFacts(places!),
    enabled: places !== null,
    // The key names the solid by what it is made of.
    staleTime: Infinity,
  });
  if (!places) return null;
  const snaps = factsOfPart({ built }, part.id)?.snaps;
  const corner = snaps && cornerAt(snaps, places.list);
  const rows = [
    ...(data?.face ? faceRows(data.face, document) : []),
    ...(data?.edges ? edgeRows(data.edges, document) : []),
    ...(corner ? [cornerRow(carry(worldFromPart(document, part.id), corner), document)] : []),
  ];
  return (
    <dl className="grid grid-cols-[76px_1fr] gap-x-1.5 px-3.5 pt-1">
      {rows.map(([label, value]) => (
        <div key={label} className="contents">
          <dt className="text-ink2">{label}</dt>
          <dd className="num" data-testid={`place-${label.toLowerCase()}`}>
            {value}
          </dd>
        </div>
      ))}
    </dl>
  );
}

type Row = readonly [label: string, value: string];

const faceRows = ({ area, border }: FaceFacts, { scene }: KadrelDocument): Row[] => [
  ['Area', formatMeasure(area, 2, scene)],
  ['Border', formatLengthWithUnit(border, scene)],
];

const edgeRows = ({ length, radius, angle }: EdgeFacts, { scene }: KadrelDocument): Row[] => [
  ['Length', formatLengthWithUnit(length, scene)],
  ...(radius === undefined ? [] : [['Radius', formatLengthWithUnit(radius, scene)] as const]),
  ...(angle === undefined ? [] : [['Angle', `${formatAngle(angle)} between its faces`] as const]),
];

const cornerRow = (at: Vec3, { scene }: KadrelDocument): Row => [
  'Corner',
  at.map((n) => formatLength(n, scene)).join('  '),
];
