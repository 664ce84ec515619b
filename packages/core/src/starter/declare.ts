/** How the parts of the starter rack are made: by ledgers, through the same verbs as a person’s statements. */
import { emptyDocument } from '../document/items.ts';
import type { Parameter, RackPart } from '../document/rack.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { isRefusal } from '../statement/declare.ts';
import { perform } from '../statement/perform.ts';
import type { Typed } from '../statement/resolving.ts';
import { plainWorld } from '../statement/world.ts';
import { verbNamed } from '../verbs/index.ts';

export type Statement = readonly [verb: string, typed: Typed];

/** A parameter by the name of its variable: what it is called, and what it is when nothing is said. */
export type Parameters = Readonly<
  Record<string, readonly [label: string, usual: string, kind?: Parameter['kind']]>
>;

export interface StarterPart {
  /** Lower case letters and digits. */
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly words: readonly string[];
  readonly parameters: Parameters;
  /** Standard sizes: a text for each parameter in order; what is left out is as usual. */
  readonly sizes?: Readonly<Record<string, readonly (string | number)[]>>;
  /** Variables that follow from the parameters. */
  readonly variables?: Readonly<Record<string, string>>;
  readonly ledger: readonly Statement[];
}

/** Raised when a part is made otherwise. */
const VERSION = 1;

/** Throws an Error where a statement is refused: that is a mistake of ours. */
export function rackPartFrom(starter: StarterPart): RackPart {
  const variables = {
    ...Object.fromEntries(Object.entries(starter.parameters).map(([name, [, usual]]) => [name, usual])),
    ...starter.variables,
  };
  const names = Object.keys(starter.parameters);
  return {
    id: `starter${starter.id}`,
    version: VERSION,
    name: starter.name,
    about: starter.about,
    words: [...starter.words],
    parameters: Object.entries(starter.parameters).map(([name, [label, , kind = 'length']]) => ({
      name,
      label,
      kind,
    })),
    sizes: Object.entries(starter.sizes ?? {}).map(([name, values]) => ({
      name,
      values: Object.fromEntries(values.map((value, i) => [names[i]!, textOf(value)])),
    })),
    variables,
    items: played(starter, variables).items,
  };
}

const textOf = (value: string | number): string => (typeof value === 'number' ? `${value} mm` : value);

function played({ id, name, ledger }: StarterPart, variables: Record<string, string>): KadrelDocument {
  let ids = 0;
  return ledger.reduce<KadrelDocument>(
    (document, [verb, typed], i) => {
      const done = perform(
        verbNamed(verb)!,
        typed,
        document,
        plainWorld(document, () => `${id}q${++ids}`),
      );
      if (isRefusal(done)) throw new Error(`${name}, statement ${i + 1} (${verb}): ${done.message}`);
      return done.document;
    },
    { ...emptyDocument(), variables },
  );
}
