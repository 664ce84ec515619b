import fc from 'fast-check';
import { readQuantity, type Quantity } from './evaluate.ts';
import { formatFeetInches, formatLength, formatMeasure } from './format.ts';
import { QuantityError } from './lexer.ts';
import { LENGTH, type LengthUnit, type QuantityKind } from './units.ts';
import { solveVariables } from './variables.ts';

const variables = new Map<string, Quantity>([
  ['gap', { value: 0.2, dimension: LENGTH }],
  ['rows', { value: 4, dimension: { length: 0, angle: 0 } }],
]);
const read = (text: string, kind: QuantityKind = 'length', units: LengthUnit = 'mm', now?: number) =>
  readQuantity(text, kind, { units, variables, ...(now === undefined ? {} : { now }) }).value;
const fault = (text: string, kind: QuantityKind = 'length') => {
  try {
    read(text, kind);
  } catch (error) {
    if (error instanceof QuantityError) return { code: error.code, at: error.at };
    throw error;
  }
  return undefined;
};

describe('a length field', () => {
  test.each<[string, number]>([
    ['120', 120],
    ['20cm', 200],
    ['1.6 m', 1600],
    ['3/4"', 19.05],
    ['5\' 3-1/2"', 1612.9],
    ['5′ 3 1/2″', 1612.9],
    ['2 ft 6 in', 762],
    ['1/2 in', 12.7],
    ['-1/2 in', -12.7],
    ['-5\' 3"', -1600.2],
    ['1 m 20 cm', 1200],
    ['sqrt(1 m 20 cm ^2)', 1200],
    ['(1 in)^2 / 1 in', 25.4],
    ['2^3^2', 512],
    ['8 + gap', 8.2],
    ['rows * 5', 20],
    ['gap × rows', 0.8],
    ['10 mm + 1 in', 35.4],
    ['10 - 1/2 in', -2.7],
    ['2 * (3 + 4) ^ 2', 98],
    ['-2^2', -4],
    ['2^3^2', 512],
    ['2 ** 3', 8],
    ['(2 + 3) cm', 50],
    ['sqrt(3cm^2 + 4 cm²) * sqrt(7)', 70],
    ['sqrt((30 mm)^2 + (4 cm)^2)', 50],
    ['100 * sin(30)', 50],
    ['100 * cos(60°)', 50],
    ['100 * tan(45)', 100],
    ['min(3 cm, 20)', 20],
    ['max(3 cm, 20)', 30],
    ['abs(-3)', 3],
    ['round(12.6)', 13],
    ['round(12.6 mm, 5)', 15],
    ['floor(-2.5)', -3],
    ['ceil(2.1)', 3],
    ['10 ÷ 4 − 1', 1.5],
    ['1e3', 1000],
    ['.5', 0.5],
    // As they are shown, copied and typed: thousands set apart, and a comma for decimals.
    ['48 000', 48000],
    ['1\u2009234\u2009567.25', 1234567.25],
    ['2\u202f500 + 1\u00a0000 m', 1_002_500],
    ['12,5', 12.5],
    ['2 * (1,5 + 0,25)', 3.5],
    ['max(1,5)', 5],
    ['max(1, 2) + 0,5', 2.5],
    ['1 200/400 in', 38.1],
  ])('%s is %d mm', (text, mm) => expect(read(text)).toBeCloseTo(mm, 9));

  test('takes a bare number in scene units', () => {
    expect(read('2', 'length', 'm')).toBe(2000);
    expect(read('1/2', 'length', 'in')).toBe(12.7);
    expect(read('6', 'length', 'ft-in')).toBe(152.4);
    expect(read('2 + 5 mm', 'length', 'cm')).toBe(25);
  });

  test('counts from the present value', () => expect(read('now + 20', 'length', 'mm', 5)).toBe(25));

  test.each<[string, string, number]>([
    ['', 'empty.type', 0],
    ['12 +', 'unfinished', 4],
    ['2cm * 3cm', 'dimension.belongs', 0],
    ['30°', 'dimension.belongs', 0],
    ['5 + 30°', 'dimension.belongs', 0],
    ['12 qq', 'unknown-unit', 3],
    ['3 + width', 'unknown-name', 4],
    ['1, 5', 'comma', 1],
    ['1,2,3', 'comma', 1],
    ['4 1000', 'unexpected', 2],
    ['(2 + 3', 'unclosed', 6],
    ['4 / 0', 'division-by-zero', 4],
    ['sqrt(-4)', 'root-of-negative', 5],
    ['7 § 2', 'unknown-character', 2],
    ['frob(2)', 'unknown-function', 0],
    ['sin(1, 2)', 'arguments', 0],
    ['now + 1', 'no-now', 0],
    ['3 in 2 ft', 'unit-order', 5],
    ['1:12', 'slope-place.such-belongs', 0],
    ['5%', 'percent-place', 0],
    ['9e999', 'too-large.number', 0],
    ['(-8)^(1/3)', 'undefined', 0],
    ['('.repeat(5000), 'too-deep', 100],
    ['-'.repeat(5000) + '1', 'too-deep', 100],
  ])('%s is refused as %s at character %d', (text, code, at) => expect(fault(text)).toEqual({ code, at }));
});

