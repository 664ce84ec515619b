/** What a part was taken from: its size and parameters can be set here. */
import {
  usualValues,
  valueOf,
  type Num,
  type Parameter,
  type Part,
  type RackPart,
  type Taken,
} from '@kadrel/core';
import { Labelled } from '../Labelled.tsx';
import { Quantity } from '../NumberField.tsx';
import { Section } from '../Section.tsx';
import { useSession, useSessionState } from '../context.ts';

/** The section of the Spec for what was taken from a rack. */
export function TakenFacts({ part: { id, taken } }: { readonly part: Part }) {
  const part = useSessionState(({ document }) => taken && document.rackParts[taken.from]);
  if (!taken || !part) return null;
  return (
    <Section title="Rack part">
      <p className="px-3.5 pb-1 text-ink2">
        {part.name}, version {part.version}
      </p>
      {part.sizes.length > 0 && <Sizes id={id} part={part} taken={taken} />}
      {part.parameters.map((parameter) => (
        <ParameterRow
          key={parameter.name}
          id={id}
          parameter={parameter}
          value={taken.values[parameter.name]}
          usual={part}
        />
      ))}
      <Follows id={id} taken={taken} />
    </Section>
  );
}

interface Of {
  readonly id: string;
  readonly taken: Taken;
}

/** The standard size, or that it is none. */
function Sizes({ id, part, taken }: Of & { readonly part: RackPart }) {
  const session = useSession();
  return (
    <Labelled label="Size" title="A standard size">
      <select
        className="field"
        aria-label="Standard size"
        value={taken.size ?? ''}
        onChange={(event) => void session.say('change-taken', { part: id, size: event.target.value })}
      >
        {taken.size === undefined && <option value="">none</option>}
        {part.sizes.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

interface ParameterRowProps {
  readonly id: string;
  readonly parameter: Parameter;
  readonly value: Num | undefined;
  readonly usual: RackPart;
}

/** One parameter: as it was taken, or as the rack part has it. */
function ParameterRow({ id, parameter: { name, label, kind, about }, value, usual }: ParameterRowProps) {
  const session = useSession();
  const shown = value ?? usualValues(usual)?.[name] ?? 0;
  return (
    <Labelled label={label} title={about ?? label}>
      <Quantity
        label={label}
        kind={kind}
        value={shown}
        now={valueOf(shown)}
        commit={(text) => session.say('change-taken', { part: id, values: { [name]: text } })}
      />
    </Labelled>
  );
}

/** Whether newer versions are offered. */
function Follows({ id, taken }: Of) {
  const session = useSession();
  return (
    <label className="flex items-center gap-1.5 px-3.5 py-1">
      <input
        type="checkbox"
        checked={taken.follows === true}
        onChange={(event) =>
          void session.say('change-taken', { part: id, follow: event.target.checked ? 'follows' : 'own' })
        }
      />
      Follows the rack
    </label>
  );
}
