/** Kept cuts and slices follow what they were cut from: against formulas for areas and volumes. */
import {
  filledArea,
  isRefusal,
  pathsOf,
  perform,
  verbNamed,
  worldFromPart,
  type KadrelDocument,
  type Performed,
  type Typed,
} from '@kadrel/core';
import { Evaluator, worldOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, type Statement } from '@kadrel/testing';

const kernel = new Evaluator(await sharedLibraries());

let ids = 0;

/** One statement more. */
function after(document: KadrelDocument, verb: string, typed: Typed): Performed {
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    worldOf(document, kernel, () => `q${++ids}`),
  );
  if (isRefusal(done)) throw new Error(done.message);
  return done;
}

const areaOf = (document: KadrelDocument, name: string) =>
  filledArea(pathsOf(document, idOf(document, name)));

const ring = (outer: number, bore: number) => (Math.PI / 4) * (outer ** 2 - bore ** 2);

const PIPE: Statement[] = [
  ['tube', { as: 'pipe', diameter: 40, bore: 30, height: 50 }],
  ['section', { as: 'cut', on: 'plan', offset: 20 }],
  ['keep-cut', { section: 'cut' }],
];
const KEPT = 'cut through pipe';

describe('a kept cut', () => {
  test('has the area that its part has there, after every change of the part', () => {
    const document = builtBy(kernel, PIPE);
    expect(areaOf(document, KEPT)).toBeCloseTo(ring(40, 30), 9);
    const thicker = after(document, 'change', { parts: ['pipe'], diameter: 60 }).document;
    expect(areaOf(thicker, KEPT)).toBeCloseTo(ring(60, 30), 9);
    // A groove that is cut round it, as an operand of the part.
    const bored = builtBy(kernel, [
      ...PIPE,
      ['box', { as: 'slot', size: [100, 10, 100], at: [0, -5, 0] }],
      ['subtract', { from: 'pipe', parts: ['slot'] }],
    ]);
    const kept = areaOf(bored, KEPT);
    expect(kept).toBeLessThan(ring(40, 30));
    expect(kept).toBeGreaterThan(0);
  });

  test('goes along with its section plane, and what is raised from it follows', () => {
    const cone: Statement[] = [
      ['cone', { as: 'cone', diameter: 40, height: 40 }],
      ['section', { as: 'cut', on: 'plan', offset: 10 }],
      ['keep-cut', { section: 'cut' }],
      ['raise', { profiles: ['cut through cone'], height: 5, as: 'disc' }],
    ];
    const document = builtBy(kernel, cone);
    expect(measured(kernel, document, 'disc').volume).toBeCloseTo(ring(30, 0) * 5, 8);
    const moved = after(document, 'move', { parts: ['cut'], by: [0, 0, 10] }).document;
    expect(worldFromPart(moved, idOf(moved, 'cut through cone')).shift[2]).toBe(20);
    expect(measured(kernel, moved, 'disc').volume).toBeCloseTo(ring(20, 0) * 5, 8);
  });

  test('stays as it was where nothing is cut any more, says so, and comes back', () => {
    const document = builtBy(kernel, PIPE);
    const away = after(document, 'move', { parts: ['pipe'], by: [0, 0, 100] });
    expect(away.notes).toEqual([`${KEPT} stays as it was: nothing is cut there any more.`]);
    expect(areaOf(away.document, KEPT)).toBeCloseTo(ring(40, 30), 9);
    expect(kernel.noticesFor(away.document, idOf(away.document, KEPT)).map(({ what }) => what)).toEqual([
      'nothing cut',
    ]);
    const back = after(away.document, 'move', { parts: ['pipe'], by: [0, 0, -100] }).document;
    expect(back.items[idOf(back, KEPT)]!.traced).not.toHaveProperty('lost');
    const { document: alone, notes } = after(back, 'delete', { parts: ['pipe'] });
    expect(notes).toEqual([`${KEPT} stays as it is now: what it was cut from is gone.`]);
    expect(alone.items[idOf(alone, KEPT)]!.traced).toBeUndefined();
    expect(areaOf(alone, KEPT)).toBeCloseTo(ring(40, 30), 9);
  });

  test('stays while its part is hidden, and follows what was changed meanwhile', () => {
    const hidden = after(builtBy(kernel, PIPE), 'hide', { parts: ['pipe'] });
    expect(hidden.notes).toEqual([]);
    const changed = after(hidden.document, 'change', { parts: ['pipe'], diameter: 60 }).document;
    const shown = after(changed, 'show', { parts: ['pipe'] }).document;
    expect(areaOf(shown, KEPT)).toBeCloseTo(ring(60, 30), 9);
  });

  test('copied with its part and its plane follows the copy', () => {
    const document = builtBy(kernel, [
      ...PIPE,
      ['group', { parts: ['pipe', 'cut', KEPT], as: 'all' }],
      ['duplicate', { parts: ['all'], by: [100, 0, 0] }],
    ]);
    const copy = Object.values(document.items).find(({ name }) => name.startsWith('pipe '))!.name;
    const changed = after(document, 'change', { parts: [copy], diameter: 60 }).document;
    expect(areaOf(changed, KEPT)).toBeCloseTo(ring(40, 30), 9);
    expect(areaOf(changed, `${KEPT} 2`)).toBeCloseTo(ring(60, 30), 9);
  });

  test('follows a size that is set from a measure', () => {
    const document = builtBy(kernel, [
      ['box', { as: 'near', size: [10, 10, 10], at: [100, 0, 0] }],
      ['box', { as: 'far', size: [10, 10, 10], at: [150, 0, 0] }],
      ['measure', { from: 'near', to: 'far' }],
      ['variable', { name: 'width', value: 'measure("M1")' }],
      ['tube', { as: 'pipe', diameter: 'width', bore: 30, height: 50 }],
      ...PIPE.slice(1),
    ]);
    expect(areaOf(document, KEPT)).toBeCloseTo(ring(40, 30), 9);
    const moved = after(document, 'move', { parts: ['far'], by: [20, 0, 0] }).document;
    expect(areaOf(moved, KEPT)).toBeCloseTo(ring(60, 30), 9);
  });

  test('is fixed where that is said, and once it is unlinked', () => {
    const fixed = builtBy(kernel, [...PIPE.slice(0, 2), ['keep-cut', { section: 'cut', keeps: 'fixed' }]]);
    const free = after(builtBy(kernel, PIPE), 'unlink', { parts: [KEPT] }).document;
    for (const document of [fixed, free]) {
      const thicker = after(document, 'change', { parts: ['pipe'], diameter: 60 }).document;
      expect(areaOf(thicker, KEPT)).toBeCloseTo(ring(40, 30), 9);
    }
  });

  test('that would cut its own part is refused', () => {
    const document = builtBy(kernel, [
      ['box', { as: 'block', size: [40, 40, 40] }],
      ['section', { as: 'cut', on: 'plan', offset: 20 }],
      ['keep-cut', { section: 'cut' }],
      ['raise', { profiles: ['cut through block'], height: 5, as: 'plate' }],
      ['move', { parts: ['plate'], by: [10, 0, 0] }],
    ]);
    const refused = perform(
      verbNamed('cut-by')!,
      { parts: ['block'], by: 'plate' },
      document,
      worldOf(document, kernel, () => `q${++ids}`),
    );
    expect(refused).toMatchObject({ refused: true, code: 'cut-circle' });
  });
});

