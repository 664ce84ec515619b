/** Ledgers through every verb, and what they come to: kept in a file, so that a change of the house can be held against it. */
import { createHash } from 'node:crypto';
import {
  emptyDocument,
  isRefusal,
  kindOfRefusal,
  itemsIn,
  perform,
  refuse,
  topOf,
  VERBS,
  verbNamed,
  type KadrelDocument,
  type Refusal,
  type Verb,
} from '@kadrel/core';
import { BuildError, faceNamesOf, worldOf, type Evaluator } from '@kadrel/kernel';
import { numbers, type Statement } from '@kadrel/testing';
import { valuesFor } from './values.ts';

/** What a part at the top comes to, in the world: mm, mm², mm³. */
export interface Measured {
  readonly name: string;
  readonly volume: number;
  readonly area: number;
  readonly box: readonly number[];
  readonly faces: string;
}

export interface Golden {
  readonly statements: readonly Statement[];
  /** The title of each statement, or the code and the blank of its refusal. */
  readonly titles: readonly string[];
  readonly parts: readonly Measured[];
}

/** How many other values are tried before a verb is left refused. */
const TRIES = 25;
const VERBS_A_LEDGER = 5;
/** What takes a kernel much longer than all else does not get into random ledgers. */
const SLOW_MS = 4000;

/** A ledger that goes on from a few solids and profiles with some verbs, among them those whose turn it is. */
export function randomLedger(kernel: Evaluator, seed: number): Golden {
  const random = numbers(seed);
  const run = new Run(kernel);
  for (const statement of beginning(random)) run.say(statement);
  for (let i = 0; i < VERBS_A_LEDGER; i++) {
    const verb = VERBS[(seed * VERBS_A_LEDGER + i) % VERBS.length]!;
    sayAny(run, verb, { random, label: `N${i}` });
  }
  return run.golden();
}

function sayAny(run: Run, verb: Verb, { random, label }: { random: () => number; label: string }): void {
  for (let i = 0; i < TRIES; i++) {
    const typed = valuesFor(verb, { random, document: run.document, kernel: run.kernel, label });
    if (!run.accepts([verb.id, typed]) && i < TRIES - 1) continue;
    run.say([verb.id, typed]);
    return;
  }
}

export function replay(kernel: Evaluator, statements: readonly Statement[]): Golden {
  const run = new Run(kernel);
  for (const statement of statements) run.say(statement);
  return run.golden();
}

/** Sizes and places that differ from ledger to ledger, so that parts meet or do not. */
function beginning(random: () => number): Statement[] {
  const n = (min: number, max: number) => Math.round((min + random() * (max - min)) * 2) / 2;
  const at = () => [n(-20, 20), n(-20, 20), n(-10, 10)];
  return [
    ['variable', { name: 'w', value: n(5, 12) }],
    ['box', { as: 'Block', size: [n(20, 50), n(20, 50), n(10, 30)], at: at() }],
    ['cylinder', { as: 'Rod', diameter: 'w', height: n(20, 60), at: at() }],
    ['rectangle', { as: 'Plate', width: n(20, 60), height: n(20, 40), at: [70, 0, 0] }],
    ['circle', { as: 'Disc', diameter: n(5, 30), at: [n(-80, -60), n(0, 20), n(0, 10)] }],
    [
      'curve',
      {
        as: 'Run',
        points: [
          [0, 60, 0],
          [n(20, 40), n(70, 90), 0],
          [n(50, 80), 60, 0],
        ],
      },
    ],
    ['raise', { as: 'Slab', profiles: ['Plate'], height: n(4, 20) }],
    ...MORE.filter(() => random() < 0.6).flatMap((more) => more(n)),
  ];
}

type Between = (min: number, max: number) => number;

