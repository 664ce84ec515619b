import fc from 'fast-check';
import {
  documentSchema,
  emptyDocument,
  partNamed,
  readDocument,
  topParts,
  vectorOf,
  type KadrelDocument,
} from '../index.ts';
import { applyEdit, editsCollide, ledgerOf, stepBack, undoStacks, type Edit } from '../history/edit.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { VERBS, findVerbs, verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { wordStatement } from '../statement/sentence.ts';
import { plainWorld, type World } from '../statement/world.ts';

/** A small bench for tests: statements in, documents and refusals out. */
class Bench {
  document: KadrelDocument = emptyDocument();
  readonly edits: Edit[] = [];
  private ids = 0;
  private get world(): World {
    return plainWorld(this.document, () => `p${++this.ids}`);
  }

  run(verb: string, typed: Typed): this {
    const done = perform(verbNamed(verb)!, typed, this.document, this.world);
    if (isRefusal(done)) throw new Error(`${done.blank}: ${done.message}`);
    this.document = documentSchema.parse(done.document);
    const line = { verb, values: typed, title: done.title, author: 'Test', time: this.edits.length };
    this.edits.push({
      id: `edit-${String(this.edits.length).padStart(4, '0')}`,
      kind: 'do',
      patches: done.patches,
      inverses: done.inverses,
      line,
    });
    return this;
  }

  refusal(verb: string, typed: Typed): Refusal | undefined {
    const done = perform(verbNamed(verb)!, typed, this.document, this.world);
    return isRefusal(done) ? done : undefined;
  }

  back(kind: 'undo' | 'redo'): boolean {
    const edit = stepBack(this.edits, kind, {
      id: `edit-${String(this.edits.length).padStart(4, '0')}`,
      time: 0,
      author: 'Test',
    });
    if (!edit) return false;
    this.document = applyEdit(this.document, edit);
    this.edits.push(edit);
    return true;
  }

  part(name: string) {
    return partNamed(this.document, name)!;
  }
  origin(name: string) {
    return vectorOf(this.part(name).placement.origin);
  }
}

const plateAndDrill = () =>
  new Bench()
    .run('box', { as: 'plate', size: ['100', '60', '8'], at: ['0', '0', '0'] })
    .run('cylinder', { as: 'drill', diameter: '8', height: '20', at: ['15', '15', '-5'] });

describe('making', () => {
  test('a box and a cylinder stand where they are said to', () => {
    const bench = plateAndDrill();
    expect(bench.part('plate').recipe.base).toEqual({ kind: 'box', size: [100, 60, 8] });
    expect(bench.origin('drill')).toEqual([15, 15, -5]);
  });
  test('a radius is half a diameter, and only one of the two may be given', () => {
    const bench = new Bench().run('cylinder', { as: 'peg', radius: '1/4 in', height: '2 cm' });
    expect(bench.part('peg').recipe.base).toEqual({ kind: 'cylinder', diameter: 12.7, height: 20 });
    expect(bench.refusal('cylinder', { diameter: '8', radius: '4', height: '2' })?.blank).toBe('radius');
    expect(bench.refusal('cylinder', { height: '2' })).toMatchObject({ blank: 'diameter', code: 'missing' });
  });
  test('sizes of zero and less are refused', () =>
    expect(new Bench().refusal('box', { size: ['10', '0', '5'] })).toMatchObject({
      blank: 'size',
      code: 'not-positive.more',
    }));
  test('names stay apart', () =>
    expect(
      topParts(new Bench().run('box', { size: [1, 1, 1] }).run('box', { size: [1, 1, 1] }).document).map(
        (p) => p.name,
      ),
    ).toEqual(['Box', 'Box 2']));
});

