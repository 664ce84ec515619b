/** Drawing sheets read back by independent libraries, and against published sizes and scales. */
import {
  PAPER_SIZES,
  boxOfCurves,
  curveLength,
  pointAt,
  type Curve,
  type DrawnView,
  SCALES,
  sheetsOf,
  type KadrelDocument,
  type Mark,
  type SheetPicture,
} from '@kadrel/core';
import { Evaluator, SHEET_EXPORTERS, pictureOfSheet } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import DxfParser from 'dxf-parser';
import { OPS, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { builtBy, idOf, type Statement } from '@kadrel/testing';

const libraries = await sharedLibraries();

const FOOT: readonly Statement[] = [
  ['box', { as: 'Plate', size: [120, 80, 10], at: [0, 0, 0] }],
  ['cylinder', { as: 'Post', diameter: 30, height: 40, at: [60, 40, 10] }],
  ['union', { as: 'Foot', parts: ['Plate', 'Post'] }],
];
const SHEET: Statement = ['sheet', { as: 'Foot sheet', paper: 'a3', views: 'four', scale: '1:2' }];

function drawn(...more: readonly Statement[]): {
  document: KadrelDocument;
  kernel: Evaluator;
  picture: SheetPicture;
} {
  const kernel = new Evaluator(libraries);
  const document = builtBy(kernel, [...FOOT, SHEET, ...more]);
  return { document, kernel, picture: pictureOfSheet(kernel, document, sheetsOf(document)[0]!) };
}

const written = (picture: SheetPicture, format: string) =>
  SHEET_EXPORTERS.find((one) => one.format === format)!.write([picture]);
const textsOf = (marks: readonly Mark[]) =>
  marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));

// Source: ISO 216: A0 has 1 m² with sides as 1 to √2, each next one is half of the one before, cut to whole mm; within ±2 mm.
test('paper sizes of the A series', () => {
  const { a0, a1, a2, a3, a4 } = PAPER_SIZES;
  for (const [i, { width, height }] of [a0, a1, a2, a3, a4].entries()) {
    expect(width * height).toBeCloseTo(1e6 / 2 ** i, -4.5);
    expect(Math.abs(height - width * Math.SQRT2)).toBeLessThan(2);
  }
  expect(a4).toMatchObject({ width: 210, height: 297 });
  for (const [large, small] of [
    [a0, a1],
    [a1, a2],
    [a2, a3],
    [a3, a4],
  ] as const)
    expect([small.height, small.width]).toEqual([large.width, Math.floor(large.height / 2)]);
});

// Source: ISO 5455, from memory: 1, 2 and 5 times powers of ten, enlargements and reductions.
test('scales', () => {
  for (const scale of SCALES) {
    const n = scale >= 1 ? scale : 1 / scale;
    const digits = Number((n / 10 ** Math.floor(Math.log10(n) + 1e-9)).toFixed(6));
    expect([1, 2, 5]).toContain(digits);
  }
  expect(SCALES).toEqual(expect.arrayContaining([1, 0.5, 0.2, 0.1, 1 / 20, 1 / 50, 1 / 100, 2, 5]));
});

describe('a PDF, by an independent reader', () => {
  const MM = 72 / 25.4;

  async function pageOf(picture: SheetPicture) {
    const data = (await written(picture, 'sheet-pdf')) as Uint8Array;
    const file = await getDocument({ data, useSystemFonts: false, verbosity: 0 }).promise;
    expect(file.numPages).toBe(1);
    return file.getPage(1);
  }

  test('the page has the size of the paper, and every text stands on it', async () => {
    const { picture } = drawn([
      'dimension',
      { view: 'Plan', ties: 'Foot: front&left&top; Foot: front&right&top' },
    ]);
    const page = await pageOf(picture);
    const [, , width, height] = page.view as [number, number, number, number];
    expect(width / MM).toBeCloseTo(420, 2);
    expect(height / MM).toBeCloseTo(297, 2);
    const { items } = await page.getTextContent();
    const texts = items.flatMap((item) => ('str' in item && item.str.trim() !== '' ? [item.str] : []));
    expect(texts.toSorted()).toEqual(textsOf(picture.marks).toSorted());
    expect(texts).toContain('120');
  });

  test('an edge of 120 mm is 60 mm long at 1:2, to a hundredth', async () => {
    const { picture } = drawn();
    const lines = linesIn(await (await pageOf(picture)).getOperatorList());
    const lengths = lines.map(([a, b]) => Math.hypot(b[0] - a[0], b[1] - a[1]) / MM);
    // The front edge is drawn from the front and from above.
    expect(lengths.filter((length) => Math.abs(length - 60) < 0.01).length).toBeGreaterThanOrEqual(4);
    expect(lengths.filter((length) => Math.abs(length - 40) < 0.01).length).toBeGreaterThanOrEqual(2);
  });
});