describe('slices', () => {
  const SLICED: Statement[] = [
    ['wedge', { as: 'roof', size: [60, 40, 30] }],
    ['slices', { parts: ['roof'], pitch: 2, as: 'layers' }],
  ];
  const layersOf = (document: KadrelDocument) => {
    const { base } = document.items[idOf(document, 'layers')]!.recipe;
    return base.kind === 'group' ? base.members : [];
  };
  const volumeOf = (document: KadrelDocument) =>
    2 * layersOf(document).reduce((sum, id) => sum + filledArea(pathsOf(document, id)), 0);

  test('follow their part: further ones come, and those beyond its end go', () => {
    const document = builtBy(kernel, SLICED);
    expect(layersOf(document)).toHaveLength(15);
    expect(volumeOf(document)).toBeCloseTo(0.5 * 60 * 40 * 30, 6);
    for (const height of [40, 20]) {
      const changed = after(document, 'change', { parts: ['roof'], size: [60, 40, height] }).document;
      expect(layersOf(changed)).toHaveLength(height / 2);
      expect(volumeOf(changed)).toBeCloseTo(0.5 * 60 * 40 * height, 6);
      const heights = layersOf(changed).map((id) => worldFromPart(changed, id).shift[2]);
      heights.forEach((z, i) => expect(z).toBeCloseTo(2 * i + 1, 9));
    }
  });

  test('as many as are said spread anew, in their group where that stands now', () => {
    const document = builtBy(kernel, [
      SLICED[0]!,
      ['slices', { parts: ['roof'], count: 5, as: 'layers' }],
      ['move', { parts: ['layers'], by: [100, 0, 0] }],
    ]);
    const changed = after(document, 'change', { parts: ['roof'], size: [60, 40, 50] }).document;
    const places = layersOf(changed).map((id) => worldFromPart(changed, id).shift);
    places.forEach(([x, , z], i) => {
      expect(x).toBe(100);
      expect(z).toBeCloseTo(10 * i + 5, 9);
    });
  });

  test('that a person took away stay away, and one that something is made from stays', () => {
    const document = builtBy(kernel, [
      ...SLICED,
      ['delete', { parts: ['Slice 3'] }],
      ['raise', { profiles: ['Slice 15'], height: 2, as: 'ridge' }],
    ]);
    const lower = after(document, 'change', { parts: ['roof'], size: [60, 40, 20] }).document;
    const names = layersOf(lower).map((id) => lower.items[id]!.name);
    expect(names).toEqual([1, 2, 4, 5, 6, 7, 8, 9, 10, 15].map((n) => `Slice ${n}`));
    expect(measured(kernel, lower, 'ridge').volume).toBeGreaterThan(0);
  });

  test('of a copy are its own', () => {
    const document = builtBy(kernel, [...SLICED, ['duplicate', { parts: ['layers'], by: [0, 100, 0] }]]);
    const changed = after(document, 'change', { parts: ['roof'], size: [60, 40, 40] }).document;
    const groups = Object.values(changed.items).filter(({ traced }) => traced?.by === 'slices');
    expect(groups).toHaveLength(2);
    for (const { traced } of groups)
      for (const { item } of traced?.by === 'slices' ? traced.layers : [])
        expect(changed.items[item!]!.parent).toBe(groups.find((one) => one.traced === traced)!.id);
  });
});
