/** Single faces and edges: their sizes, and the borders of faces as outlines. */
import {
  AT_ORIGIN,
  areaBelow,
  curveLength,
  type ChosenEdge,
  type DrawnPath,
  type EdgeFacts,
  type FaceFacts,
  type MadeFaces,
  type Pose,
} from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, builtBy, idOf, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const { PI } = Math;
const marked: Statement[] = [
  ['box', { as: 'block', size: [60, 40, 20], at: [0, 0, -20] }],
  ['circle', { as: 'disc', diameter: 20, at: [30, 20, 0] }],
  ['emboss', { part: 'block', profiles: ['disc'], how: 'imprint' }],
];
const sizes = (statements: readonly Statement[], name: string, names: readonly string[]) => {
  const document = built(statements);
  return kernel.answer(document, { ask: 'face', part: idOf(document, name), names }) as FaceFacts;
};
const outline = (statements: readonly Statement[], name: string, face: string, shift: Pose['shift']) => {
  const document = built(statements);
  const plane: Pose = { ...AT_ORIGIN, shift };
  const part = idOf(document, name);
  return kernel.answer(document, { ask: 'cut', part, plane, how: { face } }) as readonly DrawnPath[];
};
const areaOf = (paths: readonly DrawnPath[]) =>
  paths.map(({ curves }) => Math.abs(curves.reduce((sum, curve) => sum + areaBelow(curve), 0)));

test('an outline that lies within the solid is laid on its near side, and does not cut it in two', () => {
  // The engraving that it lay on becomes a relief, whose side runs on from the outline.
  const statements: Statement[] = [
    ['box', { as: 'block', size: [60, 40, 20] }],
    ['circle', { as: 'disc', diameter: 10, at: [30, 20, 0] }],
    ['emboss', { part: 'block', profiles: ['disc'], how: 'engrave', depth: 1 }],
    ['emboss', { part: 'block', profiles: ['disc'], how: 'imprint' }],
    ['step', { part: 'block', step: '1', depth: '7' }],
  ];
  const document = built(statements);
  expect(kernel.measure(document, idOf(document, 'block')).volume / (48_000 + 175 * Math.PI)).toBeCloseTo(
    1,
    9,
  );
  expect(sizes(statements, 'block', ['imprint.top']).area).toBeCloseTo(25 * Math.PI, 6);
});

test('what an imprint marks has the size of the outline, and the rest of the face is less by that', () => {
  const disc = sizes(marked, 'block', ['imprint.top']);
  expect(disc.count).toBe(1);
  expect(disc.area).toBeCloseTo(100 * PI, 9);
  expect(disc.border).toBeCloseTo(20 * PI, 9);
  const rest = sizes(marked, 'block', ['top']);
  expect(rest.area).toBeCloseTo(2400 - 100 * PI, 9);
  // Its border runs round outside and round the disc.
  expect(rest.border).toBeCloseTo(200 + 20 * PI, 9);
});

test('faces together have one border: the edge between them is none', () => {
  const both = sizes(marked, 'block', ['top', 'imprint.top']);
  expect(both).toMatchObject({ count: 2 });
  expect(both.area).toBeCloseTo(2400, 9);
  expect(both.border).toBeCloseTo(200, 9);
});

test('a face that is not there has no size', () => {
  expect(sizes(marked, 'block', ['nothing'])).toEqual({ count: 0, area: 0, border: 0 });
});

test('the edges of the face that is nearest in the plane, with its holes', () => {
  // The disc and what is round it have the same centre.
  const disc = outline(marked, 'block', 'imprint.top', [30, 20, 0]);
  expect(areaOf(disc)).toEqual([expect.closeTo(100 * PI, 9)]);
  const block: Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 5], at: [0, 0, -5] }],
    ['cylinder', { as: 'drill', diameter: 10, height: 20, at: [20, 20, -10] }],
    ['subtract', { as: 'holed', from: 'plate', parts: ['drill'] }],
  ];
  const paths = outline(block, 'holed', 'top', [30, 20, 0]);
  expect(areaOf(paths).sort((a, b) => a - b)).toEqual([expect.closeTo(25 * PI, 9), expect.closeTo(2400, 9)]);
  const length = paths.flatMap(({ curves }) => curves).reduce((sum, curve) => sum + curveLength(curve), 0);
  expect(length).toBeCloseTo(200 + 10 * PI, 9);
  expect(() => outline(block, 'holed', 'top', [30, 20, 1])).toThrow('no such flat face');
});