type Pair = readonly [number, number];

/** Straight lines of a page, in points. */
function linesIn({
  fnArray,
  argsArray,
}: {
  fnArray: number[];
  argsArray: unknown[];
}): (readonly [Pair, Pair])[] {
  const found: (readonly [Pair, Pair])[] = [];
  fnArray.forEach((operator, i) => {
    if (operator !== OPS.constructPath) return;
    const [operators, numbers] = argsArray[i] as [number[], number[]];
    let at = 0;
    let from: Pair = [0, 0];
    for (const one of operators) {
      const count = one === OPS.curveTo ? 6 : one === OPS.closePath ? 0 : 2;
      const to: Pair = count === 0 ? from : [numbers[at + count - 2]!, numbers[at + count - 1]!];
      if (one === OPS.lineTo) found.push([from, to]);
      from = to;
      at += count;
    }
  });
  return found;
}

describe('a DXF, by an independent reader', () => {
  test('layers, line types, circles at their size, and texts', async () => {
    const { picture } = drawn(['dimension', { view: 'Plan', kind: 'diameter', ties: 'Foot: Post.side' }]);
    const read = new DxfParser().parseSync((await written(picture, 'sheet-dxf')) as string)!;
    const { layers } = read.tables.layer;
    expect(Object.keys(layers)).toEqual(
      expect.arrayContaining(['visible', 'hidden', 'dimension', 'text', 'frame']),
    );
    expect(Object.keys(read.tables.lineType.lineTypes)).toEqual(
      expect.arrayContaining(['CONTINUOUS', 'DASHED', 'CENTER']),
    );
    const circles = read.entities.filter(({ type }) => type === 'CIRCLE') as unknown as {
      radius: number;
      layer: string;
    }[];
    expect(
      circles.filter(({ radius, layer }) => layer === 'visible' && Math.abs(radius - 7.5) < 1e-9).length,
    ).toBeGreaterThan(0);
    const texts = read.entities.filter(({ type }) => type === 'TEXT') as unknown as { text: string }[];
    expect(texts.map(({ text }) => text)).toEqual(
      expect.arrayContaining(['Foot sheet', '1:2', '\\U+00D830']),
    );
    expect(read.entities.filter(({ layer }) => layer === 'hidden').length).toBeGreaterThan(0);
  });
});

