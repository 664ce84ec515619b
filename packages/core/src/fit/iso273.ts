/** Clearance holes for bolts. Source: ISO 273, from memory. Diameters in mm. */

/** Thread → fine, medium and coarse series. */
const SERIES: Readonly<Record<string, readonly [fine: number, medium: number, coarse: number]>> = {
  M3: [3.2, 3.4, 3.6],
  M4: [4.3, 4.5, 4.8],
  M5: [5.3, 5.5, 5.8],
  M6: [6.4, 6.6, 7],
  M8: [8.4, 9, 10],
  M10: [10.5, 11, 12],
  M12: [13, 13.5, 14.5],
};

/** The threads that the table has, for choices in a sentence. */
export const THREADS = Object.fromEntries(Object.keys(SERIES).map((name) => [name, name]));

/** How much room a bolt has, in the words of the sentence. */
export const CLEARANCE_SERIES = { fine: 'fine', medium: 'medium', coarse: 'coarse' } as const;
/** One of the series of clearance holes. */
export type ClearanceSeries = keyof typeof CLEARANCE_SERIES;

/** The diameter of a clearance hole, mm; undefined for a thread that is not in the table. */
export const clearanceHole = (thread: string, series: ClearanceSeries): number | undefined =>
  SERIES[thread]?.[Object.keys(CLEARANCE_SERIES).indexOf(series)];

/** Across the thread, mm: `M8` is 8. */
export const nominalOf = (thread: string): number => Number(thread.slice(1));
