/** What files say: fills, views within views, units, blocks and weights. */
import { filledArea } from '../profiles/area.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { readDxf } from './dxf.ts';
import { FormatError } from './fault.ts';
import { readSvg } from './svg.ts';

const areaOf = (paths: readonly DrawnPath[]) =>
  filledArea(
    paths.map(({ closed, curves }, i) => ({
      closed,
      curves: curves.map((curve, k) => ({ name: `${i}.${k}`, curve })),
    })),
  );
const svg = (body: string, head = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  readSvg(`<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`);

describe('SVG fills', () => {
  test.each([
    { d: '<path d="M0 0H10V10H0zM2 2H8V8H2z"/>', area: 100, because: 'both run the same way' },
    { d: '<path d="M0 0H10V10H0zM2 2V8H8V2z"/>', area: 64, because: 'the inner one runs the other way' },
    { d: '<path fill-rule="evenodd" d="M0 0H10V10H0zM2 2H8V8H2z"/>', area: 64, because: 'of the rule' },
    { d: '<path d="M0 0H10V10H0"/>', area: 100, because: 'a fill closes its subpaths' },
    { d: '<path d="M0 0H10V10H0zM5 5H15V15H5z"/>', area: 175, because: 'what overlaps counts once' },
    { d: '<path d="M0 0H10V10H0zM10 0H20V10H10z"/>', area: 200, because: 'what touches is joined' },
    {
      d: '<rect width="10" height="10"/><rect x="5" width="10" height="10"/>',
      area: 150,
      because: 'one colour is one area',
    },
    {
      d: '<rect width="10" height="10"/><circle cx="5" cy="5" r="1"/>',
      area: 100 - Math.PI,
      because: 'a circle in a plate is a hole',
    },
    {
      d: '<style>.r{fill-rule:evenodd}</style><path class="r" d="M0 0H10V10H0zM2 2H8V8H2z"/>',
      area: 64,
      because: 'a style sheet says so',
    },
  ])('$area, since $because', ({ d, area }) => expect(areaOf(svg(d).paths)).toBeCloseTo(area, 9));

  test('lines that are not filled stay as they are drawn', () => {
    expect(svg('<path fill="none" d="M0 0H10V10"/>').paths.map(({ closed }) => closed)).toEqual([false]);
  });
});

describe('SVG sizes', () => {
  test.each([
    {
      d: '<svg x="10" y="10" width="50" height="50" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>',
      area: 2500,
    },
    {
      d: '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol><use href="#s" width="20" height="20"/>',
      area: 400,
    },
    { d: '<rect width="50%" height="10%"/>', area: 500 },
  ])('$area mm²', ({ d, area }) => expect(areaOf(svg(d).paths)).toBeCloseTo(area, 9));
  test('an inch is an inch', () =>
    expect(areaOf(svg('<rect width="1in" height="1in"/>', 'width="2in" height="2in"').paths)).toBeCloseTo(
      25.4 ** 2,
      9,
    ));
  test('uses within uses have an end', () => {
    const uses = Array.from(
      { length: 20 },
      (_, i) => `<g id="a${i + 1}">${`<use href="#a${i}"/>`.repeat(3)}</g>`,
    );
    expect(() => svg(`<g id="a0"><rect width="1" height="1"/></g>${uses.join('')}`)).toThrow(FormatError);
  });
});

describe('DXF', () => {
  const file = (...pairs: readonly (string | number)[]) => `${pairs.join('\n')}\n`;
  const section = (name: string, ...pairs: readonly (string | number)[]) => [
    0,
    'SECTION',
    2,
    name,
    ...pairs,
    0,
    'ENDSEC',
  ];
  const circleAt = (x: number, y: number, ...more: readonly number[]) => [
    0,
    'CIRCLE',
    8,
    0,
    10,
    x,
    20,
    y,
    30,
    0,
    40,
    1,
    ...more,
  ];
  const block = section(
    'BLOCKS',
    0,
    'BLOCK',
    8,
    0,
    2,
    'B',
    70,
    0,
    10,
    0,
    20,
    0,
    30,
    0,
    ...circleAt(0, 0),
    0,
    'ENDBLK',
    8,
    0,
  );

  test('the weights of a spline make it a circle', () => {
    const w = Math.SQRT1_2;
    const points = [
      [5, 0],
      [5, 5],
      [0, 5],
      [-5, 5],
      [-5, 0],
      [-5, -5],
      [0, -5],
      [5, -5],
      [5, 0],
    ];
    const spline = [
      ...[0, 'SPLINE', 8, 0, 70, 12, 71, 2, 72, 12, 73, 9, 74, 0],
      ...[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4].flatMap((knot) => [40, knot]),
      ...[1, w, 1, w, 1, w, 1, w, 1].flatMap((weight) => [41, weight]),
      ...points.flatMap(([x, y]) => [10, x!, 20, y!, 30, 0]),
    ];
    expect(areaOf(readDxf(file(...section('ENTITIES', ...spline), 0, 'EOF')).paths)).toBeCloseTo(
      25 * Math.PI,
      7,
    );
  });
  test('a block in rows and columns stands as often as it is said, and one that is missing is told', () => {
    const insert = [0, 'INSERT', 8, 0, 2, 'B', 10, 0, 20, 0, 30, 0, 70, 3, 71, 2, 44, 10, 45, 20];
    const missing = [0, 'INSERT', 8, 0, 2, 'NONE', 10, 0, 20, 0, 30, 0];
    const { paths, box, notes } = readDxf(
      file(...block, ...section('ENTITIES', ...insert, ...missing), 0, 'EOF'),
    );
    expect([paths.length, box]).toEqual([6, { min: [-1, -1], max: [21, 21] }]);
    expect(notes).toEqual(['Block “NONE” is used and is not in the file.']);
  });
  test('what looks down is seen from behind', () => {
    const { box } = readDxf(
      file(...section('ENTITIES', ...circleAt(5, 7, 210, 0, 220, 0, 230, -1)), 0, 'EOF'),
    );
    expect(box).toEqual({ min: [-6, 6], max: [-4, 8] });
  });
});