describe('what is measured', () => {
  const valuesAfter = (dimension: Statement, ...more: readonly Statement[]) =>
    textsOf(drawn(dimension, ...more).picture.marks);

  test('lengths, diameters, radii and angles follow the model', () => {
    const width: Statement = [
      'dimension',
      { view: 'Plan', ties: 'Foot: front&left&top; Foot: front&right&top' },
    ];
    expect(valuesAfter(width)).toContain('120');
    expect(valuesAfter(width, ['change', { parts: ['Plate'], size: ['135.5', 'now', 'now'] }])).toContain(
      '135.5',
    );
    const round: Statement = ['dimension', { view: 'Plan', kind: 'diameter', ties: 'Foot: Post.side' }];
    expect(valuesAfter(round)).toContain('Ø30');
    expect(valuesAfter(round, ['change', { parts: ['Post'], diameter: '22' }])).toContain('Ø22');
    expect(valuesAfter(['dimension', { view: 'Plan', kind: 'radius', ties: 'Foot: Post.side' }])).toContain(
      'R15',
    );
    const angle: Statement = [
      'dimension',
      { view: 'Front', kind: 'angle', ties: 'Foot: front&left; Foot: front&bottom' },
    ];
    expect(valuesAfter(angle)).toContain('90°');
  });

  test('they outlive that what they are tied to is renamed', () => {
    const round: Statement = ['dimension', { view: 'Plan', kind: 'diameter', ties: 'Foot: Post.side' }];
    expect(valuesAfter(round, ['rename', { part: 'Post', to: 'Column' }])).toContain('Ø30');
    const width: Statement = [
      'dimension',
      { view: 'Plan', ties: 'Foot: front&left&top; Foot: front&right&top' },
    ];
    expect(valuesAfter(width, ['rename', { part: 'Foot', to: 'Base' }])).toContain('120');
  });

  test('members of a pattern are told apart', () => {
    const posts: Statement[] = [
      ['box', { as: 'Peg', size: [10, 10, 20], at: [200, 0, 0] }],
      ['along', { as: 'Pegs', parts: ['Peg'], count: 3, pitch: 35 }],
    ];
    const ties = ['1', '2', '3'].map((member) => ({ on: 'Pegs', at: 'bottom&front&left', member }));
    const chain: Statement = ['dimension', { view: 'Front', kind: 'horizontal', ties }];
    const before = textsOf(drawn(...posts, chain).picture.marks);
    expect(before.filter((text) => text === '35').length).toBe(2);
    const after = drawn(...posts, chain, ['pattern', { parts: ['Pegs'], pitch: '40' }]).picture;
    expect(textsOf(after.marks).filter((text) => text === '40').length).toBe(2);
  });

  test('where what was measured is gone, nothing is said in its place', () => {
    const width: Statement = [
      'dimension',
      { view: 'Plan', ties: 'Foot: front&left&top; Foot: front&right&top' },
    ];
    const { picture } = drawn(
      width,
      ['delete', { parts: ['Foot'] }],
      ['box', { as: 'Other', size: [5, 5, 5] }],
    );
    expect(textsOf(picture.marks)).not.toContain('120');
    expect(picture.faults.map(({ words }) => words)).toEqual(['D1: what it measured is gone.']);
  });
});

describe('sections', () => {
  // Source: a plane through the axis of a cylinder cuts a rectangle of its diameter and its height.
  test('the cut is drawn heavy and hatched, and what lies before it is gone', () => {
    const { document, kernel } = drawn(
      ['section', { as: 'Cut', on: 'front', offset: '-40' }],
      ['sheet-view', { section: 'Cut', x: '330', y: '100' }],
    );
    const sheet = sheetsOf(document)[0]!;
    const [id] = Object.entries(sheet.views).find(([, { name }]) => name === 'Cut')!;
    const view = kernel.answer(document, { ask: 'drawn', sheet: sheet.id, view: id });
    expect(view).toMatchObject({ cuts: [{ item: idOf(document, 'Foot') }] });
    const { marks } = pictureOfSheet(kernel, document, sheet);
    const cut = marks.filter((mark) => mark.kind === 'path' && mark.stroke === 'cut');
    expect(cut.length).toBeGreaterThan(0);
    expect(marks.filter((mark) => mark.kind === 'path' && mark.stroke === 'hatch').length).toBeGreaterThan(5);
    expect(textsOf(marks)).toEqual(expect.arrayContaining(['A–A', 'A']));
  });
});

test('cut faces of a part are filled though the plane is hatched, and the other way round', () => {
  const hatchesOf = (...more: readonly Statement[]) => {
    const { picture } = drawnWithCut(...more);
    return {
      hatches: picture.marks.filter((mark) => mark.kind === 'path' && mark.stroke === 'hatch').length,
      fills: picture.marks.filter((mark) => mark.kind === 'fill' && mark.shade === 'light').length,
    };
  };
  const drawnWithCut = (...more: readonly Statement[]) => {
    const kernel = new Evaluator(libraries);
    const document = builtBy(kernel, [
      ['box', { as: 'left', size: [20, 20, 20] }],
      ['box', { as: 'right', size: [20, 20, 20], at: [20, 0, 0] }],
      ['section', { as: 'Cut', on: 'front', offset: -10 }],
      ...more,
      ['sheet', { paper: 'a4', views: 'none' }],
      ['sheet-view', { section: 'Cut', scale: '1:1' }],
    ]);
    return { picture: pictureOfSheet(kernel, document, sheetsOf(document)[0]!) };
  };
  const both = hatchesOf();
  expect(both.fills).toBe(0);
  const one = hatchesOf(['change', { parts: ['left'], cutFill: 'plain' }]);
  expect(one.fills).toBe(1);
  expect(one.hatches).toBeGreaterThan(0);
  expect(one.hatches).toBeLessThan(both.hatches);
  const plain: Statement = ['change', { parts: ['Cut'], fill: 'plain' }];
  expect(hatchesOf(plain)).toEqual({ hatches: 0, fills: 2 });
  expect(hatchesOf(plain, ['change', { parts: ['left'], cutFill: 'hatched' }]).fills).toBe(1);
  const back = ['plain', 'plane'].map((cutFill): Statement => ['change', { parts: ['left'], cutFill }]);
  expect(hatchesOf(...back)).toEqual(both);
});

