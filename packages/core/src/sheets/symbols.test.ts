/** Level marks, north arrows, paper of its own size, and notes and dimensions that are changed. */
import { said } from '@kadrel/testing';
import { emptyDocument } from '../document/items.ts';
import { readDocument } from '../document/migrations.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { sheetsOf } from '../document/sheet.ts';
import { isRefusal } from '../statement/declare.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';
import { verbNamed } from '../verbs/index.ts';
import { composeSheet } from './compose.ts';
import type { Mark } from './marks.ts';
import { tiesOfSheet } from './ties.ts';

const begun = () => after(emptyDocument(), ['box', { size: [120, 80, 10] }]);

function after(
  document: KadrelDocument,
  ...statements: readonly (readonly [string, Typed])[]
): KadrelDocument {
  return statements.reduce((before, [verb, typed]) => said(before, verb, typed).document, document);
}

function refusalOf(document: KadrelDocument, verb: string, typed: Typed): string {
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => 'x'),
  );
  if (!isRefusal(done)) throw new Error('It was not refused.');
  return `${done.blank}: ${done.message}`;
}

const sheetOf = (document: KadrelDocument) => sheetsOf(document)[0]!;

function pictureOf(document: KadrelDocument) {
  const sheet = sheetOf(document);
  const ties = tiesOfSheet(document, sheet, () => undefined);
  return composeSheet(document, sheet, { views: {}, ties });
}
const ofEntry = (document: KadrelDocument, name: string): Mark[] => {
  const { notes, dimensions } = sheetOf(document);
  const [id] = Object.entries({ ...notes, ...dimensions }).find(([, one]) => one.name === name)!;
  return pictureOf(document).marks.filter(({ of }) => of === id);
};
const textOf = (marks: readonly Mark[]) =>
  marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])).join();

describe('levels', () => {
  const front = () => after(begun(), ['sheet', { views: 'front', scale: '1:1' }]);
  const level = (z: number, more: Typed = {}): readonly [string, Typed] => [
    'dimension',
    { ties: [[100, 0, z]], kind: 'level', ...more },
  ];

  test('say how high their place is above zero, with a sign', () => {
    for (const [z, text] of [
      [10, '+10'],
      [0, '±0'],
      [1e-13, '±0'],
      [-1e-13, '±0'],
      [-2.5, '-2.5'],
    ] as const)
      expect(textOf(ofEntry(after(front(), level(z)), 'D1')).replace('−', '-')).toBe(text);
  });

  test('stand on their height on paper, as far beside as is said', () => {
    const document = after(front(), level(10, { offset: '25' }));
    const view = Object.values(sheetOf(document).views)[0]!;
    // The middle of the box, 60 | 40 | 5, is drawn at the middle of the view.
    const [x, y] = [view.at[0] + 40 + 25, view.at[1] + 5];
    const triangle = ofEntry(document, 'D1').flatMap((mark) =>
      mark.kind === 'path' && mark.curves.length === 3 ? [mark.curves[0]!] : [],
    );
    expect(triangle).toHaveLength(1);
    expect(triangle[0]).toMatchObject({ kind: 'line', from: [x, y] });
  });

  test('stand to the other side where that is said, and of one place alone', () => {
    const document = after(front(), level(10, { offset: '-25' }));
    const [text] = ofEntry(document, 'D1').filter(({ kind }) => kind === 'text');
    expect(text).toMatchObject({ align: 'end' });
    const two = {
      ties: [
        [0, 0, 0],
        [0, 0, 10],
      ],
      kind: 'level',
    };
    expect(refusalOf(front(), 'dimension', two)).toContain('one place');
  });
});

