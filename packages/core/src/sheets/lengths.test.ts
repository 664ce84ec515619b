/** Lengths square between edges and faces, diameters from the side, angles between faces, and where dimensions are put. */
import { emptyDocument } from '../document/items.ts';
import type { Dimension, SheetView } from '../document/sheet.ts';
import type { Geometry } from '../space/geometry.ts';
import { drawDimension } from './dimensions.ts';
import { frameOfView } from './looks.ts';
import { isMeasured, type TiedDimension } from './measuring.ts';
import { placedThrough } from './placing.ts';

const near = (value: number) => expect.closeTo(value, 9) as unknown as number;
const document = emptyDocument();
const plan = { look: { kind: 'standard', from: 'plan' }, at: [100, 100], scale: 0.5, anchor: [0, 0, 0] };

function tied(places: readonly Geometry[], more: Partial<Dimension> = {}): TiedDimension {
  const view = plan as unknown as SheetView;
  const dimension = {
    kind: 'along',
    run: 'chained',
    offset: 10,
    bearing: 0,
    words: '',
    suffix: '',
    ...more,
  } as Dimension;
  return { document, dimension, view, frame: frameOfView(document, view)!, places };
}

function told(places: readonly Geometry[], more: Partial<Dimension> = {}) {
  const found = drawDimension(tied(places, more));
  if (!isMeasured(found)) return found.words;
  return {
    value: found.value,
    texts: found.marks.flatMap((mark) => (mark.kind === 'text' ? mark.text : [])),
  };
}

const edge = (at: readonly [number, number, number], bearing: number, length = 20): Geometry => ({
  kind: 'line',
  at,
  direction: [Math.cos((bearing * Math.PI) / 180), Math.sin((bearing * Math.PI) / 180), 0],
  length,
});
const point = (x: number, y: number, z = 0): Geometry => ({ kind: 'point', at: [x, y, z] });
const face = (
  at: readonly [number, number, number],
  normal: readonly [number, number, number],
): Geometry => ({
  kind: 'plane',
  at,
  normal,
});

describe('square between what is parallel', () => {
  test('two edges whose middles do not face each other', () => {
    // On a bearing of 30° the second is moved 7 along and 12 across.
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const second = edge([7 * c - 12 * s, 7 * s + 12 * c, 5], 30);
    expect(told([edge([0, 0, 0], 30), second])).toMatchObject({
      value: near(12),
      texts: ['12'],
    });
    // They may run either way.
    expect(told([edge([0, 0, 0], 210), second])).toMatchObject({ value: near(12) });
  });

  test('two faces seen from their edges, and a face and a point', () => {
    const [low, high] = [face([3, 0, 0], [0, -1, 0]), face([-40, 25, 9], [0, 1, 0])];
    expect(told([low, high])).toMatchObject({ value: 25 });
    expect(told([low, point(80, 4)])).toMatchObject({ value: 4 });
  });

  test('not where they are not parallel, lie in one line, or are not seen in their true length', () => {
    expect(told([edge([0, 0, 0], 0), edge([0, 10, 0], 20)])).toMatchObject({ value: 10 });
    expect(told([edge([0, 0, 0], 0), edge([30, 0, 0], 0)])).toMatchObject({ value: 30 });
    const sloping: Geometry = { kind: 'line', at: [4, 3, 0], direction: [0.6, 0, 0.8], length: 10 };
    expect(told([point(0, 0), sloping])).toMatchObject({ value: 5 });
    // A face that is looked at squarely has a middle, and no line.
    expect(told([face([4, 3, 0], [0, 0, 1]), point(0, 0)])).toMatchObject({ value: 5 });
  });

  test('chains through several, and a length that is asked for as level stays level', () => {
    const three = [edge([0, 0, 0], 0), edge([5, 10, 0], 0), edge([-5, 30, 0], 180)];
    expect(told(three)).toMatchObject({ value: 30, texts: ['10', '20'] });
    expect(told(three.slice(0, 2), { kind: 'horizontal' })).toMatchObject({ value: 5 });
  });
});

test('a diameter of what is seen from the side goes across', () => {
  const pin: Geometry = { kind: 'axis', at: [10, 20, 0], direction: [1, 0, 0], radius: 4 };
  expect(told([pin], { kind: 'diameter' })).toEqual({ value: 8, texts: ['Ø8'] });
  expect(told([pin], { kind: 'radius' })).toMatch(/not seen squarely/);
  const leaning: Geometry = { ...pin, direction: [Math.SQRT1_2, 0, Math.SQRT1_2] };
  expect(told([leaning], { kind: 'diameter' })).toMatch(/neither squarely nor from the side/);
});

test('an angle between two faces seen from their edges', () => {
  const upright = face([10, 0, 0], [1, 0, 0]);
  const leaning = face([0, 10, 0], [-Math.SQRT1_2, Math.SQRT1_2, 0]);
  expect(told([upright, leaning], { kind: 'angle' })).toMatchObject({ value: near(45) });
  expect(told([upright, face([0, 0, 5], [0, 0, 1])], { kind: 'angle' })).toMatch(/plane of this view/);
});

describe('a dimension is put through a place on paper', () => {
  test('a length beside its outermost edge, on either side, and never nearer than a millimetre', () => {
    // Drawn at 1:2 with the origin at 100, 100: the edges are at 100 and 112.5.
    const two = tied([edge([0, 0, 0], 0, 40), edge([0, 25, 0], 0, 60)]);
    expect(placedThrough(two, [130, 105]).offset).toBe(-15);
    expect(placedThrough(two, [60, 105]).offset).toBe(25);
    expect(Math.abs(placedThrough(two, [101, 105]).offset)).toBe(1);
  });

  test('radii turn towards it, angles and levels go as far', () => {
    const round: Geometry = { kind: 'axis', at: [0, 0, 0], direction: [0, 0, 1], radius: 20 };
    expect(placedThrough(tied([round], { kind: 'radius' }), [100, 130])).toEqual({ bearing: 90, offset: 20 });
    expect(placedThrough(tied([round], { kind: 'level' }), [80, 100]).offset).toBe(-20);
    expect(placedThrough(tied([round], { kind: 'arc' }), [100, 113]).offset).toBe(3);
    expect(
      placedThrough(tied([edge([0, 0, 0], 0), edge([0, 0, 0], 90)], { kind: 'angle' }), [103, 104]).offset,
    ).toBe(5);
  });
});
