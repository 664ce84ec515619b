import clsx from 'clsx';
import { reportIn } from '../../session/fitState.ts';
import { useSession, useSessionState } from '../context.ts';
import { Quantity } from '../NumberField.tsx';

/** How many faults there are, or how far the work is. */
export function Status() {
  const session = useSession();
  const working = useSessionState(({ fit }) => fit.working);
  const faults = useSessionState(({ fit }) => reportIn(fit)?.faults);
  if (working !== null)
    return (
      <div className="mx-3.5 mb-2 flex items-center gap-2" role="status">
        <progress className="min-w-0 flex-1" aria-label="Looking how parts stand" value={working} />
        <button type="button" className="quiet" onClick={() => session.cancelFit()}>
          Cancel
        </button>
      </div>
    );
  const words =
    faults === undefined
      ? 'Not looked at yet.'
      : faults === 0
        ? 'No faults.'
        : `${faults} ${faults === 1 ? 'fault' : 'faults'}.`;
  return (
    <div className="mx-3.5 mb-2 flex items-center justify-between" role="status">
      <span className={clsx('font-semibold', (faults ?? 0) > 0 && 'text-bad')}>{words}</span>
      <button type="button" className="quiet" onClick={() => session.lookAtFit()}>
        Look again
      </button>
    </div>
  );
}

/** What is looked at. */
export function Scoping() {
  const session = useSession();
  const { reach, among, kind } = useSessionState(({ fit }) => fit);
  const selection = useSessionState((state) => state.selection);
  return (
    <div className="mx-3.5 mb-2">
      {kind === 'fit' && (
        <div className="mb-1 flex items-center gap-2">
          <span className="text-ink2">Reach</span>
          <Quantity
            label="Reach"
            kind="length"
            value={reach}
            now={reach}
            commit={(typed) => {
              const mm = session.readLength(typed);
              if (mm === undefined || mm < 0) return Promise.resolve(false);
              session.setFitScope({ reach: mm });
              return Promise.resolve(true);
            }}
          />
        </div>
      )}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={among !== null}
          disabled={among === null && selection.length === 0}
          onChange={(event) => session.setFitScope({ among: event.target.checked ? [...selection] : null })}
        />
        {kind === 'fit' ? 'Only the selection against the rest' : 'Only the selection'}
      </label>
    </div>
  );
}
