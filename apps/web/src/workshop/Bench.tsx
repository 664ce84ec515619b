import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import {
  GROUPS,
  SNAP_KINDS,
  VERBS,
  formatAngle,
  formatLengthWithUnit,
  verbNamed,
  type Group,
  type SnapKind,
} from '@kadrel/core';
import clsx from 'clsx';
import { useSession, useSessionState } from './context.ts';
import { startVerb } from './start.ts';

const GROUP_WORDS: Readonly<Record<Group, string>> = {
  make: 'Make',
  draw: 'Draw',
  place: 'Place',
  repeat: 'Repeat',
  combine: 'Combine',
  shape: 'Shape',
  cut: 'Cut',
  check: 'Check',
  output: 'Output',
  edit: 'Edit',
};
/** Short words on the bench for the kinds of snap. */
const SNAP_WORDS: Readonly<Record<SnapKind, string>> = {
  endpoint: 'end',
  midpoint: 'mid',
  centre: 'centre',
  quadrant: 'quadrant',
  'face centre': 'face centre',
  pin: 'pin',
  'on edge': 'edge',
  'on face': 'face',
  grid: 'grid',
};
const MOST_USED = ['box', 'move', 'turn', 'subtract'];

/** The strip of verbs, and at its right end the snaps and the steps. */
export function Bench() {
  const session = useSession();
  const inHand = useSessionState((state) => state.statement?.verb);
  const groups = GROUPS.filter((group) => VERBS.some((verb) => verb.group === group));
  return (
    <footer
      className="col-span-3 flex items-center gap-0.5 border-t border-rule bg-sheet px-2.5"
      aria-label="Bench"
    >
      {groups.map((group) => (
        <GroupPanel
          key={group}
          group={group}
          isInHand={inHand !== undefined && verbNamed(inHand)?.group === group}
        />
      ))}
      <span className="mx-2 h-5 w-px bg-rule" />
      {MOST_USED.map((id) => {
        const verb = verbNamed(id)!;
        return (
          <button
            key={id}
            type="button"
            className={clsx('quiet', inHand === id && 'bg-tint text-plum')}
            title={`${verb.about} (${verb.key})`}
            onClick={() => startVerb(session, verb)}
          >
            {verb.name}
          </button>
        );
      })}
      <span className="flex-1" />
      <Snaps />
      <Steps />
    </footer>
  );
}

