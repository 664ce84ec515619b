import type { MouseEvent } from 'react';
import { useSession } from './context.ts';

/** Begins a statement from a button; Enter then belongs to the statement, not to the button. */
export type Begin = (
  event: MouseEvent<HTMLButtonElement>,
  verb: string,
  typed: Readonly<Record<string, unknown>>,
) => void;

export function useBegin(): Begin {
  const session = useSession();
  return ({ currentTarget }, verb, typed) => {
    currentTarget.blur();
    session.start(verb, typed);
  };
}
