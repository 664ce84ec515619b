/** Lines of views: kept for each solid, and what is said where solids go through one another. */
import { AT_ORIGIN, curveLength, faultOf, type Pose } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { sharedLibraries } from '../node.ts';
import { BuildError } from '../occt/occt.ts';
import { Shapes } from '../shapes.ts';
import { LineKeeper, type Piece } from './viewLines.ts';

const libraries = await sharedLibraries();
const shapes = new Shapes(libraries);

const box = (size: readonly [number, number, number]): Content =>
  ({ kind: 'box', size }) as unknown as Content;
const at = (x: number, y: number, z: number): Pose => ({ ...AT_ORIGIN, shift: [x, y, z] });
const piece = (item: string, size: readonly [number, number, number], pose: Pose): Piece => ({
  item,
  content: box(size),
  pose,
});
const PLATE = piece('plate', [60, 40, 10], AT_ORIGIN);
const STUCK = piece('peg', [10, 10, 40], at(20, 10, -5));

test('what cannot be united is drawn as it stands, and told', () => {
  const halting = {
    shapeOf(content: Content) {
      if (content.kind === 'combine') throw new BuildError(faultOf('sheet.no-view', {}));
      return shapes.shapeOf(content);
    },
    snapsOf(content: Content) {
      if (content.kind === 'combine') throw new BuildError(faultOf('sheet.no-view', {}));
      return shapes.snapsOf(content);
    },
  };
  const { lines, crossing } = new LineKeeper(libraries.occt, halting).draw([PLATE, STUCK]);
  expect(crossing).toEqual([['plate', 'peg']]);
  expect(lines.visible.length).toBeGreaterThan(0);
  expect(new LineKeeper(libraries.occt, shapes).draw([PLATE, STUCK]).crossing).toEqual([]);
});

test('what touches, stands flush or lies clear is not united', () => {
  const united: Content[] = [];
  const watching = {
    shapeOf: (content: Content) => shapes.shapeOf(content),
    snapsOf(content: Content) {
      if (content.kind === 'combine') united.push(content);
      return shapes.snapsOf(content);
    },
  };
  const keeper = new LineKeeper(libraries.occt, watching);
  keeper.draw([PLATE, piece('on', [10, 10, 10], at(20, 10, 10))]);
  keeper.draw([PLATE, piece('beside', [10, 40, 10], at(60, 0, 0))]);
  keeper.draw([PLATE, piece('inside', [10, 10, 4], at(20, 10, 3))]);
  expect(united).toEqual([]);
  keeper.draw([PLATE, STUCK]);
  expect(united).not.toEqual([]);
});

test('only what a change concerns is drawn anew', () => {
  const asked: Content[] = [];
  const counting = {
    shapeOf(content: Content) {
      asked.push(content);
      return shapes.shapeOf(content);
    },
    snapsOf: (content: Content) => shapes.snapsOf(content),
  };
  const keeper = new LineKeeper(libraries.occt, counting);
  const row = Array.from({ length: 8 }, (_, i) => piece(`p${i}`, [10, 10, 10 + i], at(20 * i, 0, 0)));
  const first = keeper.draw(row);
  expect(asked).toHaveLength(8);
  asked.length = 0;
  expect(keeper.draw(row)).toEqual(first);
  expect(asked).toEqual([]);
  // Over the last two: they may be hidden by it now.
  const over = piece('over', [30, 10, 5], at(120, 0, 50));
  const second = keeper.draw([...row, over]);
  expect(asked).toHaveLength(3);
  const hiddenMm = ({ lines }: typeof first) =>
    lines.hidden
      .flatMap(({ curves }) => curves.map((curve) => curveLength(curve)))
      .reduce((a, b) => a + b, 0);
  expect(hiddenMm(second)).toBeGreaterThan(hiddenMm(first));
});
