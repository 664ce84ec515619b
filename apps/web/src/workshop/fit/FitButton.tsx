import { useSession, useSessionState } from '../context.ts';

/** Opens the fit report; says how many faults are known. */
export function FitButton() {
  const session = useSession();
  const isOpen = useSessionState(({ fit }) => fit.isOpen);
  const faults = useSessionState(({ fit }) => fit.report?.faults ?? 0);
  return (
    <button
      type="button"
      className="quiet inline-flex items-center gap-1.5"
      aria-pressed={isOpen}
      title="How parts stand to one another"
      onClick={() => (isOpen ? session.closeFit() : session.openFit())}
    >
      Fit
      {faults > 0 && (
        <span className="num rounded-full bg-bad px-1.5 text-[11px] font-semibold text-ground">
          {faults}
          <span className="sr-only"> {faults === 1 ? 'fault' : 'faults'}</span>
        </span>
      )}
    </button>
  );
}
