import clsx from 'clsx';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { SectionView, ViewState } from '@kadrel/core';
import type { Pane } from '../viewport/pane.ts';
import { Pointer } from '../viewport/pointer.ts';
import type { Stage } from '../viewport/stage.ts';
import { ViewCaption } from './ViewCaption.tsx';

const PANES: readonly {
  readonly name: string;
  readonly view: SectionView;
  readonly first: Partial<ViewState>;
}[] = [
  { name: 'Plan', view: 'plan', first: { bearing: 0, altitude: 90, projection: 'parallel' } },
  { name: 'Home', view: 'home', first: {} },
  { name: 'Front', view: 'front', first: { bearing: 0, altitude: 0, projection: 'parallel' } },
  { name: 'Right', view: 'right', first: { bearing: 90, altitude: 0, projection: 'parallel' } },
];
const HOME_PANE = 1;
/** The splits stay this far from the rim. */
const MIN_SHARE = 0.15;

interface ViewsProps {
  readonly stage: Stage;
  readonly isFour: boolean;
  readonly setIsFour: (isFour: boolean) => void;
  readonly onReady: () => void;
}

/** One view, or four with splits that can be dragged. What one sees of the model is drawn on the canvas below. */
export function Views({ stage, isFour, setIsFour, onReady }: ViewsProps) {
  const [split, setSplit] = useState({ x: 0.5, y: 0.5 });
  const [active, setActive] = useState(HOME_PANE);
  useEffect(() => {
    stage.panes.activate(stage.panes.all[HOME_PANE]!);
    const pointer = new Pointer(stage);
    stage.panes.all.forEach((pane) => pointer.connect(pane));
    const stop = stage.panes.onCamera(() => setActive(stage.panes.all.indexOf(stage.panes.active)));
    onReady();
    return () => {
      stop();
      pointer.dispose();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each stage
  }, [stage]);
  const isShown = (i: number) => isFour || i === active;
  const place = (i: number) =>
    isFour
      ? {
          left: i % 2 === 0 ? 0 : `${split.x * 100}%`,
          top: i < 2 ? 0 : `${split.y * 100}%`,
          width: `${(i % 2 === 0 ? split.x : 1 - split.x) * 100}%`,
          height: `${(i < 2 ? split.y : 1 - split.y) * 100}%`,
        }
      : { left: 0, top: 0, width: '100%', height: '100%' };
  return (
    <>
      {PANES.map(({ name, view, first }, i) => (
        <PaneHost
          key={name}
          stage={stage}
          name={name}
          view={view}
          first={first}
          isShown={isShown(i)}
          isFramed={isFour && i === active}
          place={place(i)}
          isFour={isFour}
          toggle={() => setIsFour(!isFour)}
        />
      ))}
      {isFour && (
        <>
          <Split axis="x" at={split.x} set={(x) => setSplit({ ...split, x })} />
          <Split axis="y" at={split.y} set={(y) => setSplit({ ...split, y })} />
        </>
      )}
    </>
  );
}

interface PaneHostProps {
  readonly stage: Stage;
  readonly name: string;
  readonly view: SectionView;
  readonly first: Partial<ViewState>;
  readonly isShown: boolean;
  readonly isFramed: boolean;
  readonly isFour: boolean;
  readonly place: React.CSSProperties;
  readonly toggle: () => void;
}

function PaneHost({ stage, name, view, first, isShown, isFramed, isFour, place, toggle }: PaneHostProps) {
  const host = useRef<HTMLDivElement>(null);
  const [pane, setPane] = useState<Pane | null>(null);
  useEffect(() => {
    if (host.current) setPane(stage.panes.add(host.current, view, first));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each stage
  }, [stage]);
  return (
    <div
      ref={host}
      className={clsx(
        'absolute overflow-hidden',
        !isShown && 'hidden',
        isFramed && 'inset-ring-1 inset-ring-plum',
      )}
      style={place}
      role="group"
      aria-label={`View: ${name}`}
      data-pane={name}
    >
      {pane && <ViewCaption pane={pane} isFour={isFour} toggle={toggle} />}
    </div>
  );
}

/** A bar between views, dragged or moved by the arrow keys. */
function Split({ axis, at, set }: { axis: 'x' | 'y'; at: number; set: (at: number) => void }) {
  const within = (share: number) => set(Math.max(MIN_SHARE, Math.min(1 - MIN_SHARE, share)));
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const { left, top, width, height } = event.currentTarget.parentElement!.getBoundingClientRect();
    within(axis === 'x' ? (event.clientX - left) / width : (event.clientY - top) / height);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -0.05, ArrowUp: -0.05, ArrowRight: 0.05, ArrowDown: 0.05 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    within(at + step);
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-label={axis === 'x' ? 'Split between left and right' : 'Split between upper and lower'}
      aria-orientation={axis === 'x' ? 'vertical' : 'horizontal'}
      aria-valuenow={Math.round(at * 100)}
      className={clsx(
        'absolute z-10 before:absolute before:bg-rule hover:before:bg-plum focus-visible:before:bg-plum',
        axis === 'x'
          ? 'top-0 h-full w-2 -translate-x-1/2 cursor-col-resize before:left-[3px] before:h-full before:w-[2px]'
          : 'left-0 h-2 w-full -translate-y-1/2 cursor-row-resize before:top-[3px] before:h-[2px] before:w-full',
      )}
      style={axis === 'x' ? { left: `${at * 100}%` } : { top: `${at * 100}%` }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={drag}
      onKeyDown={onKeyDown}
    />
  );
}
