import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { GROUPS, VERBS, formatAngle, formatLengthWithUnit, verbNamed, type Group } from '@kadrel/core';
import clsx from 'clsx';
import { useSession, useSessionState } from './context.ts';
import { Manner } from './Manner.tsx';
import { Select } from './Select.tsx';
import { Snaps } from './Snaps.tsx';
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
const MOST_USED = ['box', 'move'];

/** The strip of verbs, and at its right end the snaps and the steps. */
export function Bench() {
  const session = useSession();
  const inHand = useSessionState((state) => state.statement?.verb);
  const groups = GROUPS.filter((group) => VERBS.some((verb) => verb.group === group));
  return (
    <footer className="flex items-center gap-0.5 border-t border-rule bg-sheet px-2.5" aria-label="Bench">
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
      <span className="mx-1 h-5 w-px bg-rule" />
      <Select />
      <Manner />
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
        className="menu w-[500px]"
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
                <span className="w-32 shrink-0 font-semibold">{verb.name}</span>
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
