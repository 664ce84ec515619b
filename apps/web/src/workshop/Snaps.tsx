/** The snaps on the bench: the most used as words, all of them in a panel with what may be caught. */
import { Popover, PopoverButton } from '@headlessui/react';
import { SNAP_KINDS, formatLength, type SnapKind } from '@kadrel/core';
import clsx from 'clsx';
import { useState } from 'react';
import { FORCING_KEYS, type Manner } from '../session/manner.ts';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';
import { useRoom } from './useRoom.ts';
import { ChoiceRow, SwitchRow, Toggle } from './toggles.tsx';

interface KindWords {
  /** On the bench. */
  readonly word: string;
  readonly about: string;
}
const KINDS: Readonly<Record<SnapKind, KindWords>> = {
  endpoint: { word: 'end', about: 'corners and ends of edges' },
  midpoint: { word: 'mid', about: 'middles of edges' },
  centre: { word: 'centre', about: 'of circles, arcs, ellipses, balls' },
  quadrant: { word: 'quadrant', about: 'in the curve’s own axes' },
  'face centre': { word: 'face centre', about: 'of flat faces' },
  intersection: { word: 'crossing', about: 'edge with edge, face, work plane' },
  apparent: { word: 'apparent', about: 'edges that cross in this view' },
  divide: { word: 'divide', about: 'n-ths of an edge, or a length' },
  'part centre': { word: 'part centre', about: 'middle of a part’s box' },
  'mass centre': { word: 'mass centre', about: 'centre of mass of a part' },
  datum: { word: 'datum', about: 'of a part' },
  'box point': { word: 'box point', about: 'corners, edges, sides of its box' },
  pin: { word: 'pin', about: 'points that you placed' },
  dock: { word: 'dock', about: 'joining places of parts' },
  origin: { word: 'origin', about: 'of the world' },
  perpendicular: { word: 'square', about: 'foot from the from-point' },
  tangent: { word: 'tangent', about: 'on a circle, from the from-point' },
  parallel: { word: 'parallel', about: 'to a touched edge, through the from-point' },
  guide: { word: 'guides', about: 'rays from what you rest on' },
  'half-way': { word: 'half-way in', about: 'middle of the material' },
  'on edge': { word: 'edge', about: 'anywhere on an edge' },
  'on face': { word: 'face', about: 'anywhere on a face' },
  'on plane': { word: 'plane', about: 'anywhere on the work plane' },
  grid: { word: 'grid', about: 'points of the grid' },
};
const ON_THE_BENCH: readonly SnapKind[] = [
  'endpoint',
  'midpoint',
  'centre',
  'quadrant',
  'intersection',
  'guide',
  'on edge',
  'on face',
  'grid',
];
const KEY_OF = new Map(Object.entries(FORCING_KEYS).map(([key, kind]) => [kind, key]));

function useToggle() {
  const session = useSession();
  const kinds = useSessionState((state) => state.snapKinds);
  const toggle = (kind: SnapKind) => {
    const next = new Set(kinds);
    if (!next.delete(kind)) next.add(kind);
    session.set({ snapKinds: next });
  };
  return { kinds, toggle };
}

/** What the pointer may catch. */
export function Snaps() {
  const { kinds, toggle } = useToggle();
  const forced = useSessionState((state) => state.forced);
  const isWide = useRoom() === 'wide';
  return (
    <div role="group" aria-label="Snaps" className="flex items-center gap-0.5">
      <Popover>
        <PopoverButton
          className={clsx('quiet text-[12px] whitespace-nowrap', forced && 'bg-tint text-plum')}
          title="All snaps, and what may be caught"
        >
          Snaps{forced && <b className="font-semibold">: {KINDS[forced].word} once</b>}
        </PopoverButton>
        <Panel label="Snaps: kinds and what may be caught" className="w-[700px]">
          <Kinds />
          <hr className="my-1.5 border-rule" />
          <Scope />
        </Panel>
      </Popover>
      {isWide &&
        ON_THE_BENCH.map((kind) => (
          <Toggle
            key={kind}
            isOn={kinds.has(kind)}
            word={KINDS[kind].word}
            title={`Snap: ${kind}, ${KINDS[kind].about}`}
            toggle={() => toggle(kind)}
          />
        ))}
    </div>
  );
}

