import fc from 'fast-check';
import {
  emptyDocument,
  placementAt,
  standingParts,
  vectorOf,
  visibleParts,
  worldFromPart,
} from '../document/items.ts';
import { readDocument } from '../document/migrations.ts';
import { DOCUMENT_VERSION, documentSchema, type ItemId, type KadrelDocument } from '../document/schema.ts';
import { carry } from '../space/pose.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { verbNamed } from '../verbs/index.ts';
import { perform, type Performed } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';
import { countOf, memberKeys, memberLabel, memberNamed } from './members.ts';
import { placedOf, standingPlacesOf } from './placed.ts';
import { carryPlaced, chainPlacements, reflectionIn } from './placement.ts';
import { wayAt, wayLength } from './way.ts';

type Statement = readonly [verb: string, typed: Record<string, unknown>];

function say(document: KadrelDocument, [verb, typed]: Statement, ids: { next: number }): Performed | Refusal {
  const newId = () => `p${ids.next++}`;
  return perform(verbNamed(verb)!, typed, document, plainWorld(document, newId));
}

/** The document after statements, none of which may be refused, and which must pass the schema. */
function after(...statements: Statement[]): KadrelDocument {
  const ids = { next: 1 };
  let document = emptyDocument();
  for (const statement of statements) {
    const done = say(document, statement, ids);
    if (isRefusal(done)) throw new Error(`${statement[0]}: ${done.message}`);
    document = documentSchema.parse(done.document);
  }
  return document;
}

/** The refusal of the last statement. */
function refusal(...statements: Statement[]): Refusal {
  const before = after(...statements.slice(0, -1));
  const done = say(before, statements.at(-1)!, { next: 900 });
  if (!isRefusal(done)) throw new Error('It was not refused.');
  return done;
}

const idOf = (document: KadrelDocument, name: string): ItemId =>
  Object.values(document.items).find((item) => item.name === name)!.id;
const item = (document: KadrelDocument, name: string) => document.items[idOf(document, name)]!;

/** Where the own origins of an item's solids stand in the world. */
const places = (document: KadrelDocument, name: string): Vec3[] =>
  placedOf(document, idOf(document, name)).map(({ pose }) => pose.shift);

const expectAt = (found: readonly Vec3[], wanted: readonly Vec3[]) => {
  expect(found).toHaveLength(wanted.length);
  found.forEach((point, i) => expect(distance(point, wanted[i]!)).toBeLessThan(1e-9));
};

const post: Statement = ['box', { as: 'Post', size: [10, 10, 100], at: [0, 0, 0] }];