describe('an angle field', () => {
  test.each<[string, number]>([
    ['90', 90],
    ['45°', 45],
    ["12° 30'", 12.5],
    ["30'", 0.5],
    ['0.25 turn', 90],
    ['pi rad', NaN],
    ['1:1', 45],
    ['1:12', 4.763641690726178],
    ['5%', 2.862405226111748],
    ['atan2(3 cm, 30 mm)', 45],
    ['now + 15', 45],
  ])('%s', (text, degrees) => {
    if (Number.isNaN(degrees)) expect(fault(text, 'angle')).toBeDefined();
    else expect(read(text, 'angle', 'mm', 30)).toBeCloseTo(degrees, 12);
  });
  test('refuses a length', () => expect(fault('3 mm', 'angle')?.code).toBe('dimension.belongs'));
});

test('a count is a whole number', () => {
  expect(read('3 * 4', 'count')).toBe(12);
  expect(fault('2.5', 'count')?.code).toBe('not-whole');
});

describe('feet and inches', () => {
  test.each<[number, number, string]>([
    [1612.9, 64, `5' 3-1/2"`],
    [304.8, 16, `1'`],
    [0, 16, '0"'],
    [-22.225, 16, '−7/8"'],
    [304.79, 16, `1'`],
    [25.4 / 64, 64, '1/64"'],
  ])('%d mm to 1/%d inch is %s', (mm, fraction, text) => expect(formatFeetInches(mm, fraction)).toBe(text));

  test('what is shown reads back as the same length', () =>
    fc.assert(
      fc.property(fc.integer({ min: -64 * 12 * 500, max: 64 * 12 * 500 }), (parts) => {
        const mm = (parts * 25.4) / 64;
        expect(read(formatFeetInches(mm, 64))).toBeCloseTo(mm, 9);
      }),
    ));
});

test('decimals and trailing zeros follow the scene', () => {
  const style = { units: 'cm', decimals: 2, fraction: 16 } as const;
  expect(formatLength(125, { ...style, trailingZeros: true })).toBe('12.50');
  expect(formatLength(125, { ...style, trailingZeros: false })).toBe('12.5');
  expect(formatLength(-0.001, { ...style, trailingZeros: false })).toBe('0');
  expect(formatMeasure(2361840, 3, { ...style, units: 'mm', trailingZeros: false })).toBe(
    '2\u2009361\u2009840.00 mm³',
  );
});

describe('variables', () => {
  test('may refer to one another in any order', () => {
    const { values, faults } = solveVariables(
      { outer: 'inner + 2 * wall', wall: '3 mm', inner: '4 cm' },
      'mm',
    );
    expect(values.get('outer')).toMatchObject({ value: 46, dimension: LENGTH });
    expect(faults).toEqual([]);
  });
  test('a circle is named, and the others keep their values', () => {
    const { values, faults } = solveVariables({ a: 'b + 1', b: 'c', c: 'a', d: '7' }, 'mm');
    expect(values.get('d')?.value).toBe(7);
    expect(faults.map((f) => f.why.code)).toEqual(['cycle', 'cycle', 'cycle']);
    expect(faults[0]?.why.message).toContain('a → b → c → a');
  });
  test('a fault points at its character', () =>
    expect(solveVariables({ a: '2 + ?' }, 'mm').faults).toMatchObject([
      { name: 'a', why: { code: 'unknown-character', at: 4 } },
    ]));
  test('kept measures stand for what they come to, whatever variables are called', () => {
    const measured = new Map([
      ['bee space', { value: 7.5, dimension: LENGTH }],
      ['area of m_0', { value: 20, dimension: { length: 2, angle: 0 } }],
    ]);
    const texts = {
      m_0: '3 mm',
      m_0_: '4 mm',
      gap: '2 * measure("bee space") + m_0',
      deep: 'measure( “area of m_0” ) / gap',
      lost: '1 mm + measure("no such")',
    };
    const { values, faults } = solveVariables(texts, 'mm', measured);
    expect([...values].map(([name, { value }]) => [name, value])).toEqual([
      ['m_0', 3],
      ['m_0_', 4],
      ['gap', 18],
      ['deep', 20 / 18],
    ]);
    expect(faults).toMatchObject([{ name: 'lost', why: { code: 'no-measure', facts: { name: 'no such' } } }]);
    // What stands after a measure is blamed at its own character.
    expect(solveVariables({ a: 'measure("bee space") + ?' }, 'mm', measured).faults).toMatchObject([
      { why: { code: 'unknown-character', at: 23 } },
    ]);
  });
  test('units and functions are no names', () =>
    expect(solveVariables({ mm: '2', sin: '3' }, 'mm').faults.map((f) => f.why.code)).toEqual([
      'name.unit',
      'name.word',
    ]));
});

test('no text makes the reader fail otherwise than by saying what is wrong', () =>
  fc.assert(
    fc.property(
      fc.string({
        unit: fc.constantFrom(...'0123456789.+-*/^(),:%°\'" abimncftsqr²'.split('')),
        maxLength: 30,
      }),
      (text) => {
        try {
          expect(Number.isFinite(read(text))).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(QuantityError);
          expect((error as QuantityError).at).toBeLessThanOrEqual(text.length);
        }
      },
    ),
    { numRuns: 3000 },
  ));
