/** Parts put on a rack, taken from it, made at other sizes, and brought to another version. */
import {
  applyEdit,
  documentSchema,
  emptyDocument,
  gatheredPart,
  isRefusal,
  perform,
  plainWorld,
  rackPartFault,
  rackPartSchema,
  starterPart,
  verbNamed,
  type KadrelDocument,
  type RackPart,
} from '../index.ts';

let ids = 0;
type Step = readonly [verb: string, typed: Record<string, unknown>];

const done = (document: KadrelDocument, [verb, typed]: Step) =>
  perform(verbNamed(verb)!, typed, document, {
    ...plainWorld(document, () => `n${++ids}`),
    rackPart: starterPart,
  });

/** Each statement leaves a sound document, and can be taken back. */
const after = (steps: readonly Step[], from: KadrelDocument = emptyDocument()): KadrelDocument =>
  steps.reduce((document, step) => {
    const made = done(document, step);
    if (isRefusal(made)) throw new Error(made.message);
    documentSchema.parse(made.document);
    expect(applyEdit(made.document, { patches: made.inverses })).toEqual(document);
    return made.document;
  }, from);

const refusal = (document: KadrelDocument, step: Step): string => {
  const made = done(document, step);
  if (!isRefusal(made)) throw new Error('It was not refused.');
  return made.message;
};

const named = (document: KadrelDocument, name: string) =>
  Object.values(document.items).find((item) => item.name === name)!;

/** A bracket whose width is a variable, and whose holes follow from it. */
const bracket = (): KadrelDocument =>
  after([
    ['variable', { name: 'w', value: '80 mm' }],
    ['variable', { name: 'unused', value: '3 mm' }],
    ['variable', { name: 'inset', value: 'w / 4' }],
    ['box', { as: 'plate', size: ['w', 40, 5], at: [100, 200, 0] }],
    ['cylinder', { as: 'drill', diameter: 6, height: 20, at: ['inset + 100 mm', 220, -5] }],
    ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
    ['dock', { at: [100, 220, 0], part: 'bracket', out: '-z', kind: 'wall', called: 'foot' }],
  ]);

const gathered = (document = bracket(), version = 1): RackPart =>
  gatheredPart(document, named(document, 'bracket').id, {
    id: 'rack1',
    version,
    name: 'Bracket',
    about: '',
    words: [],
  });

test('a part on a rack brings what it is made from, and the variables that it needs and no others', () => {
  const part = gathered();
  expect(rackPartSchema.parse(part)).toEqual(part);
  expect(rackPartFault(part)).toBeUndefined();
  expect(part.variables).toEqual({ w: '80 mm', inset: 'w / 4' });
  expect(part.parameters).toEqual([{ name: 'w', label: 'W', kind: 'length' }]);
  expect(Object.keys(part.items)).toHaveLength(3);
});

test('it is taken at a size into a project of other units, under ids of its own, and made anew there', () => {
  const inInches = emptyDocument({ units: 'in' });
  const part = gathered();
  const document = after(
    [['take', { part, values: { w: '2 in' }, at: ['1', '0', '0'], as: 'first' }]],
    inInches,
  );
  const item = named(document, 'first');
  expect(item.placement.origin).toEqual([25.4, 0, 0]);
  expect(item.taken).toMatchObject({ values: { w: 50.8 } });
  const plate = named(document, 'plate');
  expect(plate.recipe.base).toMatchObject({ kind: 'box', size: [50.8, 40, 5] });
  const wider = after([['change-taken', { part: 'first', values: { w: '4 in' } }]], document);
  expect(named(wider, 'plate')).toMatchObject({ id: plate.id, recipe: { base: { size: [101.6, 40, 5] } } });
  expect(named(wider, 'first').placement).toEqual(item.placement);
  expect(refusal(document, ['change-taken', { part: 'first', values: { width: '4' } }])).toMatch(
    /no parameter width; it has w/,
  );
  expect(refusal(document, ['take', { part, values: { w: '-1' } }])).toMatch(/Bracket/);
});

test('values by formulas follow the variables of the project', () => {
  const document = after([
    ['variable', { name: 'gap', value: '30 mm' }],
    ['take', { part: gathered(), values: { w: '2 * gap' }, as: 'it' }],
    ['variable', { name: 'gap', value: '45 mm' }],
  ]);
  expect(named(document, 'plate').recipe.base).toMatchObject({ size: [90, 40, 5] });
  expect(named(document, 'it').taken!.values).toEqual({ w: { formula: '2 * gap', value: 90 } });
  expect(refusal(document, ['variable', { name: 'gap', value: '0 mm' }])).toMatch(/it/);
});

