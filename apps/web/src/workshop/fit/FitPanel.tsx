/** The fit report: what is wrong with how parts stand to one another, where, and what mends it. */
import { csvOf, inOrderMade, reportPages, type Finding } from '@kadrel/core';
import { sheetExporterFor } from '@kadrel/kernel';
import { X } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { download } from '../../common/download.ts';
import { useSession, useSessionState } from '../context.ts';
import { reportIn, type ReportKind } from '../../session/fitState.ts';
import { Problem, useWork } from '../OutputParts.tsx';
import { FindingRow } from './FindingRow.tsx';
import { Scoping, Status } from './FitStatus.tsx';
import { Limits } from './MakeLimits.tsx';
import { LISTED, SORTED, groupedRows, rowsOf, type Wish } from './rows.ts';

/** The library of charts comes when there is something to be drawn. */
const Clearances = lazy(() => import('./Clearances.tsx'));

/** The fit report, or the report about making. */
export function FitPanel() {
  const session = useSession();
  const kind = useSessionState(({ fit }) => fit.kind);
  const report = useSessionState(({ fit }) => reportIn(fit));
  const trouble = useSessionState(({ fit }) => fit.trouble);
  const [wish, setWish] = useState<Wish>({ listed: 'all', sorted: 'kind', text: '' });
  const findings = report?.findings ?? [];
  const rows = rowsOf(findings, wish);
  return (
    <aside className="flex h-full flex-col overflow-y-auto bg-paper" aria-label="Fit report">
      <h2 className="panel-title">
        <span>{kind === 'fit' ? 'Fit report' : 'Make report'}</span>
        <button type="button" aria-label="Close the fit report" onClick={() => session.closeFit()}>
          <X size={14} />
        </button>
      </h2>
      <Kinds kind={kind} />
      <Status />
      {trouble !== null && (
        <p role="alert" className="mx-3.5 mb-2 text-bad">
          {trouble}
        </p>
      )}
      <Scoping />
      {kind === 'make' && <Limits />}
      <Wishes wish={wish} setWish={setWish} />
      {kind === 'fit' && <ClearanceChart findings={findings} />}
      <ul aria-label="Findings" className="min-h-24 flex-1 overflow-y-auto border-t border-rule">
        {groupedRows(rows).map((row) => (
          <FindingRow key={row.finding.id} row={row} />
        ))}
        {report && rows.length === 0 && <li className="px-3.5 py-2 text-ink2">Nothing to tell.</li>}
      </ul>
      <Foot findings={findings} />
    </aside>
  );
}

const KINDS = { fit: 'Together', make: 'Making' } as const;

/** Which report: how parts go together, or whether they can be made. */
function Kinds({ kind }: { readonly kind: ReportKind }) {
  const session = useSession();
  return (
    <div className="mx-3.5 mb-2 flex gap-1" role="group" aria-label="Report">
      {(['fit', 'make'] as const).map((one) => (
        <button
          key={one}
          type="button"
          className={one === kind ? 'button' : 'quiet'}
          aria-pressed={one === kind}
          onClick={() => session.setMaking({ kind: one })}
        >
          {KINDS[one]}
        </button>
      ))}
    </div>
  );
}

/** What is listed, in which order. */
function Wishes({ wish, setWish }: { readonly wish: Wish; readonly setWish: (wish: Wish) => void }) {
  return (
    <>
      <div className="mx-3.5 mb-2 flex gap-1.5">
        <Pick
          label="Listed"
          value={wish.listed}
          options={LISTED}
          choose={(listed) => setWish({ ...wish, listed })}
        />
        <Pick
          label="Sorted"
          value={wish.sorted}
          options={SORTED}
          choose={(sorted) => setWish({ ...wish, sorted })}
        />
      </div>
      <input
        type="search"
        className="field mx-3.5 mb-2 w-auto"
        aria-label="Find in the report"
        placeholder="Find a part"
        value={wish.text}
        onChange={(event) => setWish({ ...wish, text: event.target.value })}
      />
    </>
  );
}

function Foot({ findings }: { findings: readonly Finding[] }) {
  const session = useSession();
  const kind = useSessionState(({ fit }) => fit.kind);
  return (
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
        onClick={() => download(`${kind} report.csv`, 'text/csv', csvOf(findings))}
      >
        Write CSV
      </button>
      <PdfButton findings={findings} />
    </div>
  );
}

/** The report as pages for print. */
function PdfButton({ findings }: { readonly findings: readonly Finding[] }) {
  const kind = useSessionState(({ fit }) => fit.kind);
  const name = useSessionState((state) => state.name);
  const { run, problem, isBusy } = useWork(() => {});
  const write = async () => {
    const exporter = sheetExporterFor('.pdf')!;
    const title = `${name}: ${kind === 'fit' ? 'fit' : 'make'} report`;
    download(`${kind} report.pdf`, exporter.mime, await exporter.write(reportPages({ title, findings })));
  };
  return (
    <>
      <button
        type="button"
        className="quiet"
        disabled={findings.length === 0 || isBusy}
        onClick={() => void run(write)}
      >
        Write PDF
      </button>
      <Problem words={problem} />
    </>
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
    <Suspense fallback={null}>
      <Clearances
        findings={findings}
        wanted={wanted}
        scene={scene}
        choose={(one) => void session.showFinding(one)}
      />
    </Suspense>
  );
}