describe('a row', () => {
  test('every 50: twenty posts, the last 950 away', () => {
    const document = after(post, ['along', { as: 'Posts', parts: ['Post'], count: 20, pitch: 50 }]);
    const found = places(document, 'Posts');
    expect(found).toHaveLength(20);
    expect(found[19]).toEqual([950, 0, 0]);
  });

  test('50 ft across 5 spaces is every 10 ft (common practice, no source)', () => {
    const document = after(post, ['along', { as: 'Posts', parts: ['Post'], count: 6, span: '50 ft' }]);
    places(document, 'Posts').forEach(([x], i) => expect(x).toBe(i * 10 * 304.8));
  });

  test('centred on its source, along any direction', () => {
    const document = after(post, [
      'along',
      { as: 'Posts', parts: ['Post'], along: [0, 3, 4], count: 3, pitch: 10, centred: 'centred' },
    ]);
    expectAt(places(document, 'Posts'), [
      [0, -6, -8],
      [0, 0, 0],
      [0, 6, 8],
    ]);
  });

  test.each([
    { rule: 'least', gap: 40, count: 21, because: '1000 / (10 + 40) is 20 spaces' },
    { rule: 'least', gap: 41, count: 20, because: '1000 / 51 is 19.6: 20 gaps would be narrower' },
    { rule: 'most', gap: 41, count: 21, because: '1000 / 51 is 19.6: 19 gaps would be wider' },
  ])('as many as fit with gaps of at $rule $gap: $count, since $because', ({ rule, gap, count }) => {
    const row: Statement = ['along', { as: 'Posts', parts: ['Post'], span: 1000, fit: rule, gap }];
    expect(places(after(post, row), 'Posts')).toHaveLength(count);
    // A longer span is filled anew.
    const longer = after(post, row, ['pattern', { parts: ['Posts'], span: '2000' }]);
    expect(places(longer, 'Posts').length).toBeGreaterThan(count + 15);
  });

  test('gaps that widen, members that twist, and members that grow', () => {
    const widening = after(post, [
      'along',
      { as: 'Posts', parts: ['Post'], count: 4, pitch: 20, widening: 5 },
    ]);
    expect(places(widening, 'Posts').map(([x]) => x)).toEqual([0, 20, 45, 75]);
    const spanned = after(post, ['along', { as: 'Posts', parts: ['Post'], count: 4, span: 75, widening: 5 }]);
    expect(places(spanned, 'Posts').map(([x]) => x)).toEqual([0, 20, 45, 75]);
    const twisting = after(post, [
      'along',
      { as: 'Tower', parts: ['Post'], along: 'z', count: 3, pitch: 100, twist: 45 },
    ]);
    // About its datum, the least corner: the diagonal of the second lies along Y.
    const [, second, third] = placedOf(twisting, idOf(twisting, 'Tower'));
    expectAt([carry(second!.pose, [10, 10, 0])], [[0, Math.sqrt(200), 100]]);
    expectAt([carry(third!.pose, [10, 0, 0])], [[0, 10, 200]]);
    const growing = after(post, [
      'along',
      { as: 'Steps', parts: ['Post'], count: 3, pitch: 10, growth: [0, 0, 50] },
    ]);
    expect(placedOf(growing, idOf(growing, 'Steps')).map(({ extra }) => extra?.[2] ?? 0)).toEqual([
      0, 50, 100,
    ]);
  });

  test.each([
    [{ count: 0, pitch: 5 }, 'count', 'count.whole'],
    [{ count: 2.5, pitch: 5 }, 'count', undefined],
    [{ count: 3 }, 'pitch', 'missing.distance-next'],
    [{ count: 3, pitch: 5, span: 9 }, 'span', 'both.distance'],
    [{ count: 3, pitch: 0 }, 'pitch', 'zero.all'],
    [{ count: 200_000, pitch: 5 }, 'count', 'too-many.these'],
    [{ pitch: 5 }, 'count', 'missing.how-many'],
    [{ span: 100, fit: 'least' }, 'gap', 'missing.how-wide-gaps'],
  ])('%j is refused at “%s”', (typed, blank, code) => {
    const found = refusal(post, ['along', { parts: ['Post'], ...typed }]);
    expect(found.blank).toBe(blank);
    if (code) expect(found.code).toBe(code);
  });

  test('pitch and span forms of the same pattern give the same members', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 60 }),
        // As typed, to a ten-thousandth of a millimetre: lengths enter a document to 1e-10 mm.
        fc.integer({ min: 1, max: 50_000_000 }).map((n) => n / 10_000),
        fc.constantFrom('x', 'y', '-z'),
        (count, pitch, along) => {
          const by = (typed: Record<string, unknown>) =>
            places(after(post, ['along', { as: 'Row', parts: ['Post'], along, count, ...typed }]), 'Row');
          expectAt(by({ pitch }), by({ span: (pitch * (count - 1)).toFixed(4) }));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a ring', () => {
  const seat: Statement = ['box', { as: 'Seat', size: [10, 10, 10], at: [100, 0, 0] }];
  const ring = (typed: Record<string, unknown>): Statement => [
    'around',
    { as: 'Ring', parts: ['Seat'], at: [0, 0, 0], ...typed },
  ];

  test('330° in 11 spaces is 30° a space, 12 members in all (common practice, no source)', () => {
    const found = places(after(seat, ring({ count: 12, span: 330 })), 'Ring');
    const turned = places(after(seat, ring({ count: 12, pitch: 30 })), 'Ring');
    expectAt(found, turned);
    expectAt([found[1]!], [[100 * Math.cos(Math.PI / 6), 50, 0]]);
  });

  test.each([1, 2, 3, 7, 12, 100])('a full ring of %i has as many members, none doubled', (count) => {
    const found = places(after(seat, ring({ count })), 'Ring');
    expect(found).toHaveLength(count);
    for (let i = 1; i < count; i++) expect(distance(found[0]!, found[i]!)).toBeGreaterThan(1);
    // Source: the chord of a regular polygon, 2R sin(180°/n).
    if (count > 1) expect(distance(found[0]!, found[1]!)).toBeCloseTo(200 * Math.sin(Math.PI / count), 9);
  });

  test('member 7 of 12 about Z lies exactly on the axis, and quarter turns are exact', () => {
    const found = placedOf(after(seat, ring({ count: 12 })), 'p2');
    expect(found[6]!.pose).toEqual({ turn: [-1, 0, 0, 0, -1, 0, 0, 0, 1], shift: [-100, 0, 0] });
    expect(found[3]!.pose.shift).toEqual([0, 100, 0]);
    expect(found[9]!.pose.shift).toEqual([0, -100, 0]);
  });

  test('members turn with it, or keep the attitude of the source', () => {
    const turning = placedOf(after(seat, ring({ count: 4 })), 'p2')[1]!;
    const keeping = placedOf(after(seat, ring({ count: 4, attitude: 'keeping' })), 'p2')[1]!;
    expect(carry(turning.pose, [10, 0, 0])).toEqual([0, 110, 0]);
    expect(carry(keeping.pose, [10, 0, 0])).toEqual([10, 100, 0]);
  });

  test('a spiral rises, and a whole turn of it ends over its beginning', () => {
    const found = places(after(seat, ring({ count: 13, span: 360, rise: 20 })), 'Ring');
    expectAt([found[12]!], [[100, 0, 240]]);
  });

  test('a row of rings, and a ring of rows', () => {
    const document = after(seat, ring({ count: 6 }), [
      'along',
      { as: 'Rings', parts: ['Ring'], along: 'z', count: 3, pitch: 50 },
    ]);
    const found = placedOf(document, idOf(document, 'Rings'));
    expect(found).toHaveLength(18);
    expect(found.map(({ member }) => member)).toContain('3.6');
    expect(new Set(found.map(({ tag }) => tag)).size).toBe(18);
    expectAt([found.at(-6)!.pose.shift], [[100, 0, 100]]);
  });
});

