/** A finding, and what can be done about it. */
import { FINDING_WORDS, MAKE_KINDS, type Finding } from '@kadrel/core';
import clsx from 'clsx';
import { useSession, useSessionState } from '../context.ts';
import { useBegin, type Begin } from '../useBegin.ts';
import { WallLegend } from './MakeLimits.tsx';
import type { Row } from './rows.ts';

const SIGNS = { fault: '✕', fine: '·', meant: '○' } as const;

/** Chosen, it shows its place in the views, and its remedies. */
export function FindingRow({ row: { finding, alike } }: { row: Row }) {
  const session = useSession();
  const all = [finding, ...alike];
  const shown = useSessionState(({ fit }) => all.find(({ id }) => id === fit.shown?.id));
  const isShown = shown !== undefined;
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
            {FINDING_WORDS[kind]} <span className="sr-only">({state})</span>
            <span className="font-normal">{what}</span>
            {alike.length > 0 && (
              <span className="font-normal text-ink2"> and {alike.length} more alike</span>
            )}
          </span>
          <span className={clsx('block', state === 'fault' ? 'text-bad' : 'text-ink2')}>{words}</span>
          {why !== undefined && <span className="block text-ink2">Meant: {why}</span>}
        </span>
      </button>
      {isShown && alike.length > 0 && <Alike all={all} shown={shown} />}
      {isShown && <Remedies finding={shown} />}
      {isShown && kind === 'wall' && <WallLegend />}
    </li>
  );
}

/** One after another of those that are alike. */
function Alike({ all, shown }: { readonly all: readonly Finding[]; readonly shown: Finding }) {
  const session = useSession();
  return (
    <label className="flex items-center gap-2 px-8 pb-1.5">
      Looked at
      <select
        className="field min-w-0 flex-1"
        value={shown.id}
        onChange={(event) => void session.showFinding(all.find(({ id }) => id === event.target.value)!)}
      >
        {all.map(({ id, what }) => (
          <option key={id} value={id}>
            {what}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What can be done about it, each a statement that stands in the bar before it is carried out. */
function Remedies({ finding }: { finding: Finding }) {
  const { remedies, items, state, kind, what, mark } = finding;
  const session = useSession();
  const isCheck = kind === 'fit' || kind === 'measure';
  const begin = useBegin();
  return (
    <div className="flex flex-wrap gap-1 px-8 pb-1.5">
      {remedies.map(({ label, verb, typed }) => (
        <button key={label} type="button" className="button" onClick={(event) => begin(event, verb, typed)}>
          {label}
        </button>
      ))}
      {kind === 'wall' && <WallsButton finding={finding} />}
      {!isCheck && !MAKING.has(kind) && state === 'fault' && items.length <= 2 && (
        <button
          type="button"
          className="quiet"
          onClick={(event) => begin(event, 'meant', { parts: [...items] })}
        >
          Mark as meant
        </button>
      )}
      {mark !== undefined && (
        <button
          type="button"
          className="quiet"
          onClick={() => void session.say('forget-check', { of: mark })}
        >
          Not meant any more
        </button>
      )}
      {isCheck && <CheckButtons name={what} begin={begin} />}
    </div>
  );
}

const MAKING: ReadonlySet<Finding['kind']> = new Set(MAKE_KINDS);

/** Shows how thick the solid is all over. */
function WallsButton({ finding }: { readonly finding: Finding }) {
  const session = useSession();
  const isShown = useSessionState(({ fit }) => fit.walls !== null);
  return (
    <button
      type="button"
      className="quiet"
      aria-pressed={isShown}
      onClick={() => void session.showWalls(isShown ? null : finding)}
    >
      {isShown ? 'Hide the colours' : 'Show all walls in colours'}
    </button>
  );
}

/** Of a kept measure or a wanted fit. */
function CheckButtons({ name, begin }: { readonly name: string; readonly begin: Begin }) {
  const session = useSession();
  return (
    <>
      <button type="button" className="quiet" onClick={(event) => begin(event, 'change-check', { of: name })}>
        Change
      </button>
      <button type="button" className="quiet" onClick={() => void session.say('forget-check', { of: name })}>
        Forget
      </button>
    </>
  );
}
