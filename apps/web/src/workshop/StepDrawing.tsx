/** A small drawing of what a step does: thin what there was, strong what there is. */
import type { RecipeStep } from '@kadrel/core';

interface Drawing {
  /** Outlines in a square of 16. */
  readonly was?: string;
  readonly is: string;
}

const SQUARE = 'M2.5 2.5H13.5V13.5H2.5Z';

const DRAWINGS: Readonly<Record<RecipeStep['kind'], Drawing>> = {
  fillet: { was: 'M7 2.5H13.5V9', is: 'M2.5 13.5V2.5H7A6.5 6.5 0 0 1 13.5 9V13.5Z' },
  chamfer: { was: 'M8 2.5H13.5V8', is: 'M2.5 13.5V2.5H8L13.5 8V13.5Z' },
  shell: { was: 'M2.5 2.5H13.5', is: 'M2.5 2.5V13.5H13.5V2.5H11V11H5V2.5Z' },
  push: { was: 'M2.5 7H13.5', is: 'M2.5 13.5V3.5H13.5V13.5ZM8 10V6M6 8L8 6L10 8' },
  draft: { was: SQUARE, is: 'M5 2.5H11L13.5 13.5H2.5Z' },
  reshape: { was: SQUARE, is: 'M2.5 2.5H9L13.5 6V13.5H2.5ZM9 2.5V2.6' },
  cut: { was: 'M13.5 2.5V13.5H9.5', is: 'M2.5 2.5H8.5V13.5H2.5ZM11 1V15' },
  cutAlong: { was: 'M10 2.5H13.5V13.5H8', is: 'M2.5 2.5H9C6 6 11 10 7 13.5H2.5Z' },
  cutBy: { was: 'M13.5 8A4.5 4.5 0 0 1 13.5 17', is: 'M2.5 2.5H13.5V6A5 5 0 0 0 6.5 13.5H2.5Z' },
  double: { was: 'M8 1V15', is: 'M8 4H2.5V12H8M8 4H13.5V12H8' },
  soften: {
    was: SQUARE,
    is: 'M8 2.5C12.5 2.5 13.5 3.5 13.5 8S12.5 13.5 8 13.5S2.5 12.5 2.5 8S3.5 2.5 8 2.5Z',
  },
  hull: { was: 'M6 3V7H10V3M6 13V9.5H10V13', is: 'M3 3H13V13H3Z' },
  emboss: { was: 'M5 9.5H11', is: 'M1.5 9.5H5V5.5H11V9.5H14.5V13.5H1.5Z' },
  offset: {
    was: 'M4.5 4.5H11.5V11.5H4.5Z',
    is: 'M4.5 1.5H11.5A3 3 0 0 1 14.5 4.5V11.5A3 3 0 0 1 11.5 14.5H4.5A3 3 0 0 1 1.5 11.5V4.5A3 3 0 0 1 4.5 1.5Z',
  },
  joined: { was: 'M8 3V13', is: 'M1.5 5C4 3 6 3 8 5S12 7 14.5 5M1.5 11H14.5' },
  turnOver: { was: 'M2.5 11H13.5', is: 'M2.5 6H13.5M8 13V9M6 11L8 13L10 11' },
  thicken: { was: 'M2.5 10C6 6 10 6 13.5 10', is: 'M2.5 12C6 8 10 8 13.5 12V8C10 4 6 4 2.5 8Z' },
  close: { was: 'M2.5 3.5V13.5H13.5V3.5', is: 'M2.5 3.5H13.5M5 6.5H11' },
  mirror: { was: 'M2.5 4L6.5 8L2.5 12Z', is: 'M13.5 4L9.5 8L13.5 12ZM8 2V14' },
  scale: { was: 'M2.5 8.5H7.5V13.5H2.5Z', is: 'M2.5 2.5H13.5V13.5H2.5Z' },
  corner: { was: 'M8 3H13V8', is: 'M2 3H6A7 7 0 0 1 13 10V14' },
  trim: { was: 'M10 8H14.5', is: 'M1.5 8H8.5M9 2V14' },
  extend: { was: 'M1.5 8H6', is: 'M6 8H11.5M12.5 2V14M9.5 6L11.5 8L9.5 10' },
  split: { is: 'M1.5 8H6.5M9.5 8H14.5M8 4V12' },
  reverse: { was: 'M2.5 5.5H13.5', is: 'M13.5 10.5H2.5M5 8L2.5 10.5L5 13' },
  resample: { was: 'M2 12C5 2 11 2 14 12', is: 'M2 12L5 6L8 4.5L11 6L14 12' },
};

/** Beside its words, so that it needs none of its own. */
export function StepDrawing({ kind }: { kind: RecipeStep['kind'] }) {
  const { was, is } = DRAWINGS[kind];
  return (
    <svg viewBox="0 0 16 16" width="16" height="16" fill="none" className="shrink-0" aria-hidden>
      {was && <path d={was} stroke="var(--ink3)" strokeWidth="1" strokeDasharray="2 1.4" />}
      <path d={is} stroke="var(--ink)" strokeWidth="1.4" strokeLinejoin="round" strokeLinecap="round" />
    </svg>
  );
}