describe('move', () => {
  test('goes by numbers, from a point to a point, and along one axis only', () => {
    const bench = plateAndDrill().run('move', { parts: ['plate'], by: ['0', '0', '1/2 in'] });
    expect(bench.origin('plate')).toEqual([0, 0, 12.7]);
    bench.run('move', { parts: ['drill'], from: ['15', '15', '-5'], to: ['100', '60', '20'], along: 'z' });
    expect(bench.origin('drill')).toEqual([15, 15, 20]);
  });
  test('leaves a copy behind when asked', () => {
    const bench = plateAndDrill().run('move', { parts: ['drill'], by: ['10', '0', '0'], leaving: 'copy' });
    expect([bench.origin('drill'), bench.origin('drill 2')]).toEqual([
      [25, 15, -5],
      [15, 15, -5],
    ]);
  });
  // Thirds and sevenths of a millimetre stay on their grid within 100 m of the origin (rounding.ts says why).
  test('a part moved away and back has the bits it had', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 20 }), (steps) => {
        const bench = new Bench().run('box', {
          as: 'a',
          size: ['1', '1', '1'],
          at: ['0.1', '1/3', '1/64 in'],
        });
        const before = bench.origin('a');
        const by = steps.map((n) => [n / 1000, -n / 7000, n / 64].map((x) => `${x} mm`));
        for (const v of by) bench.run('move', { parts: ['a'], by: v });
        for (const v of by.toReversed()) bench.run('move', { parts: ['a'], by: v.map((t) => `-(${t})`) });
        expect(bench.origin('a')).toEqual(before);
      }),
      { numRuns: 50 },
    ));
  test('locked parts and half-filled blanks are refused with the blank', () => {
    const bench = plateAndDrill().run('change', { parts: ['plate'], locked: 'yes' });
    expect(bench.refusal('move', { parts: ['plate'], by: ['1', '0', '0'] })).toMatchObject({
      code: 'locked',
      blank: 'parts',
    });
    expect(bench.refusal('move', { parts: ['drill'], from: ['0', '0', '0'] })).toMatchObject({
      code: 'missing.move',
      blank: 'to',
    });
    expect(bench.refusal('move', { parts: ['nobody'] })).toMatchObject({
      code: 'unknown-part',
      blank: 'parts',
    });
    expect(bench.refusal('move', { parts: ['drill'], by: ['1', '2', '3 kg'] })).toMatchObject({
      blank: 'by',
      at: 2,
    });
  });
});

describe('combining', () => {
  test('operands stay below the result, and a second subtraction adds to them', () => {
    const bench = plateAndDrill().run('subtract', { as: 'bracket', from: 'plate', parts: ['drill'] });
    bench.run('cylinder', { as: 'drill b', diameter: '8', height: '20', at: ['85', '15', '-5'] });
    bench.run('subtract', { from: 'bracket', parts: ['drill b'] });
    expect(topParts(bench.document).map((p) => p.name)).toEqual(['bracket']);
    const { base } = bench.part('bracket').recipe;
    expect(base.kind === 'combine' && base.operands.map((id) => bench.document.items[id]!.name)).toEqual([
      'plate',
      'drill',
      'drill b',
    ]);
  });
  test('without a name the result takes that of its base', () => {
    const bench = plateAndDrill().run('subtract', { from: 'plate', parts: ['drill'] });
    expect(topParts(bench.document).map((p) => p.name)).toEqual(['plate']);
    expect(bench.part('plate (base)').parent).toBe(bench.part('plate').id);
  });
  test('an operand added to a moved combination keeps its place in the world', () => {
    const bench = plateAndDrill()
      .run('subtract', { as: 'b', from: 'plate', parts: ['drill'] })
      .run('move', { parts: ['b'], by: [10, 20, 30] });
    bench
      .run('box', { as: 'slot', size: [5, 5, 50], at: [50, 50, 0] })
      .run('subtract', { from: 'b', parts: ['slot'] });
    expect(bench.origin('slot')).toEqual([40, 30, -30]);
  });
  test('the base of a subtraction cannot be deleted from under it', () => {
    const bench = plateAndDrill().run('subtract', { as: 'bracket', from: 'plate', parts: ['drill'] });
    expect(bench.refusal('delete', { parts: ['plate'] })?.code).toBe('needed.made-delete');
    bench.run('delete', { parts: ['drill'] }).run('delete', { parts: ['bracket'] });
    expect(Object.keys(bench.document.items)).toEqual([]);
  });
  test('a part cannot be used twice', () => {
    const bench = plateAndDrill().run('union', { as: 'u', parts: ['plate', 'drill'] });
    expect(bench.refusal('subtract', { from: 'u', parts: ['drill'] })?.code).toBe('operand.already');
    expect(bench.refusal('union', { parts: ['u'] })?.code).toBe('too-few.parts-pattern');
  });
});

