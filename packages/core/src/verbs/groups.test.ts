import { emptyDocument, standingParts, topParts, vectorOf, worldFromPart } from '../document/items.ts';
import { childrenOf, documentSchema, type KadrelDocument } from '../document/schema.ts';
import { carry } from '../space/pose.ts';
import { isRefusal, type Refusal } from '../statement/declare.ts';
import { verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';

type Statement = readonly [verb: string, typed: Record<string, unknown>];

class Bench {
  document: KadrelDocument = emptyDocument();
  private ids = 0;
  private perform([verb, typed]: Statement) {
    const world = plainWorld(this.document, () => `p${++this.ids}`);
    return perform(verbNamed(verb)!, typed, this.document, world);
  }
  say(...statements: Statement[]): this {
    for (const statement of statements) {
      const done = this.perform(statement);
      if (isRefusal(done)) throw new Error(`${statement[0]}, ${done.blank}: ${done.message}`);
      this.document = documentSchema.parse(done.document);
    }
    return this;
  }
  refusal(statement: Statement): Refusal | undefined {
    const done = this.perform(statement);
    return isRefusal(done) ? done : undefined;
  }
  part(name: string) {
    return Object.values(this.document.items).find((item) => item.name === name)!;
  }
  at(name: string) {
    return worldFromPart(this.document, this.part(name).id).shift;
  }
  below(name: string) {
    return childrenOf(this.part(name)).map((id) => this.document.items[id]!.name);
  }
  get top() {
    return topParts(this.document).map(({ name }) => name);
  }
}

const box = (as: string, x: number): Statement => ['box', { as, size: [10, 10, 10], at: [x, 0, 0] }];
const three = () => new Bench().say(box('A', 0), box('B', 20), box('C', 40));

describe('groups', () => {
  test('stand together, nest, and come apart where everything is', () => {
    const bench = three().say(
      ['group', { parts: ['A', 'B'], as: 'Pair' }],
      ['group', { parts: ['Pair', 'C'], as: 'All' }],
    );
    expect(bench.top).toEqual(['All']);
    expect(standingParts(bench.document).map(({ name }) => name)).toEqual(['A', 'B', 'C']);
    bench.say(
      ['turn', { parts: ['All'], angle: 90, centre: 'point', at: [0, 0, 0] }],
      ['move', { parts: ['Pair'], by: [0, 0, 5] }],
    );
    expect(bench.at('B')).toEqual([0, 20, 5]);
    expect(bench.at('C')).toEqual([0, 40, 0]);
    bench.say(['ungroup', { parts: ['All'] }]);
    expect(bench.top).toEqual(['Pair', 'C']);
    bench.say(['ungroup', { parts: ['Pair'] }]);
    expect(bench.top).toEqual(['A', 'B', 'C']);
    expect(bench.at('B')).toEqual([0, 20, 5]);
    expect(vectorOf(bench.part('C').placement.turn)).toEqual([0, 0, 90]);
  });

  test('are resized as one, about a point', () => {
    const bench = three().say(
      ['group', { parts: ['A', 'B', 'C'], as: 'All' }],
      ['resize', { parts: ['All'], by: ['2', '1', '1'], about: 'point', at: [0, 0, 0] }],
    );
    expect(bench.at('C')).toEqual([80, 0, 0]);
    const { base } = bench.part('C').recipe;
    expect(base.kind === 'box' && vectorOf(base.size)).toEqual([20, 10, 10]);
  });

  test('have the datum of the box round them, for numbers too', () => {
    const bench = three().say(
      ['group', { parts: ['B', 'C'], as: 'Pair' }],
      ['change', { parts: ['Pair'], at: ['0', '5', '7'] }],
    );
    expect(bench.at('B')).toEqual([0, 5, 7]);
    expect(bench.at('C')).toEqual([20, 5, 7]);
  });

  test('are not moved with a locked part in them, nor grouped out of what is made from something else', () => {
    const bench = three().say(['group', { parts: ['A', 'B'], as: 'Pair' }], ['lock', { parts: ['B'] }]);
    expect(bench.refusal(['move', { parts: ['Pair'], by: [1, 0, 0] }])?.code).toBe('locked');
    const cut = three().say(['subtract', { from: 'A', parts: ['B'], as: 'Cut' }]);
    expect(cut.refusal(['group', { parts: ['B', 'C'] }])?.code).toBe('operand.parts');
    expect(cut.refusal(['ungroup', { parts: ['Cut'] }])?.code).toBe('no-group');
  });

  test('parts of a group are combined in it; the last that goes takes the group along', () => {
    const bench = three().say(
      ['group', { parts: ['A', 'B'], as: 'Pair' }],
      ['move', { parts: ['Pair'], by: [5, 5, 5] }],
      ['union', { parts: ['A', 'C'], as: 'Joined' }],
    );
    expect(bench.below('Pair')).toEqual(['Joined', 'B']);
    expect(bench.at('C')).toEqual([40, 0, 0]);
    bench.say(['delete', { parts: ['Joined'] }], ['delete', { parts: ['B'] }]);
    expect(bench.top).toEqual([]);
  });
});

describe('the tree', () => {
  test('is ordered: before another, last, into a group, and out of it', () => {
    const bench = three().say(['arrange', { parts: ['C'], before: 'A' }]);
    expect(bench.top).toEqual(['C', 'A', 'B']);
    bench.say(['arrange', { parts: ['C'] }]);
    expect(bench.top).toEqual(['A', 'B', 'C']);
    bench.say(
      ['group', { parts: ['A'], as: 'G' }],
      ['move', { parts: ['G'], by: [100, 0, 0] }],
      ['arrange', { parts: ['B', 'C'], into: 'G' }],
      ['arrange', { parts: ['C'], before: 'A' }],
    );
    expect(bench.below('G')).toEqual(['C', 'A', 'B']);
    // Everything stays where it is in the world.
    expect(bench.at('C')).toEqual([40, 0, 0]);
    bench.say(['arrange', { parts: ['A'], before: 'G' }]);
    expect(bench.top).toEqual(['A', 'G']);
    expect(bench.at('A')).toEqual([100, 0, 0]);
  });

  test('keeps what is cut first, and nothing goes into itself', () => {
    const bench = three().say(['subtract', { from: 'A', parts: ['B', 'C'], as: 'Cut' }]);
    bench.say(['arrange', { parts: ['C'], before: 'B' }]);
    expect(bench.below('Cut')).toEqual(['A', 'C', 'B']);
    expect(bench.refusal(['arrange', { parts: ['B'], before: 'A' }])?.code).toBe('needed.before');
    expect(bench.refusal(['arrange', { parts: ['B'] }])?.code).toBe('operand.parts');
    const groups = three().say(
      ['group', { parts: ['A'], as: 'G' }],
      ['group', { parts: ['G', 'B'], as: 'H' }],
    );
    expect(groups.refusal(['arrange', { parts: ['H'], into: 'G' }])?.code).toBe('circle.into');
  });

  test('names many at once, with numbers', () => {
    const bench = three().say(['number', { parts: ['C', 'A'], to: 'Post ##', from: 9 }]);
    expect(bench.top).toEqual(['Post 10', 'B', 'Post 09']);
    expect(bench.refusal(['number', { parts: ['Post 10', 'Post 09'], to: 'B' }])).toBeUndefined();
    expect(bench.refusal(['number', { parts: ['Post 10'], to: '#', from: -1 }])?.code).toBe('count.from');
    expect(
      bench
        .say(['rename', { part: 'B', to: 'Rail 2' }])
        .refusal(['number', { parts: ['Post 10', 'Post 09'], to: 'Rail' }])?.code,
    ).toBe('name-taken.part-named-already');
  });
});

describe('linked copies', () => {
  const linked = () =>
    three().say(
      ['duplicate', { parts: ['A'], kind: 'linked', as: 'A2', by: [0, 50, 0] }],
      ['duplicate', { parts: ['A2'], kind: 'linked', as: 'A3', by: [0, 50, 0] }],
    );
  const sizes = (bench: Bench) => {
    const { base } = bench.part('A').recipe;
    return base.kind === 'box' ? vectorOf(base.size) : undefined;
  };

  test('a change to one changes all, each with its own placement, name and colour', () => {
    const bench = linked().say(
      ['change', { parts: ['A3'], size: ['now', 'now', '25'] }],
      ['change', { parts: ['A2'], colour: '#112233' }],
    );
    expect(sizes(bench)).toEqual([10, 10, 25]);
    expect(bench.at('A3')).toEqual([0, 100, 0]);
    expect(bench.part('A').colour).not.toBe('#112233');
    expect(bench.part('A3').recipe.base).toEqual({ kind: 'link', to: bench.part('A').id });
  });

  test('keep their datums when the size changes', () => {
    const bench = linked()
      .say(['change', { parts: ['A2'], datum: '1 1 -1' }])
      .say(['change', { parts: ['A'], size: ['30', '10', '10'] }]);
    // The right side of A2 stood at 10 and stays there.
    expect(bench.at('A2')).toEqual([-20, 50, 0]);
  });

  test('are resized together, each about its own datum', () => {
    const bench = linked().say(
      ['turn', { parts: ['A2'], angle: 90 }],
      ['resize', { parts: ['A2'], by: ['3', '1', '1'], in: 'own' }],
    );
    expect(sizes(bench)).toEqual([30, 10, 10]);
    // Turned by 90°, what is long in X lies along Y.
    const far = carry(worldFromPart(bench.document, bench.part('A2').id), [30, 0, 0]);
    expect(far).toEqual([0, 80, 0]);
    expect(bench.at('A3')).toEqual([0, 100, 0]);
  });

  test('become independent, by hand or by being mirrored', () => {
    const bench = linked().say(
      ['unlink', { parts: ['A3'] }],
      ['change', { parts: ['A3'], size: ['99', '10', '10'] }],
    );
    expect(sizes(bench)).toEqual([10, 10, 10]);
    expect(bench.refusal(['unlink', { parts: ['A3'] }])?.code).toBe('not-linked');
    bench.say(['mirror', { parts: ['A2'], across: 'x' }]);
    expect(bench.part('A2').recipe.base.kind).toBe('box');
  });

  test('outlive what they are linked to', () => {
    const bench = linked().say(['delete', { parts: ['A'] }]);
    expect(bench.part('A2').recipe.base.kind).toBe('box');
    expect(bench.part('A3').recipe.base).toEqual({ kind: 'link', to: bench.part('A2').id });
    bench.say(['change', { parts: ['A3'], size: ['7', '7', '7'] }]);
    const { base } = bench.part('A2').recipe;
    expect(base.kind === 'box' && vectorOf(base.size)).toEqual([7, 7, 7]);
  });

  test('of a combined part stand for it as a whole, and cannot be put into it', () => {
    const bench = three().say(
      ['subtract', { from: 'A', parts: ['B'], as: 'Cut' }],
      ['duplicate', { parts: ['Cut'], kind: 'linked', as: 'Cut 2', by: [0, 50, 0] }],
    );
    expect(childrenOf(bench.part('Cut 2'))).toEqual([]);
    expect(bench.refusal(['subtract', { from: 'Cut', parts: ['Cut 2'] }])?.code).toBe('circle.parts');
    bench.say(['unlink', { parts: ['Cut 2'] }]);
    expect(bench.below('Cut 2')).toEqual(['A 2', 'B 2']);
  });

  test('of a copied group are linked within the copy', () => {
    const bench = linked().say(
      ['group', { parts: ['A', 'A2'], as: 'G' }],
      ['duplicate', { parts: ['G'], as: 'G2', by: [200, 0, 0] }],
    );
    const [master, copy] = childrenOf(bench.part('G2')).map((id) => bench.document.items[id]!);
    expect(copy!.recipe.base).toEqual({ kind: 'link', to: master!.id });
  });
});

test('a pattern of an operand stands in its place, and its count is that of the holes', () => {
  const bench = new Bench().say(
    ['box', { as: 'Plate', size: [200, 50, 8] }],
    ['cylinder', { as: 'Drill', diameter: 6, height: 20, at: [20, 25, -5] }],
    ['subtract', { from: 'Plate', parts: ['Drill'], as: 'Holed' }],
    ['along', { parts: ['Drill'], as: 'Holes', count: 5, pitch: 40 }],
  );
  expect(bench.below('Holed')).toEqual(['Plate', 'Holes']);
  expect(bench.below('Holes')).toEqual(['Drill']);
});
