/** The numbers and choices of a recipe as rows of the Spec, made from what the recipe declares. */
import {
  blankOf,
  formatLengthFinely,
  valueOf,
  type Field,
  type Num,
  type NumberField as NumberOfRecipe,
  type NumbersField,
  type VectorField,
} from '@kadrel/core';
import { Choice } from './Choice.tsx';
import { Labelled } from './Labelled.tsx';
import { useSessionState } from './context.ts';
import { NumberField, Quantity } from './NumberField.tsx';

/** Sets blanks of Change for the part. */
export type Change = (values: Readonly<Record<string, unknown>>) => Promise<boolean>;

interface Row<F extends Field> {
  readonly field: F;
  readonly blank: string;
  readonly value: unknown;
  readonly change: Change;
  /** Its name for those who hear it. */
  readonly heard: string;
}

/** More choices than this do not fit beside one another. */
const MAX_BESIDE = 3;

interface FieldRowsProps {
  readonly fields: readonly (readonly [key: string, field: Field])[];
  readonly holder: object;
  readonly change: Change;
  /** “of step 2”: tells fields of one name apart for those who hear them. */
  readonly of?: string;
}

/** A row for each field of a recipe. */
export function FieldRows({ fields, holder, change, of }: FieldRowsProps) {
  const values = holder as Readonly<Record<string, unknown>>;
  return fields.map(([key, field]) => {
    const heard = of === undefined ? field.label : `${field.label} ${of}`;
    const row = { blank: blankOf(key, field), value: values[key], change, heard };
    switch (field.type) {
      case 'number':
        return <NumberRow key={key} field={field} {...row} />;
      case 'vector':
        return <VectorRows key={key} field={field} {...row} />;
      case 'numbers':
        return <NumbersRow key={key} field={field} {...row} />;
      case 'choice':
        return <ChoiceRow key={key} {...row} field={field} value={row.value ?? field.absent} />;
      case 'flag':
        return (
          <ChoiceRow key={key} {...row} field={field} value={(row.value ?? field.absent) ? 'yes' : 'no'} />
        );
      // Shown and edited where it is drawn, or gathered.
      case 'text':
      case 'edges':
      case 'faces':
      case 'places':
        return null;
    }
  });
}

function NumberRow({ field, blank, value, change, heard }: Row<NumberOfRecipe>) {
  const shown = (value as Num | undefined) ?? field.absent ?? 0;
  return (
    <Labelled label={field.label} title={field.about}>
      <Quantity
        label={heard}
        kind={field.kind}
        value={shown}
        now={valueOf(shown)}
        commit={(text) => change({ [blank]: text })}
      />
    </Labelled>
  );
}

/** Numbers with commas between; an empty text leaves none. */
function NumbersRow({ field, blank, value, change, heard }: Row<NumbersField>) {
  const scene = useSessionState((state) => state.document.scene);
  const numbers = (value as readonly Num[] | undefined) ?? [];
  const plain = (n: number) => (field.kind === 'length' ? formatLengthFinely(n, scene) : String(n));
  const shown = numbers.map((n) => (typeof n === 'object' ? n.formula : plain(n))).join(', ');
  return (
    <Labelled label={field.label} title={field.about}>
      <NumberField
        label={heard}
        shown={shown}
        raw={shown}
        isFormula={numbers.some((n) => typeof n === 'object')}
        placeholder="none"
        mayBeEmpty
        check={() => undefined}
        commit={(text) => change({ [blank]: text })}
      />
    </Labelled>
  );
}

function VectorRows({ field, blank, value, change }: Row<VectorField>) {
  const numbers = value as readonly Num[];
  return field.labels.map((label, axis) => (
    <Labelled key={label} label={label}>
      <Quantity
        label={label}
        kind={field.kind}
        value={numbers[axis]!}
        now={valueOf(numbers[axis]!)}
        commit={(text) => change({ [blank]: [0, 1, 2].map((i) => (i === axis ? text : 'now')) })}
      />
    </Labelled>
  ));
}

function ChoiceRow({ field, blank, value, change, heard }: Row<Extract<Field, { choices: object }>>) {
  const { label, about } = field;
  const choices = field.choices as Readonly<Record<string, string>>;
  const chosen = value as string;
  const fits =
    Object.keys(choices).length <= MAX_BESIDE && !Object.values(choices).some((one) => one.length > 12);
  if (fits)
    return (
      <Choice
        label={label}
        heard={heard}
        chosen={chosen}
        choices={choices}
        choose={(choice) => void change({ [blank]: choice })}
      />
    );
  return (
    <Labelled label={label} title={about}>
      <select
        className="field"
        aria-label={heard}
        value={chosen}
        onChange={(event) => void change({ [blank]: event.target.value })}
      >
        {Object.entries(choices).map(([choice, words]) => (
          <option key={choice} value={choice}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
