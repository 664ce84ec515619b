/** The variables of the model: what each is set to, what it comes to, and how many numbers follow it. */
import { formatAngle, formatLengthWithUnit, formatNumber, variableUses, variablesOf } from '@kadrel/core';
import { X } from 'lucide-react';
import { IconButton } from '../IconButton.tsx';
import { useMemo, useState } from 'react';
import { useSession, useSessionState } from '../context.ts';
import { NumberField } from '../NumberField.tsx';

/** The table of variables. */
export function Variables() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { variables, measures, scene } = document;
  const { values } = useMemo(() => variablesOf({ variables, measures, scene }), [variables, measures, scene]);
  const uses = useMemo(() => variableUses(document), [document]);
  const names = Object.keys(variables).sort((a, b) => a.localeCompare(b));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto pb-2">
      <table className="w-full table-fixed border-separate border-spacing-x-1.5 px-2">
        <thead className="text-left text-[11px] text-ink3">
          <tr>
            <th className="w-[36%] font-normal">Name</th>
            <th className="font-normal">Value</th>
            <th className="w-[26%] text-right font-normal">Comes to</th>
            <th className="w-3.5">
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <tr key={name} title={usedWords(uses.get(name) ?? 0)}>
              <td className="num truncate" title={name}>
                {name}
              </td>
              <td title={variables[name]}>
                <NumberField
                  label={`Variable ${name}`}
                  shown={variables[name]!}
                  raw={variables[name]!}
                  check={() => undefined}
                  commit={(value) => session.say('variable', { name, value })}
                />
              </td>
              <td className="num truncate text-right text-ink2" data-testid={`value of ${name}`}>
                {words(values.get(name), scene)}
              </td>
              <td>
                {uses.get(name) === 0 && (
                  <IconButton
                    label={`Remove variable ${name}`}
                    title="Remove it: no number uses it"
                    onClick={() => void session.say('forget-variable', { name })}
                  >
                    <X size={13} />
                  </IconButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <NewVariable />
    </div>
  );
}

const usedWords = (uses: number) =>
  uses === 0 ? 'Not used yet' : uses === 1 ? 'Used once' : `Used ${uses} times`;

type Solved = ReturnType<typeof variablesOf>['values'] extends ReadonlyMap<string, infer Q> ? Q : never;
type Style = Parameters<typeof formatLengthWithUnit>[1];

/** A length in scene units, an angle in degrees, or a plain number. */
function words(quantity: Solved | undefined, scene: Style): string {
  if (!quantity) return '–';
  const { value, dimension } = quantity;
  if (dimension.angle !== 0) return formatAngle(value);
  return dimension.length === 1 ? formatLengthWithUnit(value, scene) : formatNumber(value, scene);
}

/** A name and a value, and it is there. */
function NewVariable() {
  const session = useSession();
  const [name, setName] = useState('');
  const [value, setValue] = useState('');
  const add = () =>
    void session.say('variable', { name: name.trim(), value: value.trim() }).then((done) => {
      if (!done) return;
      setName('');
      setValue('');
    });
  return (
    <form
      className="flex gap-1.5 px-3.5 pt-1"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <input
        className="field num"
        aria-label="Name of a new variable"
        placeholder="name"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <input
        className="field num"
        aria-label="Value of the new variable"
        placeholder="value"
        value={value}
        onChange={(event) => setValue(event.target.value)}
      />
      <button type="submit" className="button" disabled={name.trim() === '' || value.trim() === ''}>
        Add
      </button>
    </form>
  );
}