describe('sections that take out a quarter', () => {
  const SLEEVE: readonly Statement[] = [
    ['cylinder', { as: 'Rod', diameter: 60, height: 80, at: [0, 0, 0] }],
    ['cylinder', { as: 'Bore', diameter: 30, height: 80, at: [0, 0, 0] }],
    ['subtract', { as: 'Sleeve', from: 'Rod', parts: ['Bore'] }],
    ['box', { as: 'Aside', size: [10, 10, 10], at: [-60, -60, 0] }],
    ['box', { as: 'Taken', size: [5, 5, 5], at: [40, -40, 0] }],
  ];
  const quartered = (...sections: readonly Statement[]) => {
    const kernel = new Evaluator(libraries);
    const document = builtBy(kernel, [
      ...SLEEVE,
      ...sections,
      ['sheet', { as: 'Drawing', views: 'plan', scale: '1:1' }],
      ['sheet-view', { section: 'Quarter', scale: '1:1', x: '150', y: '150' }],
    ]);
    const [sheet] = sheetsOf(document);
    const view = Object.keys(sheet!.views).find((id) => sheet!.views[id]!.look.kind === 'section');
    const drawn = kernel.answer(document, { ask: 'drawn', sheet: sheet!.id, view: view! }) as DrawnView;
    return { document, drawn, marks: pictureOfSheet(kernel, document, sheet!).marks };
  };
  const hatchedArea = (marks: readonly Mark[]) =>
    marks.reduce((sum, mark) => {
      if (mark.kind !== 'path' || mark.stroke !== 'hatch') return sum;
      const [one] = mark.curves;
      return one?.kind === 'line'
        ? sum + 2.5 * Math.hypot(one.to[0] - one.from[0], one.to[1] - one.from[1])
        : sum;
    }, 0);

  test.each(['behind', 'before'])('one side of a sleeve is seen from outside, the other cut: %s', (shows) => {
    const section: Statement = ['section', { as: 'Quarter', on: 'front', form: 'corner', shows }];
    const { document, drawn, marks } = quartered(section);
    expect(drawn.fault).toBeUndefined();
    // In the plan its trace goes to one side alone, and has one arrow with a letter.
    expect(textsOf(marks).filter((text) => text === 'A')).toHaveLength(1);
    expect(drawn.cuts.map(({ item }) => item)).toEqual([idOf(document, 'Sleeve')]);
    // Half of what a plane through the axis cuts: one wall of 15 × 80, as nearly as lines 2.5 mm apart tell.
    expect(hatchedArea(marks) / (15 * 80)).toBeCloseTo(1, 1);
    const box = boxOfCurves(drawn.lines.visible.flatMap(({ curves }) => curves))!;
    // From the block aside, at x = −60, to the sleeve's rim, or to the block at x = 45 where that is not in the quarter.
    expect(box.max[0] - box.min[0]).toBeCloseTo(shows === 'behind' ? 90 : 105, 6);
  });
});

test('a solid that reaches round a quarter without reaching into it is left whole', () => {
  const kernel = new Evaluator(libraries);
  const document = builtBy(kernel, [
    // Its box reaches 3 mm into the quarter both ways; the round corner of it does not.
    ['cylinder', { as: 'Post', diameter: 40, height: 30, at: [-17, 17, 0] }],
    ['section', { as: 'Quarter', on: 'front', form: 'corner' }],
    ['sheet', { as: 'Drawing', views: 'none' }],
    ['sheet-view', { section: 'Quarter', scale: '1:1', x: '150', y: '150' }],
  ]);
  const [sheet] = sheetsOf(document);
  const [view] = Object.keys(sheet!.views);
  const drawn = kernel.answer(document, { ask: 'drawn', sheet: sheet!.id, view: view! }) as DrawnView;
  expect(drawn.fault).toBeUndefined();
  const box = boxOfCurves(drawn.lines.visible.flatMap(({ curves }) => curves))!;
  expect(box.max[0] - box.min[0]).toBeCloseTo(40, 6);
});