test('one that follows is brought to a newer version, its own copy is left alone, and joints stay', () => {
  const source = bracket();
  const old = gathered(source);
  const taken = after([
    ['take', { part: old, as: 'follower', follow: 'follows' }],
    ['take', { part: old, as: 'own' }],
    ['box', { as: 'wall', size: [200, 200, 10], at: [0, 300, 0] }],
    ['dock', { at: [50, 350, 10], part: 'wall', out: 'z', kind: 'wall', called: 'place' }],
    ['join-docks', { dock: 'follower: foot', onto: 'wall: place' }],
  ]);
  expect(Object.keys(taken.rackParts)).toHaveLength(1);
  const thicker = after([['change', { parts: ['plate'], size: ['now', 'now', '8'] }]], source);
  const fresh = gathered(thicker, 2);
  const updated = after([['update-taken', { parts: ['follower'], to: fresh }]], taken);
  const plates = Object.values(updated.items).filter(({ name }) => name.startsWith('plate'));
  expect(plates.map(({ recipe }) => (recipe.base as { size: number[] }).size[2])).toEqual([8, 5]);
  expect(updated.joints).toEqual(taken.joints);
  expect(
    Object.values(updated.rackParts)
      .map(({ version }) => version)
      .sort(),
  ).toEqual([1, 2]);
  const back = after([['update-taken', { parts: ['own'], to: fresh }]], updated);
  expect(Object.values(back.rackParts).map(({ version }) => version)).toEqual([2]);
});

test('a copy of what was taken is made anew by itself, and a link follows what it is linked to', () => {
  const document = after([
    ['take', { part: gathered(), as: 'first' }],
    ['duplicate', { parts: ['first'], by: [0, 300, 0], as: 'second' }],
    ['duplicate', { parts: ['first'], kind: 'linked', by: [0, 600, 0], as: 'third' }],
    ['change-taken', { part: 'second', values: { w: 50 } }],
  ]);
  const widths = Object.values(document.items)
    .filter(({ name }) => name.startsWith('plate'))
    .map(({ recipe }) => (recipe.base as { size: number[] }).size[0]);
  expect(widths).toEqual([80, 50]);
  expect(named(document, 'second').placement.origin).toEqual([0, 300, 0]);
  expect(refusal(document, ['change-taken', { part: 'third', values: { w: 50 } }])).toMatch(
    /was not taken from a rack/,
  );
});

test('what was changed since it was taken is not thrown away', () => {
  const document = after([
    ['take', { part: 'Dowel', size: '8', as: 'pin' }],
    ['resize', { parts: ['pin'], by: ['1', '1', '2'], about: 'point', at: [0, 0, 0] }],
  ]);
  expect(refusal(document, ['change-taken', { part: 'pin', size: '10' }])).toMatch(
    /pin was changed since it was taken/,
  );
  const again = after([['reset', { parts: ['pin'], what: 'size' }]], document);
  expect(
    named(after([['change-taken', { part: 'pin', size: '10' }]], again), 'pin').recipe.base,
  ).toMatchObject({ diameter: 10 });
});

test('what is made from profiles is taken with them, as one group that is joined as one', () => {
  const document = after([
    ['take', { part: 'Steel angle', size: '50 × 50 × 5', values: { long: 300 }, as: 'first' }],
    [
      'take',
      {
        part: 'Steel angle',
        size: '50 × 50 × 5',
        values: 'long = 200',
        onto: 'first: B',
        by: 'A',
        as: 'second',
      },
    ],
  ]);
  const second = named(document, 'second');
  expect(second.recipe.base.kind).toBe('group');
  expect(second.placement.origin).toEqual([0, 0, 300]);
  expect(Object.values(document.joints)).toHaveLength(1);
  const grown = after(
    [
      ['box', { as: 'label', size: [10, 10, 1] }],
      ['arrange', { parts: ['label'], into: 'second' }],
      ['change-taken', { part: 'second', size: '60 × 60 × 6' }],
    ],
    document,
  );
  expect(named(grown, 'label').parent).toBe(second.id);
  expect(refusal(document, ['take', { part: 'Steel angle', size: '51' }])).toMatch(
    /no size 51; it has 30 × 30 × 3/,
  );
  expect(refusal(document, ['take', { part: 'Bicycle' }])).toMatch(
    /No rack at hand has a part named Bicycle/,
  );
});

test('twelve tiles and a tower of the starter rack stand on the bed, each joined to the one before', () => {
  const tiles = ['Straight track', 'Bend track', 'Bend track', 'Straight track'];
  const steps: Step[] = [['take', { part: 'Tower', as: 'tile 0' }]];
  for (let i = 1; i <= 12; i++)
    steps.push(['take', { part: tiles[i % 4]!, as: `tile ${i}`, onto: `tile ${i - 1}`, by: 'A' }]);
  const document = after(steps);
  expect(Object.values(document.joints)).toHaveLength(12);
  for (const { placement } of Object.values(document.items).filter(({ parent }) => parent === null))
    expect(placement.origin[2]).toBe(0);
});
