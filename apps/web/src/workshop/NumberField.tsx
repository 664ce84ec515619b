import {
  formatAngle,
  formatLengthFinely,
  valueOf,
  type Axis,
  type Num,
  type QuantityKind,
} from '@kadrel/core';
import clsx from 'clsx';
import { useId, useState } from 'react';
import { exactMm, exactNumber } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';
import { UNTOUCHED_ATTRIBUTE } from './fieldKeys.ts';

interface QuantityProps {
  readonly label: string;
  readonly axis?: Axis;
  readonly kind: QuantityKind;
  readonly value: Num;
  readonly now: number;
  readonly commit: (text: string) => Promise<boolean>;
}

/** A number that takes units, arithmetic, variables and `now`; one with a formula shows it. */
export function Quantity({ label, axis, kind, value, now, commit }: QuantityProps) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const isFormula = typeof value === 'object';
  const shown = isFormula
    ? value.formula
    : kind === 'angle'
      ? formatAngle(value)
      : kind === 'length'
        ? formatLengthFinely(value, scene)
        : String(value);
  const raw = isFormula ? value.formula : kind === 'length' ? exactMm(value) : String(value);
  return (
    <NumberField
      label={label}
      {...(axis ? { axis } : {})}
      shown={shown}
      raw={raw}
      isFormula={isFormula}
      check={(text) => session.quantityFault(text, kind, now)}
      commit={commit}
    />
  );
}

interface NumberFieldProps {
  readonly label: string;
  readonly axis?: Axis;
  readonly shown: string;
  readonly raw: string;
  readonly isFormula?: boolean;
  readonly placeholder?: string;
  /** An empty text says something too. */
  readonly mayBeEmpty?: true;
  readonly check: (text: string) => string | undefined;
  readonly commit: (text: string) => Promise<boolean>;
}

/** A text is committed by Enter, or when the field is left; a bad one keeps its text and says why. */
export function NumberField({
  label,
  axis,
  shown,
  raw,
  isFormula = false,
  placeholder,
  mayBeEmpty,
  check,
  commit,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | undefined>();
  const id = useId();
  const isChanged = typed !== null && typed !== shown && typed !== raw && (mayBeEmpty ?? typed.trim() !== '');
  /** Whether what is typed cannot be read; the reason is then shown. */
  const refused = (): boolean => {
    const wrong = isChanged ? check(typed) : undefined;
    setFault(wrong);
    return wrong !== undefined;
  };
  const send = () => {
    if (!isChanged) {
      setTyped(null);
      setFault(undefined);
    } else if (!refused())
      void commit(typed).then((done) => {
        if (done) setTyped(null);
        else setFault('This was refused; the statement above says why.');
      });
  };
  return (
    <div className="min-w-0">
      <span className="relative block">
        {axis && (
          <b
            aria-hidden
            className="pointer-events-none absolute top-[3px] left-1.5 text-[12px]"
            style={{ color: `var(--${axis})` }}
          >
            {axis.toUpperCase()}
          </b>
        )}
        <input
          className={clsx(
            'field num text-right',
            axis && 'pr-1! pl-4!',
            isFormula && typed === null && 'text-plum',
          )}
          aria-label={label}
          {...(typed === null ? { [UNTOUCHED_ATTRIBUTE]: '' } : {})}
          aria-invalid={fault !== undefined}
          aria-describedby={fault ? id : undefined}
          title={exactNumber(raw) === undefined ? raw : undefined}
          placeholder={placeholder}
          value={typed ?? shown}
          autoComplete="off"
          spellCheck={false}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(event) => {
            setTyped(event.target.value);
            setFault(undefined);
          }}
          onBlur={send}
          onKeyDown={(event) => {
            // What is typed next belongs to the view again: leaving the field commits it, unless it is wrong.
            if (event.key === 'Enter' && !refused()) event.currentTarget.blur();
            if (event.key !== 'Escape') return;
            setTyped(null);
            setFault(undefined);
          }}
        />
      </span>
      {fault && (
        <p id={id} role="alert" className="mt-0.5 text-[11px] text-bad">
          {fault}
        </p>
      )}
    </div>
  );
}

/** How many of something. */
export function Count({
  label,
  count,
  commit,
}: {
  label: string;
  count: Num;
  commit: (text: string) => Promise<boolean>;
}) {
  const session = useSession();
  return (
    <NumberField
      label={label}
      shown={String(valueOf(count))}
      raw={typeof count === 'number' ? String(count) : count.formula}
      check={(text) => session.quantityFault(text, 'count', valueOf(count))}
      commit={commit}
    />
  );
}