describe('a grid', () => {
  const brick: Statement = ['box', { as: 'Brick', size: [20, 10, 5] }];

  test('columns, rows and levels, counts and extents', () => {
    const document = after(brick, [
      'grid',
      {
        as: 'Grid',
        parts: ['Brick'],
        columns: 4,
        columnPitch: 25,
        rows: 3,
        rowSpan: 40,
        levels: 2,
        levelPitch: 6,
      },
    ]);
    const found = places(document, 'Grid');
    expect(found).toHaveLength(24);
    expect(found.at(-1)).toEqual([75, 40, 6]);
    expect(found[5]).toEqual([25, 20, 0]);
  });

  test('every other row shifted by half', () => {
    const document = after(brick, [
      'grid',
      {
        as: 'Wall',
        parts: ['Brick'],
        columns: 3,
        columnPitch: 20,
        rows: 3,
        rowPitch: 5,
        y: 'z',
        stagger: 'half',
        z: 'y',
      },
    ]);
    const rows = places(document, 'Wall');
    expect(rows.slice(3, 6).map(([x, , z]) => [x, z])).toEqual([
      [10, 5],
      [30, 5],
      [50, 5],
    ]);
    expect(rows[6]).toEqual([0, 0, 10]);
  });

  test('a grid is copied from a row', () => {
    const document = after(
      post,
      ['along', { as: 'Row', parts: ['Post'], count: 5, pitch: 30 }],
      ['grid', { as: 'Field', parts: ['Row'], rows: 4, rowPitch: 60 }],
    );
    expect(places(document, 'Field')).toHaveLength(20);
    expect(places(document, 'Field').at(-1)).toEqual([120, 180, 0]);
  });

  test('two directions in one line are refused', () => {
    const found = refusal(brick, [
      'grid',
      { parts: ['Brick'], columns: 2, columnPitch: 5, rows: 2, rowPitch: 5, y: '-x' },
    ]);
    expect(found).toMatchObject({ code: 'direction.columns', blank: 'y' });
  });
});

