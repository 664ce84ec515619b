/** Drawing sheets without a kernel: paper, scales, arrangement, hatches, and what verbs write down. */
import { circle, curveLength, line } from '../curves/curve.ts';
import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { sheetsOf, type Sheet } from '../document/sheet.ts';
import type { DrawnView } from '../questions/question.ts';
import { isRefusal } from '../statement/declare.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';
import { verbNamed } from '../verbs/index.ts';
import { composeSheet } from './compose.ts';
import { hatched } from './hatching.ts';
import { frameOfView, onPaper } from './looks.ts';
import type { Mark } from './marks.ts';
import { formatScale, readScale } from './paper.ts';
import { tiesOfSheet } from './ties.ts';

let ids = 0;
const newId = () => `i${++ids}`;

/** Carries statements out; throws where one is refused, unless it is the last. */
function say(...statements: readonly (readonly [string, Typed])[]) {
  let document = emptyDocument();
  for (const [i, [verb, typed]] of statements.entries()) {
    const done = perform(verbNamed(verb)!, typed, document, plainWorld(document, newId));
    if (isRefusal(done)) {
      if (i < statements.length - 1) throw new Error(done.message);
      return { document, refusal: done };
    }
    document = done.document;
  }
  return { document, refusal: undefined };
}

const BOX = ['box', { as: 'Box', size: [120, 80, 10], at: [0, 0, 0] }] as const;
const onlySheet = (document: KadrelDocument): Sheet => sheetsOf(document)[0]!;
const viewOf = (sheet: Sheet, name: string) => Object.values(sheet.views).find((view) => view.name === name)!;

/** What stands on the first sheet, with nothing drawn in its views. */
function marksOf(document: KadrelDocument): { marks: readonly Mark[]; faults: readonly string[] } {
  const sheet = onlySheet(document);
  const ties = tiesOfSheet(document, sheet, () => undefined);
  const { marks, faults } = composeSheet(document, sheet, { views: {}, ties });
  return { marks, faults: faults.map(({ words }) => words) };
}
const textsIn = (marks: readonly Mark[]) =>
  marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));

test('scales are told as people write them, and back', () => {
  expect(readScale('1:50')).toBe(1 / 50);
  expect(readScale(' 2 : 1 ')).toBe(2);
  expect(readScale('1/2.5')).toBe(0.4);
  for (const wrong of ['', '50', '1:0', '0:1', '1:-2', 'half']) expect(readScale(wrong)).toBeUndefined();
  expect([0.02, 2, 1, 0.4].map(formatScale)).toEqual(['1:50', '2:1', '1:1', '1:2.5']);
});

describe('views on paper', () => {
  test('the largest usual scale that fits is taken, and the plan stands below the front, or above it', () => {
    const { document } = say(BOX, ['sheet', {}]);
    const sheet = onlySheet(document);
    expect(Object.values(sheet.views).map(({ scale }) => scale)).toEqual([1, 1, 1, 1]);
    const [front, plan, right] = ['Front', 'Plan', 'Right'].map((name) => viewOf(sheet, name).at);
    expect(plan![0]).toBe(front![0]);
    expect(plan![1]).toBeLessThan(front![1]);
    expect(right![0]).toBeLessThan(front![0]);
    expect(right![1]).toBe(front![1]);
    const third = onlySheet(say(BOX, ['sheet', { arrangement: 'third' }]).document);
    expect(viewOf(third, 'Plan').at[1]).toBeGreaterThan(viewOf(third, 'Front').at[1]);
    expect(viewOf(third, 'Right').at[0]).toBeGreaterThan(viewOf(third, 'Front').at[0]);
  });

  test('what does not fit is refused with what would', () => {
    const { refusal } = say(BOX, ['sheet', { scale: '2:1' }]);
    expect(refusal).toMatchObject({ blank: 'scale' });
    expect(refusal!.message).toMatch(/Take larger paper, or 1:1\.$/);
    expect(say(BOX, ['sheet', { scale: 'big' }]).refusal!.message).toMatch(/is not a scale: say 1:50/);
    expect(say(['sheet', {}]).refusal!.message).toMatch(/no solid to draw/);
  });

  test('a corner of the box is drawn where its view and its scale say', () => {
    const { document } = say(BOX, ['sheet', { views: 'front', scale: '1:2' }]);
    const view = viewOf(onlySheet(document), 'Front');
    const map = onPaper(frameOfView(document, view)!, view);
    // From the front, X runs to the right and Z up; the middle of the box is its anchor.
    expect(map([120, 0, 10])).toEqual([view.at[0] + 30, view.at[1] + 2.5]);
    expect(map([0, 80, 0])).toEqual([view.at[0] - 30, view.at[1] - 2.5]);
  });
});

