/** SVG and DXF, against independent libraries and there and back. */
import {
  FormatError,
  curveLength,
  isRefusal,
  emptyDocument,
  perform,
  plainWorld,
  pointAt,
  readDxf,
  readSvg,
  verbNamed,
  writeDxf,
  writeSvg,
  areaBelow,
  type Curve,
  type DrawnPath,
} from '@kadrel/core';
import { svgPathProperties } from 'svg-path-properties';
import SVGPathCommander from 'svg-path-commander';
import { numbers } from '@kadrel/testing';

const page = (content: string, size = 'width="100mm" height="60mm" viewBox="0 0 100 60"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${size}>${content}</svg>`;
const lengthOf = ({ curves }: DrawnPath) => curves.reduce((sum, curve) => sum + curveLength(curve), 0);
const areaOf = ({ curves }: DrawnPath) => curves.reduce((sum, curve) => sum + areaBelow(curve), 0);
const near = (found: number, wanted: number, relative = 1e-9) =>
  expect(Math.abs(found - wanted)).toBeLessThan(relative * Math.max(1, Math.abs(wanted)));

describe('SVG', () => {
  test.each([
    ['lines', 'M10 10H50V40L20 45Z'],
    ['relative lines', 'm10 10h40v30l-30 5z'],
    ['cubic curves', 'M10 10C20 0 40 0 50 10C60 20 60 50 30 50L10 10Z'],
    ['quadratic curves', 'M10 30Q30 -10 50 30T90 30L90 50L10 50Z'],
    ['arcs', 'M20 20A15 10 30 1 1 50 30A20 20 0 0 0 20 20Z'],
    ['small arcs', 'M20 20a10 10 0 0 0 10 10a5 8 -20 1 0 -10 -10z'],
  ])('%s have the length and the area that independent libraries measure', (_, d) => {
    // Sources: svg-path-properties (lengths), svg-path-commander (areas).
    // A fill would take apart what crosses itself.
    const [path] = readSvg(page(`<path fill="none" d="${d}"/>`)).paths;
    near(lengthOf(path!), new svgPathProperties(d).getTotalLength(), 1e-4);
    // That library goes along arcs in cubic curves.
    near(Math.abs(areaOf(path!)), Math.abs(SVGPathCommander.getPathArea(d)), 2e-3);
  });

  test('shapes stand where they say, in millimetres, Y up', () => {
    const { paths, box } = readSvg(
      page(
        '<g fill="none" transform="translate(10 5)"><circle cx="20" cy="20" r="10"/><rect x="40" y="5" width="30" height="20" rx="4"/></g>' +
          '<ellipse fill="none" cx="50" cy="40" rx="20" ry="5" transform="rotate(90 50 40)"/><polygon points="0,0 10,0 5,8"/>',
      ),
    );
    expect(paths).toHaveLength(4);
    expect(paths[0]!.curves).toEqual([{ kind: 'arc', centre: [30, 35], radius: 10, first: 0, sweep: -360 }]);
    near(Math.abs(areaOf(paths[1]!)), 600 - (4 - Math.PI) * 16);
    near(Math.abs(areaOf(paths[2]!)), Math.PI * 100);
    expect(box.max[1]).toBe(60);
  });

  test.each([
    ['inches over a view box', 'width="2in" height="1in" viewBox="0 0 200 100"', 200 * 0.254],
    ['centimetres without a view box', 'width="10cm" height="6cm"', (200 * 25.4) / 96],
    ['a view box alone', 'viewBox="0 0 200 100"', (200 * 25.4) / 96],
  ])('%s', (_, size, wide) => {
    // Source: CSS Values and Units 3: 96 px = 1 in = 25.4 mm.
    const { box } = readSvg(page('<path d="M0 0H200V50"/>', size));
    near(box.max[0] - box.min[0], wide);
  });

  test.each([
    ['nothing', ''],
    ['no XML', 'not at all'],
    ['another element', '<html/>'],
    ['a broken path', page('<path d="M0 0 L ten"/>')],
    ['no outlines', page('<text>Name</text>')],
    ['entities', `<!DOCTYPE svg [<!ENTITY a "b">]>${page('<path d="M0 0H9"/>')}`],
    ['a use of itself', page('<g id="a"><use href="#a"/></g>')],
    ['a number that is none', page('<circle cx="x" r="4"/>')],
    ['an unclosed tag', '<svg><g></svg>'],
  ])('a file with %s is refused in a sentence, and the model stays', (_, svg) => {
    expect(() => readSvg(svg)).toThrow(FormatError);
    const document = emptyDocument();
    const done = perform(
      verbNamed('bring')!,
      { drawing: { svg } },
      document,
      plainWorld(document, () => 'p1'),
    );
    expect(isRefusal(done)).toBe(true);
    expect(document.items).toEqual({});
  });
});

/** A chain of curves of every kind. */
function chain(seed: number): DrawnPath {
  const next = numbers(seed);
  const within = (max: number) => (next() - 0.5) * max;
  const curves: Curve[] = [];
  let at: [number, number] = [within(100), within(100)];
  for (let i = 0; i < 6; i++) {
    const to: [number, number] = [within(100), within(100)];
    const kind = Math.floor(next() * 3);
    if (kind === 0) curves.push({ kind: 'line', from: at, to });
    else if (kind === 1)
      curves.push({
        kind: 'bezier',
        points: [at, [within(100), within(100)], [within(100), within(100)], to],
      });
    else curves.push({ kind: 'bezier', points: [at, [within(100), within(100)], to] });
    at = to;
  }
  return { closed: false, curves };
}
const round = (seed: number): DrawnPath => {
  const next = numbers(seed);
  const sweep = (next() < 0.5 ? -1 : 1) * (20 + 300 * next());
  const centre: [number, number] = [100 * next(), 100 * next()];
  const angle = next() * Math.PI;
  const [a, b] = [10 + 20 * next(), 2 + 7 * next()];
  const curve: Curve =
    seed % 2 === 0
      ? { kind: 'arc', centre, radius: a, first: 360 * next(), sweep }
      : {
          kind: 'ellipse',
          centre,
          x: [a * Math.cos(angle), a * Math.sin(angle)],
          y: [-b * Math.sin(angle), b * Math.cos(angle)],
          first: 360 * next(),
          sweep,
        };
  return { closed: false, curves: [curve] };
};

describe('there and back', () => {
  const drawing = (seed: number) => [chain(seed), round(seed), round(seed + 1)];
  /** Points along a path, whichever way round it runs. */
  const alike = (a: DrawnPath, b: DrawnPath, shift: readonly [number, number]) => {
    const points = ({ curves }: DrawnPath) =>
      curves.flatMap((curve) => [0, 0.25, 0.5, 0.75, 1].map((part) => pointAt(curve, part)));
    const [p, q] = [points(a), points(b)];
    const off = (list: typeof q) =>
      Math.max(...p.map(([x, y], i) => Math.hypot(x - shift[0] - list[i]![0], y - shift[1] - list[i]![1])));
    expect(q).toHaveLength(p.length);
    expect(Math.min(off(q), off([...q].reverse()))).toBeLessThan(1e-9 * 200);
  };

  test('100 drawings through SVG', () => {
    for (let seed = 1; seed <= 100; seed++) {
      const drawn = drawing(seed);
      const { paths, box } = readSvg(writeSvg(drawn));
      expect(paths).toHaveLength(drawn.length);
      const min = readDxf(writeDxf(drawn)).box.min;
      drawn.forEach((path, i) => alike(path, paths[i]!, [min[0] - box.min[0], min[1] - box.min[1]]));
    }
  });

  test('100 drawings through DXF', () => {
    for (let seed = 1; seed <= 100; seed++) {
      const drawn = drawing(seed);
      const { paths } = readDxf(writeDxf(drawn));
      const total = (list: readonly DrawnPath[]) => list.reduce((sum, path) => sum + lengthOf(path), 0);
      near(total(paths), total(drawn));
    }
  });

  test('arcs stay arcs', () => {
    const arc: DrawnPath = {
      closed: false,
      curves: [{ kind: 'arc', centre: [10, 20], radius: 7, first: 30, sweep: 120 }],
    };
    expect(readDxf(writeDxf([arc])).paths).toEqual([arc]);
    expect(readSvg(writeSvg([arc])).paths[0]!.curves[0]!.kind).toBe('arc');
  });
});

describe('DXF', () => {
  const dxf = (...entities: string[]) =>
    ['0', 'SECTION', '2', 'ENTITIES', ...entities, '0', 'ENDSEC', '0', 'EOF', ''].join('\n');

  test('a bulge is the tangent of a quarter of the sweep', () => {
    // Source: DXF reference; a bulge of 1 is a half circle.
    const half = dxf(
      '0',
      'LWPOLYLINE',
      '90',
      '2',
      '70',
      '1',
      '10',
      '0',
      '20',
      '0',
      '42',
      '1',
      '10',
      '10',
      '20',
      '0',
      '42',
      '1',
    );
    const { paths } = readDxf(half);
    near(Math.abs(areaOf(paths[0]!)), Math.PI * 25);
  });

  test('a block is put in with its scale and turn, in the units of the file', () => {
    const file = [
      '0',
      'SECTION',
      '2',
      'HEADER',
      '9',
      '$INSUNITS',
      '70',
      '1',
      '0',
      'ENDSEC',
      '0',
      'SECTION',
      '2',
      'BLOCKS',
      '0',
      'BLOCK',
      '8',
      '0',
      '2',
      'B',
      '70',
      '0',
      '10',
      '0',
      '20',
      '0',
      '3',
      'B',
      '1',
      '',
      '0',
      'LINE',
      '8',
      '0',
      '10',
      '0',
      '20',
      '0',
      '11',
      '1',
      '21',
      '0',
      '0',
      'ENDBLK',
      '0',
      'ENDSEC',
      '0',
      'SECTION',
      '2',
      'ENTITIES',
      '0',
      'INSERT',
      '8',
      '0',
      '2',
      'B',
      '10',
      '2',
      '20',
      '3',
      '41',
      '2',
      '42',
      '2',
      '50',
      '90',
      '0',
      'ENDSEC',
      '0',
      'EOF',
      '',
    ].join('\n');
    const [path] = readDxf(file).paths;
    const [line] = path!.curves;
    if (line?.kind !== 'line') throw new Error('It is a line.');
    near(line.from[0], 2 * 25.4);
    near(line.to[1], 5 * 25.4);
  });

  test.each([
    ['nothing', ''],
    ['no pairs', 'SECTION'],
    ['no curves', dxf()],
    ['a spline without points', dxf('0', 'SPLINE', '71', '3')],
  ])('a file with %s is refused in a sentence', (_, text) => {
    expect(() => readDxf(text)).toThrow(FormatError);
  });
});