describe('on a path', () => {
  const legs = [
    [0, 0, 0],
    [100, 0, 0],
    [100, 60, 0],
  ];
  test('the whole length is shared out, square to the path', () => {
    const document = after(post, ['path', { as: 'Fence', parts: ['Post'], path: legs, count: 5 }]);
    const found = placedOf(document, idOf(document, 'Fence'));
    expectAt(
      found.map(({ pose }) => pose.shift),
      [
        [0, 0, 0],
        [40, 0, 0],
        [80, 0, 0],
        [100, 20, 0],
        [100, 60, 0],
      ],
    );
    // Past the corner X points along Y.
    expect(carry(found[4]!.pose, [10, 0, 0])).toEqual([100, 70, 0]);
  });

  test('by pitch as many as there is room for, keeping their attitude', () => {
    const document = after(post, [
      'path',
      { as: 'Fence', parts: ['Post'], path: legs, pitch: 30, attitude: 'keeping' },
    ]);
    const found = placedOf(document, idOf(document, 'Fence'));
    expect(found).toHaveLength(6);
    expectAt([found[5]!.pose.shift], [[100, 50, 0]]);
    expect(carry(found[5]!.pose, [10, 0, 0])).toEqual([110, 50, 0]);
  });

  test('more than the path holds is refused, with both lengths', () => {
    expect(refusal(post, ['path', { parts: ['Post'], path: legs, pitch: 50, count: 5 }]).message).toMatch(
      /160 mm long.*200 mm/,
    );
  });

  test('half a circle has the length πr, and its middle is its top', () => {
    const arc = {
      kind: 'round' as const,
      centre: [0, 0, 0] as [number, number, number],
      x: [50, 0, 0] as [number, number, number],
      y: [0, 50, 0] as [number, number, number],
      first: 0,
      last: 180,
    };
    expect(wayLength(arc)).toBeCloseTo(Math.PI * 50, 12);
    expectAt([wayAt(arc, (Math.PI * 50) / 2).point], [[0, 50, 0]]);
  });

  test('the circumference of an ellipse (Ramanujan’s second formula, from memory) and equal shares of it', () => {
    const [a, b] = [50, 30];
    const ellipse = {
      kind: 'round' as const,
      centre: [0, 0, 0] as [number, number, number],
      x: [a, 0, 0] as [number, number, number],
      y: [0, b, 0] as [number, number, number],
      first: 0,
      last: 360,
    };
    const h = ((a - b) / (a + b)) ** 2;
    const circumference = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    expect(wayLength(ellipse)).toBeCloseTo(circumference, 5);
    const whole = wayLength(ellipse);
    expectAt([wayAt(ellipse, whole / 4).point], [[0, b, 0]]);
    expectAt([wayAt(ellipse, whole / 2).point], [[-a, 0, 0]]);
  });
});

