/**
 * How a verb is drawn by the pointer: place after place, each by a click, or two by one drag from press to release. A
 * number that is typed meanwhile holds, and a step whose numbers are all typed is passed over.
 */

/** An entry of the bar: a blank, or one of the three numbers of a blank, as in `size.2`. */
export type EntryKey = string;

/** What one place of the pointer says. Distances are taken in the plane of the gesture, from its first place. */
export type Reading =
  /** The place itself. */
  | { readonly reads: 'place'; readonly into: EntryKey }
  /**
   * The corner opposite the first place: sizes along X and Y. What stands at `corner` is the least corner, unless `centred`
   * says that it is the centre: always, or while a choice has a value.
   */
  | {
      readonly reads: 'corner';
      readonly into: readonly [EntryKey, EntryKey];
      readonly corner: EntryKey;
      readonly centred?: true | readonly [choice: string, value: string];
    }
  /** A distance, or twice that. `instead` names a blank that may be typed in its place. */
  | {
      readonly reads: 'distance';
      readonly into: EntryKey;
      readonly times: 1 | 2;
      readonly instead?: EntryKey;
    }
  /** The width of a regular outline, measured as the blanks `sides` and `across` say. */
  | { readonly reads: 'width'; readonly into: EntryKey }
  /** Twice the distance from a circle, whose diameter stands in `from`. */
  | { readonly reads: 'thickness'; readonly into: EntryKey; readonly from: EntryKey }
  /** Degrees from X towards Y. */
  | { readonly reads: 'direction'; readonly into: EntryKey }
  /** Degrees on from the direction in `from`, the shorter way. */
  | { readonly reads: 'sweep'; readonly into: EntryKey; readonly from: EntryKey }
  /** How high above the plane; pulled down, the point in `foot` goes down with it. */
  | { readonly reads: 'height'; readonly into: EntryKey; readonly foot?: EntryKey }
  /** A number of the last row of a table; the first column begins the row. */
  | { readonly reads: 'row'; readonly into: EntryKey; readonly column: 'below' | 'height' };

/** How a verb is drawn by the pointer: place after place, and which blanks each writes into. */
export interface Gesture {
  /** What each place says. */
  readonly steps: readonly (readonly Reading[])[];
  /** After the last step it goes on with this one, until Enter. */
  readonly repeatsFrom?: number;
}

const place = (into: EntryKey): readonly Reading[] => [{ reads: 'place', into }];
const height = (into: EntryKey): readonly Reading[] => [{ reads: 'height', into, foot: 'at' }];

/** A rectangle from corner to corner, and its height. */
export const BY_CORNERS: Gesture = {
  steps: [
    place('at'),
    [{ reads: 'corner', into: ['size.0', 'size.1'], corner: 'at' }],
    [{ reads: 'height', into: 'size.2', foot: 'at' }],
  ],
};

/** What is round, from its centre to its rim, and then as given by more steps. */
export const byRim = (...more: readonly (readonly Reading[])[]): Gesture => ({
  steps: [place('at'), [{ reads: 'distance', into: 'diameter', times: 2, instead: 'radius' }], ...more],
});
/** The height over what was drawn, into the blank of that name. */
export const HEIGHT = height('height');

/** A regular outline from its centre to a corner or a side, and its height. */
export const BY_WIDTH: Gesture = {
  steps: [place('at'), [{ reads: 'width', into: 'width' }], HEIGHT],
};

/** The entries that a reading fills. */
export const entriesRead = (reading: Reading): readonly EntryKey[] =>
  typeof reading.into === 'string' ? [reading.into] : reading.into;