describe('change', () => {
  test('sets one size and leaves the others', () => {
    const bench = plateAndDrill().run('change', { parts: ['plate'], size: ['now', 'now + 20', '10'] });
    expect(bench.part('plate').recipe.base).toEqual({ kind: 'box', size: [100, 80, 10] });
  });
  test('keeps the datum in its place when the size changes', () => {
    const bench = plateAndDrill()
      .run('change', { parts: ['plate'], datum: '0 0 1' })
      .run('change', { parts: ['plate'], size: ['120', '60', '8'] });
    expect(bench.origin('plate')).toEqual([-10, 0, 0]);
    bench.run('change', { parts: ['plate'], at: ['0', '0', '0'] });
    expect(bench.origin('plate')).toEqual([-60, -30, -8]);
  });
  test('turns about the datum', () => {
    const bench = plateAndDrill()
      .run('change', { parts: ['plate'], datum: '0 0 0' })
      .run('change', { parts: ['plate'], turn: ['0', '0', '90'] });
    expect(bench.origin('plate')).toEqual([80, -20, 0]);
  });
  test('says what a part does not have', () => {
    const bench = plateAndDrill();
    expect(bench.refusal('change', { parts: ['plate'], diameter: '3' })).toMatchObject({
      code: 'no-such-size',
      blank: 'diameter',
    });
    expect(bench.refusal('change', { parts: ['plate'], colour: 'red' })?.code).toBe('colour');
    expect(bench.refusal('change', { parts: ['plate'], size: ['now', 'now', '3 +'] })).toMatchObject({
      code: 'unfinished',
      blank: 'size',
      at: 3,
    });
  });
  test('copies stand apart from their originals', () => {
    const bench = plateAndDrill()
      .run('subtract', { as: 'b', from: 'plate', parts: ['drill'] })
      .run('duplicate', { parts: ['b'], by: ['200', '0', '0'], as: 'c' });
    bench.run('change', { parts: ['drill'], diameter: '10' });
    expect([bench.part('drill').recipe.base, bench.part('drill 2').recipe.base]).toMatchObject([
      { diameter: 10 },
      { diameter: 8 },
    ]);
    expect(bench.part('c').recipe.base).toMatchObject({
      kind: 'combine',
      operands: [bench.part('plate 2').id, bench.part('drill 2').id],
    });
  });
});

describe('variables', () => {
  test('carry the sizes that refer to them', () => {
    const bench = new Bench()
      .run('variable', { name: 'wall', value: '3' })
      .run('box', { as: 'a', size: ['10', '2 * wall', 'wall'] });
    bench.run('variable', { name: 'wall', value: '4 mm' });
    expect(bench.part('a').recipe.base).toMatchObject({
      size: [10, { formula: '2 * wall', value: 8 }, { formula: 'wall', value: 4 }],
    });
  });
  test('a value that would break a part is refused', () => {
    const bench = new Bench()
      .run('variable', { name: 'wall', value: '3' })
      .run('box', { size: ['10', '10', 'wall - 2'] });
    expect(bench.refusal('variable', { name: 'wall', value: '1' })?.code).toBe('formula.out-of-bounds');
    expect(bench.refusal('variable', { name: 'wall', value: 'wall' })?.code).toBe('cycle');
  });
});

