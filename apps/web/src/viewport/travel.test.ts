import type { ViewState } from '@kadrel/core';
import { Travel } from './travel.ts';

const FRONT: ViewState = { target: [0, 0, 0], bearing: 0, altitude: 0, height: 100, projection: 'parallel' };
const seenFrom = (bearing: number): ViewState => ({ ...FRONT, bearing });

const withMotion = (wanted: 'reduced' | 'full') =>
  Object.assign(window, { matchMedia: () => ({ matches: wanted === 'reduced' }) });

function travelling() {
  const calls = { changed: 0, byHand: 0 };
  const travel = new Travel(FRONT, { changed: () => calls.changed++, movedByHand: () => calls.byHand++ });
  return { travel, calls };
}

describe('where a view looks from', () => {
  beforeEach(() => withMotion('reduced'));

  it('goes back over jumps, and forth again until a new one is made', () => {
    const { travel } = travelling();
    travel.go(seenFrom(90));
    travel.go(seenFrom(180));
    travel.back();
    expect(travel.view.bearing).toBe(90);
    travel.back();
    expect(travel.view.bearing).toBe(0);
    travel.back();
    expect(travel.view.bearing).toBe(0);
    travel.forth();
    expect(travel.view.bearing).toBe(90);
    travel.go(seenFrom(270));
    travel.forth();
    expect(travel.view.bearing).toBe(270);
  });

  it('counts all moves of a gesture as one, and none where the gesture moved nothing', () => {
    const { travel, calls } = travelling();
    travel.beginGesture();
    for (const bearing of [10, 20, 30]) travel.move(() => seenFrom(bearing));
    travel.beginGesture();
    expect(calls.byHand).toBe(3);
    travel.back();
    expect(travel.view.bearing).toBe(0);
    travel.forth();
    expect(travel.view.bearing).toBe(30);
  });

  it('takes turns of the wheel that follow one another quickly for one gesture', () => {
    const { travel } = travelling();
    for (const height of [90, 80, 70]) {
      travel.beginZoom();
      travel.move((state) => ({ ...state, height }));
    }
    travel.back();
    expect(travel.view.height).toBe(100);
  });

  it('is on the way for a while, and says where to; a move by hand ends that', () => {
    withMotion('full');
    const { travel, calls } = travelling();
    const began = performance.now();
    travel.go(seenFrom(90));
    expect(travel.state.bearing).toBe(0);
    expect(travel.view.bearing).toBe(90);
    expect(travel.advance(began)).toEqual({ hasMoved: true, isOnTheWay: true });
    expect(travel.advance(began + 10_000)).toEqual({ hasMoved: true, isOnTheWay: false });
    expect(travel.state.bearing).toBe(90);
    expect(travel.advance(began + 10_001)).toEqual({ hasMoved: false, isOnTheWay: false });
    travel.go(seenFrom(180));
    travel.move((state) => ({ ...state, height: 50 }));
    expect(travel.view).toEqual({ ...seenFrom(90), height: 50 });
    expect(calls.changed).toBe(3);
  });

  it('does not count what is set as a move that can be taken back', () => {
    const { travel, calls } = travelling();
    travel.set(seenFrom(45));
    travel.back();
    expect(travel.view.bearing).toBe(45);
    expect(calls.changed).toBe(0);
  });
});
