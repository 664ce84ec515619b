/** Kept measures and wanted fits, with what they come to. */
import { inOrderMade, type Finding, type Fit, type Measure } from '@kadrel/core';
import clsx from 'clsx';
import { Pencil, Ruler, X } from 'lucide-react';
import { useBegin } from '../useBegin.ts';
import { IconButton } from '../IconButton.tsx';
import { useSession, useSessionState } from '../context.ts';

/** A click shows one in the views; its pencil changes its name and limits. */
export function Measures() {
  const session = useSession();
  const measures = useSessionState((state) => state.document.measures);
  const fits = useSessionState((state) => state.document.fits);
  const checks: readonly (Measure | Fit)[] = [...inOrderMade(measures), ...inOrderMade(fits)];
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      {checks.length > 0 && (
        <ul aria-label="Measures and wanted fits">
          {checks.map((check) => (
            <CheckRow key={check.id} check={check} />
          ))}
        </ul>
      )}
      <button type="button" className="quiet mx-1.5" onClick={() => session.start('measure')}>
        New measure
      </button>
      <button type="button" className="quiet" onClick={() => session.start('wanted-fit')}>
        Wanted fit
      </button>
    </div>
  );
}

function CheckRow({ check: { id, name } }: { readonly check: Measure | Fit }) {
  const session = useSession();
  const finding = useSessionState(({ fit }) => fit.report?.findings.find((one) => one.id === id));
  const isShown = useSessionState(({ fit }) => fit.shown?.id === id);
  const begin = useBegin();
  return (
    <li className={clsx('flex items-start gap-1.5 px-3 py-[3px]', isShown && 'bg-tint')}>
      <Ruler size={13} aria-hidden className="mt-0.5 text-ink2" />
      <button
        type="button"
        className="min-w-0 flex-1 text-left"
        aria-pressed={isShown}
        disabled={!finding}
        onClick={() => void session.showFinding(isShown ? null : finding!)}
      >
        <b className="font-semibold">{name}</b> <Words finding={finding} />
      </button>
      <IconButton
        label={`Change ${name}`}
        title="Another name, or other limits"
        onClick={(event) => begin(event, 'change-check', { of: name })}
      >
        <Pencil size={12} />
      </IconButton>
      <IconButton
        label={`Forget ${name}`}
        title="Forget"
        onClick={() => void session.say('forget-check', { of: name })}
      >
        <X size={13} />
      </IconButton>
    </li>
  );
}

/** What it comes to; in the tone of faults, and as a word, where that is not as it should be. */
function Words({ finding }: { readonly finding: Finding | undefined }) {
  if (!finding) return <span className="text-ink2">is being measured</span>;
  const isFault = finding.state === 'fault';
  return (
    <span className={clsx('num', isFault ? 'text-bad' : 'text-ink2')}>
      {isFault && <span className="sr-only">missed: </span>}
      {finding.words}
    </span>
  );
}
