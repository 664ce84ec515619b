/** The numbers and choices of a step, under its name in the Spec. */
import {
  chosenOfStep,
  fieldsOf,
  isChosenType,
  numberOfStep,
  stepKind,
  valueOf,
  type Field,
  type Num,
  type Part,
  type RecipeStep,
} from '@kadrel/core';
import { useState } from 'react';
import { useSession } from './context.ts';
import { FieldRows } from './FieldRows.tsx';
import { Labelled } from './Labelled.tsx';
import { Quantity } from './NumberField.tsx';

interface StepFieldsProps {
  readonly part: Part;
  readonly step: RecipeStep;
  /** Counted from 1. */
  readonly index: string;
}

export function StepFields({ part, step, index }: StepFieldsProps) {
  const session = useSession();
  const [isWhole, setIsWhole] = useState(false);
  const number = numberOfStep(step);
  const values = step as Readonly<Record<string, unknown>>;
  const fields = fieldsOf(stepKind(step).schema).filter(
    ([, field]) => field.label !== number?.label && field.type !== 'text' && !isChosenType(field.type),
  );
  const usual = fields.filter(([key, field]) => !field.rare || isSet(field, values[key]));
  return (
    <>
      {number && (
        <Labelled label={number.label}>
          <Quantity
            label={`${number.label} of step ${index}`}
            kind={number.kind}
            value={number.value}
            now={valueOf(number.value)}
            commit={(text) => session.say('step', { part: part.id, step: index, depth: text })}
          />
        </Labelled>
      )}
      <FieldRows
        fields={isWhole ? fields : usual}
        holder={step}
        of={`of step ${index}`}
        change={(given) => {
          const [[field, value]] = Object.entries(given) as [[string, unknown]];
          return session.say('step', { part: part.id, step: index, field, value });
        }}
      />
      {fieldsOf(stepKind(step).schema).some(([, { type }]) => isChosenType(type)) && (
        <button
          type="button"
          className="quiet mx-2 text-[12px] text-ink2"
          aria-label={`Choose anew for step ${index}`}
          title="Other edges, faces or corners for this step"
          onClick={() => {
            const chosen = chosenOfStep(step, part.id);
            session.start('choose-anew', { part: part.id, step: index, ...chosen });
            session.focus({ blank: Object.keys(chosen)[0]!, axis: null });
          }}
        >
          choose anew…
        </button>
      )}
      {usual.length < fields.length && !isWhole && (
        <button
          type="button"
          className="quiet mx-2 text-[12px] text-ink2"
          aria-label={`More of step ${index}`}
          onClick={() => setIsWhole(true)}
        >
          more…
        </button>
      )}
    </>
  );
}

/** Whether a field that is seldom set holds anything else than where it is not. */
function isSet(field: Field, value: unknown): boolean {
  if (value === undefined) return false;
  if (field.type === 'number') return valueOf(value as Num) !== Number.parseFloat(field.default ?? '0');
  return field.type === 'choice' ? value !== field.default : true;
}