describe('north arrows', () => {
  const withPlan = () => after(begun(), ['sheet', { views: 'plan' }]);
  const wayOf = (document: KadrelDocument, name = 'N1'): number[] => {
    const [needle] = ofEntry(document, name).flatMap((mark) =>
      mark.kind === 'path' && !mark.closed && mark.curves.length === 1 ? mark.curves : [],
    );
    if (needle?.kind !== 'line') throw new Error('There is no needle.');
    const [dx, dy] = [needle.to[0] - needle.from[0], needle.to[1] - needle.from[1]];
    return [dx, dy].map((n) => n / Math.hypot(dx, dy));
  };

  test('go up the paper in plan, and clockwise by a bearing', () => {
    const document = after(withPlan(), ['north-arrow', {}], ['north-arrow', { bearing: '90' }]);
    expect(wayOf(document)[0]).toBeCloseTo(0, 12);
    expect(wayOf(document)[1]).toBeCloseTo(1, 12);
    expect(wayOf(document, 'N2')[0]).toBeCloseTo(1, 12);
    expect(textOf(ofEntry(document, 'N1'))).toBe('N');
  });

  test('are refused where north is looked along, and where it is not said of which view', () => {
    const front = after(begun(), ['sheet', { views: 'front' }]);
    expect(refusalOf(front, 'north-arrow', {})).toContain('looks along north');
    expect(refusalOf(after(begun(), ['sheet', {}]), 'north-arrow', {})).toContain('several views');
  });

  test('go with their view, and their words are not changed', () => {
    const document = after(withPlan(), ['north-arrow', {}]);
    expect(refusalOf(document, 'change-note', { note: 'N1', text: 'South' })).toContain('north arrow');
    const gone = after(document, ['take-off-sheet', { entry: 'Plan' }]);
    expect(sheetOf(gone).notes).toEqual({});
    expect(() => readDocument(JSON.parse(JSON.stringify(document)))).not.toThrow();
  });
});

describe('paper of its own size', () => {
  test('has the width and the height that are said, and can be changed to a usual one', () => {
    const document = after(begun(), ['sheet', { paper: 'own', width: '500', height: '200', views: 'front' }]);
    expect(sheetOf(document).paper).toEqual({ width: 500, height: 200 });
    const usual = after(document, ['change-sheet', { paper: 'a4' }]);
    expect(sheetOf(usual).paper).toEqual({ width: 297, height: 210 });
    const own = after(usual, ['change-sheet', { paper: 'own', width: '100', height: '300' }]);
    expect(sheetOf(own).paper).toEqual({ width: 100, height: 300 });
    expect(sheetOf(after(own, ['change-sheet', { turned: 'across' }])).paper).toEqual({
      width: 300,
      height: 100,
    });
  });

  test('is meant by a width and a height alone', () => {
    const document = after(begun(), ['sheet', { width: '500', height: '200', views: 'front' }]);
    expect(sheetOf(document).paper).toEqual({ width: 500, height: 200 });
    const changed = after(document, ['change-sheet', { width: '300', height: '90' }]);
    expect(sheetOf(changed).paper).toEqual({ width: 300, height: 90 });
  });

  test('needs both, and keeps to what can be drawn', () => {
    const document = begun();
    expect(refusalOf(document, 'sheet', { paper: 'own', width: '500' })).toBe(
      'height: Paper of its own size needs a height.',
    );
    expect(refusalOf(document, 'sheet', { paper: 'own', width: '6000', height: '200' })).toBe(
      'width: The width of paper must be between 40 and 5000 mm.',
    );
  });
});

describe('changing', () => {
  const withBoth = () =>
    after(
      begun(),
      ['sheet', { views: 'plan', scale: '1:1' }],
      [
        'dimension',
        {
          ties: [
            [0, 0, 0],
            [120, 0, 0],
          ],
        },
      ],
      ['sheet-note', { text: 'Oak', to: [[0, 0, 0]] }],
    );

  test('a dimension is tied to something else, unless that cannot be measured', () => {
    const ties = [
      [0, 0, 0],
      [50, 0, 0],
    ];
    const document = withBoth();
    expect(textOf(ofEntry(document, 'D1'))).toBe('120');
    expect(textOf(ofEntry(after(document, ['change-dimension', { dimension: 'D1', ties }]), 'D1'))).toBe(
      '50',
    );
    expect(refusalOf(document, 'change-dimension', { dimension: 'D1', ties: [[0, 0, 0]] })).toContain('ties');
  });

  test('a note says something else, points elsewhere, or nowhere', () => {
    const document = after(withBoth(), [
      'change-note',
      { note: 'N1', text: 'Beech', height: '5', to: [[120, 80, 10]] },
    ]);
    const note = () => Object.values(sheetOf(document).notes)[0]!;
    expect(note()).toMatchObject({ text: 'Beech', height: 5, leader: { tie: { point: [120, 80, 10] } } });
    const without = after(document, ['change-note', { note: 'N1', leader: 'none' }]);
    expect(Object.values(sheetOf(without).notes)[0]!.leader).toBeUndefined();
  });
});
