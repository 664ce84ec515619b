import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument, Part } from '../document/schema.ts';
import { pathsOf } from '../document/drawn.ts';
import { startOf } from '../curves/curve.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import { rowsOfCurve, rowsOfOpenings, rowsOfTiers } from './shared/tables.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';

type Said = readonly [verb: string, typed: Typed];

function say(document: KadrelDocument, [verb, typed]: Said): KadrelDocument | Refusal {
  let ids = Object.keys(document.items).length;
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `p${++ids}`),
  );
  return isRefusal(done) ? done : done.document;
}

function said(...all: readonly Said[]): KadrelDocument {
  let document = emptyDocument();
  for (const one of all) {
    const next = say(document, one);
    if (isRefusal(next)) throw new Error(`${one[0]}: ${next.message}`);
    document = next;
  }
  return document;
}

const named = (document: KadrelDocument, name: string): Part =>
  Object.values(document.items).find((item) => item.name === name)!;
const baseOf = <K extends Part['recipe']['base']['kind']>(
  document: KadrelDocument,
  name: string,
  kind: K,
): Extract<Part['recipe']['base'], { kind: K }> => {
  const { base } = named(document, name).recipe;
  if (base.kind !== kind) throw new Error(`${name} is a ${base.kind}.`);
  return base as Extract<Part['recipe']['base'], { kind: K }>;
};

const wave: Said = [
  'curve',
  {
    as: 'wave',
    points: [
      [0, 0, 0],
      [10, 5, 0],
      [20, 0, 0],
    ],
  },
];

describe('the points of a curve', () => {
  const figure = (document: KadrelDocument) => {
    const { figure: found } = baseOf(document, 'wave', 'profile');
    if (found.kind !== 'curve') throw new Error('No curve.');
    return found;
  };

  test('are read back as they would be typed, and typed anew with units and arithmetic', () => {
    const before = said(wave);
    const rows = rowsOfCurve(figure(before));
    expect(rows[1]).toEqual({ x: '10 mm', y: '5 mm' });
    const after = said(wave, [
      'repoint',
      { profile: 'wave', points: [{ x: '2 cm', y: '3 + 4' }, ...rows.slice(1)] },
    ]);
    expect(figure(after).points[0]).toEqual([20, 7]);
    expect(startOf(pathsOf(after, named(after, 'wave').id)[0]!.curves[0]!.curve)).toEqual([20, 7]);
  });

  test('can come back to their start, where there are enough', () => {
    const closed = said(wave, ['repoint', { profile: 'wave', closed: 'yes', how: 'control' }]);
    expect(figure(closed)).toMatchObject({ closed: true, how: 'control' });
    expect(say(said(wave), ['repoint', { profile: 'wave', points: [{ x: 1, y: 1 }] }])).toMatchObject({
      code: 'too-few.points',
      blank: 'points',
    });
  });

  test('are refused for what has none', () => {
    const disc: Said = ['circle', { as: 'disc', diameter: 4 }];
    expect(say(said(disc), ['repoint', { profile: 'disc', closed: 'yes' }])).toMatchObject({
      code: 'no-curve',
      blank: 'profile',
    });
  });
});

describe('the openings of a wall', () => {
  const room: Said[] = [
    ['rectangle', { as: 'plan', width: 4000, height: 3000 }],
    ['wall', { as: 'walls', profile: 'plan', thickness: 200, height: 2500 }],
  ];
  const door = { leg: 1, from: '1 m', width: 900, height: 2100 };

  test('are set, read back, and taken out', () => {
    const opened = said(...room, ['openings', { wall: 'walls', openings: [door] }]);
    const { openings } = baseOf(opened, 'walls', 'wall');
    expect(openings).toEqual([{ leg: 1, from: 1000, sill: 0, width: 900, height: 2100 }]);
    const again = say(opened, ['openings', { wall: 'walls', openings: rowsOfOpenings(openings) }]);
    expect(again).toMatchObject({ items: opened.items });
    const shut = said(
      ...room,
      ['openings', { wall: 'walls', openings: [door] }],
      ['openings', { wall: 'walls' }],
    );
    expect(baseOf(shut, 'walls', 'wall').openings).toEqual([]);
  });

  test('are refused where they have no size, and on what is no wall', () => {
    const flat = say(said(...room), ['openings', { wall: 'walls', openings: [{ ...door, width: 0 }] }]);
    expect(flat).toMatchObject({ blank: 'openings' });
    expect(say(said(...room), ['openings', { wall: 'plan' }])).toMatchObject({ code: 'other-kind' });
    const locked = said(...room, ['lock', { parts: ['walls'] }]);
    expect(say(locked, ['openings', { wall: 'walls' }])).toMatchObject({ code: 'locked' });
  });
});

test('the levels of tiers are changed one and all', () => {
  const plinth: Said = ['tiers', { as: 'plinth', levels: [{ below: 40, height: 10 }] }];
  const rows = rowsOfTiers(baseOf(said(plinth), 'plinth', 'tiers').levels);
  expect(rows).toEqual([
    { below: '40 mm', above: '40 mm', height: '10 mm', outline: 'round', flank: 'slope', sides: '6' },
  ]);
  const taller = said(plinth, [
    'levels',
    { part: 'plinth', levels: [...rows, { below: 30, above: 10, height: 5 }] },
  ]);
  expect(baseOf(taller, 'plinth', 'tiers').levels).toHaveLength(2);
  expect(say(said(plinth), ['levels', { part: 'plinth', levels: [{ below: 0, height: 5 }] }])).toMatchObject({
    blank: 'levels',
  });
});
