/** The racks that are at hand, and what of them fits or is newer. */
import { docksInOrder, starterRack, type KadrelDocument, type RackPart } from '@kadrel/core';
import { useQueries, useQuery } from '@tanstack/react-query';
import { type OpenedRack, workshopApi } from '../../api/workshop.ts';

/** A rack with its parts; the starter rack has no id on the server. */
export interface ShownRack {
  readonly id: string | null;
  readonly name: string;
  readonly project: string | null;
  readonly parts: readonly RackPart[];
  /** Ids of the parts whose picture is kept with the rack. */
  readonly drawn: readonly string[];
}

/** What is asked of the server about racks. */
export const RACKS = ['racks'] as const;

/** Made when the racks are opened first. */
let starter: ShownRack | null = null;
const starterShown = (): ShownRack => (starter ??= { id: null, project: null, drawn: [], ...starterRack() });

/** The racks, and why some are not there. */
export interface Racks {
  readonly racks: readonly ShownRack[];
  readonly trouble: string | null;
}

/** One’s own racks, those of projects, and the one that ships. */
export function useRacks(): Racks {
  const { data: listed, error } = useQuery({ queryKey: RACKS, queryFn: workshopApi.racks });
  const opened = useQueries({
    queries: (listed ?? []).map(({ id }) => ({
      queryKey: [...RACKS, id],
      queryFn: () => workshopApi.rack(id),
    })),
  });
  const own = opened.flatMap(({ data }): OpenedRack[] => (data ? [data] : []));
  const failed = error ?? opened.find((one) => one.error)?.error ?? null;
  return { racks: [...own, starterShown()], trouble: failed && failed.message };
}

/** Kinds of the docks of a rack part. */
export const kindsOf = ({ items }: RackPart): string[] =>
  Object.values(items).flatMap((item) => docksInOrder(item).map(({ kind }) => kind));

/** What is looked for. */
export interface Wish {
  readonly text: string;
  /** The kind of dock that it is to fit; empty for any. */
  readonly fits: string;
}

/** Whether a rack part is looked for: by its name and words, and by what it fits. */
export function isWished(part: RackPart, { text, fits }: Wish): boolean {
  if (fits !== '' && !kindsOf(part).includes(fits)) return false;
  const searched = [part.name, part.about, ...part.words, ...part.sizes.map(({ name }) => name)]
    .join(' ')
    .toLowerCase();
  return text
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((word) => searched.includes(word));
}

/** Something that was taken, and the newer version that its rack has. */
export interface Outdated {
  readonly item: string;
  readonly name: string;
  readonly from: number;
  readonly to: RackPart;
}

/** What follows a rack that has a newer version of it. */
export function outdatedIn({ items, rackParts }: KadrelDocument, racks: readonly ShownRack[]): Outdated[] {
  const latest = new Map(racks.flatMap(({ parts }) => parts.map((part) => [part.id, part] as const)));
  return Object.values(items).flatMap(({ id, name, taken }): Outdated[] => {
    const kept = taken?.follows ? rackParts[taken.from] : undefined;
    const to = kept && latest.get(kept.id);
    return to && to.version > kept.version ? [{ item: id, name, from: kept.version, to }] : [];
  });
}
