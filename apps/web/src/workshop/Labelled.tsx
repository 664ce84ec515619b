import clsx from 'clsx';
import { valueOf, type Num } from '@kadrel/core';
import { Quantity } from './NumberField.tsx';

/** A row of the Spec: a word, and the field that it belongs to. */
export function Labelled({
  label,
  isStrong = false,
  title,
  children,
}: {
  label: string;
  isStrong?: boolean;
  title?: string | undefined;
  children: React.ReactNode;
}) {
  return (
    <div className="grid grid-cols-[76px_1fr] items-start gap-1.5 px-3.5 py-[3px]" title={title}>
      <span className={clsx('pt-1', isStrong && 'font-semibold')}>{label}</span>
      {children}
    </div>
  );
}

/** A length in a row of the Spec. */
export function Length({
  label,
  value,
  commit,
}: {
  label: string;
  value: Num;
  commit: (text: string) => Promise<boolean>;
}) {
  return (
    <Labelled label={label}>
      <Quantity label={label} kind="length" value={value} now={valueOf(value)} commit={commit} />
    </Labelled>
  );
}
