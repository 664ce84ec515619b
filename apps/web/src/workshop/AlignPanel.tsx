import { isHandled } from '../session/statement.ts';
import { AXES, verbNamed } from '@kadrel/core';
import clsx from 'clsx';
import { useSession, useSessionState } from './context.ts';
import { Section } from './Section.tsx';

const SIDES: readonly (readonly [value: string, label: string])[] = [
  ['min', 'least'],
  ['middle', 'middle'],
  ['max', 'greatest'],
];
const AXIS_WORDS = { x: 'left · right', y: 'front · back', z: 'under · top' } as const;

/** All three axes of Align at a glance; each choice shows at once what it comes to. */
export function AlignPanel() {
  const session = useSession();
  const statement = useSessionState((state) => state.statement);
  const count = useSessionState((state) => state.selection.length);
  const inHand = statement?.phase === 'open' && isHandled(statement, 'aligns') ? statement : null;
  if (count < 2 && !inHand) return null;
  const typed = inHand?.typed ?? {};
  const { against, as } = verbNamed('align')!.blanks;
  const set = (blank: string, value: string) => {
    if (!inHand) session.start('align');
    session.setBlank(
      blank,
      typed[blank] === value && blank !== 'against' && blank !== 'as' ? 'leave' : value,
    );
  };
  const isAny = AXES.some((axis) => typed[axis] !== undefined && typed[axis] !== 'leave');
  return (
    <Section title="Align">
      <div className="flex flex-col gap-1 px-3.5" role="group" aria-label="Align">
        {AXES.map((axis) => (
          <div key={axis} className="flex items-center gap-1.5">
            <b className="w-3" style={{ color: `var(--${axis})` }}>
              {axis.toUpperCase()}
            </b>
            <div
              className="flex overflow-hidden rounded border border-rule"
              role="group"
              aria-label={`Align ${axis.toUpperCase()}`}
            >
              {SIDES.map(([value, label]) => (
                <button
                  key={value}
                  type="button"
                  aria-pressed={typed[axis] === value}
                  className={clsx(
                    'px-2 py-0.5',
                    typed[axis] === value ? 'bg-plum text-sheet' : 'hover:bg-tint',
                  )}
                  onClick={() => set(axis, value)}
                >
                  {label}
                </button>
              ))}
            </div>
            <span className="text-[11px] text-ink3">{AXIS_WORDS[axis]}</span>
          </div>
        ))}
        <Choice
          label="against"
          value={String(typed.against ?? 'last')}
          choices={against!.choices!}
          set={(v) => set('against', v)}
        />
        <Choice
          label="as"
          value={String(typed.as ?? 'each')}
          choices={as!.choices!}
          set={(v) => set('as', v)}
        />
        {inHand && (
          <div className="mt-1 flex items-center gap-2">
            <button type="button" className="button" disabled={!isAny} onClick={() => void session.commit()}>
              Align
            </button>
            <button type="button" className="quiet" onClick={() => session.leave()}>
              Leave
            </button>
          </div>
        )}
      </div>
    </Section>
  );
}

function Choice({
  label,
  value,
  choices,
  set,
}: {
  label: string;
  value: string;
  choices: Readonly<Record<string, string>>;
  set: (value: string) => void;
}) {
  return (
    <label className="mt-0.5 flex items-center gap-2">
      <span className="w-12 text-ink2">{label}</span>
      <select
        className="field flex-1"
        aria-label={`Align ${label}`}
        value={value}
        onChange={(event) => set(event.target.value)}
      >
        {Object.entries(choices).map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