describe('hatches', () => {
  const square = [
    line([0, 0], [10, 0]),
    line([10, 0], [10, 10]),
    line([10, 10], [0, 10]),
    line([0, 10], [0, 0]),
  ];
  const lengthOf = (pieces: ReturnType<typeof hatched>) =>
    pieces.reduce((sum, [a, b]) => sum + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);

  test('their length times their spacing comes to the area, holes left out', () => {
    const loops = [square, [circle([5, 5], 3)]];
    for (const angle of [0, 30, 45, 135])
      expect(lengthOf(hatched(loops, { angle, spacing: 0.01 })) * 0.01).toBeCloseTo(100 - Math.PI * 9, 0);
  });

  test('every piece lies within', () => {
    for (const [a, b] of hatched([square], { angle: 45, spacing: 1 }))
      for (const n of [...a, ...b]) expect(Math.abs(n - 5)).toBeLessThanOrEqual(5 + 1e-9);
  });
});

describe('dimensions', () => {
  const points = [
    ['0', '0', '0'],
    ['120', '0', '0'],
  ];
  const front = ['sheet', { views: 'front' }] as const;

  test('a length is measured in the model, and written above its line', () => {
    const { document } = say(BOX, front, ['dimension', { ties: points }]);
    expect(textsIn(marksOf(document).marks)).toContain('120');
  });

  test('chained and running ones, tolerances, and words in place of a number', () => {
    const three = [...points, ['50', '0', '0']];
    const refusalOf = (typed: Typed) =>
      textsIn(marksOf(say(BOX, front, ['dimension', { ties: three, ...typed }]).document).marks);
    expect(refusalOf({})).toEqual(expect.arrayContaining(['50', '70']));
    expect(refusalOf({ run: 'running' })).toEqual(expect.arrayContaining(['50', '120']));
    expect(refusalOf({ suffix: '±0.1' })).toEqual(expect.arrayContaining(['50 ±0.1', '70 ±0.1']));
    // What is not measured is distinguished from what is.
    expect(refusalOf({ words: 'as built' })).toEqual(expect.arrayContaining(['[as built]']));
  });

  test('heights and widths, and what cannot be told in a view that looks at a slant', () => {
    const ties = [
      ['0', '0', '0'],
      ['120', '0', '10'],
    ];
    const valuesOf = (kind: string) =>
      textsIn(marksOf(say(BOX, front, ['dimension', { ties, kind }]).document).marks);
    expect(valuesOf('vertical')).toContain('10');
    expect(valuesOf('horizontal')).toContain('120');
    const { refusal } = say(
      BOX,
      ['sheet', { views: 'isometric' }],
      ['dimension', { ties, kind: 'vertical' }],
    );
    expect(refusal).toMatchObject({ blank: 'ties' });
    expect(refusal!.message).toMatch(/looks at a slant/);
    const slanted = say(BOX, ['sheet', { views: 'isometric' }], ['dimension', { ties: points }]);
    // Along its points a length is the true one, whichever way one looks.
    expect(textsIn(marksOf(slanted.document).marks)).toContain('120');
  });

  test('points behind one another are refused', () => {
    const { refusal } = say(BOX, front, [
      'dimension',
      {
        ties: [
          ['0', '0', '0'],
          ['0', '80', '0'],
        ],
      },
    ]);
    expect(refusal!.message).toMatch(/behind one another/);
  });

  test('what it was tied to is gone: that is said where it stood', () => {
    const { document } = say(BOX, front);
    const sheet = onlySheet(document);
    const [view] = Object.keys(sheet.views);
    const tie = { point: [0, 0, 0], named: { part: 'gone', at: 'top' } };
    const loose = {
      ...document,
      sheets: {
        [sheet.id]: {
          ...sheet,
          dimensions: {
            d: {
              name: 'D1',
              order: 1,
              view,
              kind: 'along',
              ties: [tie, tie],
              run: 'chained',
              offset: 5,
              bearing: 0,
              words: '',
              suffix: '',
            },
          },
        },
      },
    } as unknown as KadrelDocument;
    const { marks, faults } = marksOf(loose);
    expect(faults).toEqual(['D1: what it measured is gone.']);
    expect(marks.some((mark) => mark.tone === 'warning' && mark.kind === 'text')).toBe(true);
  });
});