describe('history', () => {
  test('undo and redo go all the way back and forth, to the same document', () => {
    const bench = plateAndDrill()
      .run('subtract', { from: 'plate', parts: ['drill'] })
      .run('move', { parts: ['plate'], by: [1, 2, 3] });
    const last = bench.document;
    while (bench.back('undo'));
    expect(bench.document).toEqual(emptyDocument());
    while (bench.back('redo'));
    expect(bench.document).toEqual(last);
  });
  test('a new statement after an undo leaves nothing to redo', () => {
    const bench = plateAndDrill();
    bench.back('undo');
    bench.run('rename', { part: 'plate', to: 'base' });
    expect(undoStacks(bench.edits).redo).toEqual([]);
    expect(ledgerOf(bench.edits).map(({ line }) => line.title)).toEqual([
      'Box 100 × 60 × 8 with its corner at 0, 0, 0 named plate',
      'Rename plate to base',
    ]);
  });
  test('edits of different parts do not collide, of the same number they do', () => {
    const bench = plateAndDrill();
    const start = bench.edits.length;
    bench
      .run('move', { parts: ['plate'], by: [1, 0, 0] })
      .run('move', { parts: ['drill'], by: [1, 0, 0] })
      .run('move', { parts: ['plate'], by: [2, 0, 0] });
    const [a, b, c] = bench.edits.slice(start);
    expect(editsCollide([a!], [b!])).toBe(false);
    expect(editsCollide([a!], [c!])).toBe(true);
  });
});

describe('declarations', () => {
  test('every sentence names blanks that exist, and every needed blank is in its sentence', () => {
    for (const verb of VERBS) {
      const named = [...verb.sentence.matchAll(/\{(\w+)\}/g)].map(([, id]) => id!);
      expect(named.filter((id) => !verb.blanks[id])).toEqual([]);
      expect(
        Object.entries(verb.blanks).filter(([id, blank]) => !blank.optional && !named.includes(id)),
      ).toEqual([]);
    }
  });
  test('keys are given once', () => {
    const keys = VERBS.flatMap((verb) => verb.key ?? []);
    expect(new Set(keys).size).toBe(keys.length);
  });
  test('everyday words find verbs', () => {
    expect(findVerbs('hole')[0]?.id).toBe('hole');
    expect(findVerbs('drill').map((v) => v.id)).toContain('subtract');
    expect(findVerbs('mo')[0]?.id).toBe('move');
  });
  test('exact millimetres of a pick are worded in scene units', () => {
    const document = emptyDocument({ units: 'cm' });
    expect(
      wordStatement(
        verbNamed('box')!,
        { size: ['123.456789 mm', '2 in', '3'], at: ['0', '0', '0'] },
        document,
      ),
    ).toBe('Box 12.35 cm × 2 in × 3 with its corner at 0, 0, 0');
  });
});

describe('stored documents', () => {
  test('are refused with a sentence when they are not what they say', () => {
    expect(() => readDocument({ some: 'thing' })).toThrow('This is not a Kadrel document.');
    expect(() => readDocument({ ...emptyDocument(), kadrel: 99 })).toThrow('version 99');
    const bad = plateAndDrill().document as unknown as { items: Record<string, { parent: string }> };
    expect(() =>
      readDocument({ ...bad, items: { ...bad.items, p1: { ...bad.items.p1, parent: 'p2' } } }),
    ).toThrow('does not use it');
  });
  test('come back as they were', () => {
    const { document } = plateAndDrill().run('union', { parts: ['plate', 'drill'] });
    expect(readDocument(JSON.parse(JSON.stringify(document)))).toEqual(document);
  });
});

test('every sentence begins with the name of its verb, which the bar shows apart', () => {
  const others = VERBS.filter(({ name, sentence }) => !sentence.startsWith(name)).map(({ id }) => id);
  expect(others).toEqual([]);
});
