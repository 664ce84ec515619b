/** Opens the table that a recipe is given by, in the statement bar. */
import type { Typed } from '@kadrel/core';
import { useSession } from './context.ts';

export function TableButton({
  words,
  verb,
  typed,
  blank,
}: {
  words: string;
  verb: string;
  typed: Typed;
  /** The one of the table. */
  blank: string;
}) {
  const session = useSession();
  return (
    <button
      type="button"
      className="button mx-3.5 my-0.5"
      onClick={() => {
        session.start(verb, typed);
        session.focus({ blank, axis: null });
      }}
    >
      {words}
    </button>
  );
}