describe('mirrored', () => {
  test('the image stands on the other side of the plane, and follows its source', () => {
    const document = after(post, ['reflect', { as: 'Pair', parts: ['Post'], at: [50, 0, 0] }]);
    const [own, image] = placedOf(document, idOf(document, 'Pair'));
    expect(own!.mirrored).toBe(false);
    expect(carryPlaced(image!, [0, 0, 0])).toEqual([100, 0, 0]);
    expect(carryPlaced(image!, [10, 10, 100])).toEqual([90, 10, 100]);
  });

  test('its source stands once for each member that has its own sizes', () => {
    const stands = (document: KadrelDocument) =>
      standingPlacesOf(document, idOf(document, 'Post')).map((place) => carryPlaced(place, [10, 10, 100]));
    expect(stands(after(post))).toEqual([[10, 10, 100]]);
    const pair = after(post, ['reflect', { as: 'Pair', parts: ['Post'], at: [50, 0, 0] }]);
    expectAt(stands(pair), [
      [10, 10, 100],
      [90, 10, 100],
    ]);
    const rows = after(
      post,
      ['along', { as: 'Row', parts: ['Post'], count: 2, pitch: 20 }],
      ['along', { as: 'Rows', parts: ['Row'], along: 'y', count: 2, pitch: 30 }],
    );
    expectAt(stands(rows), [
      [10, 10, 100],
      [30, 10, 100],
      [10, 40, 100],
      [30, 40, 100],
    ]);
    const steps = after(post, [
      'along',
      { as: 'Steps', parts: ['Post'], count: 3, pitch: 20, growth: [0, 0, 5] },
    ]);
    expectAt(stands(steps), [[10, 10, 100]]);
  });

  test('a reflection of a reflection is a turn', () => {
    const first = reflectionIn([0, 0, 0], [1, 0, 0]);
    const second = reflectionIn([0, 0, 0], [0, 1, 0]);
    const both = chainPlacements(second, first);
    expect(both.mirrored).toBe(false);
    expect(carryPlaced(both, [3, 4, 5])).toEqual([-3, -4, 5]);
  });
});

