import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { said } from '@kadrel/testing';
import { isRefusal } from '../statement/declare.ts';
import { verbNamed } from '../verbs/index.ts';
import { perform } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';
import { boundFault, blankOf, fieldOf, fieldsOf } from './fields.ts';
import { SIZED, baseKind } from './index.ts';
import { raise } from './bodies/raise.ts';
import { wall } from './bodies/wall.ts';
import { numberOfStep, titleOfStep } from './steps/index.ts';
import { visitFormulas } from './walk.ts';

test.each([
  [{ above: 0 }, 0, 'must be more than zero'],
  [{ above: 0 }, 1e-9, undefined],
  [{ least: 0 }, -1, 'must be 0 or more'],
  [{ least: 3, most: 9, whole: true as const }, 4.5, 'must be a whole number from 3 to 9'],
  [{ most: 9 }, 10, 'must be at most 9'],
  [{}, -1e9, undefined],
  [{ above: 0 }, NaN, 'must be more than zero'],
])('%p holds %p or says why not', (bounds, value, fault) => {
  expect(boundFault(bounds, value)).toBe(fault);
});

const TYPES = {
  number: 'quantity',
  vector: 'quantities',
  numbers: 'numbers',
  choice: 'choice',
  flag: 'choice',
  text: 'text',
  edges: 'edges',
  faces: 'faces',
  places: 'places',
};

test('every field of every recipe is a blank of Change, and of one type everywhere', () => {
  const { blanks } = verbNamed('change')!;
  for (const kind of SIZED)
    for (const [key, field] of fieldsOf(kind.schema)) {
      const blank = blanks[blankOf(key, field)];
      expect([kind.kind, key, blank?.type]).toEqual([kind.kind, key, TYPES[field.type]]);
      if (field.type === 'choice' || field.type === 'flag')
        expect(Object.keys(blank!.choices!)).toEqual(expect.arrayContaining(Object.keys(field.choices)));
    }
});

test('what is told of a schema is told of it where it may be missing, and of no other', () => {
  expect(fieldOf(raise.schema.shape.height)).toMatchObject({ label: 'Height', least: 0 });
  expect(fieldOf(wall.schema.shape.height)).toMatchObject({ label: 'Height', above: 0 });
  expect(fieldOf(raise.schema.shape.ends)).toMatchObject({ type: 'choice' });
  expect(fieldOf(raise.schema.shape.profiles)).toBeUndefined();
});

test('formulas are found at any depth, as what they are, and nothing else is looked at', () => {
  const opening = { leg: 1, from: { formula: 'a', value: 1 }, sill: 0, width: 9, height: 20 };
  const recipe = { kind: 'wall', thickness: { formula: 'b', value: 2 }, height: 3, openings: [opening] };
  const found: string[] = [];
  visitFormulas(wall.schema, recipe, (n, { label }) => {
    found.push(`${label} ${n.formula}`);
    return { ...n, value: 7 };
  });
  expect(found).toEqual(['Thickness b', 'From a']);
  expect(recipe.thickness).toEqual({ formula: 'b', value: 7 });
  expect(opening.from).toEqual({ formula: 'a', value: 7 });
});

const typed = (document: KadrelDocument, verb: string, values: Record<string, unknown>) => {
  let ids = 100;
  return perform(
    verbNamed(verb)!,
    values,
    document,
    plainWorld(document, () => `q${++ids}`),
  );
};
const outline = () => said(emptyDocument(), 'rectangle', { as: 'outline', width: 20, height: 10 }).document;

// Once a wall or a raised part of height 0 passed, since every place had a table of its own.
test.each([
  ['wall', { as: 'body', profile: 'outline', thickness: 2, height: 'tall' }, 'must be more than zero'],
  ['raise', { as: 'body', profiles: ['outline'], height: 'tall' }, 'It would have no height.'],
  ['tube', { as: 'body', diameter: 'tall', bore: 4, height: 9 }, 'must be more than zero'],
] as const)(
  'a %s is refused a height of 0 when made, changed, or told by a variable',
  (verb, values, words) => {
    let { document } = said(outline(), 'variable', { name: 'tall', value: '10 mm' });
    ({ document } = said(document, verb, values));
    const refusal = typed(document, 'variable', { name: 'tall', value: '0 mm' });
    expect(isRefusal(refusal) && refusal.message).toContain(words);
    const blank = verb === 'tube' ? 'diameter' : 'height';
    const changed = typed(document, 'change', { parts: ['body'], [blank]: '0' });
    expect(isRefusal(changed) && changed.blank).toBe(blank);
  },
);

test('a bore that grows as wide as its tube is told where it is made, changed and recalculated', () => {
  let { document } = said(emptyDocument(), 'variable', { name: 'wide', value: '4 mm' });
  ({ document } = said(document, 'tube', { as: 'pipe', diameter: 10, bore: 'wide', height: 5 }));
  const words = 'The bore must be smaller than the diameter.';
  for (const refusal of [
    typed(document, 'tube', { diameter: 10, bore: 10, height: 5 }),
    typed(document, 'change', { parts: ['pipe'], bore: '12' }),
    typed(document, 'variable', { name: 'wide', value: '10 mm' }),
  ])
    expect(isRefusal(refusal) && refusal.message).toContain(words);
});

test('a step has a title, and its number keeps to its bounds', () => {
  const thick = { kind: 'thicken', before: 3, behind: 1 } as const;
  expect(titleOfStep(thick, '')).toBe('Thickened');
  const number = numberOfStep(thick)!;
  expect(number).toMatchObject({ label: 'Thickness', value: 4, above: 0 });
  expect(number.with(6)).toMatchObject({ before: 3, behind: 3 });
  expect(numberOfStep({ kind: 'close' })).toBeUndefined();
  expect(titleOfStep({ kind: 'trim', near: [0, 0], profiles: ['p1'] }, 'Rail')).toBe('Trimmed by Rail');
});

test('boxes follow from the numbers alone where they can', () => {
  const boxOf = (base: { readonly kind: string }) => baseKind(base)?.box?.(base);
  expect(boxOf({ kind: 'torus', diameter: 20, thickness: 4 } as { kind: string })).toEqual({
    min: [-12, -12, -2],
    max: [12, 12, 2],
  });
  expect(boxOf({ kind: 'loft' })).toBeUndefined();
});
