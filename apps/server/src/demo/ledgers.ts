/** The demo projects, as ledgers that run through the same verbs as a user's statements. */
import {
  editOf,
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type LengthUnit,
  type Typed,
} from '@kadrel/core';
import faults from './faults.json' with { type: 'json' };
import marbleRun from './marble-run.json' with { type: 'json' };
import orchardHive from './orchard-hive.json' with { type: 'json' };
import tramShelter from './tram-shelter.json' with { type: 'json' };

interface DemoLedger {
  readonly name: string;
  readonly units: { readonly length: string };
  readonly variables?: Readonly<Record<string, string>>;
  readonly ledger: readonly (Typed & { readonly verb: string })[];
}

/** The same hive, and what somebody did to it. */
const hiveWithFaults: DemoLedger = {
  ...orchardHive,
  name: faults.name,
  ledger: [...orchardHive.ledger, ...faults.ledger],
};

export const DEMOS: readonly DemoLedger[] = [hiveWithFaults, orchardHive, tramShelter, marbleRun];

/** The edits that a person would have made. Demo ledgers give points by number, and corners go by boxes, so that no kernel is needed here. */
export function playLedger({ name, units, variables, ledger }: DemoLedger): {
  start: KadrelDocument;
  edits: Edit[];
} {
  const start: KadrelDocument = {
    ...emptyDocument({ units: units.length as LengthUnit, grid: 5 }),
    variables: { ...variables },
  };
  let document = start;
  let ids = 0;
  const edits = ledger.map(({ verb: id, note: _, ...values }, i): Edit => {
    const verb = verbNamed(id);
    if (!verb) throw new Error(`${name}, statement ${i + 1}: there is no verb ${id}.`);
    const done = perform(
      verb,
      values,
      document,
      plainWorld(document, () => `p${++ids}`),
    );
    if (isRefusal(done))
      throw new Error(`${name}, statement ${i + 1} (${id}), ${done.blank}: ${done.message}`);
    document = done.document;
    return editOf(done, {
      id: `demo-${String(i + 1).padStart(4, '0')}`,
      verb: id,
      values,
      author: 'Demo',
      time: Date.UTC(2026, 0, 5, 9, i),
    });
  });
  return { start, edits };
}