/** What some verbs need to have something to do. */
const MORE: readonly ((n: Between) => Statement[])[] = [
  (n) => [
    [
      'traverse',
      {
        as: 'Yard',
        legs: [
          { dx: n(20, 40), dy: 0 },
          { dx: 0, dy: n(20, 40) },
          { dx: -10, dy: 5 },
        ],
        at: [0, -90, 0],
      },
    ],
  ],
  (n) => [['wall', { as: 'Fence', profile: 'Run', thickness: n(1, 4), height: n(10, 30) }]],
  (n) => [
    [
      'tiers',
      {
        as: 'Stack',
        levels: [
          { below: n(20, 30), height: n(4, 9) },
          { below: n(8, 19), height: n(4, 9) },
        ],
        at: [90, 90, 0],
      },
    ],
  ],
  () => [['revolve', { as: 'Bowl', profiles: ['Disc'], axis: 'y', half: 'right', angle: 200 }]],
  (n) => [
    ['circle', { as: 'Low', diameter: n(10, 20), at: [-90, -90, 0] }],
    ['plane', { as: 'Deck', offset: n(12, 30) }],
    ['rectangle', { as: 'High', width: n(10, 20), height: 9, at: [-95, -95, 0], on: 'Deck' }],
    ['loft', { as: 'Horn', profiles: ['Low', 'High'] }],
  ],
  (n) => [['raise', { as: 'Skin', profiles: ['Run'], height: n(5, 20), ends: 'open' }]],
  (n) => [
    ['box', { as: 'Peg', size: [n(2, 5), n(2, 5), n(2, 9)], at: [0, 100, 0] }],
    ['along', { as: 'Row', parts: ['Peg'], along: 'x', count: 4, pitch: n(6, 12) }],
  ],
  (n) => [
    ['sphere', { as: 'Ball', diameter: n(10, 20), at: [100, -100, 0] }],
    ['box', { as: 'Cube', size: [n(10, 20), 9, 9], at: [100, -100, 0] }],
    ['union', { as: 'Both', parts: ['Ball', 'Cube'] }],
  ],
  (n) => [['pin', { at: [n(0, 9), n(0, 9), n(0, 9)], as: 'Mark' }]],
  () => [
    [
      'keep-view',
      {
        as: 'Look',
        view: { target: [0, 0, 0], bearing: 20, altitude: 30, height: 100, projection: 'parallel' },
      },
    ],
  ],
  (n) => [
    ['text', { as: 'Word', text: 'Ko', height: n(4, 7), at: [72, 3, 0] }],
    ['emboss', { part: 'Slab', profiles: ['Word'], depth: n(0.5, 2) }],
  ],
  (n) => [['corner', { profile: 'Plate', size: n(1, 5) }]],
  () => [['duplicate', { parts: ['Block'], by: [0, -120, 0], as: 'Twin', kind: 'linked' }]],
  () => [['group', { as: 'Kit', parts: ['Block', 'Rod'] }]],
];

class Run {
  document: KadrelDocument = emptyDocument();
  private readonly statements: Statement[] = [];
  private readonly titles: string[] = [];
  private ids = 0;

  constructor(readonly kernel: Evaluator) {}

  say(statement: Statement): void {
    const done = this.done(statement);
    this.statements.push(statement);
    if (isRefusal(done)) this.titles.push(`refused: ${kindOfRefusal(done)}, ${done.blank ?? ''}`);
    else {
      this.titles.push(done.title);
      this.document = done.document;
    }
  }

  accepts(statement: Statement): boolean {
    const started = performance.now();
    const ids = this.ids;
    const isAccepted = !isRefusal(this.done(statement));
    this.ids = ids;
    return isAccepted && performance.now() - started < SLOW_MS;
  }

  /** What throws is a fault of ours: it is reported, and the ledger goes on without it. */
  private done(statement: Statement): { document: KadrelDocument; title: string } | Refusal {
    try {
      return this.performed(statement);
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      process.stderr.write(`${JSON.stringify(statement)} throws: ${words}\n`);
      return refuse('kernel.failed', { what: words });
    }
  }

  private performed([verb, typed]: Statement): { document: KadrelDocument; title: string } | Refusal {
    const world = worldOf(this.document, this.kernel, () => `p${++this.ids}`);
    const done = perform(verbNamed(verb)!, typed, this.document, world);
    if (isRefusal(done)) return done;
    const changed = itemsIn(done.document).filter((item) => this.document.items[item.id] !== item);
    for (const id of new Set(changed.map((item) => topOf(done.document, item.id))))
      if (this.kernel.problemOf(done.document, id))
        return refuse('not-built.kernel', { reason: '', remedy: '' }, 'kernel');
    return done;
  }

  golden(): Golden {
    const tops = itemsIn(this.document).filter(({ parent }) => parent === null);
    return {
      statements: this.statements,
      titles: this.titles,
      parts: tops.map(({ id }) => measured(this.kernel, this.document, id)),
    };
  }
}

const NOT_BUILT = { volume: NaN, area: NaN, box: [] };

function measured(kernel: Evaluator, document: KadrelDocument, id: string): Measured {
  const { name, recipe } = document.items[id]!;
  const problem = kernel.problemOf(document, id);
  // A part goes on without a step that cannot be done; what it was to be is not there.
  if (problem && problem.step !== null) return { name, ...NOT_BUILT, faces: problem.reason };
  try {
    const { volume, area, box } = kernel.measure(document, id);
    const isWhole = ['pattern', 'group'].includes(recipe.base.kind);
    const names = isWhole ? [] : faceNamesOf(kernel.facts(document, id));
    const faces = createHash('sha1').update(names.toSorted().join('\n')).digest('hex').slice(0, 8);
    return { name, volume, area, box: [...box.min, ...box.max], faces: `${names.length} ${faces}` };
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    return { name, ...NOT_BUILT, faces: error.reason };
  }
}
