/** What the forms that write files share. */
import { useState } from 'react';

interface ChoicesProps {
  readonly legend: string;
  readonly options: readonly { readonly value: string; readonly name: string; readonly about: string }[];
  readonly value: string;
  readonly choose: (value: string) => void;
}

/** One of several, with a line about each. */
export const Choices = ({ legend, options, value, choose }: ChoicesProps) => (
  <fieldset className="flex flex-col gap-1.5">
    <legend className="mb-1 font-semibold">{legend}</legend>
    {options.map((one) => (
      <label key={one.value} className="flex items-baseline gap-2">
        <input
          type="radio"
          name={legend}
          className="accent-(--plum)"
          checked={value === one.value}
          // Where a dialog begins: Enter then writes the file.
          data-autofocus={value === one.value ? '' : undefined}
          onChange={() => choose(one.value)}
        />
        <span className="w-24 shrink-0 font-semibold">{one.name}</span>
        <span className="text-ink2">{one.about}</span>
      </label>
    ))}
  </fieldset>
);

/** Work that writes a file: busy meanwhile, closed after it, and why it could not be done. */
export function useWork(close: () => void) {
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const run = async (work: () => Promise<void>) => {
    setProblem(null);
    setIsBusy(true);
    try {
      await work();
      close();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setIsBusy(false);
    }
  };
  return { problem, isBusy, setProblem, run };
}

/** Why nothing was written. */
export const Problem = ({ words }: { words: string | null }) =>
  words && (
    <p role="alert" className="text-bad">
      {words}
    </p>
  );

/** Leaves the form, or writes. */
export const OutputButtons = ({ isBusy, close }: { isBusy: boolean; close: () => void }) => (
  <div className="flex justify-end gap-2">
    <button type="button" className="button" onClick={close}>
      Cancel
    </button>
    <button type="submit" className="button main" disabled={isBusy}>
      {isBusy ? 'Writing…' : 'Download'}
    </button>
  </div>
);
