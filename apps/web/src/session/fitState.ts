/** What the page knows of how parts stand to one another. */
import {
  USUAL_LIMITS,
  USUAL_SCOPE,
  type Finding,
  type FitReport,
  type ItemId,
  type MakeLimits,
  type Vec3,
  type WallMap,
} from '@kadrel/core';

/** A distance, or another measure, as the views show it. */
export interface ShownCheck {
  readonly from: Vec3;
  readonly to: Vec3;
  /** The line is short, or there is none: only the words are shown. */
  readonly words: string;
  readonly isBad: boolean;
}

/** How thick a solid is all over, and how thick it should be, mm. */
export interface ShownWalls {
  readonly map: WallMap;
  readonly limit: number;
}

/** Whether parts go together, or whether they can be made. */
export type ReportKind = 'fit' | 'make';

/** All pairs, those of what is chosen with the rest, or those of the chosen groups and parts with one another. */
export type PairsWanted = 'all' | 'chosen against the rest' | 'within the chosen';

/** What is known of fit and of making, and what of it is shown. */
export interface FitState {
  readonly isOpen: boolean;
  readonly kind: ReportKind;
  readonly report: FitReport | null;
  readonly makeReport: FitReport | null;
  readonly limits: MakeLimits;
  readonly walls: ShownWalls | null;
  /** How much is done of what is under way, 0 to 1. */
  readonly working: number | null;
  readonly trouble: string | null;
  /** The finding that is looked at. */
  readonly shown: Finding | null;
  /** Kept measures, for the views. */
  readonly measures: readonly ShownCheck[];
  /** What the statement in hand would measure. */
  readonly inHand: ShownCheck | null;
  readonly reach: number;
  /** Which pairs are looked at, and the parts that were chosen for that. */
  readonly pairs: PairsWanted;
  readonly chosen: readonly ItemId[];
}

/** Before anything was looked at. */
export const NO_FIT: FitState = {
  isOpen: false,
  kind: 'fit',
  report: null,
  makeReport: null,
  limits: USUAL_LIMITS,
  walls: null,
  working: null,
  trouble: null,
  shown: null,
  measures: [],
  inHand: null,
  reach: USUAL_SCOPE.reach,
  pairs: 'all',
  chosen: [],
};

/** The report that the panel shows. */
export const reportIn = ({ kind, report, makeReport }: FitState): FitReport | null =>
  kind === 'fit' ? report : makeReport;

/** How many kept measures and wanted fits are not as they should be. */
export const missedIn = (report: FitReport | null): number =>
  (report?.findings ?? []).filter(
    ({ kind, state }) => state === 'fault' && (kind === 'measure' || kind === 'fit'),
  ).length;

/** Kept measures, the one in hand, and the finding that is looked at. */
export function shownChecks({ fit }: { readonly fit: FitState }): ShownCheck[] {
  const { measures, inHand, shown } = fit;
  const ends = shown && shown.kind !== 'measure' ? shown.ends : undefined;
  const finding = ends
    ? [{ from: ends[0], to: ends[1], words: shown!.words, isBad: shown!.state === 'fault' }]
    : [];
  return [...measures, ...(inHand ? [inHand] : []), ...finding];
}
