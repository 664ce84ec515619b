/** The fit report: what is wrong with how parts stand to one another, where, and what mends it. */
import { FINDING_WORDS, inOrderMade, type Finding, type Remedy } from '@kadrel/core';
import clsx from 'clsx';
import { X } from 'lucide-react';
import { useMemo, useState, type MouseEvent } from 'react';
import { download } from '../../common/download.ts';
import { useSession, useSessionState } from '../context.ts';
import { Quantity } from '../NumberField.tsx';
import { Clearances } from './Clearances.tsx';
import { LISTED, SORTED, csvOf, rowsOf, type Listed, type Sorted } from './rows.ts';

export function FitPanel() {
  const session = useSession();
  const report = useSessionState(({ fit }) => fit.report);
  const trouble = useSessionState(({ fit }) => fit.trouble);
  const [listed, setListed] = useState<Listed>('all');
  const [sorted, setSorted] = useState<Sorted>('kind');
  const [text, setText] = useState('');
  const findings = report?.findings ?? [];
  const rows = rowsOf(findings, { listed, sorted, text });
  return (
    <aside className="flex h-full flex-col overflow-y-auto bg-paper" aria-label="Fit report">
      <h2 className="panel-title">
        <span>Fit report</span>
        <button type="button" aria-label="Close the fit report" onClick={() => session.openFit(false)}>
          <X size={14} />
        </button>
      </h2>
      <Status />
      {trouble !== null && (
        <p role="alert" className="mx-3.5 mb-2 text-bad">
          {trouble}
        </p>
      )}
      <Scoping />
      <div className="mx-3.5 mb-2 flex gap-1.5">
        <Pick label="Listed" value={listed} options={LISTED} choose={setListed} />
        <Pick label="Sorted" value={sorted} options={SORTED} choose={setSorted} />
      </div>
      <input
        type="search"
        className="field mx-3.5 mb-2 w-auto"
        aria-label="Find in the report"
        placeholder="Find a part"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <ClearanceChart findings={findings} />
      <ul aria-label="Findings" className="min-h-24 flex-1 overflow-y-auto border-t border-rule">
        {rows.map((finding) => (
          <Row key={finding.id} finding={finding} />
        ))}
        {report && rows.length === 0 && <li className="px-3.5 py-2 text-ink2">Nothing to tell.</li>}
      </ul>
      <div className="flex flex-wrap gap-1 border-t border-rule p-2">
        <button type="button" className="quiet" onClick={() => session.start('measure')}>
          Measure
        </button>
        <button type="button" className="quiet" onClick={() => session.start('wanted-fit')}>
          Wanted fit
        </button>
        <button
          type="button"
          className="quiet"
          disabled={findings.length === 0}
          onClick={() => download('fit report.csv', 'text/csv', csvOf(findings))}
        >
          Write CSV
        </button>
      </div>
    </aside>
  );
}

/** How many faults there are, or how far the work is. */
function Status() {
  const session = useSession();
  const working = useSessionState(({ fit }) => fit.working);
  const faults = useSessionState(({ fit }) => fit.report?.faults);
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
function Scoping() {
  const session = useSession();
  const { reach, among } = useSessionState(({ fit }) => fit);
  const selection = useSessionState((state) => state.selection);
  return (
    <div className="mx-3.5 mb-2">
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
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={among !== null}
          disabled={among === null && selection.length === 0}
          onChange={(event) => session.setFitScope({ among: event.target.checked ? [...selection] : null })}
        />
        Only the selection against the rest
      </label>
    </div>
  );
}

interface PickProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: Readonly<Record<T, string>>;
  readonly choose: (value: T) => void;
}

function Pick<T extends string>({ label, value, options, choose }: PickProps<T>) {
  return (
    <select
      className="field min-w-0 flex-1"
      aria-label={label}
      value={value}
      onChange={(event) => choose(event.target.value as T)}
    >
      {Object.entries<string>(options).map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  );
}

function ClearanceChart({ findings }: { findings: readonly Finding[] }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const fits = useSessionState((state) => state.document.fits);
  const wanted = useMemo(
    () =>
      inOrderMade(fits).flatMap(({ kind, least = 0, greatest }) =>
        kind === 'clearance' && greatest !== undefined ? [{ least, greatest }] : [],
      ),
    [fits],
  );
  return (
    <Clearances
      findings={findings}
      wanted={wanted}
      scene={scene}
      choose={(one) => void session.showFinding(one)}
    />
  );
}

const SIGNS = { fault: '✕', fine: '·', meant: '○' } as const;
const STATES = { fault: 'fault', fine: 'fine', meant: 'meant' } as const;

function Row({ finding }: { finding: Finding }) {
  const session = useSession();
  const isShown = useSessionState(({ fit }) => fit.shown?.id === finding.id);
  const { state, kind, what, words, why } = finding;
  return (
    <li className={clsx('border-b border-rule', isShown && 'bg-tint')}>
      <button
        type="button"
        className="flex w-full gap-2 px-3.5 py-1 text-left"
        aria-pressed={isShown}
        onClick={() => void session.showFinding(isShown ? null : finding)}
      >
        <span className={clsx('w-3 font-bold', state === 'fault' ? 'text-bad' : 'text-ink3')} aria-hidden>
          {SIGNS[state]}
        </span>
        <span className="min-w-0 flex-1">
          <span className="block font-semibold">
            {FINDING_WORDS[kind]} <span className="sr-only">({STATES[state]})</span>
            <span className="font-normal">{what}</span>
          </span>
          <span className={clsx('block', state === 'fault' ? 'text-bad' : 'text-ink2')}>{words}</span>
          {why !== undefined && <span className="block text-ink2">Meant: {why}</span>}
        </span>
      </button>
      {isShown && <Remedies finding={finding} />}
    </li>
  );
}

/** What can be done about it, each a statement that stands in the bar before it is carried out. */
function Remedies({ finding: { remedies, items, state, kind, what } }: { finding: Finding }) {
  const session = useSession();
  const isCheck = kind === 'fit' || kind === 'measure';
  // Enter then belongs to the statement, not to the button.
  const begin = ({ currentTarget }: MouseEvent<HTMLButtonElement>, verb: string, typed: Remedy['typed']) => {
    currentTarget.blur();
    session.start(verb, typed);
  };
  return (
    <div className="flex flex-wrap gap-1 px-8 pb-1.5">
      {remedies.map(({ label, verb, typed }) => (
        <button key={label} type="button" className="button" onClick={(event) => begin(event, verb, typed)}>
          {label}
        </button>
      ))}
      {!isCheck && state === 'fault' && items.length <= 2 && (
        <button
          type="button"
          className="quiet"
          onClick={(event) => begin(event, 'meant', { parts: [...items] })}
        >
          Mark as meant
        </button>
      )}
      {isCheck && (
        <button
          type="button"
          className="quiet"
          onClick={(event) => begin(event, 'change-check', { of: what })}
        >
          Change
        </button>
      )}
      {isCheck && (
        <button
          type="button"
          className="quiet"
          onClick={() => void session.say('forget-check', { of: what })}
        >
          Forget
        </button>
      )}
    </div>
  );
}
