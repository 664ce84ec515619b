/** The regions that a statement asks for: of which profiles, and which of them are chosen. */
import {
  carry,
  definitionOf,
  nearMisses,
  pathsOnPlane,
  verbNamed,
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Path,
  type RegionFound,
  type Vec3,
} from '@kadrel/core';
import type { Statement } from './statement.ts';

/** A region as it stands in a blank. */
export type ChosenRegion = Pick<RegionFound, 'at' | 'curves'>;
/** Whether two are one region. */
export const isSameRegion = (a: ChosenRegion, b: ChosenRegion) => a.at[0] === b.at[0] && a.at[1] === b.at[1];
/** The regions that stand in a blank. */
export const chosenRegions = (value: unknown): readonly ChosenRegion[] =>
  Array.isArray(value) ? (value as ChosenRegion[]) : [];

interface InHand {
  /** The blank for regions. */
  readonly blank: string;
  readonly profiles: readonly ItemId[];
  /** In the frame of the first; undefined where they do not lie in one plane. */
  readonly paths: readonly Path[] | undefined;
}

/** Of a verb that takes regions of profiles, once some are chosen. */
export function profilesInHand(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
): InHand | undefined {
  const blank = Object.entries(verbNamed(verb)?.blanks ?? {}).find(([, { type }]) => type === 'regions')?.[0];
  const profiles = (typed.profiles as ItemId[] | undefined) ?? [];
  const areProfiles =
    profiles.length > 0 &&
    profiles.every(
      (id) => document.items[id] && definitionOf(document, document.items[id]).recipe.base.kind === 'profile',
    );
  if (blank === undefined || !areProfiles) return undefined;
  return { blank, profiles, paths: pathsOnPlane(document, profiles) };
}

/** Ends that stop short of what they should meet, in the world, the smallest gap first. */
export function gapsInHand(
  statement: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
): { from: Vec3; to: Vec3; distance: number }[] {
  const found = profilesInHand(statement, document);
  if (!found?.paths) return [];
  const plane = worldFromPart(document, found.profiles[0]!);
  return nearMisses(found.paths).map(({ at, to, size }) => ({
    from: carry(plane, [at[0], at[1], 0]),
    to: carry(plane, [to[0], to[1], 0]),
    distance: size,
  }));
}