/** Every kind with a toggle, and a button that forces it for one pick. */
function Kinds() {
  const { kinds, toggle } = useToggle();
  return (
    <div className="grid grid-cols-2 gap-x-3 px-3 pt-1">
      {SNAP_KINDS.map((kind) => (
        <div key={kind} className="flex items-center gap-1.5 py-px">
          <span className="w-[82px] shrink-0">
            <Toggle
              isOn={kinds.has(kind)}
              word={KINDS[kind].word}
              title={`${kind}: on or off`}
              toggle={() => toggle(kind)}
            />
          </span>
          <span className="flex-1 truncate text-[12px] text-ink2" title={KINDS[kind].about}>
            {KINDS[kind].about}
          </span>
          <Once kind={kind} />
        </div>
      ))}
    </div>
  );
}

function Once({ kind }: { kind: SnapKind }) {
  const session = useSession();
  const isForced = useSessionState((state) => state.forced === kind);
  const key = KEY_OF.get(kind);
  return (
    <button
      type="button"
      aria-pressed={isForced}
      aria-label={`${kind}, once`}
      className={clsx(
        'rounded px-1 text-[11px] whitespace-nowrap hover:bg-tint',
        isForced ? 'bg-tint text-plum' : 'text-ink2',
      )}
      title="Only this kind for the next pick"
      onClick={() => session.set({ forced: isForced ? null : kind })}
    >
      once{key && <kbd className="key ml-1">⇧{key}</kbd>}
    </button>
  );
}

/** What may be caught, and what the kinds with a number mean. */
function Scope() {
  const session = useSession();
  const manner = useSessionState((state) => state.manner);
  const seeThrough = useSessionState((state) => state.seeThrough);
  const set = (change: Partial<Manner>) => session.setManner(change);
  return (
    <>
      <ChoiceRow
        label="Catch on"
        value={manner.catching}
        options={[
          ['all', 'every part'],
          ['selected', 'selected parts'],
          ['others', 'all but the selected'],
        ]}
        choose={(catching) => set({ catching })}
      />
      <ChoiceRow
        label="Half-way in"
        value={manner.halfWay}
        options={[
          ['part', 'the part under the pointer'],
          ['all', 'everything under the pointer'],
        ]}
        choose={(halfWay) => set({ halfWay })}
      />
      <DivideRow />
      <div className="flex items-center px-3 py-1" role="group" aria-label="Snaps serve">
        <span className="w-28 shrink-0 font-semibold">Serve</span>
        {(['move', 'turn', 'resize'] as const).map((verb) => (
          <Toggle
            key={verb}
            isOn={manner.serves[verb]}
            word={verb}
            title={`Snaps serve ${verb}`}
            toggle={() => set({ serves: { ...manner.serves, [verb]: !manner.serves[verb] } })}
          />
        ))}
      </div>
      <SwitchRow
        words="See through"
        about="Also catch what stands behind a nearer face"
        isOn={seeThrough}
        toggle={() => session.set({ seeThrough: !seeThrough })}
      />
      <SwitchRow
        words="Locked parts"
        about="May be caught too"
        isOn={manner.catchLocked}
        toggle={() => set({ catchLocked: !manner.catchLocked })}
      />
      <SwitchRow
        words="Stay on part"
        about="A pick stays on the part that the pointer has rested on (once: ⇧Y)"
        isOn={manner.stayOnPart}
        toggle={() => set({ stayOnPart: !manner.stayOnPart })}
      />
    </>
  );
}

/** Into how many pieces, or at which length from the near end. */
function DivideRow() {
  const session = useSession();
  const { divide } = useSessionState((state) => state.manner);
  const scene = useSessionState((state) => state.document.scene);
  const [isBad, setIsBad] = useState(false);
  const isAt = 'at' in divide;
  const read = (text: string) => {
    const into = /^\d+$/.test(text.trim()) ? Number(text) : 0;
    const at = session.readLength(text);
    const isGood = isAt ? at !== undefined && at > 0 : into >= 2;
    setIsBad(!isGood);
    if (isGood) session.setManner({ divide: isAt ? { at: at! } : { into } });
  };
  return (
    <div className="flex items-center gap-2 pr-3">
      <ChoiceRow
        label="Divide"
        value={isAt ? 'at' : 'into'}
        options={[
          ['into', 'into equal pieces'],
          ['at', 'at a length from the near end'],
        ]}
        choose={(how) => session.setManner({ divide: how === 'at' ? { at: 10 } : { into: 2 } })}
      />
      <input
        key={String(isAt)}
        className="field num w-24"
        aria-label={isAt ? 'Length from the near end' : 'Pieces'}
        aria-invalid={isBad}
        title={isBad ? (isAt ? 'A length more than zero.' : 'A whole number from 2 up.') : undefined}
        defaultValue={isAt ? formatLength(divide.at, scene) : divide.into}
        onChange={(event) => read(event.target.value)}
      />
    </div>
  );
}
