/** Clicks on a drawing sheet. */
import { verbNamed, type DrawnCatch, type Vec2 } from '@kadrel/core';
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
const scaleOf = () => 1;
const dimension = () => startStatement(verbNamed('dimension')!);

describe('what is caught', () => {
  test('the nearest within reach', () => {
    const all = [caught([0, 0]), caught([10, 0])];
    expect(nearestCatch(all, { place: [7, 0], reach: 5, scaleOf })).toBe(all[1]);
    expect(nearestCatch(all, { place: [5, 20], reach: 5, scaleOf })).toBeUndefined();
  });

  test('of several in one place the one that is nearer to who looks, and points before edges', () => {
    const far = caught([0, 0], { at: [0, 0, -10] });
    const near = caught([0, 0], { at: [0, 0, 10] });
    const edge = caught([0, 0], { at: [0, 0, 20], snap: 'edge' });
    for (const order of [
      [far, near, edge],
      [edge, near, far],
    ])
      expect(nearestCatch(order, { place: [0.1, 0], reach: 5, scaleOf })).toBe(near);
  });

  test('a round edge by its rim too, at the scale of its view', () => {
    const round = caught([0, 0], { snap: 'edge', radius: 20 });
    expect(nearestCatch([round], { place: [10.5, 0], reach: 2, scaleOf: () => 0.5 })).toBe(round);
    expect(nearestCatch([round], { place: [10.5, 0], reach: 2, scaleOf })).toBeUndefined();
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
    const ties = [caught([0, 0]), caught([10, 0])];
    const two = ties.reduce(withTie, dimension());
    expect(placedBeside(two, [5, 8], ties)).toEqual({ offset: '8 mm' });
    expect(placedBeside(two, [5, -6], ties)).toEqual({ offset: '-6 mm' });
    const round = [caught([0, 0], { snap: 'edge', radius: 5 })];
    expect(placedBeside(withTie(dimension(), round[0]!), [10, 10], round)).toMatchObject({ bearing: '45' });
  });

  test('without points it says nothing, but where a note or a view goes', () => {
    expect(placedBeside(dimension(), [5, 5], [])).toBeUndefined();
    expect(placedBeside(startStatement(verbNamed('sheet-note')!), [50.26, 80], [])).toEqual({
      x: '50.3 mm',
      y: '80 mm',
    });
  });
});