describe('members', () => {
  const row: Statement = ['along', { as: 'Row', parts: ['Post'], count: 6, pitch: 20 }];

  test('are left out and put back by number', () => {
    const document = after(post, row, ['omit', { part: 'Row', members: '2, 5' }]);
    expect(places(document, 'Row').map(([x]) => x)).toEqual([0, 40, 60, 100]);
    const back = after(
      post,
      row,
      ['omit', { part: 'Row', members: '2, 5' }],
      ['omit', { part: 'Row', members: 5, state: 'back' }],
    );
    expect(places(back, 'Row')).toHaveLength(5);
  });

  test('stay left out when the count changes; in a grid by column and row', () => {
    const grid: Statement = [
      'grid',
      { as: 'G', parts: ['Post'], columns: 4, columnPitch: 20, rows: 3, rowPitch: 20 },
    ];
    const document = after(
      post,
      grid,
      ['omit', { part: 'G', members: '2x3' }],
      ['pattern', { parts: ['G'], counts: ['7', 'now', 'now'] }],
    );
    expect(placedOf(document, idOf(document, 'G')).map(({ member }) => member)).not.toContain('2x3');
    expect(places(document, 'G')).toHaveLength(20);
  });

  test('are freed into parts of their own, where they stand', () => {
    const document = after(post, row, ['free', { part: 'Row', members: '3' }]);
    expect(places(document, 'Row')).toHaveLength(5);
    expect(vectorOf(item(document, 'Post 3').placement.origin)).toEqual([40, 0, 0]);
    expect(visibleParts(document).map(({ name }) => name)).toEqual(['Row', 'Post 3']);
  });

  test('of a ring come along turned, and of a mirrored pair mirrored', () => {
    const ring = after(
      ['box', { as: 'Seat', size: [10, 4, 4], at: [100, 0, 0] }],
      ['around', { as: 'Ring', parts: ['Seat'], at: [0, 0, 0], count: 4 }],
      ['free', { part: 'Ring', members: '2' }],
    );
    expect(carry(worldFromPart(ring, idOf(ring, 'Seat 2')), [10, 4, 0])).toEqual([-4, 110, 0]);
    const pair = after(
      post,
      ['reflect', { as: 'Pair', parts: ['Post'], at: [50, 0, 0] }],
      ['free', { part: 'Pair', members: '2' }],
    );
    const freed = item(pair, 'Post 2');
    expect(vectorOf(freed.placement.origin)).toEqual([90, 0, 0]);
  });

  test('a grown one is freed with its own sizes', () => {
    const document = after(
      post,
      ['along', { as: 'Steps', parts: ['Post'], count: 3, pitch: 10, growth: [0, 0, 50] }],
      ['free', { part: 'Steps', members: '3' }],
    );
    const { base } = item(document, 'Post 3').recipe;
    expect(base.kind === 'box' && vectorOf(base.size)).toEqual([10, 10, 200]);
  });

  test('a dissolved pattern leaves as many parts, in the same places', () => {
    const before = after(post, row, ['omit', { part: 'Row', members: '4' }]);
    const document = after(
      post,
      row,
      ['omit', { part: 'Row', members: '4' }],
      ['dissolve', { parts: ['Row'] }],
    );
    const found = standingParts(document);
    expect(found).toHaveLength(5);
    expectAt(
      found.map(({ id }) => worldFromPart(document, id).shift),
      places(before, 'Row'),
    );
    expect(Object.keys(document.items)).toHaveLength(5);
  });

  test('of a pattern and its own source the outer one is dissolved', () => {
    const rows: Statement = ['along', { as: 'Rows', parts: ['Row'], along: 'y', count: 2, pitch: 50 }];
    const document = after(post, row, rows, ['dissolve', { parts: ['Rows', 'Row'] }]);
    expect(standingParts(document).map(({ recipe }) => recipe.base.kind)).toEqual(['pattern', 'pattern']);
  });

  test.each([
    [['omit', { part: 'Row', members: '7' }], 'no-member.members'],
    [['omit', { part: 'Row', members: '2x1' }], 'no-member.members'],
    [['omit', { part: 'Row', members: '1, 2, 3, 4, 5, 6' }], 'nothing-left'],
    [['omit', { part: 'Row', members: '2', state: 'back' }], 'as-it-is'],
    [['free', { part: 'Post', members: '1' }], 'no-pattern'],
    [['delete', { parts: ['Post'] }], 'needed.made-delete'],
  ] as [Statement, string][])('%j is refused: %s', (statement, code) => {
    expect(refusal(post, row, statement).code).toBe(code);
  });

  test('labels name members, and nothing else does', () => {
    const layout = (item(after(post, row), 'Row').recipe.base as { layout: Parameters<typeof countOf>[0] })
      .layout;
    for (const key of memberKeys(layout)) expect(memberNamed(layout, memberLabel(layout, key))).toEqual(key);
    for (const label of ['', '0', '7', 'x', '1.5', '1x1']) expect(memberNamed(layout, label)).toBeUndefined();
  });
});

