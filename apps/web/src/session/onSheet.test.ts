/** Clicks on a drawing sheet. */
import { emptyDocument, verbNamed, type DrawnCatch, type TiedDimension, type Vec2 } from '@kadrel/core';
import { nearestCatch, placedBeside, withTie, type Caught } from './onSheet.ts';
import { startStatement } from './statement.ts';

const caught = (at: Vec2, more: Partial<DrawnCatch> = {}, view = 'front'): Caught => ({
  view,
  at,
  caught: {
    at: [at[0], at[1], 0],
    snap: 'endpoint',
    tie: { point: [at[0], at[1], 0], named: { part: 'p1', at: `corner${at.join()}`, snap: 'endpoint' } },
    ...more,
  },
});
const viewOf = () => ({ at: [0, 0] as Vec2, scale: 1 });
/** A dimension in a plan at 1:1, whose middle is the origin. */
const tied = (more: Partial<TiedDimension>): TiedDimension =>
  ({
    document: emptyDocument(),
    view: { look: { kind: 'standard', from: 'plan' }, at: [0, 0], scale: 1, anchor: [0, 0, 0] },
    frame: { turn: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [0, 0, 0] },
    dimension: { kind: 'along', run: 'chained', offset: 10, bearing: 0, words: '', suffix: '' },
    ...more,
  }) as TiedDimension;
const dimension = () => startStatement(verbNamed('dimension')!);

describe('what is caught', () => {
  test('the nearest within reach', () => {
    const all = [caught([0, 0]), caught([10, 0])];
    expect(nearestCatch(all, { place: [7, 0], reach: 5, viewOf })).toBe(all[1]);
    expect(nearestCatch(all, { place: [5, 20], reach: 5, viewOf })).toBeUndefined();
  });

  test('of several in one place the one that is nearer to who looks, and points before edges', () => {
    const far = caught([0, 0], { at: [0, 0, -10] });
    const near = caught([0, 0], { at: [0, 0, 10] });
    const edge = caught([0, 0], { at: [0, 0, 20], snap: 'edge' });
    for (const order of [
      [far, near, edge],
      [edge, near, far],
    ])
      expect(nearestCatch(order, { place: [0.1, 0], reach: 5, viewOf })).toBe(near);
  });

  test('a straight edge all along, but less far away than points', () => {
    const edge = caught([10, 0], {
      snap: 'edge',
      ends: [
        [0, 0],
        [20, 0],
      ],
    });
    const end = caught([0, 0]);
    const at = (place: Vec2) => nearestCatch([edge, end], { place, reach: 5, viewOf });
    expect(at([15, 3])).toBe(edge);
    expect(at([15, 4])).toBeUndefined();
    // Its own end is meant where that can be reached.
    expect(at([3, 1])).toBe(end);
    expect(at([22, 4])).toBeUndefined();
  });

  test('a round edge by its rim too, at the scale of its view', () => {
    const round = caught([0, 0], { snap: 'edge', radius: 20 });
    expect(
      nearestCatch([round], {
        place: [10.5, 0],
        reach: 2,
        viewOf: () => ({ at: [0, 0] as Vec2, scale: 0.5 }),
      }),
    ).toBe(round);
    expect(nearestCatch([round], { place: [10.5, 0], reach: 2, viewOf })).toBeUndefined();
  });
});

describe('what a click writes', () => {
  test('one place after another; what is clicked in another view begins anew', () => {
    const one = withTie(dimension(), caught([0, 0]));
    const two = withTie(one, caught([10, 0]));
    expect(two.typed).toMatchObject({
      view: 'front',
      ties: [
        { on: 'p1', at: 'corner0,0' },
        { on: 'p1', at: 'corner10,0' },
      ],
    });
    expect(withTie(two, caught([5, 5], {}, 'plan')).typed).toMatchObject({
      view: 'plan',
      ties: [{ at: 'corner5,5' }],
    });
  });

  test('a round edge asks for its diameter, unless something else was chosen', () => {
    const round = caught([0, 0], { snap: 'edge', radius: 5 });
    expect(withTie(dimension(), round).typed.kind).toBe('diameter');
    const radius = { ...dimension(), typed: { ...dimension().typed, kind: 'radius' } };
    expect(withTie(radius, round).typed.kind).toBe('radius');
  });

  test('a note points to one place alone', () => {
    const note = startStatement(verbNamed('sheet-note')!);
    const twice = withTie(withTie(note, caught([0, 0])), caught([10, 0]));
    expect(twice.typed.to).toMatchObject([{ at: 'corner10,0' }]);
  });

  test('a click beside the points says how far off the line stands, and on which side', () => {
    const between = tied({
      places: [
        { kind: 'point', at: [0, 0, 0] },
        { kind: 'point', at: [10, 0, 0] },
      ],
    });
    expect(placedBeside(dimension(), [5, 8], between)).toEqual({ offset: '8 mm' });
    expect(placedBeside(dimension(), [5, -6], between)).toEqual({ offset: '-6 mm' });
    const places = [{ kind: 'axis', at: [0, 0, 0], direction: [0, 0, 1], radius: 5 }] as const;
    const round = tied({ places, dimension: { ...between.dimension, kind: 'diameter' } });
    const far = 10 * Math.SQRT2;
    const typed = placedBeside(dimension(), [10, 10], round);
    expect(typed).toEqual({ bearing: '45', offset: `${Math.round((far - 5) * 10) / 10} mm` });
  });

  test('without points it says nothing, but where a note or a view goes', () => {
    expect(placedBeside(dimension(), [5, 5], null)).toBeUndefined();
    expect(placedBeside(startStatement(verbNamed('sheet-note')!), [50.26, 80], null)).toEqual({
      x: '50.3 mm',
      y: '80 mm',
    });
  });
});
