import clsx from 'clsx';
import { reportIn, type PairsWanted } from '../../session/fitState.ts';
import { useSession, useSessionState } from '../context.ts';
import { Bed, Limit } from './MakeLimits.tsx';

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
  const { reach, kind, limits } = useSessionState(({ fit }) => fit);
  return (
    <div className="mx-3.5 mb-2 flex flex-col gap-1">
      {kind === 'fit' && <Limit label="Reach" mm={reach} set={(mm) => session.setFitScope({ reach: mm })} />}
      <PairsChoice />
      {kind === 'fit' && (
        <Bed
          bed={limits.bed}
          label="Has to stand on a bed or site"
          set={(bed) => session.setMaking({ limits: { ...limits, bed } })}
        />
      )}
    </div>
  );
}

const PAIRS: Readonly<Record<PairsWanted, string>> = {
  all: 'All that can be seen',
  'chosen against the rest': 'The selection against the rest',
  'within the chosen': 'What is selected, with one another',
};

/** Which pairs, by what is selected as it is chosen. */
function PairsChoice() {
  const session = useSession();
  const { pairs, kind } = useSessionState(({ fit }) => fit);
  const selection = useSessionState((state) => state.selection);
  const isMaking = kind === 'make';
  const min: Readonly<Record<PairsWanted, number>> = {
    all: 0,
    'chosen against the rest': 1,
    'within the chosen': 2,
  };
  const offered = (Object.keys(PAIRS) as PairsWanted[]).filter((one) => !isMaking || min[one] < 2);
  return (
    <select
      className="field"
      aria-label="Looked at"
      value={offered.includes(pairs) ? pairs : 'all'}
      onChange={(event) =>
        session.setFitScope({ pairs: event.target.value as PairsWanted, chosen: [...selection] })
      }
    >
      {offered.map((one) => (
        <option key={one} value={one} disabled={one !== pairs && selection.length < min[one]}>
          {isMaking && min[one] === 1 ? 'Only the selection' : PAIRS[one]}
        </option>
      ))}
    </select>
  );
}
