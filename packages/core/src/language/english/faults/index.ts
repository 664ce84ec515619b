/** Every fault in British English, by its code. */
import { ANSWERS_FAULTS } from './answers.ts';
import { BODIES_FAULTS } from './bodies.ts';
import { COMBINING_FAULTS } from './combining.ts';
import { SOLIDS_FAULTS } from './solids.ts';
import { STEPS_FAULTS } from './steps.ts';
import { SURFACES_FAULTS } from './surfaces.ts';

/** The groups that it is put together from: no code stands in two of them. */
export const FAULT_GROUPS = [
  ANSWERS_FAULTS,
  BODIES_FAULTS,
  COMBINING_FAULTS,
  SOLIDS_FAULTS,
  STEPS_FAULTS,
  SURFACES_FAULTS,
];

export const ENGLISH_FAULTS = {
  ...ANSWERS_FAULTS,
  ...BODIES_FAULTS,
  ...COMBINING_FAULTS,
  ...SOLIDS_FAULTS,
  ...STEPS_FAULTS,
  ...SURFACES_FAULTS,
};

export { REMEDIES as ENGLISH_REMEDIES } from './remedies.ts';