describe('edges', () => {
  const edges = (statements: readonly Statement[], name: string, chosen: readonly ChosenEdge[]) => {
    const document = built(statements);
    return kernel.answer(document, {
      ask: 'edges',
      part: idOf(document, name),
      edges: chosen,
    }) as EdgeFacts;
  };
  const box: Statement[] = [['box', { as: 'block', size: [60, 40, 20] }]];

  test('of a box: lengths add up, and faces meet at 90°', () => {
    expect(edges(box, 'block', [{ rule: 'all' }])).toEqual({
      count: 12,
      length: expect.closeTo(480, 9) as number,
      angle: expect.closeTo(90, 9) as number,
    });
    expect(edges(box, 'block', [{ edge: 'front&top' }]).length).toBeCloseTo(60, 9);
  });

  test('of a cylinder: a circle of its radius', () => {
    const found = edges([['cylinder', { as: 'rod', diameter: 10, height: 20 }]], 'rod', [{ around: 'top' }]);
    expect(found).toMatchObject({ count: 1 });
    expect(found.radius).toBeCloseTo(5, 9);
    expect(found.length).toBeCloseTo(10 * PI, 9);
  });

  test('of a regular hexagonal prism the sides meet at 120°; sides and ends together at no one angle', () => {
    const prism: Statement[] = [['prism', { as: 'nut', sides: 6, width: 20, height: 8 }]];
    expect(edges(prism, 'nut', [{ rule: 'z' }])).toMatchObject({ count: 6 });
    expect(edges(prism, 'nut', [{ rule: 'z' }]).angle).toBeCloseTo(120, 7);
    expect(edges(prism, 'nut', [{ rule: 'all' }]).angle).toBeUndefined();
  });

  test('an inward corner has 270° of material, and a rounded edge goes on smoothly at 180°', () => {
    const corner: Statement[] = [
      ...box,
      ['box', { as: 'bite', size: [30, 40, 10], at: [30, 0, 10] }],
      ['subtract', { as: 'step', from: 'block', parts: ['bite'] }],
    ];
    expect(edges(corner, 'step', [{ rule: 'inward' }]).angle).toBeCloseTo(270, 9);
    const rounded: Statement[] = [...box, ['fillet', { part: 'block', edges: 'along x', radius: 5 }]];
    const smooth = edges(rounded, 'block', [{ edge: 'fillet1&front' }]);
    expect(smooth.angle).toBeCloseTo(180, 4);
    expect(smooth.length).toBeCloseTo(60, 9);
  });
});

describe('the faces that a step has made', () => {
  const made = (statements: readonly Statement[], name: string, step: number) => {
    const document = builtBy(kernel, statements);
    return kernel.answer(document, { ask: 'made', part: idOf(document, name), step }) as MadeFaces;
  };
  const box: Statement[] = [['box', { as: 'block', size: [60, 40, 20] }]];

  test('are the round ones of a fillet, also of a second one, and not what it shortened', () => {
    const twice: Statement[] = [
      ...box,
      ['fillet', { part: 'block', edges: 'along z', radius: 5 }],
      ['fillet', { part: 'block', edges: 'around top', radius: 2 }],
    ];
    const first = made(twice, 'block', 0);
    expect(first.faces).toHaveLength(4);
    // Round the top run four straight edges and four arcs.
    expect(made(twice, 'block', 1).faces).toHaveLength(8);
    // They stand within the corners of the box, and reach from the bottom to the top.
    const heights = first.corners.filter((_, i) => i % 3 === 2);
    expect(Math.min(...heights)).toBe(0);
    expect(Math.max(...heights)).toBe(20);
  });

  test('are the faces inside of a shell, the moved one of an offset, and the cut of a trim', () => {
    const shell: Statement[] = [...box, ['shell', { part: 'block', thickness: 2, open: 'top' }]];
    // Four sides and the bottom, inside; the upper rim lies where the top was.
    expect(made(shell, 'block', 0).faces).toHaveLength(5);
    const moved: Statement[] = [...box, ['offset-face', { part: 'block', faces: 'top', by: 3 }]];
    expect(made(moved, 'block', 0).faces).toEqual(['top']);
  });

  test('are all of them where a step makes hundreds', () => {
    const plate: Statement[] = [
      ['box', { as: 'plate', size: [320, 170, 8] }],
      ['cylinder', { as: 'drill', diameter: 6, height: 20, at: [15, 15, -5] }],
      ['grid', { as: 'drills', parts: ['drill'], columns: 20, columnPitch: 15, rows: 10, rowPitch: 15 }],
      ['subtract', { as: 'block', from: 'plate', parts: ['drills'] }],
      ['chamfer', { part: 'block', edges: ['around top', 'around bottom'], width: 1 }],
    ];
    // Round each hole and the rim, above and below; what is left of the faces themselves was there.
    expect(made(plate, 'block', 0).faces).toHaveLength(2 * (200 + 4));
  });

  test('are none of a step that is off', () => {
    const off: Statement[] = [
      ...box,
      ['fillet', { part: 'block', edges: 'along z', radius: 5 }],
      ['step', { part: 'block', state: 'off' }],
    ];
    expect(made(off, 'block', 0)).toEqual({ faces: [], corners: [] });
  });
});
