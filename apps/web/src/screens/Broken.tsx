import { useRouteError } from 'react-router';
import { Wordmark } from '../common/Wordmark.tsx';

/** When the page itself fails: what happened, that nothing is lost, and how to go on. */
export function Broken() {
  const error = useRouteError();
  return (
    <main className="flex flex-col items-start gap-4 p-10">
      <Wordmark large />
      <h1 className="text-[18px] font-semibold">Something in the page broke.</h1>
      <p className="max-w-[60ch] text-ink2">
        What you did is saved, or kept in this browser until it is. Reload to go on. If it happens again, this
        line helps to find out why:
      </p>
      <p className="num rounded border border-rule bg-sheet px-3 py-2">
        {error instanceof Error ? error.message : String(error)}
      </p>
      <button type="button" className="button main" onClick={() => window.location.reload()}>
        Reload
      </button>
    </main>
  );
}
