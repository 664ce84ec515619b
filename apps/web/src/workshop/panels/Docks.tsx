/** What is joined to what, what has drifted apart, and which docks are open. */
import {
  CLOSED_DEGREES,
  formatAngle,
  formatLengthFinely,
  formatLengthWithUnit,
  type DockEnd,
  type DockPlace,
  type Joint,
  type JointReport,
  type KadrelDocument,
  type Num,
  type Scene,
} from '@kadrel/core';
import clsx from 'clsx';
import { Anchor, RotateCw, X } from 'lucide-react';
import type { MouseEvent } from 'react';
import { IconButton } from '../IconButton.tsx';
import { useBegin } from '../useBegin.ts';
import { driftedIn, typedDock } from '../../session/docks.ts';
import { useSession, useSessionState } from '../context.ts';

/** More open docks than this are counted and not listed. */
const MAX_LISTED = 60;

/** Joints, and docks that are open. */
export function Docks() {
  const session = useSession();
  useSessionState((state) => state.built);
  useSessionState((state) => state.document);
  const { joints, open } = session.docksNow().report;
  const drifted = driftedIn({ joints });
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      {joints.length > 0 && (
        <ul aria-label="Joints">
          {joints.map((one) => (
            <JointRow key={one.joint.id} report={one} />
          ))}
        </ul>
      )}
      {drifted.length > 1 && (
        <button
          type="button"
          className="quiet mx-1.5 text-bad"
          onClick={() => void session.say('close-joints', {})}
        >
          Close all {drifted.length} again
        </button>
      )}
      <OpenDocks open={open} />
      <button type="button" className="quiet mx-1.5" onClick={() => session.start('dock')}>
        New dock
      </button>
      <button type="button" className="quiet" onClick={() => session.start('join-docks')}>
        Join
      </button>
    </div>
  );
}

function JointRow({ report }: { readonly report: JointReport }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { joint, moved, isClosed, unknown } = report;
  const words = `${endWords(joint.moved, document)} on ${endWords(joint.onto, document)}`;
  return (
    <li className="group px-3 py-[3px]">
      <div className="flex items-center gap-1.5">
        <button
          type="button"
          className="min-w-0 flex-1 truncate text-left hover:text-plum"
          title={words}
          onClick={() => moved && session.select([moved.part])}
        >
          <b className="font-semibold">{joint.name}</b> {words}
        </button>
        <JointButtons joint={joint} />
      </div>
      {(report.misfit !== undefined || unknown !== undefined) && (
        <p className="text-[12px] text-bad">{unknown ?? `Does not match: ${report.misfit}`}</p>
      )}
      {!isClosed && unknown === undefined && <Drift report={report} />}
    </li>
  );
}

/** Turns what hangs by a joint, holds it, or lets go of it. */
function JointButtons({ joint }: { readonly joint: Joint }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const begin = useBegin();
  const turn = (event: MouseEvent<HTMLButtonElement>) => {
    begin(event, 'change-joint', typedJoint(joint, scene));
    // Keys turn it; what is typed goes to the first number.
    session.focus(null);
  };
  return (
    <>
      <IconButton label={`Turn ${joint.name}`} title="Turn it, or hold it off" onClick={turn}>
        <RotateCw size={13} />
      </IconButton>
      <button
        type="button"
        aria-pressed={joint.held === true}
        aria-label={`Hold ${joint.name}`}
        title="Held: what hangs on it goes along"
        className={clsx(joint.held ? 'text-plum' : 'text-ink3', 'hover:text-plum')}
        onClick={() =>
          void session.say('change-joint', { joint: joint.name, held: joint.held ? 'free' : 'held' })
        }
      >
        <Anchor size={13} />
      </button>
      <IconButton
        label={`Unjoin ${joint.name}`}
        title="Unjoin"
        onClick={() => void session.say('unjoin', { joint: joint.name })}
      >
        <X size={13} />
      </IconButton>
    </>
  );
}

/** A joint as it is now, for the statement that changes it. */
function typedJoint({ name, turn, tilt: [tiltX, tiltY], offset }: Joint, scene: Scene) {
  const numberText = (n: Num, text: (value: number) => string) =>
    n === 0 ? undefined : typeof n === 'number' ? text(n) : n.formula;
  return {
    joint: name,
    turn: numberText(turn, String),
    tiltX: numberText(tiltX, String),
    tiltY: numberText(tiltY, String),
    offset: numberText(offset, (mm) => formatLengthFinely(mm, scene)),
  };
}

/** How far a joint has come apart, and what closes it. */
function Drift({ report: { joint, gap, angle } }: { readonly report: JointReport }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const turned = angle > CLOSED_DEGREES ? ` and ${formatAngle(angle)}` : '';
  return (
    <p className="flex items-center gap-1.5 text-[12px] text-bad">
      <span className="flex-1">
        Apart by {formatLengthWithUnit(gap, scene)}
        {turned}
      </span>
      <button
        type="button"
        className="quiet"
        onClick={() => void session.say('close-joints', { joint: joint.name })}
      >
        Close again
      </button>
    </p>
  );
}

/** Docks that nothing is joined to: a click begins to join one. */
function OpenDocks({ open }: { readonly open: readonly DockPlace[] }) {
  const session = useSession();
  const items = useSessionState((state) => state.document.items);
  if (open.length === 0) return null;
  return (
    <details className="px-3 py-1">
      <summary className="cursor-pointer text-ink2">Still open: {open.length}</summary>
      <ul aria-label="Open docks">
        {open.slice(0, MAX_LISTED).map((place) => (
          <li key={`${place.end.of} ${place.end.dock} ${place.end.member ?? ''}`}>
            <button
              type="button"
              className="w-full truncate text-left hover:text-plum"
              title="Join it"
              onClick={() => session.start('join-docks', { dock: typedDock(place) })}
            >
              {items[place.part]?.name} · {place.dock.name}
              {place.dock.kind !== '' && <span className="text-ink2"> ({place.dock.kind})</span>}
            </button>
          </li>
        ))}
      </ul>
      {open.length > MAX_LISTED && <p className="text-ink2">and {open.length - MAX_LISTED} more</p>}
    </details>
  );
}

function endWords({ of, dock, member }: DockEnd, { items }: KadrelDocument): string {
  const item = items[of];
  return `${item?.name ?? ''}${member === undefined ? '' : ` ${member}`} · ${item?.docks?.[dock]?.name ?? ''}`;
}
