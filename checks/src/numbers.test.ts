/** Units against their definitions, expressions against an independent library. */
import { LENGTH_UNITS, mmPerSceneUnit, readQuantity, sinDegrees, type LengthUnit } from '@kadrel/core';
import Qty from 'js-quantities';
import { create, all } from 'mathjs';
import { numbers } from '@kadrel/testing';

const math = create(all!);
const mm = (text: string, units: LengthUnit = 'mm') => readQuantity(text, 'length', { units }).value;

describe('units', () => {
  test.each([
    // Source: International yard and pound agreement 1959; NIST SP 811.
    ['1 in', 25.4],
    ['1 ft', 304.8],
    ['1 yd', 914.4],
    ['12 in - 1 ft', 0],
    ['3 ft - 1 yd', 0],
    // Source: BIPM, The International System of Units, prefixes.
    ['1 km', 1e6],
    ['1 um', 0.001],
  ])('%s is %d mm', (text, value) => expect(mm(text)).toBe(value));

  test.each(['mm', 'cm', 'm', 'km', 'in', 'ft', 'yd'])('%s agrees with js-quantities', (unit) => {
    expect(mm(`1 ${unit}`)).toBeCloseTo(Qty(`1 ${unit}`).to('mm').scalar, 9);
  });

  test.each(LENGTH_UNITS)('a bare 2 in a scene of %s is two of them', (unit) =>
    expect(mm('2', unit)).toBe(2 * mmPerSceneUnit(unit)),
  );
});

describe('angles', () => {
  test.each([
    // Source: trigonometry; a ramp of 1:12 is 4.7636°, 8.333 %.
    ['1:12', (Math.atan(1 / 12) * 180) / Math.PI],
    ['8.333333333333334%', 4.763641690726178],
    ['1 turn', 360],
    ["30'", 0.5],
  ])('%s is %d°', (text, degrees) =>
    expect(readQuantity(text, 'angle', { units: 'mm' }).value).toBeCloseTo(degrees, 10),
  );
  test('the sine is that of mathjs', () => {
    for (let degrees = -720; degrees <= 720; degrees += 7)
      expect(sinDegrees(degrees)).toBeCloseTo(Number(math.evaluate(`sin(${degrees} deg)`)), 13);
  });
});

test('2,000 random expressions have the value that mathjs gives them', () => {
  const random = numbers(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const expression = (depth: number): string => {
    if (depth === 0 || random() < 0.2) return String(Math.round(random() * 2000) / 100);
    const inner = () => expression(depth - 1);
    return pick([
      () => `${inner()} + ${inner()}`,
      () => `${inner()} - ${inner()}`,
      () => `${inner()} * ${inner()}`,
      () => `(${inner()}) / (${inner()} + 1)`,
      () => `(${inner()})`,
      () => `-(${inner()})`,
      () => `(${inner()}) ^ ${pick([2, 3])}`,
      () => `sqrt(abs(${inner()}))`,
      () => `min(${inner()}, ${inner()})`,
      () => `max(${inner()}, ${inner()})`,
      () => `floor(${inner()})`,
      () => `ceil(${inner()})`,
    ])();
  };
  let compared = 0;
  for (let i = 0; i < 2000; i++) {
    const text = expression(5);
    const theirs = Number(math.evaluate(text));
    if (!Number.isFinite(theirs) || Math.abs(theirs) > 1e12) continue;
    compared += 1;
    const ours = readQuantity(text, 'number', { units: 'mm' }).value;
    expect(Math.abs(ours - theirs)).toBeLessThanOrEqual(1e-12 * Math.max(1, Math.abs(theirs)));
  }
  expect(compared).toBeGreaterThan(1500);
});

test('lengths with units agree with mathjs', () => {
  for (const text of [
    '20 cm + 3 in',
    '2 ft - 1 yd / 3',
    '(3 m + 4 mm) / 7',
    '1.5 * 2 in + 3 cm',
    '3 in * 2',
    '20 cm^2 / 4 mm',
  ]) {
    const theirs = math.unit(String(math.evaluate(text))).toNumber('mm');
    expect(mm(text)).toBeCloseTo(theirs, 6);
  }
});