describe('layers of a stacked model', () => {
  const CONE: Statement = ['cone', { as: 'Hill', diameter: 400, top: 100, height: 120 }];
  const LARGE = { width: '841 mm', height: '594 mm' };
  const MODEL: Statement = [
    'stacked-model',
    { parts: ['Hill'], scale: '1:4', thickness: '3 mm', as: 'Hill', ...LARGE },
  ];

  function layers(...statements: readonly Statement[]) {
    const kernel = new Evaluator(libraries);
    const document = builtBy(kernel, statements);
    return sheetsOf(document).map((sheet) => pictureOfSheet(kernel, document, sheet));
  }

  // Source: the radius of a cone at a height, by similar triangles; layers of 12 mm of the model are cut in their middles.
  test('a cone: circles of the radii at the middles of its layers, the next one engraved, numbers from 1', async () => {
    const [picture] = layers(CONE, MODEL);
    const radii = Array.from({ length: 10 }, (_, i) => (200 - (150 * (12 * i + 6)) / 120) / 4);
    const read = new DxfParser().parseSync((await written(picture!, 'sheet-dxf')) as string)!;
    const circles = (layer: string) =>
      read.entities
        .filter((entity) => entity.type === 'CIRCLE' && entity.layer === layer)
        .map((entity) => (entity as unknown as { radius: number }).radius)
        .toSorted((a, b) => b - a);
    expect(circles('cut').length).toBe(radii.length);
    circles('cut').forEach((radius, i) => expect(radius).toBeCloseTo(radii[i]!, 8));
    circles('engrave').forEach((radius, i) => expect(radius).toBeCloseTo(radii[i + 1]!, 8));
    expect(textsOf(picture!.marks).toSorted()).toEqual(radii.map((_, i) => String(i + 1)).toSorted());
    // What is left over is reported: the outlines' areas against that of the sheet.
    const used = radii.reduce((sum, radius) => sum + Math.PI * radius ** 2, 0);
    const waste = Math.round(100 * (1 - used / (841 * 594)));
    expect(picture!.name).toBe(`Hill 1 (1:4, ${waste} % waste)`);
  });

  test('dowels go through every layer that has card all round them, and through some', async () => {
    const dowels = '0,0,0; 60,0,0; 0,150,0';
    const [picture] = layers(CONE, [MODEL[0], { ...MODEL[1], dowels, dowel: '5 mm' }]);
    const read = new DxfParser().parseSync((await written(picture!, 'sheet-dxf')) as string)!;
    const holes = read.entities.filter(
      (entity) =>
        entity.type === 'CIRCLE' &&
        entity.layer === 'cut' &&
        Math.abs((entity as unknown as { radius: number }).radius - 2.5) < 1e-9,
    );
    // Of a radius of 10 mm on the model, beside the middle by 0, 60 and 150: within so many of the ten layers.
    const radii = Array.from({ length: 10 }, (_, i) => 200 - (150 * (12 * i + 6)) / 120);
    const within = [0, 60, 150].map((off) => radii.filter((radius) => radius > off + 10).length);
    expect(within).toEqual([10, 9, 3]);
    expect(holes).toHaveLength(22);
    expect(() => layers(CONE, [MODEL[0], { ...MODEL[1], dowels: '0,0,0; 500,0,0' }])).toThrow('Dowel 2');
  });

  test('they follow the model, and what overlaps is one piece', () => {
    const pond: Statement = ['box', { as: 'House', size: [80, 60, 60], at: [-40, -30, 100] }];
    const cuts = (picture: SheetPicture) =>
      picture.marks.filter((mark) => mark.kind === 'path' && mark.stroke === 'cut');
    const [before] = layers(CONE, MODEL);
    const [after] = layers(CONE, MODEL, ['change', { parts: ['Hill'], diameter: '420' }]);
    expect(JSON.stringify(cuts(before!))).not.toEqual(JSON.stringify(cuts(after!)));
    const [both] = layers(CONE, pond, [
      'stacked-model',
      { parts: ['Hill', 'House'], scale: '1:4', thickness: '4 mm' },
    ]);
    // The house goes into the hill: in each layer there is one outline to be cut.
    expect(cuts(both!).length).toBe(textsOf(both!.marks).length);
  });

  test('as many sheets as it takes; what is larger than a sheet is refused', () => {
    const small: Statement = [
      'stacked-model',
      { parts: ['Hill'], scale: '1:4', thickness: '4 mm', width: '120', height: '120' },
    ];
    const pictures = layers(CONE, small);
    expect(pictures.length).toBeGreaterThan(2);
    for (const { paper, marks } of pictures)
      for (const mark of marks)
        if (mark.kind === 'text') {
          expect(mark.at[0]).toBeGreaterThan(10);
          expect(mark.at[0]).toBeLessThan(paper.width - 10);
        }
    expect(() => layers(CONE, ['stacked-model', { parts: ['Hill'], scale: '1:1' }])).toThrow(
      /Take larger sheets, or a smaller scale/,
    );
  });
});

