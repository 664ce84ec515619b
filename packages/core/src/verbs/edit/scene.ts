import { valueOf } from '../../document/items.ts';
import { recalculate } from '../../document/recalculate.ts';
import type { Scene } from '../../document/schema.ts';
import { LENGTH_UNITS, LENGTH_UNIT_WORDS, type LengthUnit } from '../../quantity/units.ts';
import { declareVerb, optional, refuse, refuseFor } from '../../statement/declare.ts';

const FRACTIONS = { 2: '1/2', 4: '1/4', 8: '1/8', 16: '1/16', 32: '1/32', 64: '1/64' } as const;

/** Sets the scene's units, how numbers are shown, and the steps. Sizes of parts do not change. */
export const scene = declareVerb({
  id: 'scene',
  name: 'Set scene',
  group: 'edit',
  about: 'Units, decimals, grid step and angle step. Nothing changes its size.',
  words: ['units', 'inches', 'metres', 'grid', 'precision', 'decimals', 'step'],
  blanks: {
    units: optional('choice', 'units', 'What a bare number means.', { choices: LENGTH_UNIT_WORDS }),
    decimals: optional('count', 'decimals', 'Most digits after the point, 0 to 9.'),
    zeros: optional('choice', 'trailing zeros', 'Whether 5 is shown as 5.00.', {
      choices: { yes: 'shown', no: 'left out' },
    }),
    fraction: optional('choice', 'fraction', 'Smallest part of an inch shown.', { choices: FRACTIONS }),
    grid: optional('length', 'grid step', 'Distance between grid points.', { positive: true }),
    angleStep: optional('angle', 'angle step', 'Turns go in steps of this.', { positive: true }),
    nudge: optional('length', 'nudge step', 'What an arrow key moves by.', { positive: true }),
  },
  sentence:
    'Set scene[ units {units}][, decimals {decimals}][, trailing zeros {zeros}][, fraction {fraction}][, grid step {grid}][, angle step {angleStep}][, nudge step {nudge}]',
  apply(draft, { units, decimals, zeros, fraction, grid, angleStep, nudge }) {
    if (decimals !== undefined && (decimals < 0 || decimals > 9))
      return refuse('range.decimals', {}, 'decimals');
    if (angleStep !== undefined && valueOf(angleStep) > 360)
      return refuse('range.angleStep', {}, 'angleStep');
    if (LENGTH_UNITS.includes(units as LengthUnit)) draft.scene.units = units as LengthUnit;
    if (decimals !== undefined) draft.scene.decimals = decimals;
    if (zeros) draft.scene.trailingZeros = zeros === 'yes';
    if (fraction) draft.scene.fraction = Number(fraction) as Scene['fraction'];
    if (grid !== undefined) draft.scene.grid = valueOf(grid);
    if (angleStep !== undefined) draft.scene.angleStep = valueOf(angleStep);
    if (nudge !== undefined) draft.scene.nudge = valueOf(nudge);
    const [problem] = recalculate(draft);
    return problem ? refuseFor(problem, 'units') : {};
  },
});
