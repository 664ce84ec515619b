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
const MOST_USED = ['box', 'cylinder', 'move', 'turn', 'subtract'];

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
  const seeThrough = useSessionState((state) => state.seeThrough);
  const rule = useSessionState((state) => state.regionRule);
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
        <Toggle
          isOn={seeThrough}
          word="see through"
          title="Also catch what stands behind a nearer face"
          toggle={() => session.set({ seeThrough: !seeThrough })}
        />
      </div>
      <span className="mx-1.5 h-5 w-px bg-rule" />
      <Manner />
      <button
        type="button"
        className="quiet text-[12px] whitespace-nowrap"
        title="What a selection rectangle takes"
        onClick={() => session.set({ regionRule: rule === 'touching' ? 'enclosed' : 'touching' })}
      >
        takes <b className="font-semibold">{rule}</b>
      </button>
    </>
  );
}

/** How the pointer works: whether it may drag, whether pins are shown, and what steps are counted from. */
function Manner() {
  const session = useSession();
  const isSelectOnly = useSessionState((state) => state.isSelectOnly);
  const arePinsShown = useSessionState((state) => state.arePinsShown);
  const hasPins = useSessionState((state) => Object.keys(state.document.pins).length > 0);
  const stepsFrom = useSessionState((state) => state.stepsFrom);
  return (
    <div role="group" aria-label="Pointer" className="flex items-center gap-0.5">
      <Toggle
        isOn={isSelectOnly}
        word="only select"
        title="Nothing can be dragged (O)"
        toggle={() => session.set({ isSelectOnly: !isSelectOnly })}
      />
      {hasPins && (
        <Toggle
          isOn={arePinsShown}
          word="pins"
          title="Show the pins"
          toggle={() => session.set({ arePinsShown: !arePinsShown })}
        />
      )}
      <button
        type="button"
        className="quiet text-[12px] whitespace-nowrap"
        title="Drags go to points of the grid, or by whole steps from where they began"
        onClick={() => session.set({ stepsFrom: stepsFrom === 'grid' ? 'start' : 'grid' })}
      >
        steps from <b className="font-semibold">{stepsFrom}</b>
      </button>
    </div>
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