test('where more go through one another than are drawn as one, the sheet says so', () => {
  const pegs: readonly Statement[] = [
    ['box', { as: 'Peg', size: [4, 4, 30], at: [2, 2, -5] }],
    ['grid', { as: 'Pegs', parts: ['Peg'], columns: 14, columnPitch: 8, rows: 3, rowPitch: 8 }],
  ];
  const [fault] = drawn(...pegs).picture.faults;
  expect(fault!.words).toMatch(/Foot and Pegs, .*more pairs go through one another and cannot be united/);
  // One of them is united with it, and there is nothing to be said.
  expect(drawn(pegs[0]!).picture.faults).toEqual([]);
});

describe('details, centre lines and arc lengths', () => {
  const STANDS: readonly Statement[] = [
    ['box', { as: 'Base', size: [80, 50, 10] }],
    ['fillet', { part: 'Base', edges: ['front&left'], radius: 12 }],
    ['cylinder', { as: 'Rod', diameter: 16, height: 40, at: [60, 30, 10] }],
    ['sheet', { as: 'Stand', paper: 'a3', views: 'two', scale: '1:1' }],
  ];
  const drawnWith = (...more: readonly Statement[]) => {
    const kernel = new Evaluator(libraries);
    const document = builtBy(kernel, [...STANDS, ...more]);
    const sheet = sheetsOf(document)[0]!;
    const viewNamed = (name: string) =>
      Object.keys(sheet.views).find((id) => sheet.views[id]!.name === name)!;
    return { document, sheet, viewNamed, picture: pictureOfSheet(kernel, document, sheet) };
  };
  const pathsOf = ({ marks }: SheetPicture, of: string, stroke: string) =>
    marks.flatMap((mark) =>
      mark.kind === 'path' && mark.of === of && mark.stroke === stroke ? mark.curves : [],
    );
  const number = (text: string | undefined) => Number(text?.replace(/[^\d.]/g, ''));

  test('an arc is as long as its part of the circle, whichever side it is looked at from', () => {
    const arc = (at: string, view: string): Statement => [
      'dimension',
      { ties: [{ on: 'Base', at }], kind: 'arc', view, offset: '8 mm' },
    ];
    const { picture } = drawnWith(
      ['sheet-view', { from: 'below' }],
      arc('top&fillet1', 'Plan'),
      arc('bottom&fillet1', 'From below'),
      ['dimension', { ties: [{ on: 'Rod', at: 'top&side' }], kind: 'arc', view: 'Plan' }],
    );
    const [above, under, round] = textsOf(picture.marks.filter(({ of }) => of !== undefined)).filter((text) =>
      /^\d/.test(text),
    );
    // Source: s = r φ.
    expect(number(above)).toBeCloseTo((Math.PI / 2) * 12, 1);
    expect(under).toBe(above);
    expect(number(round)).toBeCloseTo(Math.PI * 16, 1);
    expect(picture.faults).toEqual([]);
  });

  test('an arc that is not seen squarely, and a straight edge, have no arc length', () => {
    expect(() =>
      drawnWith(['dimension', { ties: [{ on: 'Base', at: 'top&fillet1' }], kind: 'arc', view: 'Front' }]),
    ).toThrow('not seen squarely');
    expect(() =>
      drawnWith(['dimension', { ties: [{ on: 'Base', at: 'top&back' }], kind: 'arc', view: 'Plan' }]),
    ).toThrow('one round edge');
  });

  test('round things have a line along their axis from the side, and a cross from above', () => {
    const { picture, viewNamed } = drawnWith();
    // Three millimetres beyond both ends of what is 40 high; the rounded edge goes no way round, and has none.
    expect(pathsOf(picture, viewNamed('Front'), 'centre').map((curve) => curveLength(curve))).toEqual([46]);
    expect(pathsOf(picture, viewNamed('Plan'), 'centre').map((curve) => curveLength(curve))).toEqual([
      22, 22,
    ]);
  });

  test('a detail has what its view has within the ring, as much larger as it says', () => {
    const { picture, viewNamed, sheet } = drawnWith([
      'detail',
      { ties: [[60, 22, 10]], radius: 14, view: 'Front', scale: '3:1', x: '300 mm', y: '200 mm' },
    ]);
    const { anchor, at } = sheet.views[viewNamed('Detail of Front')]!;
    const [whole, own] = [viewNamed('Front'), viewNamed('Detail of Front')].map((id) =>
      pathsOf(picture, id, 'visible'),
    ) as [Curve[], Curve[]];
    const inFront = sheet.views[viewNamed('Front')]!;
    const centre = [
      inFront.at[0] + (anchor[0] - inFront.anchor[0]),
      inFront.at[1] + (anchor[2] - inFront.anchor[2]),
    ] as const;
    // Lengths within the ring by stepping along what the view has, against those that are drawn.
    const STEPS = 20_000;
    let within = 0;
    for (const curve of whole)
      for (let i = 0; i < STEPS; i++) {
        const [x, y] = pointAt(curve, (i + 0.5) / STEPS);
        if (Math.hypot(x - centre[0], y - centre[1]) < 14) within += curveLength(curve) / STEPS;
      }
    const drawnLength = own.reduce((sum, curve) => sum + curveLength(curve), 0);
    expect(within).toBeGreaterThan(40);
    expect(Math.abs(drawnLength / 3 - within)).toBeLessThan(0.05);
    for (const curve of own)
      for (const part of [0, 0.5, 1]) {
        const [x, y] = pointAt(curve, part);
        expect(Math.hypot(x - at[0], y - at[1])).toBeLessThan(14 * 3 + 1e-6);
      }
    expect(textsOf(picture.marks).filter((text) => /^Z/.test(text))).toEqual(['Z', 'Z (3:1)']);
  });

  test('a detail goes along with what it is about, and says where that is gone', () => {
    const about: Statement = [
      'detail',
      { ties: 'Base: back&right&top', radius: 6, view: 'Plan', x: '300 mm', y: '200 mm' },
    ];
    const lengthOf = (...more: readonly Statement[]) => {
      const { picture, viewNamed } = drawnWith(about, ...more);
      const own = pathsOf(picture, viewNamed('Detail of Plan'), 'visible');
      return { mm: own.reduce((sum, curve) => sum + curveLength(curve), 0), faults: picture.faults };
    };
    // Both edges of the corner, drawn twice as large.
    expect(lengthOf().mm).toBeCloseTo(24, 6);
    const longer: Statement = ['change', { parts: ['Base'], size: ['110', 'now', 'now'] }];
    expect(lengthOf(longer)).toEqual({ mm: expect.closeTo(24, 6) as number, faults: [] });
    const { faults } = lengthOf(['fillet', { part: 'Base', edges: ['back&right'], radius: 3 }]);
    expect(faults.map(({ words }) => words)).toEqual(['Detail of Plan: what it is about is gone.']);
  });

  test('with a view go its details', () => {
    const { document } = drawnWith(
      ['detail', { ties: [[60, 22, 10]], radius: 14, view: 'Front' }],
      ['take-off-sheet', { entry: 'Front' }],
    );
    expect(Object.values(sheetsOf(document)[0]!.views).map(({ name }) => name)).toEqual(['Plan']);
  });
});
