import { Popover, PopoverButton } from '@headlessui/react';
import {
  GROUPS,
  SECTIONS,
  VERBS,
  formatAngle,
  formatLengthWithUnit,
  verbNamed,
  type Group,
  type Verb,
} from '@kadrel/core';
import clsx from 'clsx';
import { memo } from 'react';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';
import { Manner } from './Manner.tsx';
import { Select } from './Select.tsx';
import { Snaps } from './Snaps.tsx';
import { startVerb } from './start.ts';
import { useRoom } from './useRoom.ts';

const GROUP_WORDS: Readonly<Record<Group, string>> = {
  make: 'Make',
  draw: 'Draw',
  place: 'Place',
  join: 'Join',
  repeat: 'Repeat',
  combine: 'Combine',
  shape: 'Shape',
  cut: 'Cut',
  check: 'Check',
  output: 'Sheets',
  edit: 'Edit',
};
/** What stands together in one list: there is no room for a button each. */
const TOGETHER: Readonly<Partial<Record<Group, readonly Group[]>>> = {
  place: ['place', 'join'],
  shape: ['shape', 'cut'],
};
const SECOND = new Set(Object.values(TOGETHER).flatMap((groups) => groups.slice(1)));
const MAX_USED = ['box', 'move'];
const ALL_GROUPS = GROUPS.filter((group) => VERBS.some((verb) => verb.group === group));
/** What each list holds, by the group that it is called after. */
const LISTS = ALL_GROUPS.filter((group) => !SECOND.has(group)).map(
  (group) => [group, TOGETHER[group] ?? [group]] as const,
);

/** What does not change with the verb in hand: one and the same element, which React then leaves alone. */
const POINTING = (
  <>
    <Snaps />
    <span className="mx-1 h-5 w-px shrink-0 bg-rule" />
    <Select />
    <Manner />
  </>
);

/** The strip of verbs, and at its right end the snaps and the steps. With little room the verbs are in one list. */
export function Bench() {
  const session = useSession();
  const room = useRoom();
  const inHand = useSessionState((state) => state.statement?.verb);
  const groupInHand = inHand === undefined ? undefined : verbNamed(inHand)!.group;
  const isSmall = room === 'small';
  return (
    <footer
      className="flex items-center gap-0.5 overflow-x-auto border-t border-rule bg-sheet px-2.5 [scrollbar-width:thin]"
      aria-label="Bench"
    >
      {isSmall ? (
        <VerbsPanel words="Verbs" groups={ALL_GROUPS} isInHand={false} />
      ) : (
        LISTS.map(([group, groups]) => (
          <VerbsPanel
            key={group}
            words={GROUP_WORDS[group]}
            groups={groups}
            isInHand={groupInHand !== undefined && groups.includes(groupInHand)}
          />
        ))
      )}
      <span className="mx-2 h-5 w-px shrink-0 bg-rule" />
      {MAX_USED.map((id) => {
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
      {POINTING}
      {!isSmall && <Steps />}
    </footer>
  );
}

interface VerbsPanelProps {
  readonly words: string;
  readonly groups: readonly Group[];
  readonly isInHand: boolean;
}

/** Rendered anew only where its verb comes into the hand or leaves it: lists cost more than all else on the screen. */
const VerbsPanel = memo(function VerbsPanel({ words, groups, isInHand }: VerbsPanelProps) {
  const sections = SECTIONS.map(({ head, verbs }) => ({
    head: head ?? (groups.length > 1 ? GROUP_WORDS[verbs[0]!.group] : undefined),
    verbs: verbs.filter(({ id, group }) => groups.includes(group) && id !== 'change'),
  })).filter(({ verbs }) => verbs.length > 0);
  const isMany = sections.length > 1;
  return (
    <Popover>
      <PopoverButton
        className={clsx(
          'rounded px-2.5 py-1.5 font-semibold hover:bg-tint data-open:bg-tint data-open:text-plum',
          isInHand && 'bg-tint text-plum',
        )}
      >
        {words}
      </PopoverButton>
      <Panel
        label={`${words}: verbs`}
        className={isMany ? 'w-[720px]' : 'w-[500px]'}
        {...(isMany ? { share: 0.6 } : {})}
      >
        {({ close }) => (
          <div className={clsx(isMany && 'columns-[200px] gap-2')}>
            {sections.map(({ head, verbs }) => (
              <section key={verbs[0]!.id} className="mb-1 break-inside-avoid" aria-label={head}>
                {head && <h2 className="panel-title pt-1.5!">{head}</h2>}
                {verbs.map((verb) => (
                  <VerbButton key={verb.id} verb={verb} isShort={isMany} close={close} />
                ))}
              </section>
            ))}
          </div>
        )}
      </Panel>
    </Popover>
  );
});

interface VerbButtonProps {
  readonly verb: Verb;
  /** What it is about is shown when one rests on it. */
  readonly isShort: boolean;
  readonly close: () => void;
}

function VerbButton({ verb, isShort, close }: VerbButtonProps) {
  const session = useSession();
  return (
    <button
      type="button"
      className="menu-item break-inside-avoid"
      title={isShort ? verb.about : undefined}
      onClick={() => {
        close();
        startVerb(session, verb);
      }}
    >
      <span className={clsx('font-semibold', isShort ? 'flex-1' : 'w-32 shrink-0')}>{verb.name}</span>
      {!isShort && <span className="flex-1 text-ink2">{verb.about}</span>}
      {verb.key && <kbd className="key">{verb.key}</kbd>}
    </button>
  );
}

/** The chip in the header tells them too: with less room they are left out. */
function Steps() {
  const scene = useSessionState((state) => state.document.scene);
  const style = { ...scene, trailingZeros: false };
  return (
    <span
      className="num border-l border-rule pl-2.5 whitespace-nowrap max-[1459px]:sr-only"
      title="Grid step and angle step; the chip in the header sets them"
    >
      {formatLengthWithUnit(scene.grid, style)} {formatAngle(scene.angleStep)}
    </span>
  );
}