function GroupPanel({ group, isInHand }: { group: Group; isInHand: boolean }) {
  const session = useSession();
  return (
    <Popover>
      <PopoverButton
        className={clsx(
          'rounded px-2.5 py-1.5 font-semibold hover:bg-tint data-open:bg-tint data-open:text-plum',
          isInHand && 'bg-tint text-plum',
        )}
      >
        {GROUP_WORDS[group]}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top start', gap: 10 }}
        className="menu w-[460px]"
        aria-label={`${GROUP_WORDS[group]}: verbs`}
      >
        {({ close }) => (
          <>
            {VERBS.filter((verb) => verb.group === group && verb.id !== 'change').map((verb) => (
              <button
                key={verb.id}
                type="button"
                className="menu-item"
                onClick={() => {
                  close();
                  startVerb(session, verb);
                }}
              >
                <span className="w-24 shrink-0 font-semibold">{verb.name}</span>
                <span className="flex-1 text-ink2">{verb.about}</span>
                {verb.key && <kbd className="key">{verb.key}</kbd>}
              </button>
            ))}
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}

function Toggle({
  isOn,
  word,
  title,
  toggle,
}: {
  isOn: boolean;
  word: string;
  title: string;
  toggle: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      title={title}
      className={clsx(
        'rounded px-1.5 py-0.5 text-[12px] whitespace-nowrap',
        isOn ? 'bg-paper text-ink shadow-[inset_0_-2px_var(--plum)]' : 'text-ink3',
      )}
      onClick={toggle}
    >
      {word}
    </button>
  );
}

function Snaps() {
  const session = useSession();
  const kinds = useSessionState((state) => state.snapKinds);
  const toggle = (kind: SnapKind) => {
    const next = new Set(kinds);
    if (!next.delete(kind)) next.add(kind);
    session.set({ snapKinds: next });
  };
  return (
    <>
      <div role="group" aria-label="Snaps" className="flex items-center gap-0.5">
        <span className="mr-1 text-ink2">Snaps</span>
        {SNAP_KINDS.map((kind) => (
          <Toggle
            key={kind}
            isOn={kinds.has(kind)}
            word={SNAP_WORDS[kind]}
            title={`Snap: ${kind}`}
            toggle={() => toggle(kind)}
          />
        ))}
      </div>
      <span className="mx-1.5 h-5 w-px bg-rule" />
      <Manner />
    </>
  );
}

/** How the pointer works: whether it may drag, what a rectangle takes, what steps are counted from, and what it sees. */
function Manner() {
  const session = useSession();
  const isSelectOnly = useSessionState((state) => state.isSelectOnly);
  const arePinsShown = useSessionState((state) => state.arePinsShown);
  const stepsFrom = useSessionState((state) => state.stepsFrom);
  const seeThrough = useSessionState((state) => state.seeThrough);
  const rule = useSessionState((state) => state.regionRule);
  const gripScale = useSessionState((state) => state.gripScale);
  const row = (words: string, about: string, isOn: boolean, toggle: () => void) => (
    <button type="button" role="switch" aria-checked={isOn} className="menu-item" onClick={toggle}>
      <span className="w-28 shrink-0 font-semibold">{words}</span>
      <span className="flex-1 text-ink2">{about}</span>
      <span className={clsx('w-8 text-right', isOn ? 'text-plum' : 'text-ink3')}>{isOn ? 'on' : 'off'}</span>
    </button>
  );
  return (
    <Popover>
      <PopoverButton
        className={clsx('quiet text-[12px] whitespace-nowrap', isSelectOnly && 'bg-tint text-plum')}
        title="How the pointer works"
      >
        {isSelectOnly ? 'only selects' : 'takes'} <b className="font-semibold">{rule}</b>
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'top end', gap: 10 }} className="menu w-[460px]" aria-label="Pointer">
        {row('Only select', 'Nothing can be dragged (O)', isSelectOnly, () =>
          session.set({ isSelectOnly: !isSelectOnly }),
        )}
        {row('Enclosed', 'A rectangle takes only what it encloses', rule === 'enclosed', () =>
          session.set({ regionRule: rule === 'touching' ? 'enclosed' : 'touching' }),
        )}
        {row(
          'To the grid',
          'Drags end on the grid; off: whole steps from the start',
          stepsFrom === 'grid',
          () => session.set({ stepsFrom: stepsFrom === 'grid' ? 'start' : 'grid' }),
        )}
        {row('See through', 'Also catch what stands behind a nearer face', seeThrough, () =>
          session.set({ seeThrough: !seeThrough }),
        )}
        {row('Pins', 'Show the pins', arePinsShown, () => session.set({ arePinsShown: !arePinsShown }))}
        <label className="menu-item">
          <span className="w-28 shrink-0 font-semibold">Grips</span>
          <input
            type="range"
            className="flex-1 accent-(--plum)"
            aria-label="Size of the grips"
            min={0.5}
            max={2.5}
            step={0.05}
            value={gripScale}
            onChange={(event) => session.set({ gripScale: Number(event.target.value) })}
          />
          <span className="num w-12 text-right">{Math.round(gripScale * 100)} %</span>
        </label>
      </PopoverPanel>
    </Popover>
  );
}

function Steps() {
  const scene = useSessionState((state) => state.document.scene);
  return (
    <span
      className="num border-l border-rule pl-2.5 whitespace-nowrap"
      title="Grid step and angle step; the chip in the header sets them"
    >
      {formatLengthWithUnit(scene.grid, { ...scene, trailingZeros: false })} {formatAngle(scene.angleStep)}
    </span>
  );
}