describe('what stands on a sheet', () => {
  const one = [BOX, ['sheet', { views: 'two', as: 'Plate' }]] as const;

  test('with a view goes what stands in it', () => {
    const { document } = say(
      ...one,
      [
        'dimension',
        {
          view: 'Front',
          ties: [
            ['0', '0', '0'],
            ['120', '0', '0'],
          ],
        },
      ],
      ['sheet-note', { text: 'Look here', view: 'Front', to: [['0', '0', '0']] }],
      ['take-off-sheet', { entry: 'Front' }],
    );
    const sheet = onlySheet(document);
    expect(Object.values(sheet.views).map(({ name }) => name)).toEqual(['Plan']);
    expect(sheet.dimensions).toEqual({});
    expect(Object.values(sheet.notes)).toMatchObject([{ name: 'N1', text: 'Look here' }]);
    expect(Object.values(sheet.notes)[0]).not.toHaveProperty('leader');
  });

  test('names are taken once', () => {
    expect(say(...one, ['sheet', { as: 'Plate', views: 'none' }]).refusal).toMatchObject({
      code: 'name-taken.sheet-named',
    });
    expect(say(...one, ['change-sheet-view', { view: 'Front', to: 'Plan' }]).refusal).toMatchObject({
      blank: 'to',
    });
    const { document } = say(...one, ['sheet-view', { from: 'front' }]);
    expect(Object.values(onlySheet(document).views).map(({ name }) => name)).toContain('Front 2');
  });

  test('the title block says the scale, the size and the unit, and a dash empties a field', () => {
    const { document } = say(
      ...one,
      ['change-sheet', { title: 'Base plate', date: 'May' }],
      ['change-sheet', { date: '-' }],
    );
    const texts = textsIn(marksOf(document).marks);
    expect(texts).toEqual(expect.arrayContaining(['Base plate', '1:1', 'A3', 'mm']));
    expect(texts).not.toContain('May');
  });

  test('what a view shows is gone: the view says so', () => {
    const { document } = say(
      BOX,
      ['section', { as: 'Cut', on: 'front' }],
      ['sheet', { views: 'none' }],
      ['sheet-view', { section: 'Cut' }],
      ['delete', { parts: ['Cut'] }],
    );
    expect(marksOf(document).faults).toEqual(['Cut: what it shows is not there any more.']);
  });

  test('circles that go all round have a cross, as large as the largest about that centre', () => {
    const { document } = say(...one);
    const sheet = onlySheet(document);
    const [id] = Object.keys(sheet.views);
    const round = (radius: number, more: object = {}) => ({
      at: [0, 0, 0] as const,
      snap: 'edge' as const,
      radius,
      tie: { point: [0, 0, 0] as const },
      ...more,
    });
    const drawn: DrawnView = {
      lines: { visible: [], smooth: [], hidden: [] },
      cuts: [],
      axes: [],
      catches: [round(5, { isWhole: true }), round(10, { isWhole: true }), round(30)],
    };
    const crosses = (centres: 'marked' | 'none') => {
      const views = { ...sheet.views, [id!]: { ...sheet.views[id!]!, centres } };
      const { marks } = composeSheet(document, { ...sheet, views }, { views: { [id!]: drawn }, ties: {} });
      return marks.flatMap((mark) => (mark.kind === 'path' && mark.stroke === 'centre' ? mark.curves : []));
    };
    // Three millimetres beyond a radius of ten, drawn at 1:1.
    expect(crosses('marked').map((curve) => curveLength(curve))).toEqual([26, 26]);
    expect(crosses('none')).toEqual([]);
  });

  test('a note may stand for the number of a part in the parts list, in a ring', () => {
    const tie = { point: [0, 0, 0], named: { part: '', at: 'top' } };
    const { document } = say(...one, ['box', { as: 'Lid', size: [5, 5, 5], at: [0, 0, 10] }]);
    const sheet = onlySheet(document);
    const [view] = Object.keys(sheet.views);
    const part = Object.values(document.items).find(({ name }) => name === 'Lid')!.id;
    const note = {
      name: 'N1',
      order: 1,
      at: [50, 50],
      text: '#',
      height: 3.5,
      leader: { view, tie: { ...tie, named: { ...tie.named, part } } },
    };
    const noted = {
      ...document,
      sheets: { [sheet.id]: { ...sheet, notes: { n: note } } },
    } as unknown as KadrelDocument;
    const { marks } = composeSheet(noted, onlySheet(noted), {
      views: {},
      ties: { n: [{ kind: 'point', at: [0, 0, 10] }] },
    });
    const own = marks.filter(({ of }) => of === 'n');
    expect(textsIn(own)).toEqual(['2']);
    expect(own.some((mark) => mark.kind === 'path' && mark.curves[0]!.kind === 'arc')).toBe(true);
  });

  test('a view that the kernel could not draw in full says why, and is drawn as far as it goes', () => {
    const { document } = say(...one);
    const sheet = onlySheet(document);
    const [id] = Object.keys(sheet.views);
    const drawn: DrawnView = {
      fault: 'Lid: not built, and left out.',
      lines: { visible: [{ closed: false, curves: [line([0, 0], [10, 0])] }], smooth: [], hidden: [] },
      cuts: [],
      catches: [],
      axes: [],
    };
    const { marks, faults } = composeSheet(document, sheet, { views: { [id!]: drawn }, ties: {} });
    expect(faults).toEqual([{ of: id, words: 'Plan: Lid: not built, and left out.' }]);
    expect(marks.some((mark) => mark.kind === 'path' && mark.stroke === 'visible' && mark.of === id)).toBe(
      true,
    );
  });
});