describe('a pattern stays editable', () => {
  const seat: Statement = ['box', { as: 'Seat', size: [10, 10, 10], at: [100, 0, 0] }];
  const ring: Statement = ['around', { as: 'Ring', parts: ['Seat'], at: [0, 0, 0], count: 12 }];

  test('twelve become eight; the ring stays closed', () => {
    const document = after(seat, ring, ['pattern', { parts: ['Ring'], count: 'now - 4' }]);
    const found = places(document, 'Ring');
    expect(found).toHaveLength(8);
    expect(found[2]).toEqual([0, 100, 0]);
  });

  test('its source may be changed at any time, and all follow', () => {
    const document = after(seat, ring, ['move', { parts: ['Seat'], by: [50, 0, 0] }]);
    for (const place of places(document, 'Ring')) expect(Math.hypot(...place)).toBeCloseTo(150, 9);
  });

  test('a span takes the place of a pitch, and the other way round', () => {
    const row: Statement = ['along', { as: 'Row', parts: ['Seat'], count: 5, pitch: 20 }];
    const spanned = after(
      seat,
      row,
      ['pattern', { parts: ['Row'], span: 'now' }],
      ['pattern', { parts: ['Row'], count: 9 }],
    );
    // The span of 80 is kept: nine members stand every 10.
    expect(places(spanned, 'Row').map(([x]) => x)).toEqual([100, 110, 120, 130, 140, 150, 160, 170, 180]);
  });

  test('its numbers follow variables', () => {
    const document = after(
      seat,
      ['variable', { name: 'step', value: '25' }],
      ['along', { as: 'Row', parts: ['Seat'], count: 3, pitch: 'step' }],
      ['variable', { name: 'step', value: '40' }],
    );
    expect(places(document, 'Row').map(([x]) => x)).toEqual([100, 140, 180]);
  });

  test('it moves, turns and is resized as one, and its members come along', () => {
    const row: Statement = ['along', { as: 'Row', parts: ['Seat'], count: 3, pitch: 20 }];
    const turned = after(seat, row, ['turn', { parts: ['Row'], angle: 90, centre: 'point', at: [0, 0, 0] }]);
    expect(places(turned, 'Row')).toEqual([
      [0, 100, 0],
      [0, 120, 0],
      [0, 140, 0],
    ]);
    const stretched = after(seat, row, [
      'resize',
      { parts: ['Row'], by: ['2', '1', '1'], about: 'point', at: [100, 0, 0] },
    ]);
    expect(places(stretched, 'Row').map(([x]) => x)).toEqual([100, 140, 180]);
    const { base } = item(stretched, 'Seat').recipe;
    expect(base.kind === 'box' && vectorOf(base.size)).toEqual([20, 10, 10]);
    const mirrored = after(seat, row, [
      'mirror',
      { parts: ['Row'], across: 'x', centre: 'point', at: [0, 0, 0] },
    ]);
    expect(places(mirrored, 'Row').map(([x]) => x)).toEqual([-110, -130, -150]);
  });

  test('a ring is resized evenly and along its axis; across it, it says why not', () => {
    const doubled = after(seat, ring, ['resize', { parts: ['Ring'], by: ['2', '2', '3'] }]);
    for (const place of places(doubled, 'Ring')) expect(Math.hypot(...place)).toBeCloseTo(200, 9);
    expect(refusal(seat, ring, ['resize', { parts: ['Ring'], by: ['2', '1', '1'] }]).message).toMatch(
      /members would not stay alike/,
    );
  });

  test('a mirrored spiral winds the other way', () => {
    const spiral: Statement = [
      'around',
      { as: 'Stair', parts: ['Seat'], at: [0, 0, 0], count: 5, pitch: 30, rise: 10 },
    ];
    const document = after(seat, spiral, [
      'mirror',
      { parts: ['Stair'], across: 'y', centre: 'point', at: [0, 0, 0] },
    ]);
    const before = places(after(seat, spiral), 'Stair');
    // The box beside its own mirrored origin: the far corner of each takes the place of the near one.
    placedOf(document, idOf(document, 'Stair')).forEach(({ pose }, i) => {
      const [x, y, z] = before[i]!;
      const corners = [0, 10].flatMap((dx) => [0, 10].map((dy) => carry(pose, [dx, dy, 0])));
      expect(Math.min(...corners.map((corner) => distance(corner, [x, -y, z])))).toBeLessThan(1e-9);
    });
  });
});

test('a document of version 2 is read, and one that is made from itself is not', () => {
  const old = { ...emptyDocument(), kadrel: 2 };
  expect(readDocument(old).kadrel).toBe(DOCUMENT_VERSION);
  const document = after(post, ['duplicate', { parts: ['Post'], kind: 'linked', by: [50, 0, 0] }]);
  const looped = structuredClone(document);
  const [first, second] = Object.values(looped.items);
  first!.recipe.base = { kind: 'link', to: second!.id };
  expect(() => readDocument(looped)).toThrow(/linked to a link/);
  expect(placementAt([0, 0, 0]).turn).toEqual([0, 0, 0]);
});
